import { v7 } from 'uuid';
import { verifyJob } from '../server/audit/audit-trail';
import { openJob } from '../server/jobs/open-job';
import { viewJob } from '../server/jobs/view-job';
import { viewYard } from '../server/jobs/yard';
import { viewRun } from '../server/readings/run-view';
import { makeTestDatabase, type TestDatabase } from '../server/testing/database';
import { demoId, loadDemo } from './load';
import { DEMO } from './testing';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase(DEMO);
});
afterAll(() => test_.drop());

describe('its readings', () => {
  test('loading it again changes nothing', async () => {
    const before = await viewYard(test_.db);
    await loadDemo(test_.db);
    expect(await viewYard(test_.db)).toEqual(before);
  });
  test.each([
    ['PL-03', 'good'],
    ['PL-14', 'one'],
    ['PL-11', 'some'],
    ['PL-07', 'group'],
    ['PL-08', 'undecided'],
    ['PL-22', 'undecided'],
    ['PL-23', 'incomplete'],
    ['PL-19', 'one'],
  ])('%s shows %s', async (unit, pattern) => {
    expect((await viewRun(test_.db, demoId('run', unit)))?.judgement.pattern).toBe(pattern);
  });
  test('a job knows the earlier jobs of its unit', async () => {
    const id = v7();
    await openJob(test_.db, { id, unitId: demoId('unit', 'PL-03'), complaint: 'again', by: 'Tester' });
    expect((await viewJob(test_.db, id))?.earlier.map((j) => j.id)).toContain(demoId('job', 'PL-03'));
  });
});

describe('its stories', () => {
  const view = async (...key: string[]) => {
    const v = await viewJob(test_.db, demoId('job', ...key));
    if (!v) throw new Error('no job');
    return v;
  };
  test('a chafed loom hid a bad injector: after the loom was mended the injector stands convicted', async () => {
    const { known, findings } = await view('PL-27');
    expect(known.statements.filter((s) => s.stand === 'bad')).toEqual([]);
    // Of before its repair; it was exchanged with that of cylinder 2, and back.
    expect(known.mended.filter((s) => s.rule === 'swap').map((s) => s.target)).toEqual(
      expect.arrayContaining([{ kind: 'part', name: 'injector', position: 5 }]),
    );
    expect(findings[0]?.body).toMatchObject({ kind: 'found', positions: [5] });
  });
  test('a unit that came back: the code is here again, the advice is still open', async () => {
    const { before } = await view('PL-16');
    expect(before).toMatchObject([
      { comeback: 'P0674 again', findings: [{ advice: expect.stringContaining('bracket') as string }] },
    ]);
  });
  test('an intermittent that needed the road is honestly not found yet', async () =>
    expect((await view('PL-30')).findings[0]?.body).toMatchObject({
      kind: 'not-found',
      ifReturns: expect.stringContaining('hot') as string,
    }));
  test('a code that its maker defined is described by the depot', async () =>
    expect((await view('PL-16')).descriptions).toEqual({ P1604: 'Glow control unit: feedback of one plug missing' }));
  test('all trails are intact', async () => {
    for (const key of [['PL-14'], ['PL-16'], ['PL-27'], ['PL-30'], ['PL-23']])
      expect((await verifyJob(test_.db, demoId('job', ...key)))?.faults).toEqual([]);
  });
});
