import { proposeWithCircuits } from '../../core/diagnosis/propose';
import { whatIsKnown } from '../../core/evidence/known';
import { PartMoves } from '../../core/evidence/moves';
import type { Known, MeasuredRun } from '../../core/evidence/types';
import { type JobProgress, progressOf } from '../../core/job/progress';
import { plannedTests } from '../../core/job/planned';
import { isFitted } from '../../core/plan/hardware';
import { makePlan } from '../../core/plan/plan';
import { mendedBySteps } from '../../core/repair/mended';
import { type ProofInputs, repairedAt } from '../../core/repair/proof';
import { isChoiceOfSet } from '../../core/repair/suggest';
import { knownCodes, pointedByCodes } from '../../application/codes';
import type { CodeView, EvidenceView, FindingView, JobBrief, JobView } from '../../application/views';
import type { Db } from '../db/connection';
import { unitView } from '../fleet/unit-view';
import { measuredRunsOf } from '../readings/job-runs';
import { caseOf, type JobFacts, warmUntil } from './diagnosis-inputs';
import type { JobRows, WrittenJob } from './read-job';
import { weighBeside } from './weighing';

/** What follows from a job: nothing of it is written down by anybody. */
export interface Conclusions extends Pick<JobView, 'known' | 'circuits' | 'plan' | 'proposals'> {
  readonly progress: JobProgress;
}

/** What a proof rests on, of what was read of the job. */
export const proofInputsOf = (w: WrittenJob): ProofInputs => ({
  findings: w.findings.get(w.row.job.id) ?? [],
  records: w.records,
  evidence: w.evidence,
  codes: w.codes,
  conditions: w.intake.conditions,
  complaint: w.row.job.complaint,
  cylinders: w.row.family.engine.cylinders,
  runs: w.own.runs.map((r) => ({ ...r, at: r.startedAt })),
});

/** The evidence of a job, with what was mended by its steps as if somebody had written it down. */
export function withMended(w: WrittenJob): readonly EvidenceView[] {
  const mended = mendedBySteps({
    findings: w.findings.get(w.row.job.id) ?? [],
    records: w.records,
    cylinders: w.row.family.engine.cylinders,
  });
  return [...w.evidence, ...mended.map((e) => ({ ...e, by: '' }))];
}

/**
 * What follows from what was written: what is known, what the circuits say, the plan, the findings it would
 * bear.
 */
export async function concludeFrom(db: Db, w: WrittenJob): Promise<Conclusions> {
  const { row, codes, intake } = w;
  const measured = measuredRunsOf(w.runs);
  const evidence = withMended(w);
  const known = whatIsKnown(measured, evidence);
  const inputs = proofInputsOf(w);
  const standing = (
    c: Pick<Conclusions, 'known' | 'circuits' | 'plan' | 'proposals'>,
    isWarm = false,
  ): Conclusions => ({
    ...c,
    progress: progressOf({
      ...inputs,
      closed: w.own.closed,
      proposals: c.proposals,
      planned: plannedTests(
        c.plan,
        w.tests,
        c.circuits.flatMap((x) => x.expected),
      ),
      choices: inputs.findings.flatMap((f) => (isChoiceOfSet(f.body, inputs.cylinders) ? [f.id] : [])),
      isWarm,
    }),
  });
  if (w.own.closed) return standing(quiet(known, w));
  const facts = factsOf({ row, own: measured, codes, evidence, intake, unfit: unfitFor(w) });
  const circuits = await weighBeside(await caseOf(db, facts));
  const mendedAt = repairedAt(inputs) ?? '';
  const plan = makePlan({
    tests: w.tests,
    areas: pointedByCodes(codes),
    next: circuits.flatMap((c) =>
      c.diagnosis.decided ? [] : c.diagnosis.next.slice(0, 3).map((n) => ({ test: n.test, why: n.why })),
    ),
    fitted: w.fitted,
    codedInjectors: knownCodes(codes).flatMap((c) =>
      c.system === 'injectors' && c.cylinder !== null && c.fate !== 'gone' && c.fate !== 'caused by testing'
        ? [c.cylinder]
        : [],
    ),
    complaint: `${row.job.complaint} ${intake.when ?? ''}`,
    conditions: intake.conditions,
    shown: intake.shown,
    known,
    changes: w.changes,
    done: w.runs.map((r) => ({
      test: r.test,
      pattern: r.judgement?.pattern ?? 'incomplete',
      // What was begun before a repair is not gone on with after it.
      ...(r.createdAt.toISOString() > mendedAt ? { run: r.id } : {}),
    })),
    before: faultyBefore(w.earlier, w.findings),
    doneBefore: w.earlier.flatMap((j) => j.runs.map((r) => r.test)),
  });
  const proposals = proposeWithCircuits(
    known,
    circuits.map((c) => c.diagnosis),
    (part, position) => new PartMoves(evidence).now(part, position, ''),
  );
  return standing({ known, circuits, plan, proposals }, warmUntil(measured) > Date.now());
}

/** A released job asks for nothing any more; what was done and what was known stays. */
function quiet(known: Known, w: WrittenJob): Omit<Conclusions, 'progress'> {
  const plan = makePlan({
    tests: w.tests,
    areas: [],
    complaint: '',
    conditions: [],
    known: { ...known, doubts: [] },
    changes: w.changes,
    done: w.runs.map((r) => ({ test: r.test, pattern: r.judgement?.pattern ?? 'incomplete' })),
    before: [],
    most: 0,
  });
  return {
    known: { ...known, contradictions: [], doubts: [] },
    circuits: [],
    plan: { ...plan, steps: plan.steps.filter((s) => s.state !== 'to do'), next: null, minutes: 0 },
    proposals: [],
  };
}

/** Tests for what this unit does not have. */
export const unfitFor = (w: Pick<WrittenJob, 'tests' | 'fitted' | 'runs' | 'earlier'>): ReadonlySet<string> => {
  const seen = {
    tests: w.tests,
    fitted: w.fitted,
    done: w.runs.map((r) => ({ test: r.test, pattern: 'incomplete' as const })),
    doneBefore: w.earlier.flatMap((j) => j.runs.map((r) => r.test)),
  };
  return new Set(w.tests.flatMap((t) => (isFitted(t, seen) === false ? [t.id] : [])));
};

export const factsOf = ({
  row,
  own,
  codes,
  evidence,
  intake,
  unfit,
}: { row: JobRows; own: readonly MeasuredRun[]; codes: readonly CodeView[] } & Pick<
  JobFacts,
  'evidence' | 'intake' | 'unfit'
>): JobFacts => ({
  evidence,
  intake,
  unfit,
  jobId: row.job.id,
  hours: row.job.hours,
  unit: unitView(row.unit, row.family, row.depot),
  familyId: row.family.id,
  choices: row.depot.choices,
  runs: own,
  areas: pointedByCodes(codes),
  coded: knownCodes(codes).flatMap((c) => (c.cylinder === null || c.fate === 'caused by testing' ? [] : [c.cylinder])),
});

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
