import { tr } from '../../core/locale/translate';
import { v5 } from 'uuid';
import type { DepotLine, DepotsPlan } from '../../application/views';
import { fail, type Problem, type Result } from '../../core/foundation/result';
import type { DepotEntry } from '../../formats/depots-csv';
import { type ProblemDetails, problemDetails } from '../../formats/problem';
import { LOOK } from '../db/all-or-nothing';
import { type Db, type Tx, within } from '../db/connection';
import type { Done } from '../db/refusal';
import { takeList } from '../db/take-list';
import type { Actor } from '../policy/actor';
import { addDepot, changeDepot, checkDepot, depotKey, listDepots } from './depots';

/** A row of the list beside the depot that is there under that name. */
interface Row {
  readonly entry: DepotEntry;
  readonly there: DepotLine | undefined;
  readonly action: 'new' | 'change' | 'unchanged';
}
/** The column of a field. */
const COLUMNS: Readonly<Record<string, string>> = {
  '/timeZone': '/time_zone',
  '/currency': '/currency',
  '/retired': '/in_use',
};
const columnOf = (path: string): string => COLUMNS[path] ?? '/name';

/**
 * Depots of a list. Without `batch`: what it would do. With it: does it, all or nothing. One that is there
 * under its name is changed to what the list says. Problems stand at the line.
 */
export async function importDepots(
  db: Db,
  entries: readonly DepotEntry[],
  actor: Actor,
  batch: string | null,
): Promise<Result<DepotsPlan, ProblemDetails>> {
  const depots = await listDepots(db);
  const problems: Problem[] = [];
  const seen = new Map<string, number>();
  const rows = entries.map((entry): Row => {
    const at = (column: string) => `/line ${entry.line}/${column}`;
    const key = depotKey(entry.name);
    const before = seen.get(key);
    if (before !== undefined)
      problems.push({ path: at('name'), message: tr`This depot stands in line ${before} already.` });
    seen.set(key, entry.line);
    for (const { message } of checkDepot(entry)) problems.push({ path: at('time_zone'), message });
    const there = depots.find((d) => d.name === entry.name) ?? depots.find((d) => depotKey(d.name) === key);
    if (!there && !entry.inUse)
      problems.push({ path: at('in_use'), message: tr`${entry.name} is not here: what is added is in use.` });
    const action = !there ? 'new' : saysTheSame(there, entry) ? 'unchanged' : 'change';
    if (action === 'change' && actor.depotId !== null && actor.depotId !== there?.id)
      problems.push({ path: at('name'), message: tr`${entry.name} is changed by a lead of that depot.` });
    return { entry, there, action };
  });
  if (problems.length) return fail(problemDetails('This list cannot be taken.', problems));
  const plan = rows.map(({ entry: { name, timeZone, inUse }, action }) => ({ name, timeZone, inUse, action }));
  return takeList(db, {
    // One may go out of use where another one comes.
    rows: [...rows].sort((a, b) => Number(b.entry.inUse) - Number(a.entry.inUse)),
    plan,
    take: (tx, row) => take(tx, row, actor, batch ?? LOOK),
    columnOf,
    onlyLook: batch === null,
  });
}

const saysTheSame = (there: DepotLine, entry: DepotEntry): boolean =>
  there.timeZone === entry.timeZone &&
  (entry.currency === null || there.currency === entry.currency) &&
  there.retired === !entry.inUse;

function take(tx: Tx, { entry, there }: Row, { name: by }: Actor, batch: string): Promise<Done> {
  const { name, timeZone } = entry;
  const currency = entry.currency === null ? {} : { currency: entry.currency };
  return there
    ? changeDepot(within(tx), there.id, { by, timeZone, ...currency, retired: !entry.inUse })
    : addDepot(within(tx), { id: v5(`depot/${depotKey(name)}`, batch), by, name, timeZone, ...currency });
}
