import { tr } from '../core/locale/translate';
import { fail, ok, type Problem, type Result } from '../core/foundation/result';
import { type Role, ROLES } from '../core/foundation/vocabulary';
import { active, inert, readTable, writeTable } from './table';
import { readTableYes, tableYes } from './table-values';

/** A person as a list says them. No list that is written holds a PIN: one is read for whoever is new. */
export interface PersonEntry {
  readonly line: number;
  readonly name: string;
  readonly role: Role;
  /** By name; `null`: works for every depot. */
  readonly depot: string | null;
  readonly signsIn: boolean;
  readonly pin: string | null;
}

export const PERSON_COLUMNS = ['name', 'role', 'depot', 'signs_in', 'pin'] as const;
type Column = (typeof PERSON_COLUMNS)[number];
const NEEDED = ['name', 'role', 'depot'] as const;
/** Whoever works for every depot says so: an empty cell was more likely forgotten. */
export const ALL_DEPOTS = 'all depots';
const MOST_ROWS = 5000;
const LONGEST = { name: 60, depot: 60 } as const;
/** How a spreadsheet writes a long number; what it stood for is lost. */
const SHORTENED = /^\d([.,]\d+)?E\+\d+$/i;

/** People of a table. Fails with every problem; its path begins with the line: `/line 4/role`. */
export function readPeopleCsv(text: string): Result<readonly PersonEntry[]> {
  const table = readTable(text, NEEDED, MOST_ROWS, PERSON_COLUMNS);
  if (!table.ok) return table;
  const problems: Problem[] = [];
  const entries = table.value.map(({ line, cells }): PersonEntry => {
    const wrong = (column: Column, message: string): void => {
      problems.push({ path: `/line ${line}/${column}`, message });
    };
    const cellOf = (column: Column): string => active(cells[column] ?? '').trim();
    for (const column of ['name', 'depot'] as const)
      if (cellOf(column).length > LONGEST[column]) wrong(column, tr`At most ${LONGEST[column]} characters.`);
    if (cellOf('name') === '') wrong('name', 'Nothing stands here.');
    if (cellOf('depot') === '') wrong('depot', tr`Which depot? Write "${ALL_DEPOTS}" for whoever works for all.`);
    const role = ROLES.find((r) => r === cellOf('role').toLowerCase());
    if (!role) wrong('role', tr`Must be one of ${ROLES.join(', ')}.`);
    const signsIn = readTableYes(cellOf('signs_in'), true);
    if (!signsIn.ok) wrong('signs_in', signsIn.error);
    // As it is: whoever is to type it types all of it.
    const pin = cells.pin ?? '';
    if (SHORTENED.test(pin)) wrong('pin', tr`A spreadsheet has shortened this number to "${pin}".`);
    return {
      line,
      name: cellOf('name'),
      role: role ?? 'viewer',
      depot: cellOf('depot').toLowerCase() === ALL_DEPOTS ? null : cellOf('depot'),
      signsIn: !signsIn.ok || signsIn.value,
      pin: pin === '' ? null : pin,
    };
  });
  return problems.length ? fail(problems) : ok(entries);
}

/** The list that can be taken in again, with room for the PINs of those who are added to it. */
export const writePeopleCsv = (people: readonly Omit<PersonEntry, 'line' | 'pin'>[]): string =>
  writeTable(
    people.map((p) => ({
      name: inert(p.name),
      role: p.role,
      depot: p.depot === null ? ALL_DEPOTS : inert(p.depot),
      signs_in: tableYes(p.signsIn),
    })),
    PERSON_COLUMNS,
  );
