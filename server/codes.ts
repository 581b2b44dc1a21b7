import { asc, eq } from 'drizzle-orm';
import { v5 } from 'uuid';
import { decodeCode } from '../core/codes/decode';
import { ok, type Problem } from '../core/result';
import type { RecordCodes, TakeBackCode } from '../formats/requests';
import type { CodeView } from '../formats/views';
import type { Db } from './db';
import { databaseCode, type Done, notFound, refuse, UNIQUE_VIOLATION } from './refusal';
import { definitionOf } from './run-view';
import { codeObservation, job, testRun } from './schema';

/** Keeps codes as they were read, in the standard's own writing. The same id twice keeps them once. */
export async function recordCodes(db: Db, jobId: string, body: RecordCodes): Promise<Done> {
  const problems: Problem[] = [];
  const codes: string[] = [];
  for (const [i, text] of body.codes.entries()) {
    const decoded = decodeCode(text);
    if (decoded.ok) codes.push(decoded.value.code);
    else problems.push({ path: `/codes/${i}`, message: decoded.error });
  }
  if (problems.length) return refuse('Some codes cannot be read.', problems);
  const [there] = await db.select({ id: job.id }).from(job).where(eq(job.id, jobId));
  if (!there) return notFound('job');
  const plain = { jobId, phase: body.phase, status: body.status, recordedBy: body.by };
  const rows = codes.length === 0 ? [{ ...plain, id: body.id, code: null }] : [...new Set(codes)].map((code) => ({ ...plain, id: v5(code, body.id), code }));
  const inserted = await db.insert(codeObservation).values(rows).onConflictDoNothing({ target: codeObservation.id }).returning({ id: codeObservation.id });
  return ok({ id: body.id, duplicate: inserted.length === 0 });
}

/** Takes a slip back: the row stays, and another says that it does not count. */
export async function takeBackCode(db: Db, jobId: string, body: TakeBackCode): Promise<Done> {
  const [slip] = await db.select().from(codeObservation).where(eq(codeObservation.id, body.observation));
  if (slip?.jobId !== jobId || slip.takesBack !== null) return notFound('code in this job', '/observation');
  try {
    const row = { id: body.id, jobId, code: slip.code, phase: slip.phase, status: slip.status, recordedBy: body.by, takesBack: slip.id };
    const inserted = await db.insert(codeObservation).values(row).onConflictDoNothing({ target: codeObservation.id }).returning({ id: codeObservation.id });
    return ok({ id: body.id, duplicate: inserted.length === 0 });
  } catch (error) {
    if (databaseCode(error)?.code !== UNIQUE_VIOLATION) throw error;
    return ok({ id: body.id, duplicate: true });
  }
}

/** The codes of a job that count, in the order in which they were read. */
export async function codesOf(db: Db, jobId: string): Promise<CodeView[]> {
  const rows = await db.select().from(codeObservation).where(eq(codeObservation.jobId, jobId)).orderBy(asc(codeObservation.sequence));
  const takenBack = new Set(rows.map((r) => r.takesBack));
  return rows.filter((r) => r.takesBack === null && !takenBack.has(r.id)).map((r) => ({ id: r.id, code: r.code, phase: r.phase, status: r.status, by: r.recordedBy, at: r.createdAt.toISOString() }));
}

/** Names of tests of a job in which something was unplugged with the key on. */
export async function unpluggedIn(db: Db, jobId: string): Promise<string[]> {
  const runs = await db.select().from(testRun).where(eq(testRun.jobId, jobId)).orderBy(asc(testRun.createdAt));
  return [...new Set(runs.map(definitionOf).filter((t) => t.condition.key === 'on' && t.states.some((s) => s.id === 'unplugged')).map((t) => t.name))];
}
