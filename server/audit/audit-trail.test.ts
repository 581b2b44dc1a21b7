import { sql } from 'drizzle-orm';
import { v7 } from 'uuid';
import { recordCodes } from '../evidence/codes';
import { evidenceOf, noteIntake, recordEvidence, takeBackEvidence } from '../evidence/evidence';
import { findingsOf, writeFinding } from '../evidence/findings';
import { changePlan } from '../jobs/plan';
import { viewJob } from '../jobs/view-job';
import { recordReading } from '../readings/record-reading';
import { findJob, hashOf, auditTrailOf, verifyJob } from './audit-trail';
import { workshopId } from '../testing/workshop';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { openJob, startRun } from '../jobs/open-job';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase();
});
afterAll(() => test_.drop());

const BY = 'Ines Varga';
const reading = (position: number, entry: string) => ({
  id: v7(),
  position,
  entry,
  by: BY,
  takenAt: '2026-11-20T10:00:00Z',
});
async function newJob(unit = 'PL-14'): Promise<string> {
  const id = v7();
  await openJob(test_.db, {
    id,
    unitId: workshopId('unit', unit),
    complaint: 'Starts on three',
    by: BY,
    conditions: ['cold'],
  });
  return id;
}
async function newRun(jobId: string): Promise<string> {
  const id = v7();
  await startRun(test_.db, { id, jobId, test: 'glow-plug-resistance', by: BY });
  return id;
}
/** As somebody would who has the database in their hands. */
const behindTheBack = (statement: string) =>
  test_.db.transaction(async (tx) => {
    await tx.execute(sql`set local session_replication_role = replica`);
    await tx.execute(sql.raw(statement));
  });
const faults = async (jobId: string) => (await verifyJob(test_.db, jobId))?.faults.map((f) => f.what) ?? [];

test('every write into a job is an event, in order, each bound to the one before', async () => {
  const job = await newJob();
  const run = await newRun(job);
  await recordReading(test_.db, run, reading(1, '0.6'));
  await recordCodes(test_.db, job, {
    id: v7(),
    by: BY,
    phase: 'as-found',
    status: 'stored',
    codes: ['P0671'],
    freezeFrame: [{ name: 'engine speed', value: '812 rpm' }],
  });
  await recordEvidence(test_.db, job, {
    id: v7(),
    by: BY,
    evidence: { kind: 'wiggle', where: 'connector', outcome: 'held' },
  });
  await changePlan(test_.db, job, {
    id: v7(),
    by: BY,
    change: { kind: 'skip', test: 'battery-at-rest', because: 'done' },
  });
  expect((await auditTrailOf(test_.db, job)).map((e) => [e.number, e.kind, e.by])).toEqual([
    [1, 'job', BY],
    [2, 'intake', BY],
    [3, 'test', BY],
    [4, 'reading', BY],
    [5, 'code', BY],
    [6, 'evidence', BY],
    [7, 'change of the plan', BY],
  ]);
  expect(await verifyJob(test_.db, job)).toMatchObject({ intact: true, events: 7, faults: [] });
});
test('the same write twice is one event; a refused one is none', async () => {
  const job = await newJob();
  const run = await newRun(job);
  const body = reading(1, '0.6');
  await recordReading(test_.db, run, body);
  await recordReading(test_.db, run, body);
  await recordReading(test_.db, run, reading(1, '0.7'));
  expect((await auditTrailOf(test_.db, job)).filter((e) => e.kind === 'reading')).toHaveLength(1);
});
test('many at once: numbers without gaps, and intact', async () => {
  const job = await newJob('PL-23');
  const runs = await Promise.all([newRun(job), newRun(job)]);
  await Promise.all(
    runs.flatMap((run) => Array.from({ length: 8 }, (_, i) => recordReading(test_.db, run, reading(i + 1, '0.6')))),
  );
  expect((await auditTrailOf(test_.db, job)).map((e) => e.number)).toEqual(Array.from({ length: 20 }, (_, i) => i + 1));
  expect(await verifyJob(test_.db, job)).toMatchObject({ intact: true });
});
test('the hash is plain SHA-256 over lines: anybody can recompute it', () => {
  // printf '\n1\njob\nid\nInes\n2026-01-01T00:00:00.000000Z\n{}' | sha256sum
  expect(
    hashOf({
      previous: '',
      number: 1,
      kind: 'job',
      rowId: 'id',
      by: 'Ines',
      at: '2026-01-01T00:00:00.000000Z',
      content: '{}',
    }),
  ).toBe('f5ff7f0dad7caaad86bff4f564a5ef357a15e65e1b7e4b3c71343106ab44740f');
});

describe('what is done behind its back is found and named', () => {
  test('an edited reading: which, what it was and what it is', async () => {
    const job = await newJob();
    const run = await newRun(job);
    await recordReading(test_.db, run, reading(3, '201'));
    await behindTheBack(`update reading set entry = '0.7' where run_id = '${run}'`);
    expect(await faults(job)).toEqual([
      expect.stringMatching(/reading of event 4 \(Ines Varga.*entry was "201", is "0\.7"/),
    ]);
  });
  test('a deleted row', async () => {
    const job = await newJob();
    await recordReading(test_.db, await newRun(job), reading(3, '201'));
    await behindTheBack(`delete from reading where run_id in (select id from test_run where job_id = '${job}')`);
    expect(await faults(job)).toEqual([expect.stringContaining('is gone from the database')]);
  });
  test('a row slipped in', async () => {
    const job = await newJob();
    await behindTheBack(
      `insert into evidence (id, job_id, body, recorded_by) values ('${v7()}', '${job}', '{"kind":"wiggle","where":"x","outcome":"held"}', 'Nobody')`,
    );
    expect(await faults(job)).toEqual([expect.stringContaining('in no event')]);
  });
  test('an edited event, even with its row edited to match; an event taken out; the end cut off', async () => {
    const [edited, taken, cut] = [await newJob(), await newJob(), await newJob()];
    for (const job of [edited, taken, cut]) await recordReading(test_.db, await newRun(job), reading(3, '201'));
    await behindTheBack(`update job set complaint = 'other' where id = '${edited}'`);
    await behindTheBack(
      `update job_event set content = mudflat_row('job', row_id) where job_id = '${edited}' and number = 1`,
    );
    expect(await faults(edited)).toEqual(['Event 1 was changed: its hash is not that of its content.']);
    await behindTheBack(`delete from job_event where job_id = '${taken}' and number = 2`);
    expect(await faults(taken)).toEqual(
      expect.arrayContaining(['Event 2 is missing.', 'Event 3 does not follow the one before it.']),
    );
    await behindTheBack(`delete from job_event where job_id = '${cut}' and number = 4`);
    expect(await faults(cut)).toEqual(
      expect.arrayContaining([expect.stringContaining('ends at event 3, it should end at 4')]),
    );
  });
  test('without such means the database refuses', async () => {
    const job = await newJob();
    await recordReading(test_.db, await newRun(job), reading(1, '0.6'));
    await noteIntake(test_.db, job, {
      id: v7(),
      by: BY,
      intake: { conditions: [], replaced: [], signs: [], photos: [] },
    });
    const held = { kind: 'wiggle', where: 'x', outcome: 'held' } as const;
    await recordEvidence(test_.db, job, { id: v7(), by: BY, evidence: held });
    await recordCodes(test_.db, job, { id: v7(), by: BY, phase: 'as-found', status: 'stored', codes: ['P0671'] });
    const nothing = { kind: 'not-found', text: 'No fault', ruledOut: [], ifReturns: 'Drive it hot' } as const;
    await writeFinding(test_.db, job, { id: v7(), by: BY, finding: { ...nothing, ruledOut: [] } });
    for (const table of ['job_event', 'evidence', 'finding', 'intake', 'code_observation', 'reading'])
      await expect(test_.db.execute(sql.raw(`delete from ${table}`))).rejects.toThrow();
    await expect(test_.db.execute(sql`update job_event set content = ''`)).rejects.toThrow();
  });
});

test('a job is found by its number or its id, by nothing else', async () => {
  const id = await newJob();
  const view = await viewJob(test_.db, id);
  expect(await findJob(test_.db, String(view?.job.number))).toBe(id);
  expect(await findJob(test_.db, id)).toBe(id);
  for (const text of ['0', '', 'florp', `${id}x`, '99999999999', v7()])
    expect(await findJob(test_.db, text)).toBeNull();
});

describe('evidence and findings', () => {
  test('what cannot be is refused at its field', async () => {
    const job = await newJob();
    const record = (evidence: Parameters<typeof recordEvidence>[2]['evidence']) =>
      recordEvidence(test_.db, job, { id: v7(), by: BY, evidence });
    expect(await record({ kind: 'cut-out', position: 5, faultPresent: true, change: 'none' })).toMatchObject({
      ok: false,
      error: { errors: [{ path: '/evidence/position' }] },
    });
    expect(await record({ kind: 'swap', part: 'plug', from: 2, to: 2, outcome: 'stayed' })).toMatchObject({
      ok: false,
      error: { errors: [{ path: '/evidence/to' }] },
    });
    expect(await record({ kind: 'wiggle', where: 'x', outcome: 'held', photos: [v7()] })).toMatchObject({
      ok: false,
      error: { errors: [{ path: '/evidence/photos/0' }] },
    });
    expect(
      await recordEvidence(test_.db, v7(), {
        id: v7(),
        by: BY,
        evidence: { kind: 'wiggle', where: 'x', outcome: 'held' },
      }),
    ).toMatchObject({ ok: false, error: { status: 404 } });
  });
  test('a slip is taken back once; both rows stay', async () => {
    const job = await newJob();
    const id = v7();
    await recordEvidence(test_.db, job, { id, by: BY, evidence: { kind: 'wiggle', where: 'x', outcome: 'broke' } });
    expect(await takeBackEvidence(test_.db, job, { id: v7(), by: BY, evidence: id })).toMatchObject({ ok: true });
    expect(await takeBackEvidence(test_.db, job, { id: v7(), by: BY, evidence: id })).toMatchObject({
      ok: true,
      value: { duplicate: true },
    });
    expect(await evidenceOf(test_.db, job)).toEqual([]);
    expect((await auditTrailOf(test_.db, job)).filter((e) => e.kind === 'evidence')).toHaveLength(2);
    expect(await takeBackEvidence(test_.db, await newJob(), { id: v7(), by: BY, evidence: id })).toMatchObject({
      ok: false,
      error: { status: 404 },
    });
  });
  test('a finding rests on evidence of its own job; a change names the one that counts now', async () => {
    const job = await newJob();
    const finding = {
      kind: 'not-found' as const,
      text: 'No fault in two drives',
      ruledOut: [],
      ifReturns: 'Drive it hot',
    };
    const [first, second] = [v7(), v7()];
    expect((await writeFinding(test_.db, job, { id: first, by: BY, finding })).ok).toBe(true);
    expect(await writeFinding(test_.db, job, { id: first, by: BY, finding })).toMatchObject({
      ok: true,
      value: { duplicate: true },
    });
    expect(
      (
        await writeFinding(test_.db, job, {
          id: second,
          by: BY,
          finding: { ...finding, text: 'Found nothing' },
          supersedes: first,
        })
      ).ok,
    ).toBe(true);
    expect(await writeFinding(test_.db, job, { id: v7(), by: BY, finding, supersedes: first })).toMatchObject({
      ok: false,
      error: { status: 409 },
    });
    expect((await findingsOf(test_.db, [job])).get(job)?.map((f) => f.body.text)).toEqual(['Found nothing']);
    const foreign = {
      kind: 'found' as const,
      what: 'part' as const,
      name: 'plug',
      positions: [3],
      confidence: 'certain' as const,
      text: 'x',
      supports: [{ kind: 'run' as const, id: await newRun(await newJob()), label: 'x' }],
      against: [],
      ruledOut: [],
      advice: '',
    };
    expect(await writeFinding(test_.db, job, { id: v7(), by: BY, finding: foreign })).toMatchObject({
      ok: false,
      error: { errors: [{ path: '/finding/supports/0/id' }] },
    });
  });
  test('the intake’s newest word counts', async () => {
    const job = await newJob();
    await noteIntake(test_.db, job, {
      id: v7(),
      by: BY,
      intake: {
        conditions: ['hot'],
        replaced: [{ what: 'Plug 2', by: 'the driver' }],
        signs: ['clips down'],
        photos: [],
      },
    });
    expect((await viewJob(test_.db, job))?.intake).toMatchObject({ conditions: ['hot'], signs: ['clips down'] });
  });
});
