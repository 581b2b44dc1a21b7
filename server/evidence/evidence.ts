import { tr } from '../../core/locale/translate';
import { asc, desc, eq, inArray } from 'drizzle-orm';
import { type Problem } from '../../core/foundation/result';
import type { Evidence } from '../../core/evidence/types';
import type { Position } from '../../core/judge/types';
import type { EvidenceView } from '../../application/views';
import type { Db, Tx } from '../db/connection';
import { type Done, notFound, refuse } from '../db/refusal';
import { engineFamily, evidence, intake, job, photo, fleetUnit } from '../db/schema';
import { append, appendTakeBack } from '../journal/append';
import { countingByJob } from './counting';
import { EMPTY_INTAKE, type Intake, type NoteIntake } from '../../formats/requests/intake';
import type { RecordEvidence, TakeBack } from '../../formats/requests/evidence';

/** Photos that a body names and that are not of this job. */
async function strangePhotos(db: Db, jobId: string, ids: readonly string[], path: string): Promise<Problem[]> {
  if (ids.length === 0) return [];
  const rows = await db
    .select({ id: photo.id, jobId: photo.jobId })
    .from(photo)
    .where(inArray(photo.id, [...ids]));
  const own = new Set(rows.filter((r) => r.jobId === jobId).map((r) => r.id));
  return ids.flatMap((id, i) =>
    own.has(id) ? [] : [{ path: `${path}/${i}`, message: 'There is no such photo in this job.' }],
  );
}

export async function noteIntake(db: Db, jobId: string, body: NoteIntake): Promise<Done> {
  const [there] = await db.select({ id: job.id }).from(job).where(eq(job.id, jobId));
  if (!there) return notFound('job');
  const problems = await strangePhotos(db, jobId, body.intake.photos, '/intake/photos');
  if (problems.length) return refuse('Some fields are wrong.', problems);
  return append(db, intake, { id: body.id, jobId, body: body.intake, recordedBy: body.by });
}

export const intakeOf = async (db: Db | Tx, jobId: string): Promise<Intake> =>
  (await intakeOfJobs(db, [jobId])).get(jobId) ?? EMPTY_INTAKE;

/** The newest intake of many jobs at once; a job without one is not in it. */
export async function intakeOfJobs(db: Db | Tx, jobIds: readonly string[]): Promise<Map<string, Intake>> {
  if (jobIds.length === 0) return new Map();
  const rows = await db
    .selectDistinctOn([intake.jobId], { jobId: intake.jobId, body: intake.body })
    .from(intake)
    .where(inArray(intake.jobId, [...jobIds]))
    .orderBy(intake.jobId, desc(intake.sequence));
  return new Map(rows.map((r) => [r.jobId, r.body]));
}

/** Keeps evidence that is no reading. */
export async function recordEvidence(db: Db, jobId: string, body: RecordEvidence): Promise<Done> {
  const [there] = await db
    .select({ engine: engineFamily.engine })
    .from(job)
    .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
    .innerJoin(engineFamily, eq(engineFamily.id, fleetUnit.engineFamilyId))
    .where(eq(job.id, jobId));
  if (!there) return notFound('job');
  const problems = [
    ...checkEvidence(body.evidence, there.engine.cylinders),
    ...(await strangePhotos(db, jobId, body.evidence.photos ?? [], '/evidence/photos')),
  ];
  if (problems.length) return refuse('Some fields are wrong.', problems);
  return append(db, evidence, { id: body.id, jobId, body: body.evidence, recordedBy: body.by });
}

/** What cannot be: a cylinder that the engine has not, a swap with itself. */
function checkEvidence(e: Evidence, cylinders: number): Problem[] {
  const check = (field: string, position: Position | undefined): Problem[] =>
    typeof position === 'number' && position > cylinders
      ? [{ path: `/evidence/${field}`, message: tr`This engine has ${cylinders} cylinders.` }]
      : [];
  if (e.kind === 'swap')
    return [
      ...check('from', e.from),
      ...check('to', e.to),
      ...(e.from === undefined && e.to !== undefined
        ? [{ path: '/evidence/from', message: 'From where? Or leave both empty: with a twin.' }]
        : []),
      ...(e.from !== undefined && e.to === undefined
        ? [{ path: '/evidence/to', message: 'With which one? Or leave both empty: with a twin.' }]
        : []),
      ...(e.from !== undefined && e.from === e.to
        ? [{ path: '/evidence/to', message: 'A swap is with another position.' }]
        : []),
    ];
  return 'position' in e ? check('position', e.position) : [];
}

/** Takes a slip back: the row stays, and another says that it does not count. */
export async function takeBackEvidence(db: Db, jobId: string, body: TakeBack): Promise<Done> {
  const [slip] = await db.select().from(evidence).where(eq(evidence.id, body.evidence));
  if (slip?.jobId !== jobId || slip.takesBack !== null) return notFound('evidence in this job', '/evidence');
  return appendTakeBack(db, evidence, {
    id: body.id,
    jobId,
    body: slip.body,
    recordedBy: body.by,
    takesBack: slip.id,
  });
}

/** The evidence of a job that counts, in order. */
export const evidenceOf = async (db: Db | Tx, jobId: string): Promise<EvidenceView[]> =>
  (await evidenceOfJobs(db, [jobId])).get(jobId) ?? [];

/** The same of many jobs at once. */
export async function evidenceOfJobs(db: Db | Tx, jobIds: readonly string[]): Promise<Map<string, EvidenceView[]>> {
  if (jobIds.length === 0) return new Map();
  const rows = await db
    .select()
    .from(evidence)
    .where(inArray(evidence.jobId, [...jobIds]))
    .orderBy(asc(evidence.sequence));
  return new Map(
    [...countingByJob(rows)].map(([jobId, own]) => [
      jobId,
      own.map((r) => ({ id: r.id, body: r.body, by: r.recordedBy, at: r.createdAt.toISOString() })),
    ]),
  );
}
