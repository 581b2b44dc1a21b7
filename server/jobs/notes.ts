import { tr } from '../../core/locale/translate';
import { asc, eq } from 'drizzle-orm';
import { runCalculation } from '../../core/calculations/run';
import { findCalculation } from '../../core/calculations/calculations';
import { calculationLines } from '../../application/report/calculation-words';
import { noteForReader, writtenNote } from '../../application/report/written-note';
import type { NoteView } from '../../application/views';
import type { Db } from '../db/connection';
import { type Done, notFound, refuse } from '../db/refusal';
import { definitionOf } from '../readings/run-view';
import { job, jobNote, testRun } from '../db/schema';
import { append } from '../journal/append';
import type { NoteCalculation } from '../../formats/requests/jobs';
import type { OverrideState } from '../../formats/requests/runs';

/**
 * Puts a sum into a job's record: computed here again from its inputs, so that what stands there was
 * computed.
 */
export async function noteCalculation(db: Db, jobId: string, body: NoteCalculation): Promise<Done> {
  const sum = findCalculation(body.sum);
  if (!sum) return notFound('sum', '/sum');
  const outcomes = runCalculation(sum, body.inputs);
  if (!outcomes.ok)
    return refuse(
      'This sum cannot be done.',
      outcomes.error.map((p) => ({ ...p, path: `/inputs${p.path}` })),
    );
  const [there] = await db.select({ id: job.id }).from(job).where(eq(job.id, jobId));
  if (!there) return notFound('job');
  const row = {
    id: body.id,
    jobId,
    kind: 'sum' as const,
    recordedBy: body.by,
    body: writtenNote(() => ({ title: sum.name, lines: calculationLines(sum, body.inputs, outcomes.value) })),
  };
  return append(db, jobNote, row);
}

export async function notesOf(db: Db, jobId: string): Promise<NoteView[]> {
  const rows = await db.select().from(jobNote).where(eq(jobNote.jobId, jobId)).orderBy(asc(jobNote.sequence));
  return rows.map((n) => ({
    id: n.id,
    kind: n.kind,
    ...noteForReader(n.body),
    by: n.recordedBy,
    at: n.createdAt.toISOString(),
  }));
}

/**
 * A state that a test asks for and that cannot be had, signed off by a lead: stands in the job's record, with
 * why.
 */
export async function overrideState(db: Db, runId: string, body: OverrideState): Promise<Done> {
  const [run] = await db.select().from(testRun).where(eq(testRun.id, runId));
  if (!run) return notFound('test run');
  const definition = definitionOf(run);
  const state = definition.states.find((s) => s.id === body.state);
  if (!state)
    return refuse('No such state.', [
      { path: '/state', message: tr`"${definition.name}" does not ask for "${body.state}".` },
    ]);
  const row = {
    id: body.id,
    jobId: run.jobId,
    kind: 'override' as const,
    recordedBy: body.by,
    body: writtenNote(() => ({
      title: tr`Signed off: ${definition.name} without "${state.label}"`,
      lines: [body.because.trim(), tr`What it is for: ${state.why}`],
    })),
  };
  return append(db, jobNote, row);
}
