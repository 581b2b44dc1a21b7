import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import { groupBy } from '../../core/foundation/collections';
import { compareCodes } from '../../core/codes/phases';
import { openQuotations } from '../../core/repair/quotation';
import { proposeWithCircuits } from '../../core/diagnosis/propose';
import { ruledOutBy } from '../../core/evidence/finding';
import { weighCase, type Case } from '../../core/diagnosis/case';
import type { MeasuredRun } from '../../core/evidence/types';
import { whatIsKnown } from '../../core/evidence/known';
import { makePlan } from '../../core/plan/plan';
import type { PlanChange } from '../../core/plan/types';
import type { TestDefinition } from '../../core/catalogue/types';
import type { Intake } from '../../formats/requests/intake';
import { progressOf } from '../../core/job/progress';
import { knownCodes, pointedByCodes } from '../../application/codes';
import type { BeforeView, CodeView, EvidenceView, FindingView, JobBrief, JobView } from '../../application/views';
import { codesOf, descriptionsOf, unpluggedIn } from '../evidence/codes';
import { type Db, together } from '../db/connection';
import { caseOf, type JobFacts, PREDICTIONS } from './diagnosis-inputs';
import { evidenceOf, intakeOf } from '../evidence/evidence';
import { findingsOf } from '../evidence/findings';
import { briefs, type JobRow, measuredRunsOf, type RunRow, runsOf } from '../readings/job-runs';
import { notesOf } from './notes';
import { photosOf } from '../evidence/photos';
import { changesOf } from './plan';
import { repairRecordsOf, repairOf } from '../repair/repair-log';
import { codeObservation, depot, engineFamily, job, testRun, fleetUnit } from '../db/schema';
import { allTests, testBrief } from '../catalogue/tests';
import { auditTrailOf } from '../audit/audit-trail';
import { unitView } from '../fleet/unit-view';

/** Earlier jobs shown; a unit that was here more often shows the newest. */
const EARLIER = 30;

/**
 * A job with all that is known in it, its plan and trail, and what the unit's earlier jobs say to it; `null`
 * where there is none.
 */
export async function viewJob(db: Db, jobId: string): Promise<JobView | null> {
  const written = await readJob(db, jobId);
  if (!written) return null;
  const { row, own, codes, intake, evidence, findings } = written;
  const concluded = await concludeFrom(db, written);
  const seen = {
    findings: findings.get(jobId) ?? [],
    evidence,
    codes,
    conditions: intake.conditions,
    cylinders: row.family.engine.cylinders,
    runs: own.runs.map((r) => ({ ...r, at: r.startedAt })),
  };
  const repair = await repairOf(db, row, seen);
  const { plan, proposals } = concluded;
  return {
    job: own,
    unit: unitView(row.unit, row.family, row.depot),
    depotId: row.depot.id,
    earlier: written.earlier,
    tests: written.tests.map(testBrief),
    notes: await notesOf(db, jobId),
    codes,
    unplugged: await unpluggedIn(db, jobId),
    intake,
    evidence,
    photos: await photosOf(db, jobId),
    findings: seen.findings,
    before: await earlierThatSaySomething(db, written),
    descriptions: await descriptionsOf(db, row.depot.id),
    repair,
    progress: progressOf({
      ...seen,
      closed: own.closed,
      proposals,
      records: repair.records,
      nextTest: plan.steps.find((step) => step.test === plan.next)?.name ?? null,
    }),
    ...concluded,
    ruledOut: ruledOutBy(concluded.known),
    auditTrail: await auditTrailOf(db, jobId),
  };
}

/** What was written into a job and into the unit's earlier ones. */
interface WrittenJob {
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
  readonly tests: readonly TestDefinition[];
}

async function readJob(db: Db, jobId: string): Promise<WrittenJob | null> {
  const [row] = await db
    .select({ job, unit: fleetUnit, family: engineFamily, depot })
    .from(job)
    .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
    .innerJoin(engineFamily, eq(engineFamily.id, fleetUnit.engineFamilyId))
    .innerJoin(depot, eq(depot.id, fleetUnit.depotId))
    .where(eq(job.id, jobId));
  if (!row) return null;
  const earlierJobs = await db
    .select()
    .from(job)
    .where(and(eq(job.unitId, row.unit.id), sql`${job.number} < ${row.job.number}`))
    .orderBy(desc(job.number))
    .limit(EARLIER);
  const jobs = [row.job, ...earlierJobs];
  const ids = jobs.map((j) => j.id);
  const [allRuns, codes, intake, evidence, findings, changes, tests] = await together(
    db,
    () => runsOf(db, jobs),
    () => codesOf(db, jobId),
    () => intakeOf(db, jobId),
    () => evidenceOf(db, jobId),
    () => findingsOf(db, ids),
    () => changesOf(db, jobId),
    () => allTests(db),
  );
  const [own, ...earlier] = briefs(jobs, allRuns);
  if (!own) throw new Error(`job ${jobId} has no brief`);
  const runs = allRuns.filter((r) => r.jobId === jobId);
  return { row, own, earlier, earlierJobs, runs, codes, intake, evidence, findings, changes, tests };
}

/**
 * What follows from what was written: what is known, what the circuits say, the plan, the findings it would
 * bear.
 */
async function concludeFrom(
  db: Db,
  w: WrittenJob,
): Promise<Pick<JobView, 'known' | 'circuits' | 'plan' | 'proposals'>> {
  const { row, codes, intake, evidence } = w;
  const measured = measuredRunsOf(w.runs);
  const known = whatIsKnown(measured, evidence);
  const circuits = weighCase(await caseOf(db, factsOf({ row, own: measured, codes, evidence, intake })), PREDICTIONS);
  const plan = makePlan({
    tests: w.tests,
    areas: pointedByCodes(codes),
    next: circuits.flatMap((c) =>
      c.diagnosis.decided ? [] : c.diagnosis.next.slice(0, 3).map((n) => ({ test: n.test, why: n.why })),
    ),
    complaint: `${row.job.complaint} ${intake.when ?? ''}`,
    conditions: intake.conditions,
    known,
    changes: w.changes,
    done: w.runs.map((r) => ({ test: r.test, pattern: r.judgement?.pattern ?? 'incomplete' })),
    before: faultyBefore(w.earlier, w.findings),
  });
  const proposals = proposeWithCircuits(
    known,
    circuits.map((c) => c.diagnosis),
  );
  return { known, circuits, plan, proposals };
}

async function earlierThatSaySomething(db: Db, w: WrittenJob): Promise<BeforeView[]> {
  const codesBefore = await codesByJob(db, w.earlierJobs);
  const recordsBefore = await repairRecordsOf(
    db,
    w.earlierJobs.map((j) => j.id),
  );
  return w.earlier.flatMap((j) =>
    beforeOf(
      j,
      w.findings.get(j.id) ?? [],
      w.codes,
      codesBefore.get(j.id) ?? [],
      openQuotations(recordsBefore.get(j.id) ?? []),
    ),
  );
}

interface JobRows {
  readonly job: JobRow;
  readonly unit: typeof fleetUnit.$inferSelect;
  readonly family: typeof engineFamily.$inferSelect;
  readonly depot: typeof depot.$inferSelect;
}

const factsOf = ({
  row,
  own,
  codes,
  evidence,
  intake,
}: { row: JobRows; own: readonly MeasuredRun[]; codes: readonly CodeView[] } & Pick<
  JobFacts,
  'evidence' | 'intake'
>): JobFacts => ({
  evidence,
  intake,
  jobId: row.job.id,
  hours: row.job.hours,
  unit: unitView(row.unit, row.family, row.depot),
  familyId: row.family.id,
  choices: row.depot.choices,
  runs: own,
  areas: pointedByCodes(codes),
  coded: knownCodes(codes).flatMap((c) => (c.cylinder === null || c.fate === 'caused by testing' ? [] : [c.cylinder])),
});

/**
 * What a job knows but for one of its runs: the bench adds that one as it is read. Only circuits in which the
 * test of that run is read. `null`: there is no such run.
 */
export async function viewCase(db: Db, runId: string): Promise<Case | null> {
  const [row] = await db
    .select({ job, unit: fleetUnit, family: engineFamily, depot, test: testRun.test })
    .from(testRun)
    .innerJoin(job, eq(job.id, testRun.jobId))
    .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
    .innerJoin(engineFamily, eq(engineFamily.id, fleetUnit.engineFamilyId))
    .innerJoin(depot, eq(depot.id, fleetUnit.depotId))
    .where(eq(testRun.id, runId));
  if (!row) return null;
  const [runs, codes, evidence, intake] = await together(
    db,
    () => runsOf(db, [row.job]),
    () => codesOf(db, row.job.id),
    () => evidenceOf(db, row.job.id),
    () => intakeOf(db, row.job.id),
  );
  const all = await caseOf(
    db,
    factsOf({ row, own: measuredRunsOf(runs.filter((r) => r.id !== runId)), codes, evidence, intake }),
  );
  return { ...all, circuits: all.circuits.filter((c) => c.probes.some((p) => p.test === row.test)) };
}

/** Tests of earlier jobs that failed where something was found. */
const faultyBefore = (
  earlier: readonly JobBrief[],
  findings: ReadonlyMap<string, readonly FindingView[]>,
): string[] => [
  ...new Set(
    earlier
      .filter((j) => findings.has(j.id))
      .flatMap((j) => j.runs.filter((r) => r.judgement && r.judgement.suspects.length > 0).map((r) => r.test)),
  ),
];

async function codesByJob(db: Db, jobs: readonly JobRow[]): Promise<Map<string, string[]>> {
  const rows = jobs.length
    ? await db
        .select({ jobId: codeObservation.jobId, code: codeObservation.code, phase: codeObservation.phase })
        .from(codeObservation)
        .where(
          inArray(
            codeObservation.jobId,
            jobs.map((j) => j.id),
          ),
        )
    : [];
  const byJob = groupBy(rows, (r) => r.jobId);
  return new Map(
    [...byJob].map(([id, seen]) => [
      id,
      compareCodes(
        seen.flatMap(({ code, phase }) => (code === null ? [] : [{ code, phase }])),
        new Set(seen.map((s) => s.phase)),
      )
        .filter((c) => c.fate !== 'caused by testing')
        .map((c) => c.code),
    ]),
  );
}

/**
 * What an earlier job says to this one: its findings, its advice, and whether the same is back. `[]` where it
 * says nothing.
 */
function beforeOf(
  j: JobBrief,
  findings: readonly FindingView[],
  codes: readonly CodeView[],
  codesThen: readonly string[],
  quotations: BeforeView['quotations'],
): BeforeView[] {
  const again = [
    ...new Set(
      codes.flatMap((c) => (c.code !== null && c.phase === 'as-found' && codesThen.includes(c.code) ? [c.code] : [])),
    ),
  ];
  if (findings.length === 0 && again.length === 0 && quotations.length === 0) return [];
  return [
    {
      id: j.id,
      number: j.number,
      openedAt: j.openedAt,
      complaint: j.complaint,
      findings: findings.map((f) => f.body),
      comeback: again.length ? `${again.join(', ')} again` : null,
      quotations,
    },
  ];
}

/** Answers when the database does. */
export async function ping(db: Db): Promise<void> {
  await db.execute(sql`select 1`);
}
