import { eq } from 'drizzle-orm';
import { v7 } from 'uuid';
import { changeWords, type JudgedAgain, verdictChanges } from '../../application/judging/difference';
import { writtenNote } from '../../application/report/written-note';
import { tr } from '../../core/locale/translate';
import { forReader, judgeForRecord } from '../../application/judging/judge-run';
import { CORE_VERSION } from '../../core/foundation/version';
import { ok, type Result } from '../../core/foundation/result';
import type { Judgement } from '../../core/judge/types';
import type { ProblemDetails } from '../../formats/problem';
import type { Db, Tx } from '../db/connection';
import { type Done, notFound, refuse } from '../db/refusal';
import { jobNote, testRun } from '../db/schema';
import { alreadyThere, append } from '../journal/append';
import { judgementOf, loadRun, runInputs, type RunRecord } from './run-view';
import type { JudgeAgain } from '../../formats/requests/runs';

/**
 * Judging again is an act of its own: it is asked for, shows what it would change, and stands in the job's
 * record. Nothing judges a stored run again by itself, whatever version of the core shows it.
 */
export async function whatJudgingAgainChanges(db: Db, runId: string): Promise<Result<JudgedAgain, ProblemDetails>> {
  const record = await loadRun(db, runId);
  if (!record) return notFound('test run');
  const now = judgeForRecord(runInputs(record));
  return now.ok ? ok(differenceOf(record, now.value)) : refuse('This run cannot be judged.', now.error);
}

const differenceOf = (record: RunRecord, now: Judgement): JudgedAgain => ({
  was: judgementOf(record).core,
  becomes: CORE_VERSION,
  changes: verdictChanges(judgementOf(record), now),
  summary: forReader(now, record.definition).summary,
});

/** Judges a run again by this version of the core. The same id twice does it once. */
export async function judgeAgain(db: Db, runId: string, body: JudgeAgain): Promise<Done> {
  return db.transaction(async (tx) => {
    const record = await loadRun(tx, runId, true);
    if (!record) return notFound('test run');
    const now = judgeForRecord(runInputs(record));
    if (!now.ok) return refuse('This run cannot be judged.', now.error);
    const note = noteOf(record, now.value, body.id, body.by);
    // A second time there is no difference left to tell: the id says that it was done.
    const before = await alreadyThere(tx, jobNote, { id: note.id, jobId: note.jobId, kind: note.kind });
    if (before) return before;
    await tx.update(testRun).set({ judgement: now.value }).where(eq(testRun.id, runId));
    return append(tx, jobNote, note);
  });
}

/**
 * A new reading in a run that another version of the core has judged: the whole set is judged by this one,
 * and what that alone changes stands in the record.
 */
export async function noteOtherVersion(tx: Tx, record: RunRecord, by: string): Promise<void> {
  const stored = record.run.judgement;
  if (!stored || stored.core === CORE_VERSION) return;
  const now = judgeForRecord(runInputs(record));
  if (!now.ok || verdictChanges(stored, now.value).length === 0) return;
  await append(tx, jobNote, noteOf(record, now.value, v7(), by));
}

function noteOf(record: RunRecord, now: Judgement, id: string, by: string) {
  const { was, becomes, changes } = differenceOf(record, now);
  const note = writtenNote(() => ({
    title: tr`${record.definition.name}: judged again`,
    lines: [
      was
        ? tr`By version ${becomes} of the judge; before by ${was}.`
        : tr`By version ${becomes} of the judge; before by one that did not say.`,
      ...(changes.length ? changes.map((c) => changeWords(c, now.limits)) : ['No verdict is another one.']),
    ],
  }));
  return {
    id,
    jobId: record.job.id,
    kind: 'judged-again' as const,
    recordedBy: by,
    body: note,
  };
}
