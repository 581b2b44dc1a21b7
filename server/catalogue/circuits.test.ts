import { v7 } from 'uuid';
import { recordCodes } from '../evidence/codes';
import { recordEvidence } from '../evidence/evidence';
import { viewJob } from '../jobs/view-job';
import { recordReading } from '../readings/record-reading';
import { workshopId } from '../testing/workshop';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { openJob, startRun } from '../jobs/open-job';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase();
});
afterAll(() => test_.drop());

const BY = 'Ines Varga';
async function newJob(unit: string, complaint = 'x'): Promise<string> {
  const id = v7();
  await openJob(test_.db, { id, unitId: workshopId('unit', unit), complaint, by: BY });
  return id;
}
async function measure(
  jobId: string,
  test: string,
  readings: readonly (readonly [number | string, string])[],
): Promise<void> {
  const run = v7();
  expect((await startRun(test_.db, { id: run, jobId, test, by: BY })).ok).toBe(true);
  for (const [position, entry] of readings)
    expect(
      await recordReading(test_.db, run, { id: v7(), position, entry, by: BY, takenAt: '2026-11-20T10:00:00Z' }),
    ).toMatchObject({ ok: true });
}
async function circuitsOf(jobId: string) {
  const view = await viewJob(test_.db, jobId);
  if (!view) throw new Error('no job');
  return view.circuits;
}
const set = (...entries: string[]) => entries.map((e, i) => [i + 1, e] as const);

test('no circuit before anything is known; the one that the codes point at; the one that was measured in', async () => {
  const job = await newJob('PL-14');
  expect(await circuitsOf(job)).toEqual([]);
  await recordCodes(test_.db, job, { id: v7(), by: BY, phase: 'as-found', status: 'active', codes: ['P0673'] });
  const [pointed] = await circuitsOf(job);
  expect([pointed?.circuit.id, pointed?.diagnosis.suspects[0]?.element]).toEqual(['glow-relay', 'plug 3']);
  await measure(job, 'injector-resistance', set('0.6', '0.6', 'OL', '0.6'));
  expect((await circuitsOf(job)).map((c) => c.circuit.id)).toEqual(['injectors-common']);
});
test('a 24 V engine has a 24 V circuit', async () => {
  const job = await newJob('PL-19');
  await measure(job, 'glow-feed-voltage', set('22', '22', '22', '22', '22', '22'));
  const [glow] = await circuitsOf(job);
  expect(glow?.wiring.systemVoltage_V).toBe(24);
  expect(glow?.diagnosis.notes).toEqual([]);
});
test('other evidence weighs: a swap that followed', async () => {
  const job = await newJob('PL-14');
  await measure(job, 'glow-plug-current', set('15', '15', '0', '15'));
  const share = async () =>
    (await circuitsOf(job))[0]?.diagnosis.suspects
      .filter((s) => s.element === 'plug 3')
      .reduce((sum, s) => sum + s.probability, 0) ?? 0;
  const before = await share();
  await recordEvidence(test_.db, job, {
    id: v7(),
    by: BY,
    evidence: { kind: 'swap', part: 'plug', from: 3, to: 1, outcome: 'followed' },
  });
  expect(await share()).toBeGreaterThan(before);
  expect(await share()).toBeGreaterThan(0.95);
});
test('what the next test would show is told for a healthy circuit and for each leading suspect, and the plan asks for that test', async () => {
  const job = await newJob('PL-14');
  await measure(job, 'glow-plug-current', set('15', '15', '0', '15'));
  const view = await viewJob(test_.db, job);
  const [expected] = view?.circuits[0]?.expected ?? [];
  expect(expected?.readings[0]?.when).toBe('if all is well');
  expect(new Set(expected?.readings.map((r) => r.shown)).size).toBeGreaterThan(1);
  expect(view?.plan.steps.find((s) => s.test === expected?.test)?.why).toMatch(/^Separates/);
});
test('a sensor’s circuit is that of the input in which more was measured', async () => {
  const job = await newJob('PL-08');
  await measure(job, 'sensor-unplugged', [['pull-up input', '5.0']]);
  expect((await circuitsOf(job)).map((c) => c.circuit.id)).toEqual(['sensor-pull-up']);
});
