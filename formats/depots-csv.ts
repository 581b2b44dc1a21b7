import { tr } from '../core/locale/translate';
import { fail, ok, type Problem, type Result } from '../core/foundation/result';
import { active, inert, readTable, writeTable } from './table';
import { readTableYes, tableYes } from './table-values';

/** A depot as a list says it. */
export interface DepotEntry {
  readonly line: number;
  readonly name: string;
  /** Of the IANA database. */
  readonly timeZone: string;
  /** ISO 4217; `null`: the list does not say. */
  readonly currency: string | null;
  readonly inUse: boolean;
}

export const DEPOT_COLUMNS = ['name', 'time_zone', 'currency', 'in_use'] as const;
type Column = (typeof DEPOT_COLUMNS)[number];
const NEEDED = ['name', 'time_zone'] as const;
const MOST_ROWS = 1000;
const LONGEST = 60;

/** Depots of a table. Fails with every problem; its path begins with the line: `/line 4/time_zone`. */
export function readDepotsCsv(text: string): Result<readonly DepotEntry[]> {
  const table = readTable(text, NEEDED, MOST_ROWS, DEPOT_COLUMNS);
  if (!table.ok) return table;
  const problems: Problem[] = [];
  const entries = table.value.map(({ line, cells }): DepotEntry => {
    const wrong = (column: Column, message: string): void => {
      problems.push({ path: `/line ${line}/${column}`, message });
    };
    const cellOf = (column: Column): string => active(cells[column] ?? '').trim();
    for (const column of NEEDED) {
      if (cellOf(column) === '') wrong(column, 'Nothing stands here.');
      else if (cellOf(column).length > LONGEST) wrong(column, tr`At most ${LONGEST} characters.`);
    }
    const currency = cellOf('currency').toUpperCase();
    if (currency !== '' && !/^[A-Z]{3}$/.test(currency))
      wrong('currency', 'Three capital letters, as in EUR (ISO 4217).');
    const inUse = readTableYes(cellOf('in_use'), true);
    if (!inUse.ok) wrong('in_use', inUse.error);
    return {
      line,
      name: cellOf('name'),
      timeZone: cellOf('time_zone'),
      currency: currency === '' ? null : currency,
      inUse: !inUse.ok || inUse.value,
    };
  });
  return problems.length ? fail(problems) : ok(entries);
}

export const writeDepotsCsv = (depots: readonly Omit<DepotEntry, 'line'>[]): string =>
  writeTable(
    depots.map((d) => ({
      name: inert(d.name),
      time_zone: d.timeZone,
      currency: d.currency ?? '',
      in_use: tableYes(d.inUse),
    })),
    DEPOT_COLUMNS,
  );
