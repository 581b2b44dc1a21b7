import { arrange, type BankRow, describeNumbering, type Engine } from '../../core/engine/layout';

export interface Row {
  readonly title: string;
  readonly cylinders: readonly number[];
}

const NAMES: Readonly<Record<BankRow['bank'], string>> = { inline: 'In line', left: 'Left bank', right: 'Right bank' };
const MOST_IN_A_ROW = 8;

/** The engine's rows as they are drawn; a long inline row is split so that posts stay wide enough to tap. */
export function rowsOf(engine: Engine): Row[] {
  return arrange(engine).flatMap(({ bank, cylinders }): Row[] => {
    const name = NAMES[bank];
    if (cylinders.length <= MOST_IN_A_ROW) return [{ title: name, cylinders }];
    const half = Math.ceil(cylinders.length / 2);
    return [{ title: `${name}, front half`, cylinders: cylinders.slice(0, half) }, { title: `${name}, rear half`, cylinders: cylinders.slice(half) }];
  });
}

/** What stands over a row: the numbering over the first, the firing order over the last. */
export function noteOf(engine: Engine, index: number, rows: number): string {
  const numbering = `front to the left; ${describeNumbering(engine)}`;
  const fires = engine.firingOrder ? `fires ${engine.firingOrder.join('-')}` : '';
  if (rows === 1) return [numbering, fires].filter(Boolean).join(', ');
  return index === 0 ? numbering : index === rows - 1 ? fires : '';
}
