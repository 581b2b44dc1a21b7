import { tr } from '../../core/locale/translate';
import { sql } from 'drizzle-orm';
import { v5 } from 'uuid';
import type { TestDefinition } from '../../core/catalogue/types';
import { groupBy } from '../../core/foundation/collections';
import { fail, ok, type Problem, type Result } from '../../core/foundation/result';
import type { SpecificationsPlan } from '../../application/specifications-view';
import type { ProblemDetails } from '../../formats/problem';
import { type SpecificationEntry, specificationKey } from '../../formats/specifications';
import { namedInTable } from '../../formats/table-values';
import { allTests } from '../catalogue/tests';
import { allOrNothing } from '../db/all-or-nothing';
import type { Db, Tx } from '../db/connection';
import { refuse } from '../db/refusal';
import { depot, engineFamily, specification } from '../db/schema';
import type { Actor } from '../policy/actor';
import { authorize } from '../policy/authorize';
import {
  checkForTest,
  clashesAmong,
  continuedBy,
  demandsOf,
  newestOfSeries,
  refuseTakenLimit,
  type Resolved,
  rowOf,
  type SpecificationRow,
  specificationRows,
} from './specifications';

/** A row of the plan, with what storing it needs. */
type Planned = SpecificationsPlan['rows'][number] & {
  readonly of: Resolved;
  readonly newest: SpecificationRow | undefined;
};

const TITLE = 'These limits cannot be taken.';

/**
 * Limits of a file. Without `batch`: what it would do, with all that would keep it from being done. With it:
 * does it, all or nothing. Problems stand at the entry: `/limits/3/of`.
 */
export const importSpecifications = (
  db: Db,
  entries: readonly SpecificationEntry[],
  { batch, actor }: { readonly batch: string | null; readonly actor: Actor },
): Promise<Result<SpecificationsPlan, ProblemDetails>> =>
  allOrNothing(db, async (tx): Promise<Result<SpecificationsPlan, ProblemDetails>> => {
    // The shelf is this file's alone until it is stored: what was planned is what is done.
    if (batch !== null) await tx.execute(sql`lock table ${specification} in share row exclusive mode`);
    const planned = await planOf(tx, entries);
    if (!planned.ok) return refuse(TITLE, planned.error);
    const rows = planned.value.map(({ entry, action, clashes }) => ({ entry, action, clashes }));
    const refused = await refusalOf(tx, planned.value, actor);
    if (refused) return refused;
    if (batch === null) return ok({ rows, stored: 0 });
    const stored = await store(tx, planned.value, { batch, by: actor.name });
    return stored === null ? refuseTakenLimit() : ok({ rows, stored });
  });

/** All that entries are held against, asked once for all of them. */
interface Here {
  readonly tests: ReadonlyMap<string, TestDefinition>;
  readonly families: readonly { readonly id: string; readonly name: string }[];
  readonly depots: readonly { readonly id: string; readonly name: string }[];
  /** The newest of each series, by `placeOf`. */
  readonly newest: ReadonlyMap<string, readonly SpecificationRow[]>;
}

/** Only what is about the same test, for the same thing, can clash or be continued. */
const placeOf = (test: string, scope: string, of: string | null | undefined): string =>
  JSON.stringify([test, scope, of ?? null]);

async function planOf(tx: Tx, entries: readonly SpecificationEntry[]): Promise<Result<readonly Planned[]>> {
  const here: Here = {
    tests: new Map((await allTests(tx)).map((t) => [t.id, t])),
    families: await tx.select({ id: engineFamily.id, name: engineFamily.code }).from(engineFamily),
    depots: await tx.select({ id: depot.id, name: depot.name }).from(depot),
    newest: groupBy(newestOfSeries(await specificationRows(tx)), ({ row, of }) => placeOf(row.test, row.scope, of)),
  };
  const problems: Problem[] = [];
  const seen = new Map<string, number>();
  const planned = entries.flatMap((given, i): Planned[] => {
    const base = `/limits/${i}`;
    const named = namesOf(given, here, base);
    problems.push(...checkForTest(given, here.tests.get(given.test), base));
    if (!named.ok) {
      problems.push(...named.error);
      return [];
    }
    const { entry, of } = named.value;
    const key = specificationKey(entry);
    const before = seen.get(key);
    if (before !== undefined)
      problems.push({ path: base, message: tr`This is about the same thing as entry ${before + 1} of the file.` });
    seen.set(key, before ?? i);
    return [{ entry, of, ...meet(entry, here) }];
  });
  return problems.length ? fail(problems) : ok(planned);
}

/** An entry with the name of what it is for as it is written here, and its id. */
function namesOf(
  e: SpecificationEntry,
  here: Here,
  base: string,
): Result<{ readonly entry: SpecificationEntry; readonly of: Resolved }> {
  const none: Resolved = { engineFamilyId: null, depotId: null, part: null };
  const typed = e.of ?? '';
  if (e.scope === 'part') return ok({ entry: e, of: { ...none, part: typed } });
  if (e.scope === 'general') return ok({ entry: e, of: none });
  const isDepot = e.scope === 'depot';
  const found = namedInTable(isDepot ? here.depots : here.families, (x) => x.name, typed);
  const message = isDepot ? tr`There is no depot "${typed}".` : tr`There is no engine family "${typed}".`;
  if (!found) return fail([{ path: `${base}/of`, message }]);
  return ok({
    entry: { ...e, of: found.name },
    of: isDepot ? { ...none, depotId: found.id } : { ...none, engineFamilyId: found.id },
  });
}

function meet(entry: SpecificationEntry, here: Here): Pick<Planned, 'newest' | 'action' | 'clashes'> {
  const around = here.newest.get(placeOf(entry.test, entry.scope, entry.of)) ?? [];
  const newest = continuedBy(around, entry);
  const clashes = clashesAmong(around, entry);
  // What is approved by the file says the same and becomes something else.
  const isApproved = entry.status === 'approved' && newest !== undefined && newest.row.status !== 'approved';
  const isSame = clashes.some((c) => c.kind === 'same');
  const isRevision = clashes.some((c) => c.kind === 'revision') || (isSame && isApproved);
  return {
    newest,
    action: isRevision ? 'revision' : isSame ? 'unchanged' : 'new',
    clashes: clashes.filter((c) => c.kind !== 'same'),
  };
}

const statusOf = (e: SpecificationEntry) => e.status ?? 'draft';

/** Why somebody may not put these on the shelf; each question is asked once. `null`: may. */
async function refusalOf(
  tx: Tx,
  planned: readonly Planned[],
  actor: Actor,
): Promise<Result<never, ProblemDetails> | null> {
  const allowed = new Set<string>();
  for (const { entry, of, newest, action } of planned) {
    if (action === 'unchanged') continue;
    for (const demand of demandsOf(statusOf(entry), newest, of.depotId)) {
      const key = `${demand.action} ${demand.depotId ?? ''}`;
      if (allowed.has(key)) continue;
      const refused = await authorize(tx, actor, demand.action, demand.depotId);
      if (refused) return refused;
      allowed.add(key);
    }
  }
  return null;
}

/** A statement takes 65,535 values at most, and a row has some twenty. */
const ROWS_AT_ONCE = 500;

/** How many were stored; `null`: the id of one is taken. */
async function store(
  tx: Tx,
  planned: readonly Planned[],
  { batch, by }: { readonly batch: string; readonly by: string },
): Promise<number | null> {
  const rows = planned.flatMap(({ entry, of, newest, action }, i) =>
    action === 'unchanged' ? [] : [rowOf(entry, { id: v5(String(i), batch), by, status: statusOf(entry), of, newest })],
  );
  for (let i = 0; i < rows.length; i += ROWS_AT_ONCE) {
    const some = rows.slice(i, i + ROWS_AT_ONCE);
    const inserted = await tx
      .insert(specification)
      .values(some)
      .onConflictDoNothing({ target: specification.id })
      .returning({ id: specification.id });
    if (inserted.length < some.length) return null;
  }
  return rows.length;
}
