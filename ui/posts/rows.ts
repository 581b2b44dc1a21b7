import type { TestDefinition } from '../../core/catalogue/types';
import type { Position } from '../../core/judge/types';
import { arrange, type BankRow, describeNumbering, type Engine } from '../../core/engine/layout';

export interface Row {
  readonly title: string;
  readonly positions: readonly Position[];
}

const NAMES: Readonly<Record<BankRow['bank'], string>> = { inline: 'In line', left: 'Left bank', right: 'Right bank' };
const MOST_IN_A_ROW = 8;

/** The engine's rows as they are drawn; a long inline row is split so that posts stay wide enough to tap. */
export function rowsOf(engine: Engine, test?: TestDefinition): Row[] {
  if (test && test.positions !== 'cylinders') return [{ title: test.area, positions: test.positions }];
  return arrange(engine).flatMap(({ bank, cylinders }): Row[] => {
    const name = NAMES[bank];
    if (cylinders.length <= MOST_IN_A_ROW) return [{ title: name, positions: cylinders }];
    const half = Math.ceil(cylinders.length / 2);
    return [{ title: `${name}, front half`, positions: cylinders.slice(0, half) }, { title: `${name}, rear half`, positions: cylinders.slice(half) }];
  });
}

/** What stands over a row: the numbering over the first, the firing order over the last. */
export function noteOf(engine: Engine, index: number, rows: number, test?: TestDefinition): string {
  if (test && test.positions !== 'cylinders') return '';
  const numbering = `front to the left; ${describeNumbering(engine)}`;
  const fires = engine.firingOrder ? `fires ${engine.firingOrder.join('-')}` : '';
  if (rows === 1) return [numbering, fires].filter(Boolean).join(', ');
  return index === 0 ? numbering : index === rows - 1 ? fires : '';
}
