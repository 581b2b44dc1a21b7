import { tr } from '../../core/locale/translate';
import { desc } from 'drizzle-orm';
import { findTest, withOwn } from '../../core/catalogue/catalogue';
import { checkDefinition } from '../../core/catalogue/check';
import { searchWords } from '../../core/catalogue/search';
import type { TestDefinition } from '../../core/catalogue/types';
import { ok, type Result } from '../../core/foundation/result';
import type { ProblemDetails } from '../../formats/problem';
import type { TestBrief } from '../../application/views';
import { v5 } from 'uuid';
import type { Db, Tx } from '../db/connection';
import { type Done, refuse } from '../db/refusal';
import { testDefinition } from '../db/schema';
import { type CataloguePlan, planCatalogue } from '../../application/catalogue-plan';
import type { KeepTest } from '../../formats/requests/catalogue';
import { keepTestRevision } from './revisions';

/** The workshop's own tests: the newest revision of each, those that were taken away left out. */
export async function ownTests(db: Db | Tx): Promise<readonly TestDefinition[]> {
  const rows = await db
    .selectDistinctOn([testDefinition.testId], { definition: testDefinition.definition })
    .from(testDefinition)
    .orderBy(testDefinition.testId, desc(testDefinition.revision));
  return rows.flatMap((r) => (r.definition ? [r.definition] : []));
}

/** All tests that can be chosen. */
export const allTests = async (db: Db | Tx): Promise<readonly TestDefinition[]> => withOwn(await ownTests(db));

export async function findAnyTest(db: Db | Tx, id: string): Promise<TestDefinition | undefined> {
  return (await ownTests(db)).find((t) => t.id === id) ?? findTest(id);
}

export const testBrief = (t: TestDefinition): TestBrief => ({
  id: t.id,
  name: t.name,
  purpose: t.purpose,
  area: t.area,
  minutes: t.minutes,
  people: t.people,
  words: searchWords(t),
});

/**
 * Keeps a workshop's own test as its next revision; `test` null takes it away. The same id twice keeps it
 * once.
 */
export async function keepTest(db: Db, body: KeepTest): Promise<Done> {
  const problems = body.test ? checkDefinition(body.test, '/test') : [];
  if (body.test && body.test.id !== body.testId)
    problems.push({ path: '/test/id', message: tr`The test is kept as "${body.testId}".` });
  if (problems.length) return refuse('This test cannot be used.', problems);
  return db.transaction((tx) => append(tx, body));
}

function append(tx: Tx, body: KeepTest): Promise<Done> {
  const message = findTest(body.testId)
    ? 'This test ships with the application; it can be replaced, not taken away.'
    : 'There is no such test.';
  const nothing = refuse('There is nothing to take away.', [{ path: '/testId', message }], 404);
  const { id, testId: name, test: definition, by } = body;
  return keepTestRevision(tx, { id, name, definition, by }, nothing);
}

/** What the tests of a file would do; with `batch` and `by` it is done, all or nothing. */
export async function importCatalogue(
  db: Db,
  tests: readonly TestDefinition[],
  store: { batch: string; by: string } | null,
): Promise<Result<CataloguePlan, ProblemDetails>> {
  const rows = planCatalogue(tests, await allTests(db));
  if (!store) return ok({ rows, stored: 0 });
  const changed = tests.filter((_, i) => rows[i]?.action !== 'unchanged');
  await db.transaction(async (tx) => {
    for (const test of changed) {
      const kept = await append(tx, { id: v5(test.id, store.batch), testId: test.id, by: store.by, test });
      if (!kept.ok) throw new Error(kept.error.detail);
    }
  });
  return ok({ rows, stored: changed.length });
}
