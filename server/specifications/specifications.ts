import { tr } from '../../core/locale/translate';
import { and, asc, eq, isNull, type SQL, sql } from 'drizzle-orm';
import { v5, v7 } from 'uuid';
import { CATALOGUE } from '../../core/catalogue/catalogue';
import type { TestDefinition } from '../../core/catalogue/types';
import type { Limits } from '../../core/limits/types';
import { ok, type Problem, type Result } from '../../core/foundation/result';
import { arrangeSpecifications, type Choice, explainChoice } from '../../core/specifications/choose';
import { type Clash, type Difference, findClashes } from '../../core/specifications/clash';
import { canonical } from '../../formats/canonical';
import type { Situation, Specification } from '../../core/specifications/types';
import type { ProblemDetails } from '../../formats/problem';
import { checkEntry, type SpecificationEntry, specificationKey } from '../../formats/specifications';
import type { Db, Tx } from '../db/connection';
import type { Action } from '../../application/policy';
import type { Actor } from '../policy/actor';
import { authorize } from '../policy/authorize';
import { type Done, notFound, refuse, refuseTakenId } from '../db/refusal';
import { depot, engineFamily, specification } from '../db/schema';
import { findAnyTest } from '../catalogue/tests';
import type { RecordSpecification } from '../../formats/requests/specifications';

const SHIPPED = 'e0c7b7de-63f1-5d58-8b3f-0b4e5f1c2a77';
const RULE_OF_THUMB = 'Rule of thumb, common practice, no source';

/** A row of the shelf with the names of what it is for. */
export interface SpecificationRow {
  readonly row: typeof specification.$inferSelect;
  readonly of: string | null;
}

const columns = { row: specification, family: engineFamily.code, depotName: depot.name };

async function rowsWhere(db: Db | Tx, where?: SQL): Promise<SpecificationRow[]> {
  const rows = await db
    .select(columns)
    .from(specification)
    .leftJoin(engineFamily, eq(engineFamily.id, specification.engineFamilyId))
    .leftJoin(depot, eq(depot.id, specification.depotId))
    .where(where)
    .orderBy(asc(specification.test), asc(specification.seriesId), asc(specification.revision));
  return rows.map(({ row, family, depotName }) => ({
    row,
    of: { part: row.part, family, depot: depotName, general: null }[row.scope],
  }));
}

/** What came with jobs from elsewhere is not on this shelf. */
export const specificationRows = (db: Db | Tx): Promise<SpecificationRow[]> =>
  rowsWhere(db, isNull(specification.origin));
export const shelfRowsOf = (db: Db | Tx, test: string): Promise<SpecificationRow[]> =>
  rowsWhere(db, and(eq(specification.test, test), isNull(specification.origin)));

export const specificationOf = ({ row, of }: SpecificationRow): Specification => ({
  id: row.id,
  series: row.seriesId,
  revision: row.revision,
  test: row.test,
  scope: row.scope,
  of,
  when: row.applies,
  school: row.school,
  limits: row.limits,
  source: row.source,
  status: row.status,
});

export const entryOf = ({ row, of }: SpecificationRow): SpecificationEntry => ({
  test: row.test,
  scope: row.scope,
  ...(of === null ? {} : { of }),
  ...(Object.keys(row.applies).length ? { when: row.applies } : {}),
  ...(row.school === null ? {} : { school: row.school }),
  limits: row.limits,
  source: row.source,
  ...(row.document === null ? {} : { document: row.document }),
  ...(row.page === null ? {} : { page: row.page }),
  ...(row.documentRevision === null ? {} : { documentRevision: row.documentRevision }),
  ...(row.documentDate === null ? {} : { documentDate: row.documentDate }),
  status: row.status === 'withdrawn' ? 'draft' : row.status,
});

/**
 * The rules of thumb that a test carries, as they would stand on the shelf. Their series sorts behind a
 * workshop's own.
 */
export function shippedRules(test: TestDefinition): Specification[] {
  const rules: readonly { limits: Limits; when?: { systemVoltage_V?: number | undefined } | undefined }[] = test.rules
    .length
    ? test.rules
    : [{ limits: { quantity: test.quantity, unit: test.unit } }];
  return rules.map(({ limits, when = {} }) => {
    const id = v5(canonical([test.id, when, limits]), SHIPPED);
    return {
      id,
      series: `ships-${id}`,
      revision: 1,
      test: test.id,
      scope: 'general',
      of: null,
      when,
      school: null,
      limits,
      source: sourceOf(test, limits),
      status: 'rule-of-thumb',
    };
  });
}

function sourceOf(test: TestDefinition, limits: Limits): string {
  if (limits.quantity === 'observation') return 'As seen; nothing to measure';
  return test.rules.length ? RULE_OF_THUMB : 'No limit yet: enter the maker’s own on the shelf';
}

/** Everything that could judge a test: the shelf, and what ships with the test. */
export async function candidatesFor(db: Db | Tx, test: TestDefinition): Promise<Specification[]> {
  const own = (await shelfRowsOf(db, test.id)).filter((r) => !r.row.ships).map(specificationOf);
  return [...own, ...shippedRules(test)];
}

/** The limits that judge in a situation, stored if they only ship so far. There is always one. */
export async function chooseFor(
  db: Db | Tx,
  test: TestDefinition,
  situation: Situation,
): Promise<{ id: string; because: string }> {
  const { chosen, because } = explainChoice(arrangeSpecifications(await candidatesFor(db, test)), situation);
  if (chosen && !chosen.series.startsWith('ships-')) return { id: chosen.id, because };
  const used = chosen ?? { ...(shippedRules({ ...test, rules: [] })[0] as Specification) };
  await db
    .insert(specification)
    .values({
      id: used.id,
      seriesId: used.id,
      revision: 1,
      test: test.id,
      limits: used.limits,
      source: used.source,
      status: 'rule-of-thumb',
      scope: 'general',
      applies: used.when,
      ships: true,
    })
    .onConflictDoNothing({ target: specification.id });
  return { id: used.id, because: because || 'Nothing on the shelf fits.' };
}

export async function explainFor(db: Db, test: TestDefinition, situation: Situation): Promise<Choice> {
  return explainChoice(arrangeSpecifications(await candidatesFor(db, test)), situation);
}

/** All that an entry says but its status, as one text: what is absent and what is null is the same. */
const contentOf = (e: SpecificationEntry): string =>
  canonical(Object.fromEntries(Object.entries(e).filter(([f, v]) => f !== 'status' && v !== null && v !== undefined)));

/** What an entry is for, by the ids of this database. */
export interface Resolved {
  readonly engineFamilyId: string | null;
  readonly depotId: string | null;
  readonly part: string | null;
}

/** Names of a file to ids of this database. */
async function resolve(db: Db | Tx, e: SpecificationEntry, base: string): Promise<Result<Resolved, ProblemDetails>> {
  const none = { engineFamilyId: null, depotId: null, part: null };
  if (e.scope === 'part') return ok({ ...none, part: e.of ?? '' });
  if (e.scope === 'family') {
    const [found] = await db
      .select({ id: engineFamily.id })
      .from(engineFamily)
      .where(eq(engineFamily.code, e.of ?? ''));
    return found ? ok({ ...none, engineFamilyId: found.id }) : notFound(tr`engine family "${e.of}"`, `${base}/of`);
  }
  if (e.scope === 'depot') {
    const [found] = await db
      .select({ id: depot.id })
      .from(depot)
      .where(eq(depot.name, e.of ?? ''));
    return found ? ok({ ...none, depotId: found.id }) : notFound(tr`depot "${e.of}"`, `${base}/of`);
  }
  return ok(none);
}

/** All that is wrong with an entry against this database: its test, its quantity, its limits. */
const checkAgainst = async (db: Db | Tx, e: SpecificationEntry, base: string): Promise<Problem[]> =>
  checkForTest(e, await findAnyTest(db, e.test), base);

/** All that is wrong with an entry; `test`: what the catalogue has under its name. */
export function checkForTest(e: SpecificationEntry, test: TestDefinition | undefined, base: string): Problem[] {
  const problems = checkEntry(e, base);
  if (!test) problems.push({ path: `${base}/test`, message: tr`The catalogue has no test "${e.test}".` });
  else if (test.quantity !== e.limits.quantity)
    problems.push({ path: `${base}/limits/quantity`, message: tr`The test reads ${test.quantity}.` });
  return problems;
}

/** As `clashesOf`, for an entry that may be wrong. */
export async function lookAt(
  db: Db,
  e: SpecificationEntry,
): Promise<Result<{ clashes: readonly Clash[] }, ProblemDetails>> {
  const problems = await checkAgainst(db, e, '/entry');
  if (problems.length) return refuse('These limits cannot be used.', problems);
  const resolved = await resolve(db, e, '/entry');
  return resolved.ok ? ok({ clashes: await clashesOf(db, e) }) : resolved;
}

/** What an entry meets on the shelf: shown side by side before it is taken. */
export const clashesOf = async (db: Db | Tx, e: SpecificationEntry): Promise<readonly Clash[]> =>
  clashesAmong(newestOfSeries(await shelfRowsOf(db, e.test)), e);

/** The newest row of each series that a workshop has, in the order of `rows`. */
export const newestOfSeries = (rows: readonly SpecificationRow[]): readonly SpecificationRow[] => [
  ...new Map(rows.filter((r) => !r.row.ships).map((r) => [r.row.seriesId, r])).values(),
];

/** The series that an entry continues. */
export const continuedBy = (
  newest: readonly SpecificationRow[],
  e: SpecificationEntry,
): SpecificationRow | undefined => {
  const key = specificationKey(e);
  return newest.findLast((r) => specificationKey(entryOf(r)) === key);
};

/** What an entry meets among the newest of the series of its test. */
export function clashesAmong(newest: readonly SpecificationRow[], e: SpecificationEntry): readonly Clash[] {
  const own = continuedBy(newest, e);
  const found = findClashes(
    {
      id: '',
      series: own?.row.seriesId ?? '',
      revision: 0,
      test: e.test,
      scope: e.scope,
      of: e.of ?? null,
      when: e.when ?? {},
      school: e.school ?? null,
      limits: e.limits,
      source: e.source,
      status: e.status ?? 'draft',
    },
    newest.map(specificationOf),
  );
  const moved = own ? movedInDocument(entryOf(own), e) : [];
  if (moved.length === 0) return found;
  return found.map((c) =>
    c.with.id === own?.row.id ? { ...c, kind: 'revision', differs: [...c.differs, ...moved] } : c,
  );
}

const DOCUMENT_FIELDS = ['document', 'page', 'documentRevision', 'documentDate'] as const;

/**
 * Where an entry says that the same limits stand elsewhere in the document. What it leaves out is no
 * statement.
 */
const movedInDocument = (there: SpecificationEntry, here: SpecificationEntry): readonly Difference[] =>
  DOCUMENT_FIELDS.filter((f) => here[f] !== undefined && (here[f] ?? null) !== (there[f] ?? null)).map((field) => ({
    field,
    there: there[field] ?? null,
    here: here[field] ?? null,
  }));

/**
 * Puts limits on the shelf: a new series, or the next revision of the one that is about the same thing.
 * Drafts may come from anybody; approving, withdrawing and changing what is approved is a lead's.
 */
export async function recordSpecification(db: Db, body: RecordSpecification, actor: Actor): Promise<Done> {
  const problems = await checkAgainst(db, body.entry, '/entry');
  if (problems.length) return refuse('These limits cannot be used.', problems);
  return db.transaction((tx) => recordSpecificationIn(tx, body, actor, '/entry'));
}

export async function recordSpecificationIn(
  tx: Tx,
  body: RecordSpecification,
  actor: Actor,
  base: string,
): Promise<Done> {
  const { entry } = body;
  // Whoever takes in a file holds the shelf for itself: what is read next is what there is then.
  await tx.execute(sql`lock table ${specification} in row exclusive mode`);
  await tx.execute(sql`select pg_advisory_xact_lock(hashtext(${specificationKey(entry)}))`);
  const there = (await shelfRowsOf(tx, entry.test)).filter((r) => !r.row.ships);
  if (there.some((r) => r.row.id === body.id)) return ok({ id: body.id, duplicate: true });
  const newest = continuedBy(newestOfSeries(there), entry);
  if (body.onRevision !== undefined && body.onRevision !== null && body.onRevision !== (newest?.row.revision ?? 0)) {
    return refuse(
      'Somebody was here before.',
      [
        {
          path: `${base}/limits`,
          message: tr`Revision ${newest?.row.revision ?? 0} is there now, by ${newest?.row.recordedBy || 'nobody known'}. Look at it first.`,
        },
      ],
      409,
    );
  }
  if (body.withdraw && !newest) return notFound('series on the shelf', base);
  const resolved = await resolve(tx, entry, base);
  if (!resolved.ok) return resolved;
  const status = body.withdraw ? ('withdrawn' as const) : (entry.status ?? 'draft');
  for (const { action, depotId } of demandsOf(status, newest, resolved.value.depotId)) {
    const refused = await authorize(tx, actor, action, depotId);
    if (refused) return refused;
  }
  if (newest && newest.row.status === status && contentOf(entryOf(newest)) === contentOf(entry))
    return ok({ id: newest.row.id, duplicate: true });
  const row = rowOf(entry, { id: body.id, by: body.by, status, of: resolved.value, newest });
  const inserted = await tx
    .insert(specification)
    .values(row)
    .onConflictDoNothing({ target: specification.id })
    .returning({ id: specification.id });
  // Under this id something else is on the shelf.
  return inserted.length ? ok({ id: body.id, duplicate: false }) : refuseTakenLimit();
}

export const refuseTakenLimit = () => refuseTakenId('limit of the shelf');

interface Demand {
  readonly action: Action;
  readonly depotId: string | null;
}

/** What somebody must be allowed to do to put limits of this status upon `newest`. */
export function demandsOf(
  status: SpecificationStatus,
  newest: SpecificationRow | undefined,
  depotId: string | null,
): readonly Demand[] {
  const draft: Demand = { action: 'limits.draft-for-depot', depotId };
  if (status === 'draft' && newest?.row.status !== 'approved') return [draft];
  const action =
    status === 'withdrawn' ? 'limits.withdraw' : status === 'draft' ? 'limits.replace-approved' : 'limits.approve';
  return [draft, { action, depotId: null }];
}

type SpecificationStatus = (typeof specification.$inferSelect)['status'];

/** An entry as the next row of its series, or the first of a new one. */
export const rowOf = (
  entry: SpecificationEntry,
  it: {
    readonly id: string;
    readonly by: string;
    readonly status: SpecificationStatus;
    readonly of: Resolved;
    readonly newest: SpecificationRow | undefined;
  },
): typeof specification.$inferInsert => ({
  ...it.of,
  id: it.id,
  seriesId: it.newest?.row.seriesId ?? v7(),
  revision: (it.newest?.row.revision ?? 0) + 1,
  test: entry.test,
  limits: entry.limits,
  source: entry.source.trim(),
  status: it.status,
  scope: entry.scope,
  applies: entry.when ?? {},
  school: entry.school ?? null,
  document: entry.document ?? null,
  page: entry.page ?? null,
  documentRevision: entry.documentRevision ?? null,
  documentDate: entry.documentDate ?? null,
  recordedBy: it.by,
});

/** What stands on the shelf now, as entries of a file. */
export async function currentEntries(db: Db): Promise<SpecificationEntry[]> {
  return newestOfSeries(await specificationRows(db))
    .filter((r) => r.row.status !== 'withdrawn')
    .map(entryOf);
}

/** Shelf rows of all tests that ship, for showing what judges where nothing else does. */
export const allShipped = (tests: readonly TestDefinition[] = CATALOGUE): Specification[] =>
  tests.filter((t) => t.rules.length).flatMap(shippedRules);

export async function specificationById(db: Db | Tx, id: string): Promise<SpecificationRow | null> {
  return (await rowsWhere(db, eq(specification.id, id)))[0] ?? null;
}
