import { and, asc, eq, inArray } from 'drizzle-orm';
import { type FindingView } from '../../application/views';
import { type Db, eachOf, type Tx } from '../db/connection';
import { databaseCode, type Done, notFound, refuse, UNIQUE_VIOLATION } from '../db/refusal';
import { evidence, finding, job, testRun } from '../db/schema';
import { currentReadings } from '../../application/judging/corrections';
import { alreadyThere, append } from '../journal/append';
import type { WriteFinding } from '../../formats/requests/findings';

/** Signs a finding. What it rests on must be of this job; a correction names the finding that counts now. */
export async function writeFinding(db: Db, jobId: string, body: WriteFinding): Promise<Done> {
  const [there] = await db.select({ id: job.id }).from(job).where(eq(job.id, jobId));
  if (!there) return notFound('job');
  const row = { id: body.id, jobId, body: body.finding, supersedes: body.supersedes ?? null, recordedBy: body.by };
  const before = await alreadyThere(db, finding, row);
  if (before) return before;
  if (body.supersedes) {
    const [old] = await db.select({ jobId: finding.jobId }).from(finding).where(eq(finding.id, body.supersedes));
    if (old?.jobId !== jobId) return notFound('finding in this job', '/supersedes');
  }
  const strange = await strangeRefs(db, jobId, body.finding);
  if (strange.length) return refuse('Some evidence is not of this job.', strange);
  try {
    return await append(db, finding, row);
  } catch (error) {
    if (databaseCode(error)?.code !== UNIQUE_VIOLATION) throw error;
    return refuse(
      'Somebody was here before.',
      [{ path: '/supersedes', message: 'This finding was changed since. Look at it again.' }],
      409,
    );
  }
}

async function strangeRefs(
  db: Db,
  jobId: string,
  f: WriteFinding['finding'],
): Promise<{ path: string; message: string }[]> {
  if (f.kind !== 'found') return [];
  const ids = [...new Set([...f.supports, ...f.against].map((r) => r.id))];
  if (ids.length === 0) return [];
  const rows = await eachOf(db, [testRun, evidence], (t) =>
    db
      .select({ id: t.id })
      .from(t)
      .where(and(eq(t.jobId, jobId), inArray(t.id, ids))),
  );
  const own = new Set(rows.flat().map((r) => r.id));
  return (['supports', 'against'] as const).flatMap((side) =>
    f[side].flatMap((r, i) =>
      own.has(r.id) ? [] : [{ path: `/finding/${side}/${i}/id`, message: 'This is no evidence of this job.' }],
    ),
  );
}

/** Findings that count, by job. */
export async function findingsOf(db: Db | Tx, jobIds: readonly string[]): Promise<Map<string, FindingView[]>> {
  const rows = jobIds.length
    ? await db
        .select()
        .from(finding)
        .where(inArray(finding.jobId, [...jobIds]))
        .orderBy(asc(finding.sequence))
    : [];
  const byJob = new Map<string, FindingView[]>();
  for (const r of currentReadings(rows)) {
    const view = { id: r.id, body: r.body, by: r.recordedBy, at: r.createdAt.toISOString() };
    byJob.set(r.jobId, [...(byJob.get(r.jobId) ?? []), view]);
  }
  return byJob;
}
