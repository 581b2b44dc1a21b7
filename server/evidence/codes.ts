import { tr } from '../../core/locale/translate';
import { asc, desc, eq, inArray } from 'drizzle-orm';
import { v5 } from 'uuid';
import { decodeCode, type ListedCode, timesSeen } from '../../core/codes/decode';
import { type Problem } from '../../core/foundation/result';
import type { CodeView } from '../../application/views';
import type { Db, Tx } from '../db/connection';
import { type Done, notFound, refuse } from '../db/refusal';
import type { RunRow } from '../readings/job-runs';
import { definitionOf } from '../readings/run-view';
import { codeDescription, codeObservation, depot, job } from '../db/schema';
import { append, appendAll, appendTakeBack } from '../journal/append';
import { countingByJob } from './counting';
import type { RecordCodes, TakeBackCode, DescribeCode } from '../../formats/requests/codes';

/** Keeps codes as they were read, in the standard's own writing. The same id twice keeps them once. */
export async function recordCodes(db: Db, jobId: string, body: RecordCodes): Promise<Done> {
  const problems: Problem[] = [];
  const codes = new Map<string, ListedCode>();
  for (const [i, one] of body.codes.entries()) {
    const listed: ListedCode = typeof one === 'string' ? { code: one } : one;
    const decoded = decodeCode(listed.code);
    if (decoded.ok) codes.set(decoded.value.code, codes.get(decoded.value.code) ?? listed);
    else problems.push({ path: `/codes/${i}`, message: decoded.error });
  }
  if (problems.length) return refuse('Some codes cannot be read.', problems);
  const [there] = await db.select({ id: job.id }).from(job).where(eq(job.id, jobId));
  if (!there) return notFound('job');
  const plain = {
    jobId,
    phase: body.phase,
    status: body.status,
    recordedBy: body.by,
    freezeFrame: body.freezeFrame ?? [],
  };
  const rows =
    codes.size === 0
      ? [{ ...plain, id: body.id, code: null }]
      : [...codes].map(([code, { status, count }]) => ({
          ...plain,
          id: v5(code, body.id),
          code,
          ...(status === undefined ? {} : { status }),
          freezeFrame: count === undefined ? plain.freezeFrame : [timesSeen(count), ...plain.freezeFrame],
        }));
  return appendAll(db, codeObservation, body.id, rows);
}

/** Takes a slip back: the row stays, and another says that it does not count. */
export async function takeBackCode(db: Db, jobId: string, body: TakeBackCode): Promise<Done> {
  const [slip] = await db.select().from(codeObservation).where(eq(codeObservation.id, body.observation));
  if (slip?.jobId !== jobId || slip.takesBack !== null) return notFound('code in this job', '/observation');
  return appendTakeBack(db, codeObservation, {
    id: body.id,
    jobId,
    code: slip.code,
    phase: slip.phase,
    status: slip.status,
    recordedBy: body.by,
    takesBack: slip.id,
    freezeFrame: slip.freezeFrame,
  });
}

/** The codes of a job that count, in the order in which they were read. */
export const codesOf = async (db: Db | Tx, jobId: string): Promise<CodeView[]> =>
  (await codesOfJobs(db, [jobId])).get(jobId) ?? [];

/** The codes that count, of many jobs at once. */
export async function codesOfJobs(db: Db | Tx, jobIds: readonly string[]): Promise<Map<string, CodeView[]>> {
  if (jobIds.length === 0) return new Map();
  const rows = await db
    .select()
    .from(codeObservation)
    .where(inArray(codeObservation.jobId, [...jobIds]))
    .orderBy(asc(codeObservation.sequence));
  return new Map([...countingByJob(rows)].map(([jobId, own]) => [jobId, own.map(codeView)]));
}

const codeView = (r: typeof codeObservation.$inferSelect): CodeView => ({
  id: r.id,
  code: r.code,
  phase: r.phase,
  status: r.status,
  freezeFrame: r.freezeFrame,
  by: r.recordedBy,
  at: r.createdAt.toISOString(),
});

/** Names of the tests, of a job’s runs, in which something was unplugged with the key on. */
export const unpluggedIn = (runs: readonly RunRow[]): string[] => [
  ...new Set(
    runs
      .map(definitionOf)
      .filter((t) => t.condition.key === 'on' && t.states.some((s) => s.id === 'unplugged'))
      .map((t) => t.name),
  ),
];

/**
 * What a depot knows of a code that its maker defined; an empty text takes it away. Codes of the standards
 * keep the standards' meaning.
 */
export async function describeCode(db: Db, depotId: string, body: DescribeCode): Promise<Done> {
  const decoded = decodeCode(body.code);
  if (!decoded.ok) return refuse('This is no code.', [{ path: '/code', message: decoded.error }]);
  if (decoded.value.confidence !== 'maker-defined')
    return refuse('This code needs no description.', [
      { path: '/code', message: tr`${decoded.value.code} is defined by ${decoded.value.standard}.` },
    ]);
  const [there] = await db.select({ id: depot.id }).from(depot).where(eq(depot.id, depotId));
  if (!there) return notFound('depot');
  const row = { id: body.id, depotId, code: decoded.value.code, text: body.text.trim(), recordedBy: body.by };
  return append(db, codeDescription, row);
}

export async function descriptionsOf(db: Db, depotId: string): Promise<Record<string, string>> {
  const rows = await db
    .selectDistinctOn([codeDescription.code])
    .from(codeDescription)
    .where(eq(codeDescription.depotId, depotId))
    .orderBy(codeDescription.code, desc(codeDescription.sequence));
  return Object.fromEntries(rows.filter((r) => r.text).map((r) => [r.code, r.text]));
}
