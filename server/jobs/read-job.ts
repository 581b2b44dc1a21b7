import { and, desc, eq, sql } from 'drizzle-orm';
import { groupBy } from '../../core/foundation/collections';
import { typesIn } from '../../core/plan/hardware';
import type { PlanChange } from '../../core/plan/types';
import type { TestDefinition } from '../../core/catalogue/types';
import type { Recorded } from '../../core/repair/types';
import type { CodeView, EvidenceView, FindingView, JobBrief } from '../../application/views';
import type { Intake } from '../../formats/requests/intake';
import { allTests } from '../catalogue/tests';
import { type Db, together } from '../db/connection';
import { depot, engineFamily, fleetUnit, job } from '../db/schema';
import { codesOf } from '../evidence/codes';
import { evidenceOf, intakeOf } from '../evidence/evidence';
import { findingsOf } from '../evidence/findings';
import { briefs, type JobRow, type RunRow, runsOf } from '../readings/job-runs';
import { repairRecordsOf } from '../repair/repair-log';
import { changesOf } from './plan';

/** Earlier jobs shown; a unit that was here more often shows the newest. */
const EARLIER = 30;

/** A job with its unit, engine and depot, as stored. */
export interface JobRows {
  readonly job: JobRow;
  readonly unit: typeof fleetUnit.$inferSelect;
  readonly family: typeof engineFamily.$inferSelect;
  readonly depot: typeof depot.$inferSelect;
}

/** What was written into a job and into the unit's earlier ones. */
export interface WrittenJob {
  readonly row: JobRows;
  readonly own: JobBrief;
  readonly earlier: readonly JobBrief[];
  readonly earlierJobs: readonly JobRow[];
  readonly runs: readonly RunRow[];
  readonly codes: readonly CodeView[];
  readonly intake: Intake;
  readonly evidence: readonly EvidenceView[];
  /** By job, of the earlier ones too. */
  readonly findings: ReadonlyMap<string, readonly FindingView[]>;
  readonly changes: readonly PlanChange[];
  readonly records: readonly Recorded[];
  readonly tests: readonly TestDefinition[];
  /** What is fitted, by kind: of this unit, else of the others of its engine family where they agree. */
  readonly fitted: Readonly<Record<string, string>>;
}

/** The job itself, with where it belongs; `null`: there is none. */
export async function rowsOfJob(db: Db, jobId: string): Promise<JobRows | null> {
  const [row] = await db
    .select({ job, unit: fleetUnit, family: engineFamily, depot })
    .from(job)
    .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
    .innerJoin(engineFamily, eq(engineFamily.id, fleetUnit.engineFamilyId))
    .innerJoin(depot, eq(depot.id, fleetUnit.depotId))
    .where(eq(job.id, jobId));
  return row ?? null;
}

export async function readJob(db: Db, jobId: string): Promise<WrittenJob | null> {
  const row = await rowsOfJob(db, jobId);
  return row && readWritten(db, row);
}

/** What was written into a job whose own row is at hand. */
export async function readWritten(db: Db, row: JobRows): Promise<WrittenJob> {
  const jobId = row.job.id;
  const [earlierJobs, codes, intake, evidence, changes, records, tests, fitted] = await together(
    db,
    (at) => earlierOf(at, row),
    (at) => codesOf(at, jobId),
    (at) => intakeOf(at, jobId),
    (at) => evidenceOf(at, jobId),
    (at) => changesOf(at, jobId),
    (at) => repairRecordsOf(at, [jobId]),
    (at) => allTests(at),
    (at) => fittedOf(at, row),
  );
  const jobs = [row.job, ...earlierJobs];
  const [allRuns, findings] = await together(
    db,
    (at) => runsOf(at, jobs),
    (at) =>
      findingsOf(
        at,
        jobs.map((j) => j.id),
      ),
  );
  const [own, ...earlier] = briefs(jobs, allRuns);
  if (!own) throw new Error(`job ${jobId} has no brief`);
  const runs = allRuns.filter((r) => r.jobId === jobId);
  return {
    row,
    own,
    earlier,
    earlierJobs,
    runs,
    codes,
    intake,
    evidence,
    findings,
    changes,
    records: records.get(jobId) ?? [],
    tests,
    fitted,
  };
}

const earlierOf = (db: Db, row: JobRows): Promise<JobRow[]> =>
  db
    .select()
    .from(job)
    .where(and(eq(job.unitId, row.unit.id), sql`${job.number} < ${row.job.number}`))
    .orderBy(desc(job.number))
    .limit(EARLIER);

/** What is fitted, by kind: as this unit's parts say, else as all units of the family that say it agree. */
async function fittedOf(db: Db, { unit, family }: JobRows): Promise<Record<string, string>> {
  const units = await db
    .select({ id: fleetUnit.id, parts: fleetUnit.parts })
    .from(fleetUnit)
    .where(eq(fleetUnit.engineFamilyId, family.id));
  const others = groupBy(
    units.flatMap((u) => Object.entries(typesIn(u.parts))),
    ([kind]) => kind,
  );
  const agreed = [...others].flatMap(([kind, said]) => {
    const [which, ...more] = new Set(said.map(([, w]) => w));
    return which !== undefined && more.length === 0 ? [[kind, which] as const] : [];
  });
  return { ...Object.fromEntries(agreed), ...typesIn(unit.parts) };
}
