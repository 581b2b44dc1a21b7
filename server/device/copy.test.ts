import { execFileSync } from 'node:child_process';
import { eq, isNull } from 'drizzle-orm';
import { pageOfJob } from '../../application/job-page';
import type { YardView } from '../../application/views';
import type { DeviceCopy } from '../../formats/device-copy';
import { depot, fleetUnit, job, testRun } from '../db/schema';
import { DEMO } from '../../demo/testing';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { viewJob } from '../jobs/view-job';
import { viewYard } from '../jobs/yard';
import { viewRun } from '../readings/run-view';
import { copyForDevice } from './copy';

let there: TestDatabase;
beforeAll(async () => {
  there = await makeTestDatabase(DEMO);
});
afterAll(() => there.drop());

const plain = (value: unknown): unknown => JSON.parse(JSON.stringify(value));
/** Of a unit without an open job the device knows no history. */
const ofWorkedOn = (yard: YardView): YardView => ({
  ...yard,
  units: yard.units.map((u) => (u.jobs.length ? u : { ...u, released: [] })),
});
const rowsOf = (copy: DeviceCopy, name: string): Record<string, unknown>[] =>
  JSON.parse(copy.tables.find((t) => t.name === name)?.rows ?? '[]') as Record<string, unknown>[];

test('a device shows the open jobs, their runs and the yard as the server does', async () => {
  const copy = await copyForDevice(there.db, null);
  const open = await there.db.select().from(job).where(isNull(job.closedAt));
  const runs = await there.db
    .select({ id: testRun.id })
    .from(testRun)
    .innerJoin(job, eq(job.id, testRun.jobId))
    .where(isNull(job.closedAt));
  expect(open.length).toBeGreaterThan(3);
  const pages = ['/', ...open.map((j) => `/jobs/${j.id}`), ...runs.map((r) => `/runs/${r.id}`)];
  const shown = execFileSync('node_modules/.bin/tsx', ['device/testing.ts'], {
    input: JSON.stringify({ copy, pages }),
    maxBuffer: 1e9,
  })
    .toString()
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as unknown);
  const expected = [
    { page: 'yard', yard: ofWorkedOn(await viewYard(there.db)) },
    ...(await Promise.all(
      open.map(async (j) => {
        const view = await viewJob(there.db, j.id);
        return view && { page: 'job', view: pageOfJob(view) };
      }),
    )),
    ...(await Promise.all(runs.map(async (r) => ({ page: 'run', view: await viewRun(there.db, r.id) })))),
  ];
  for (const [i, page] of pages.entries())
    expect({ page, shown: shown[i] }).toEqual({ page, shown: plain(expected[i]) });
}, 300_000);

test('it holds the work of its depot, and no secret', async () => {
  const depots = await there.db.select().from(depot);
  const [first] = depots;
  const copy = await copyForDevice(there.db, first?.id ?? '');
  const own = await there.db
    .select({ id: job.id })
    .from(job)
    .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
    .where(eq(fleetUnit.depotId, first?.id ?? ''));
  const copied = new Set(rowsOf(copy, 'reading').map((r) => r.run_id));
  const runs = rowsOf(copy, 'test_run').filter((r) => copied.has(r.id));
  expect(runs.length).toBeGreaterThan(0);
  expect(runs.filter((r) => !own.some((j) => j.id === r.job_id))).toEqual([]);
  const names = copy.tables.map((t) => t.name);
  for (const secret of ['account', 'session', 'verification', 'sign_in_attempt']) expect(names).not.toContain(secret);
  expect(JSON.stringify(copy)).not.toMatch(/argon2|setup_code/);
});
