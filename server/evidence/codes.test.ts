import { v7 } from 'uuid';
import type { RecordCodes } from '../../formats/requests/codes';
import { countOf } from '../../core/codes/decode';
import { codesOf, recordCodes, takeBackCode } from './codes';
import { viewJob } from '../jobs/view-job';
import { workshopId } from '../testing/workshop';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { openJob, startRun } from '../jobs/open-job';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase();
});
afterAll(() => test_.drop());

const BY = 'Ines Varga';
async function newJob(): Promise<string> {
  const id = v7();
  await openJob(test_.db, { id, unitId: workshopId('unit', 'PL-14'), complaint: 'x', by: BY });
  return id;
}
const record = (jobId: string, codes: RecordCodes['codes'], more = {}) =>
  recordCodes(test_.db, jobId, { id: v7(), by: BY, phase: 'as-found', status: 'stored', codes, ...more });
const kept = async (jobId: string) => (await codesOf(test_.db, jobId)).map((c) => c.code);

test('kept in the standard’s own writing, each once, the same batch once', async () => {
  const jobId = await newJob();
  const id = v7();
  expect(await record(jobId, ['p0672', 'spn 653/5', 'P0672'], { id })).toMatchObject({
    ok: true,
    value: { duplicate: false },
  });
  expect(await record(jobId, ['p0672', 'spn 653/5'], { id })).toMatchObject({ ok: true, value: { duplicate: true } });
  expect(await kept(jobId)).toEqual(['P0672', 'SPN 653 FMI 5']);
});
test('each with the status and the count that the scan tool gives it, in its order', async () => {
  const jobId = await newJob();
  await record(jobId, [{ code: 'p0674', status: 'active', count: 3 }, 'P0671', { code: 'P0672', count: 1 }]);
  expect((await codesOf(test_.db, jobId)).map((c) => [c.code, c.status, countOf(c.freezeFrame)])).toEqual([
    ['P0674', 'active', '3'],
    ['P0671', 'stored', null],
    ['P0672', 'stored', '1'],
  ]);
});
test('one that is none is named, and none is kept', async () => {
  const jobId = await newJob();
  expect(await record(jobId, ['P0672', 'florp'])).toMatchObject({
    ok: false,
    error: { status: 422, errors: [{ path: '/codes/1' }] },
  });
  expect(await kept(jobId)).toEqual([]);
  expect(await record(v7(), ['P0672'])).toMatchObject({ ok: false, error: { status: 404 } });
});
test('that somebody looked and found none is kept too', async () => {
  const jobId = await newJob();
  await record(jobId, [], { phase: 'after-clearing' });
  expect(await codesOf(test_.db, jobId)).toMatchObject([{ code: null, phase: 'after-clearing' }]);
});
test('a slip is taken back, once; the row stays in the database', async () => {
  const jobId = await newJob();
  await record(jobId, ['P0672', 'P0673']);
  const [slip] = await codesOf(test_.db, jobId);
  const back = () => takeBackCode(test_.db, jobId, { id: v7(), by: BY, observation: slip!.id });
  expect(await back()).toMatchObject({ ok: true, value: { duplicate: false } });
  expect(await back()).toMatchObject({ ok: true, value: { duplicate: true } });
  expect(await kept(jobId)).toEqual(['P0673']);
  expect(await takeBackCode(test_.db, await newJob(), { id: v7(), by: BY, observation: slip!.id })).toMatchObject({
    ok: false,
    error: { status: 404 },
  });
  await expect(test_.pool.query('delete from code_observation')).rejects.toThrow('append-only');
});
test('the job knows in which tests something was unplugged with the key on', async () => {
  const jobId = await newJob();
  for (const test of ['sensor-unplugged', 'sensor-reference', 'injector-resistance'])
    await startRun(test_.db, { id: v7(), jobId, test, by: BY });
  expect((await viewJob(test_.db, jobId))?.unplugged).toEqual(['Input with the sensor unplugged']);
});
