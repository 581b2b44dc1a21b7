import { tr } from '../../core/locale/translate';
import { eq, inArray } from 'drizzle-orm';
import { groupBy } from '../../core/foundation/collections';
import { compareCodes } from '../../core/codes/phases';
import { openQuotations } from '../../core/repair/quotation';
import { ruledOutBy } from '../../core/evidence/finding';
import type { Case } from '../../core/diagnosis/case';
import type { BeforeView, CodeView, FindingView, JobBrief, JobView } from '../../application/views';
import { descriptionsOf, unpluggedIn } from '../evidence/codes';
import { type Db, together } from '../db/connection';
import { caseOf } from './diagnosis-inputs';
import { type JobRow, measuredRunsOf } from '../readings/job-runs';
import { notesOf } from './notes';
import { photosOf } from '../evidence/photos';
import { repairRecordsOf, repairOf } from '../repair/repair-log';
import { codeObservation, testRun } from '../db/schema';
import { testBrief } from '../catalogue/tests';
import { auditTrailOf } from '../audit/audit-trail';
import { unitView } from '../fleet/unit-view';
import { factsOf, proofInputsOf, unfitFor, withMended } from './conclude';
import { readJob, type WrittenJob } from './read-job';
import { conclusionsOf } from './standing';

/**
 * A job with all that is known in it, its plan and trail, and what the unit's earlier jobs say to it; `null`
 * where there is none.
 */
export async function viewJob(db: Db, jobId: string): Promise<JobView | null> {
  const found = await conclusionsOf(db, jobId);
  if (!found) return null;
  const { written, conclusions } = found;
  const { row, own } = written;
  const [notes, photos, before, descriptions, repair, auditTrail] = await together(
    db,
    (at) => notesOf(at, jobId),
    (at) => photosOf(at, jobId),
    (at) => earlierThatSaySomething(at, written),
    (at) => descriptionsOf(at, row.depot.id),
    (at) => repairOf(at, row, proofInputsOf(written)),
    (at) => auditTrailOf(at, jobId),
  );
  return {
    job: own,
    unit: unitView(row.unit, row.family, row.depot),
    depotId: row.depot.id,
    letterhead: row.depot.choices.letterhead ?? null,
    earlier: written.earlier,
    tests: offered(written),
    notes,
    codes: written.codes,
    unplugged: unpluggedIn(written.runs),
    intake: written.intake,
    evidence: written.evidence,
    photos,
    findings: written.findings.get(jobId) ?? [],
    before,
    descriptions,
    repair,
    ...conclusions,
    ruledOut: ruledOutBy(conclusions.known),
    auditTrail,
  };
}

function offered(w: WrittenJob): JobView['tests'] {
  const unfit = unfitFor(w);
  return w.tests.map((t) => ({ ...testBrief(t), isUnfit: unfit.has(t.id) }));
}

/** The catalogue as a job offers it; `null`: there is no such job. */
export async function testsForJob(db: Db, jobId: string): Promise<JobView['tests'] | null> {
  const written = await readJob(db, jobId);
  return written && offered(written);
}

async function earlierThatSaySomething(db: Db, w: WrittenJob): Promise<BeforeView[]> {
  const [codesBefore, recordsBefore] = await together(
    db,
    (at) => codesByJob(at, w.earlierJobs),
    (at) =>
      repairRecordsOf(
        at,
        w.earlierJobs.map((j) => j.id),
      ),
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

/**
 * What a job knows but for one of its runs: the bench adds that one as it is read. Only circuits in which the
 * test of that run is read. `null`: there is no such run.
 */
export async function viewCase(db: Db, runId: string): Promise<Case | null> {
  const [run] = await db
    .select({ jobId: testRun.jobId, test: testRun.test })
    .from(testRun)
    .where(eq(testRun.id, runId));
  const w = run && (await readJob(db, run.jobId));
  if (!w) return null;
  const own = measuredRunsOf(w.runs.filter((r) => r.id !== runId));
  const all = await caseOf(
    db,
    factsOf({
      row: w.row,
      own,
      codes: w.codes,
      evidence: withMended(w),
      intake: w.intake,
      unfit: unfitFor(w),
    }),
  );
  return { ...all, circuits: all.circuits.filter((c) => c.probes.some((p) => p.test === run.test)) };
}

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
      comeback: again.length ? tr`${again.join(', ')} again` : null,
      quotations,
    },
  ];
}
