import { tr } from '../core/locale/translate';
import { fail, ok, type Problem, type Result } from '../core/foundation/result';
import { active, inert, readTable, writeTable } from './table';

/** A unit as a list says it: depot and engine family by their names. */
export interface UnitEntry {
  readonly line: number;
  readonly fleetNumber: string;
  readonly kind: string;
  readonly depot: string;
  readonly family: string;
}

export const UNIT_COLUMNS = ['fleet_number', 'kind', 'depot', 'family'] as const;
const MOST_ROWS = 5000;
const LONGEST: Readonly<Record<(typeof UNIT_COLUMNS)[number], number>> = {
  fleet_number: 30,
  kind: 60,
  depot: 60,
  family: 30,
};

export const unitKey = (e: UnitEntry): string => `unit/${e.fleetNumber}`;

/** Units of a table. Fails with every problem; its path begins with the line: `/line 4/kind`. */
export function readUnitsCsv(text: string): Result<readonly UnitEntry[]> {
  const table = readTable(text, UNIT_COLUMNS, MOST_ROWS, UNIT_COLUMNS);
  if (!table.ok) return table;
  const problems: Problem[] = [];
  const entries = table.value.map(({ line, cells }): UnitEntry => {
    const cell = (column: (typeof UNIT_COLUMNS)[number]): string => {
      const value = active(cells[column] ?? '').trim();
      const path = `/line ${line}/${column}`;
      if (!value) problems.push({ path, message: 'Nothing stands here.' });
      else if (value.length > LONGEST[column])
        problems.push({ path, message: tr`At most ${LONGEST[column]} characters.` });
      return value;
    };
    return {
      line,
      fleetNumber: cell('fleet_number'),
      kind: cell('kind'),
      depot: cell('depot'),
      family: cell('family'),
    };
  });
  return problems.length ? fail(problems) : ok(entries);
}

export const writeUnitsCsv = (
  units: readonly { fleetNumber: string; kind: string; depot: string; family: string }[],
): string =>
  writeTable(
    units.map((u) => ({
      fleet_number: inert(u.fleetNumber),
      kind: inert(u.kind),
      depot: inert(u.depot),
      family: inert(u.family),
    })),
    UNIT_COLUMNS,
  );
