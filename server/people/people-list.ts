import { tr } from '../../core/locale/translate';
import { v5 } from 'uuid';
import type { PeoplePlan, PersonView } from '../../application/views';
import { fail, ok, type Problem, type Result } from '../../core/foundation/result';
import type { PersonEntry } from '../../formats/people-csv';
import { type ProblemDetails, problemDetails } from '../../formats/problem';
import { ADD_PERSON, type AddPerson } from '../../formats/requests/people';
import { schema } from '../../formats/schemas';
import { namedInTable } from '../../formats/table-values';
import { validate } from '../../formats/validate';
import { LOOK } from '../db/all-or-nothing';
import { type Db, type Tx, within } from '../db/connection';
import type { Done } from '../db/refusal';
import { depot } from '../db/schema';
import { takeList } from '../db/take-list';
import type { Actor } from '../policy/actor';
import { changePerson, keepPerson, listPersons, onlyOwn, usernameFor } from './people';
import { hashPin, weakPin } from './pin';

/** A row of the list beside whoever is there under that name. */
interface Row {
  readonly entry: PersonEntry;
  /** `null`: every depot. */
  readonly depot: { readonly id: string; readonly name: string } | null;
  readonly there: PersonView | undefined;
  readonly action: 'new' | 'change' | 'unchanged';
  readonly id: string;
}
/** Each PIN is kept by a sum that is costly on purpose: more of them would hold up whoever sent the list. */
const MOST_NEW = 100;
/** The column of a field. */
const COLUMNS: Readonly<Record<string, string>> = {
  '/name': '/name',
  '/role': '/role',
  '/pin': '/pin',
  '/retired': '/signs_in',
};
const columnOf = (path: string): string => COLUMNS[path] ?? '/depot';
const check = schema<AddPerson>(ADD_PERSON);

/**
 * People of a list. Without `batch`: what it would do. With it: does it, all or nothing. One who is there
 * under the name is changed to what the list says, and keeps the PIN: a list that could try a PIN would tell
 * whose it is. Problems stand at the line.
 */
export async function importPeople(
  db: Db,
  entries: readonly PersonEntry[],
  actor: Actor,
  batch: string | null,
): Promise<Result<PeoplePlan, ProblemDetails>> {
  const found = await rowsOf(db, entries, batch ?? LOOK);
  if (!found.ok) return fail(problemDetails('This list cannot be taken.', found.error));
  const rows = found.value;
  const plan = rows.map(({ entry, depot: at, action }) => ({
    name: entry.name,
    role: entry.role,
    depot: at?.name ?? null,
    signsIn: entry.signsIn,
    action,
  }));
  // Before the transaction, and one after the other: whoever signs in meanwhile waits for one of them at
  // most.
  const passwords = new Map<Row, string>();
  for (const row of rows)
    if (row.action === 'new')
      passwords.set(row, batch === null ? 'looked at only' : await hashPin(row.entry.pin ?? ''));
  return takeList(db, {
    // The last lead may go where another one comes.
    rows: [...rows].sort((a, b) => Number(isLeadOfAll(b)) - Number(isLeadOfAll(a))),
    plan,
    take: (tx, row) => take(tx, row, passwords.get(row) ?? '', actor),
    columnOf,
    onlyLook: batch === null,
  });
}

const isLeadOfAll = ({ entry, depot: at }: Row): boolean => entry.role === 'lead' && at === null && entry.signsIn;

async function rowsOf(db: Db, entries: readonly PersonEntry[], batch: string): Promise<Result<Row[]>> {
  const [depots, persons] = await Promise.all([
    db.select({ id: depot.id, name: depot.name }).from(depot),
    listPersons(db),
  ]);
  const byKey = new Map(persons.map((p) => [usernameFor(p.name), p]));
  const problems: Problem[] = [];
  const seen = new Map<string, number>();
  const rows = entries.flatMap((entry): Row[] => {
    const wrong = (column: string, message: string): void => {
      problems.push({ path: `/line ${entry.line}/${column}`, message });
    };
    const key = usernameFor(entry.name);
    const before = seen.get(key);
    if (before !== undefined) wrong('name', tr`This person stands in line ${before} already.`);
    seen.set(key, entry.line);
    const at = entry.depot === null ? null : namedInTable(depots, (d) => d.name, entry.depot);
    if (at === undefined) wrong('depot', tr`There is no depot "${entry.depot ?? ''}". Add it first.`);
    const there = byKey.get(key);
    const id = there?.id ?? v5(`person/${key}`, batch);
    // Added by this very list, whose answer was lost.
    const isOwn = there !== undefined && there.id === v5(`person/${key}`, batch);
    if (!there) for (const p of problemsOfNew(entry, at?.id ?? null, id)) wrong(p.path.slice(1), p.message);
    else if (entry.pin !== null && !isOwn)
      wrong('pin', tr`${there.name} is here already and keeps the PIN: leave it empty here, or change it by itself.`);
    if (at === undefined) return [];
    const isSame = there?.role === entry.role && there.depotId === (at?.id ?? null) && there.retired === !entry.signsIn;
    return [{ entry, depot: at, there, id, action: !there ? 'new' : isSame || isOwn ? 'unchanged' : 'change' }];
  });
  const added = rows.filter((r) => r.action === 'new');
  if (added.length > MOST_NEW)
    problems.push({
      path: '',
      message: tr`${added.length} people are new: take the list in parts of ${MOST_NEW} at most.`,
    });
  return problems.length ? fail(problems) : ok(rows);
}

/** What keeps somebody from being added, by column. */
function problemsOfNew({ name, role, signsIn, pin }: PersonEntry, depotId: string | null, id: string): Problem[] {
  if (!signsIn) return [{ path: '/signs_in', message: tr`${name} is not here: whoever is added signs in.` }];
  if (pin === null)
    return [{ path: '/pin', message: tr`${name} is not here yet and needs a PIN: six characters at least.` }];
  const body = validate(check, { id, name, role, depotId, pin });
  if (!body.ok) return body.error.map((p) => ({ ...p, path: COLUMNS[p.path] ?? '/name' }));
  const weak = weakPin(pin);
  return weak === null ? [] : [{ path: '/pin', message: weak }];
}

async function take(tx: Tx, { entry, depot: at, there, id }: Row, password: string, actor: Actor): Promise<Done> {
  const depotId = at?.id ?? null;
  if (there)
    return changePerson(
      within(tx),
      there.id,
      { by: actor.name, role: entry.role, depotId, retired: !entry.signsIn },
      actor,
    );
  if (actor.depotId !== null && depotId !== actor.depotId) return onlyOwn(within(tx), '/depotId');
  return keepPerson(within(tx), { id, name: entry.name, role: entry.role, depotId }, password);
}
