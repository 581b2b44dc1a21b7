import { eq, sql } from 'drizzle-orm';
import { v7 } from 'uuid';
import { payerReport } from '../../application/report/job-report';
import { PLAIN, type Reader, readFor } from '../../core/locale/locale';
import { PSEUDO } from '../../core/locale/pseudo';
import { translationOf } from '../locale/translations';
import { CORE_VERSION } from '../../core/foundation/version';
import type { Judgement } from '../../core/judge/types';
import { reasonWords } from '../../core/judge/words';
import { workshopId } from '../testing/workshop';
import { runPdf } from '../../print/run-pdf';
import { verifyJob } from '../audit/audit-trail';
import { testRun } from '../db/schema';
import { viewReport } from '../jobs/report';
import { viewJob } from '../jobs/view-job';
import { openJob, startRun } from '../jobs/open-job';
import { notesOf } from '../jobs/notes';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { judgeAgain, whatJudgingAgainChanges } from './judge-again';
import { recordReading } from './record-reading';
import { viewRun } from './run-view';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase();
});
afterAll(() => test_.drop());

const BY = 'Ines Varga';
const OLD = 'an older judge said so';

/** A run with two readings, whose stored judgement is then what an older core would have left. */
async function oldRun(change: (stored: Record<string, unknown>) => object): Promise<{ job: string; run: string }> {
  const [job, run] = [v7(), v7()];
  await openJob(test_.db, { id: job, unitId: workshopId('unit', 'PL-14'), complaint: 'x', by: BY });
  await startRun(test_.db, { id: run, jobId: job, test: 'glow-plug-resistance', by: BY });
  for (const [position, entry] of [
    [1, '0.6'],
    [2, '201'],
  ] as const)
    await recordReading(test_.db, run, { id: v7(), position, entry, by: BY, takenAt: '2026-11-20T10:00:00Z' });
  const [row] = (
    await test_.db.execute<{ judgement: Record<string, unknown> }>(
      sql`select judgement from test_run where id = ${run}`,
    )
  ).rows;
  await test_.db.execute(
    sql`update test_run set judgement = ${JSON.stringify(change(row?.judgement ?? {}))}::jsonb where id = ${run}`,
  );
  return { job, run };
}
/**
 * As an older version left it: another verdict, other words, none of the newer fields, and a rule that is
 * gone.
 */
const older = (stored: Record<string, unknown>): object => ({
  ...stored,
  core: '0.0.9',
  summary: OLD,
  proven: undefined,
  readings: (stored.readings as Record<string, unknown>[]).map((r) =>
    r.position === 1
      ? {
          position: 1,
          entry: '0.6',
          value: 0.6,
          corrected: 0.6,
          verdict: 'high',
          severity: 'fail',
          reasons: [{ rule: 'gone-since', value: 1 }],
        }
      : r,
  ),
});
const verdictAt = (j: Judgement | null | undefined, position: number) =>
  j?.readings.find((r) => r.position === position)?.verdict;

test('what was judged is what is shown: bench, job, report and paper say the stored verdict', async () => {
  const { job, run } = await oldRun(older);
  const view = await viewRun(test_.db, run);
  expect([view?.judgement.summary, verdictAt(view?.judgement, 1)]).toEqual([OLD, 'high']);
  const report = await viewReport(test_.db, job);
  expect(verdictAt(report?.runs[0]?.judgement, 1)).toBe('high');
  expect(report?.job.job.runs[0]?.judgement?.summary).toBe(OLD);
  expect(report && payerReport(report).title).toContain('PL-14');
  const reason = view?.judgement.readings[0]?.reasons[0];
  expect(reason && reasonWords(reason, view.specification.limits, null)).toContain('gone-since');
  if (view) expect((await runPdf(view)).subarray(0, 4).toString()).toBe('%PDF');
});

test.each<[string, (stored: Record<string, unknown>) => object]>([
  [
    'a verdict that is not known here',
    (s) => ({ ...s, core: '9.0.0', readings: (s.readings as object[]).map((r) => ({ ...r, verdict: 'singing' })) }),
  ],
  ['a pattern that is not known here', (s) => ({ ...s, core: '9.0.0', pattern: 'spiral' })],
  ['a quantity that is not known here', (s) => ({ ...s, core: '9.0.0', limits: { quantity: 'colour', unit: 'blue' } })],
  ['hardly anything', () => ({ core: '0.0.1' })],
  ['nothing at all', () => ({})],
])('rows of another version always open: %s', async (_, change) => {
  const { job, run } = await oldRun(change);
  const view = await viewRun(test_.db, run);
  expect(view?.readings).toHaveLength(2);
  expect((await viewJob(test_.db, job))?.job.runs).toHaveLength(1);
  expect((await viewReport(test_.db, job))?.runs).toHaveLength(1);
  if (view) expect((await runPdf(view)).length).toBeGreaterThan(1000);
});

test('a run of a test that is not in the catalogue any more opens', async () => {
  const { job, run } = await oldRun(older);
  await test_.db.update(testRun).set({ test: 'gone', definition: null }).where(eq(testRun.id, run));
  expect((await viewRun(test_.db, run))?.definition.name).toBe('gone');
  expect((await viewJob(test_.db, job))?.job.runs[0]?.name).toBe('gone');
});

test('judging again is asked for, shows what it changes, is done once, and stands in the trail', async () => {
  const { job, run } = await oldRun(older);
  expect(await whatJudgingAgainChanges(test_.db, run)).toMatchObject({
    ok: true,
    value: { was: '0.0.9', becomes: CORE_VERSION, changes: [{ position: 1, was: 'high', becomes: 'within' }] },
  });
  expect(verdictAt((await viewRun(test_.db, run))?.judgement, 1)).toBe('high');
  const id = v7();
  expect(await judgeAgain(test_.db, run, { id, by: BY })).toMatchObject({ ok: true, value: { duplicate: false } });
  expect(await judgeAgain(test_.db, run, { id, by: BY })).toMatchObject({ ok: true, value: { duplicate: true } });
  expect(verdictAt((await viewRun(test_.db, run))?.judgement, 1)).toBe('within');
  const notes = await notesOf(test_.db, job);
  expect(notes).toMatchObject([{ kind: 'judged-again', by: BY }]);
  expect(notes[0]?.lines.join('\n')).toContain('1: 0.6 was too high, is in');
  expect(await verifyJob(test_.db, job)).toMatchObject({ intact: true });
  expect(await judgeAgain(test_.db, v7(), { id: v7(), by: BY })).toMatchObject({ ok: false, error: { status: 404 } });
});

test('the note is kept in plain words, whoever judged again, and shown to each reader in their own', async () => {
  const { job, run } = await oldRun(older);
  const pseudoReader = { locale: { ...PLAIN, language: PSEUDO }, words: translationOf(PSEUDO) };
  const readAs = async (reader: Reader): Promise<string> => {
    readFor(() => reader);
    const [note] = await notesOf(test_.db, job).finally(() => readFor(undefined));
    return [note?.title, ...(note?.lines ?? [])].join('\n');
  };
  readFor(() => pseudoReader);
  const done = await judgeAgain(test_.db, run, { id: v7(), by: BY }).finally(() => readFor(undefined));
  expect(done.ok).toBe(true);
  const plain = await readAs({ locale: PLAIN, words: null });
  expect(plain).toContain(': judged again\nBy version');
  expect(plain).toContain('1: 0.6 was too high, is in');
  expect(await readAs({ locale: { ...PLAIN, decimal: 'comma' }, words: null })).toContain('1: 0,6 was too high, is in');
  expect(await readAs(pseudoReader)).not.toMatch(/[a-z]{3}/);
});

test('a new reading in such a run says what the new judge alone has changed', async () => {
  const { job, run } = await oldRun(older);
  await recordReading(test_.db, run, { id: v7(), position: 3, entry: '0.7', by: BY, takenAt: '2026-11-20T11:00:00Z' });
  expect(await notesOf(test_.db, job)).toMatchObject([{ kind: 'judged-again' }]);
  const again = await oldRun((s) => s);
  await recordReading(test_.db, again.run, {
    id: v7(),
    position: 3,
    entry: '0.7',
    by: BY,
    takenAt: '2026-11-20T11:00:00Z',
  });
  expect(await notesOf(test_.db, again.job)).toEqual([]);
});
