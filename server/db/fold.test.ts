import fc from 'fast-check';
import pg from 'pg';
import { eq, inArray, sql } from 'drizzle-orm';
import { v7 } from 'uuid';
import { openJob, startRun } from '../jobs/open-job';
import { workshopId } from '../testing/workshop';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { eachOf, together, within } from './connection';
import { Fold } from './fold';
import { fleetUnit, job, testRun } from './schema';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase();
  const [jobId, by] = [v7(), 'Ines Varga'];
  await openJob(test_.db, { id: jobId, unitId: workshopId('unit', 'PL-14'), complaint: 'x', by });
  await startRun(test_.db, { id: v7(), jobId, test: 'glow-plug-resistance', by });
});
afterAll(() => test_.drop());

/** How many statements went to the database while `work` was done. */
async function statementsOf<T>(work: () => Promise<T>): Promise<{ readonly result: T; readonly count: number }> {
  const spy = jest.spyOn(test_.pool, 'query');
  try {
    const result = await work();
    return { result, count: spy.mock.calls.length };
  } finally {
    spy.mockRestore();
  }
}

/** Drizzle reads times itself, from their text. */
const TIMES: readonly number[] = [1114, 1184];
const parserOf = pg.types.getTypeParser as (oid: number, format?: string) => unknown;
const AS_DRIZZLE = {
  getTypeParser: (oid: number, format?: string): unknown =>
    TIMES.includes(oid) ? (text: string) => text : parserOf(oid, format),
};
const AS_ARRAYS = { rowMode: 'array', types: AS_DRIZZLE } as const;
const foldOn = (pool: pg.Pool) => new Fold((config, values) => pool.query(config as pg.QueryArrayConfig, values));

const KINDS: readonly ((n: number) => string)[] = [
  (n) => `select $1::int + ${n}`,
  () => `select n, n * 2, 'x' || n from generate_series(1, $1::int) n order by n desc`,
  () => `select id, id, created_at, parts from unit order by fleet_number limit $1`,
  () => `select n from generate_series(1, 3) n where n > $1::int`,
  () => `select null::text, $1::int, true, '{"b": [1, null], "a": "é\\\\"}'::jsonb`,
  () => `select (2::bigint ^ 62)::bigint + $1::int, 0.1::float8 + 0.2::float8, '1e-7'::float8`,
  () => `select array['a', null, 'c,"d']::text[], now() - make_interval(days => $1::int) * 0`,
];

test('whatever is asked together answers as it does alone, over and over', async () => {
  const pool = test_.pool;
  const alone = (text: string, values: unknown[]) => pool.query({ text, values, rowMode: 'array', types: AS_DRIZZLE });
  const asked = fc.array(fc.record({ kind: fc.nat(KINDS.length - 1), value: fc.integer({ min: 0, max: 5 }) }), {
    minLength: 1,
    maxLength: 8,
  });
  await fc.assert(
    fc.asyncProperty(asked, async (all) => {
      const fold = foldOn(pool);
      const texts = all.map((a) => (KINDS[a.kind] ?? String)(7));
      const folded = await Promise.all(
        all.map((a, i) => fold.query({ text: texts[i] ?? '', ...AS_ARRAYS }, [a.value])),
      );
      for (const [i, a] of all.entries()) {
        // The moment of asking is another one.
        if (a.kind === 6) continue;
        expect(folded[i]?.rows).toEqual((await alone(texts[i] ?? '', [a.value])).rows);
      }
    }),
    { numRuns: 60 },
  );
});

test('rows with equal names of columns, times and documents come back through drizzle as they are', async () => {
  const ask = () =>
    together(
      test_.db,
      (db) => db.select({ unit: fleetUnit, job }).from(job).innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId)),
      (db) => db.select().from(testRun).limit(5),
      (db) => db.select({ n: sql<number>`count(*)::int` }).from(job),
    );
  const first = await ask();
  const { result, count } = await statementsOf(ask);
  expect(result).toEqual(first);
  expect(result[0].length).toBeGreaterThan(0);
  expect(result[0][0]?.job.createdAt).toBeInstanceOf(Date);
  expect(count).toBe(1);
});

test('each of many: one statement for what is asked in the same moment, and one more for what comes after it', async () => {
  const units = await test_.db.select({ id: fleetUnit.id }).from(fleetUnit).limit(6);
  const ask = () =>
    eachOf(test_.db, units, async ({ id }, db) => {
      const jobs = await db.select({ id: job.id }).from(job).where(eq(job.unitId, id));
      const ids = jobs.map((j) => j.id);
      return db
        .select({ n: sql<number>`count(*)::int` })
        .from(testRun)
        .where(inArray(testRun.jobId, ids.length ? ids : [id]));
    });
  const first = await ask();
  const { result, count } = await statementsOf(ask);
  expect(result).toEqual(first);
  expect(count).toBe(2);
});

test('one that cannot be answered is told to whoever asked; a transaction is refused', async () => {
  const fold = foldOn(test_.pool);
  const ask = (text: string, value: number) => fold.query({ text, ...AS_ARRAYS }, [value]);
  const divide = 'select 1 / $1::int';
  await Promise.all([ask(divide, 1), ask('select $1::int', 1)]);
  const both = await Promise.allSettled([ask(divide, 0), ask('select $1::int', 2)]);
  expect(both.map((b) => b.status)).toEqual(['rejected', 'rejected']);
  await expect(ask(divide, 0)).rejects.toThrow('division by zero');
  await expect(together(test_.db, (db) => db.transaction((tx) => tx.select().from(job)))).rejects.toThrow();
});

test('in a transaction each is asked one by one, of the transaction', async () => {
  await test_.db.transaction(async (tx) => {
    await tx.execute(sql`create temporary table only_here (n int) on commit drop`);
    const [a, b] = await together(
      within(tx),
      (db) => db.execute<{ n: number }>(sql`select count(*)::int as n from only_here`),
      (db) => db.select({ id: job.id }).from(job).limit(1),
    );
    expect([a.rows[0]?.n, b.length]).toEqual([0, 1]);
  });
});
