import { eq, isNotNull, sql } from 'drizzle-orm';
import { job, reading, testRun } from '../db/schema';
import { DEMO } from '../../demo/testing';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { changesSince, type ReleasedFacts, releasedFacts } from './released-facts';

let there: TestDatabase;
let before: ReleasedFacts;
beforeEach(async () => {
  there = await makeTestDatabase(DEMO);
  before = JSON.parse(JSON.stringify(await releasedFacts(there.db))) as ReleasedFacts;
});
afterEach(() => there.drop());

const aReading = async () => {
  const [found] = await there.db
    .select({ id: reading.id, runId: reading.runId, number: job.number })
    .from(reading)
    .innerJoin(testRun, eq(testRun.id, reading.runId))
    .innerJoin(job, eq(job.id, testRun.jobId))
    .where(isNotNull(job.closedAt));
  if (!found) throw new Error('no released reading in the demo');
  return found;
};
/** A migration may do what the application cannot: no trigger stops it. */
const unguarded = (statement: ReturnType<typeof sql>) =>
  there.db.transaction(async (tx) => {
    await tx.execute(sql`set local session_replication_role = replica`);
    await tx.execute(statement);
  });

test('a schema that has grown shows what it showed', async () => {
  expect(Object.keys(before.jobs).length).toBeGreaterThan(1);
  await there.db.execute(sql`alter table reading add column colour text default 'blue'`);
  await there.db.execute(sql`create table more (id int)`);
  expect(await changesSince(there.db, before)).toEqual([]);
});

test('a changed reading, a changed judgement and a lost job are named by the number of the job', async () => {
  const { id, runId, number } = await aReading();
  await unguarded(sql`update reading set entry = '9.9' where id = ${id}`);
  expect(await changesSince(there.db, before)).toEqual([`job ${number}: what was stored with it has changed`]);
  await unguarded(sql`update reading set entry = '9.9 ' where id = ${id}`);
  before = JSON.parse(JSON.stringify(await releasedFacts(there.db))) as ReleasedFacts;
  await unguarded(sql`update test_run set judgement = null where id = ${runId}`);
  expect((await changesSince(there.db, before))[0]).toContain(`job ${number}:`);
  await there.db.execute(sql`update job set closed_at = null where number = ${number}`);
  expect(await changesSince(there.db, before)).toContain(`job ${number}: it is not there, or not released, any more`);
});

test('a column that is gone is said before anything else', async () => {
  await there.db.execute(sql`alter table reading drop column why cascade`);
  expect(await changesSince(there.db, before)).toEqual(['reading: there is no column why any more']);
});
