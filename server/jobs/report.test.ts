import { sql } from 'drizzle-orm';
import sharp from 'sharp';
import { v7 } from 'uuid';
import { addPhoto } from '../evidence/photos';
import { reportPhotos, viewReport } from './report';
import { chooseDepot } from '../fleet/fleet';
import { viewRun } from '../readings/run-view';
import { fileReport, payerReport, recordWords } from '../../application/report/job-report';
import { demoId } from '../../demo/load';
import { DEMO } from '../../demo/testing';
import { makeTestDatabase, type TestDatabase } from '../testing/database';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase(DEMO);
});
afterAll(() => test_.drop());

async function reportOf(...job: string[]) {
  const view = await viewReport(test_.db, demoId('job', ...job));
  if (!view) throw new Error('no job');
  return view;
}
const linesOf = (sections: readonly { title: string; lines: readonly string[] }[], title: string): string =>
  sections.find((s) => s.title === title)?.lines.join('\n') ?? '';

test('the payer is told what was wrong, how it is known, what was done, what is advised and what it costs', async () => {
  const report = payerReport(await reportOf('PL-27'));
  expect(linesOf(report.sections, 'What was wrong')).toContain('The injector of cylinder 5 is bad');
  expect(linesOf(report.sections, 'How we know')).toContain('followed the injector');
  expect(linesOf(report.sections, 'What was done')).toMatch(
    /loom replaced[^]*13 of 13 steps done and signed[^]*New codes entered for cylinder 5/,
  );
  expect(linesOf(report.sections, 'What we advise')).toContain('return flow');
  expect(report.cost).toMatchObject({ total: '636.00 EUR', answer: expect.stringContaining('Accepted') as string });
  // Plain words: nothing of hashes, uncertainties or nats.
  expect(JSON.stringify(report)).not.toMatch(/nats|uncertainty|[0-9a-f]{64}/);
});
test('the letter has the workshop’s own head, else its depot; it says who signed', async () => {
  const depot = demoId('depot', 'North Sluice');
  const choose = (letterhead: string) => chooseDepot(test_.db, depot, { by: 'Odile Brandt', letterhead });
  await choose('Levels workshop\nThe old lock');
  expect(payerReport(await reportOf('PL-03')).letterhead).toEqual(['Levels workshop', 'The old lock']);
  await choose('');
  const plain = payerReport(await reportOf('PL-03'));
  expect([plain.letterhead, plain.signed]).toEqual([['North Sluice'], expect.stringMatching(/^\w+ \w+, \d/) as string]);
  expect(payerReport(await reportOf('PL-11')).signed).toBeNull();
});
test('what was not taken is said, with its risk; what is released says by whom', async () => {
  expect(linesOf(payerReport(await reportOf('PL-11')).sections, 'What we advise')).toContain(
    'deferred until 1 Feb 2027; the unit goes on at that risk',
  );
  const released = payerReport(await reportOf('PL-16', 'last winter'));
  expect(linesOf(released.sections, 'Where it stands')).toBe('Released by Jory Thane: Runs on four from cold.');
  expect(linesOf(released.sections, 'How it was proven')).toContain('All 4 are inside');
  // What was mended is history in a released job, and the payer is told all the same how it was known.
  expect(linesOf(released.sections, 'How we know')).toContain('it is bad');
});
test('the file is told everything: readings, records by whom and when, the trail and its end', async () => {
  const view = await reportOf('PL-16', 'last winter');
  const report = fileReport(view);
  expect(linesOf(report.sections, 'Decision, quotation, repair').split('\n')).toHaveLength(
    view.job.repair.records.length,
  );
  expect(linesOf(report.sections, 'Decision, quotation, repair')).toMatch(/16 Nm with torque wrench 2; .*Jory Thane/);
  expect(report.facts).toContainEqual(['Came back', `as job ${view.job.repair.comebacks[0]?.number ?? ''}`]);
  expect(report.trail).toHaveLength(view.verified.events);
  expect(report.head).toContain(view.verified.head);
  expect(view.runs.flatMap((r) => r.judgement.readings).length).toBeGreaterThanOrEqual(8);
});
test('runs are read for a report as each is read by itself', async () => {
  for (const name of [['PL-14'], ['PL-23'], ['PL-16', 'last winter']]) {
    const { runs } = await reportOf(...name);
    expect(runs.length).toBeGreaterThan(0);
    for (const run of runs) expect(run).toEqual(await viewRun(test_.db, run.id));
  }
});
test('photos are drawn for paper in their order; one alone where one is asked for, none where there is none', async () => {
  const jobId = demoId('job', 'PL-14');
  const picture = (width: number, height: number): Promise<Buffer> =>
    sharp({ create: { width, height, channels: 3, background: '#365' } })
      .png()
      .toBuffer();
  const ids = [v7(), v7(), v7()];
  const bytes = [await picture(1600, 800), await picture(60, 90), await picture(400, 2000)];
  for (const [i, id] of ids.entries())
    expect(
      (await addPhoto(test_.db, jobId, { id, name: `photo ${i}.png`, by: 'Ines Varga', bytes: bytes[i] as Buffer })).ok,
    ).toBe(true);
  const photos = await reportPhotos(test_.db, jobId);
  expect(photos.map((p) => [p.id, p.name])).toEqual(ids.map((id, i) => [id, `photo ${i}.png`]));
  const drawn = await Promise.all(
    photos.map(async (p) => {
      const { width, height, format } = await sharp(p.jpeg).metadata();
      return [width, height, format];
    }),
  );
  expect(drawn).toEqual([
    [720, 360, 'jpeg'],
    [60, 90, 'jpeg'],
    [144, 720, 'jpeg'],
  ]);
  expect((await reportPhotos(test_.db, jobId, ids[1])).map((p) => p.id)).toEqual([ids[1]]);
  expect(await reportPhotos(test_.db, jobId, null)).toEqual([]);
  expect(await reportPhotos(test_.db, demoId('job', 'PL-11'), ids[1])).toEqual([]);
});
test('a trail that was touched is said on paper', async () => {
  await test_.db.transaction(async (tx) => {
    await tx.execute(sql`set local session_replication_role = replica`);
    await tx.execute(sql`update job_record set recorded_by = 'Nobody' where job_id = ${demoId('job', 'PL-11')}`);
  });
  expect(fileReport(await reportOf('PL-11')).head).toMatch(
    /^The trail is NOT intact: .*recorded_by was "Tobin Marsh", is "Nobody"/,
  );
});
test('every kind of record has its sentence', async () => {
  const { rows } = await test_.db.execute<
    { body: Parameters<typeof recordWords>[0]['body'] } & Record<string, unknown>
  >(sql`select distinct on (body->>'kind') body from job_record`);
  const all = [...rows.map((r) => r.body), { kind: 'reopen' as const, because: 'it is back' }];
  for (const body of all) expect(recordWords({ id: '', by: '', at: '', body })).toMatch(/^[A-Z].{6,}/);
  expect(all.length).toBeGreaterThanOrEqual(9);
});

test('a recording is in the report for the file, with its picture; in the payer’s once something of it is evidence', async () => {
  const view = await reportOf('PL-22');
  const [recording] = view.recordings;
  expect(recording?.lines.join(' ')).toMatch(/boost sensor at 12:21\.2\d\d: [^]*\(not decided\)/);
  const { picture } = recording ?? {};
  const meant = picture?.lanes.find((l) => l.isMeant);
  expect(meant?.name).toBe('boost sensor');
  // The lane holds the samples themselves: the dropout to nothing, and the course before it.
  const values = meant?.points.map(([, v]) => v) ?? [];
  expect(Math.min(...values)).toBeLessThan(0.1);
  expect(values[0]).toBeGreaterThan(1);
  expect(picture?.lanes).toHaveLength(4);
  expect(payerReport(view).recording).toBeNull();
  const taken = { ...view, recordings: view.recordings.map((r) => ({ ...r, isEvidence: true })) };
  const plain = payerReport({
    ...taken,
    job: { ...view.job, evidence: [], intake: { ...view.job.intake, photos: [] } },
  });
  expect(plain.recording).toEqual(picture);
});
