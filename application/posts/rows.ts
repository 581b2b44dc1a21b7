import { tr, word } from '../../core/locale/translate';
import type { Layout, TestDefinition } from '../../core/catalogue/types';
import type { Position } from '../../core/judge/types';
import { arrange, type BankRow, describeNumbering, type Engine } from '../../core/engine/layout';

export interface Row {
  readonly title: string;
  readonly positions: readonly Position[];
}

const NAMES: Readonly<Record<BankRow['bank'], string>> = { inline: 'In line', left: 'Left bank', right: 'Right bank' };
const MOST_IN_A_ROW = 8;
const TITLES: Readonly<Partial<Record<Layout, string>>> = {
  pins: 'Pins',
  pairs: 'Pairs',
  states: 'States',
  change: 'Before and after',
  sweep: 'From stop to stop',
};

/** Named positions in rows of nearly equal length. */
function namedRows(positions: readonly Position[], title: string): Row[] {
  const rows = Math.ceil(positions.length / MOST_IN_A_ROW);
  const each = Math.ceil(positions.length / rows);
  return Array.from({ length: rows }, (_, i) => ({
    title: rows === 1 ? title : tr`${title}, ${i + 1} of ${rows}`,
    positions: positions.slice(i * each, (i + 1) * each),
  }));
}

/** The engine's rows as they are drawn; a long inline row is split so that posts stay wide enough to tap. */
export function rowsOf(engine: Engine, test?: TestDefinition): Row[] {
  if (test && test.positions !== 'cylinders') return namedRows(test.positions, TITLES[test.layout] ?? test.area);
  return arrange(engine).flatMap(({ bank, cylinders }): Row[] => {
    const name = NAMES[bank];
    if (cylinders.length <= MOST_IN_A_ROW) return [{ title: name, positions: cylinders }];
    const half = Math.ceil(cylinders.length / 2);
    return [
      { title: tr`${name}, front half`, positions: cylinders.slice(0, half) },
      { title: tr`${name}, rear half`, positions: cylinders.slice(half) },
    ];
  });
}

/** What stands over a row: the numbering over the first, the firing order over the last. */
export function noteOf(engine: Engine, index: number, rows: number, test?: TestDefinition): string {
  if (test && test.positions !== 'cylinders') return '';
  const numbering = tr`front to the left; ${describeNumbering(engine)}`;
  const fires = engine.firingOrder ? tr`fires ${engine.firingOrder.join('-')}` : '';
  if (rows === 1) return [numbering, fires].filter(Boolean).map(word).join(', ');
  return index === 0 ? numbering : index === rows - 1 ? fires : '';
}
