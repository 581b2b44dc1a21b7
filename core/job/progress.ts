import { isoDayShown } from '../locale/dates';
import { tr } from '../locale/translate';
import type { ProposedFinding } from '../evidence/finding';
import { type ProofInputs, proofOf } from '../repair/proof';
import type { ProofCheck, ProofCheckId } from '../repair/types';
import { type ProgressInputs, type StageId, STAGES } from './inputs';
import { agreedFor, type NextStep, PROOF, stepsOf, type Waits, waitsFor } from './next-step';

export { type ProgressInputs, type StageId, STAGES } from './inputs';

export const STAGE_WORDS: Readonly<Record<StageId, string>> = {
  complaint: 'Complaint',
  codes: 'Codes',
  tests: 'Tests',
  finding: 'Finding',
  agreed: 'Agreed',
  repair: 'Repair',
  proof: 'Proof',
  release: 'Release',
};

/** `left out`: not needed here, or passed over; it holds nothing up. */
export type StageState = 'done' | 'now' | 'open' | 'failed' | 'left out';

export interface Stage {
  readonly id: StageId;
  readonly state: StageState;
}

/** Where a job stands and what is next, in a sentence. */
export interface JobProgress {
  readonly stages: readonly Stage[];
  /** The stage that is next; `null` once the job is released. */
  readonly now: StageId | null;
  readonly say: string;
  /** The one step that is next; `null` once the job is released. */
  readonly next: NextStep | null;
  /** What could be done in its place, in order. */
  readonly instead: readonly NextStep[];
  readonly waits: Waits | null;
}

/** What a job holds, as it is read for its page and, of many jobs at once, for the yard. */
export interface JobHolds
  extends ProofInputs, Pick<ProgressInputs, 'closed' | 'proposals' | 'planned' | 'choices' | 'isWarm'> {}

/** The same from what a job holds. */
export const progressOf = (job: JobHolds): JobProgress =>
  progressFrom({
    closed: job.closed,
    codesRead: job.codes.length > 0,
    begun: job.runs.length > 0 || job.evidence.length > 0,
    findings: job.findings,
    proposals: job.proposals,
    records: job.records,
    checks: proofOf(job),
    planned: job.planned,
    choices: job.choices,
    isWarm: job.isWarm,
  });

/**
 * Where a job stands. The first stage that is neither done nor left out is next; it follows from what was
 * written, and nobody sets it.
 */
export function progressFrom(i: ProgressInputs): JobProgress {
  const states = new Map(STAGES.map((id) => [id, i.closed && id !== 'codes' ? 'done' : stateOf(id, i)]));
  const now = i.closed ? null : (STAGES.find((id) => !isBehind(states.get(id))) ?? 'release');
  const stages = STAGES.map((id): Stage => {
    const state = states.get(id) ?? 'open';
    return { id, state: id === now && state === 'open' ? 'now' : state };
  });
  if (now === null) return { stages, now, say: 'Released.', next: null, instead: [], waits: null };
  const { next, instead } = stepsOf(now, i);
  const day = now === 'repair' ? agreedFor(i.records) : null;
  return {
    stages,
    now,
    say: day === null ? next.say : tr`${next.say} Agreed for ${isoDayShown(day)}.`,
    next,
    instead,
    waits: waitsFor(next, i),
  };
}

const isBehind = (state: StageState | undefined): boolean => state === 'done' || state === 'left out';

const isFound = (i: ProgressInputs): boolean => i.findings.some((f) => f.body.kind === 'found');
const convicted = (i: ProgressInputs): ProposedFinding | undefined =>
  i.proposals.find((p) => p.confidence !== 'possible');
const checkOf = (i: ProgressInputs, id: ProofCheckId): ProofCheck | undefined => i.checks.find((c) => c.id === id);
/** A check without a complaint that held: everything is good, nothing is to be found or mended. */
const isAllGood = (i: ProgressInputs): boolean => !isFound(i) && checkOf(i, 'finding')?.state === 'done';

/** A set is begun and not complete: it is gone on with first, as its bench says. */
const isBegun = (i: ProgressInputs): boolean => i.planned[0]?.run !== undefined;

function stateOf(id: StageId, i: ProgressInputs): StageState {
  switch (id) {
    case 'complaint':
      return 'done';
    case 'codes':
      return i.codesRead ? 'done' : i.begun || i.findings.length ? 'left out' : 'open';
    case 'tests':
      return isFound(i) || isAllGood(i) || (convicted(i) && !isBegun(i)) ? 'done' : 'open';
    case 'finding':
      return isAllGood(i) ? 'left out' : isFound(i) ? 'done' : 'open';
    case 'agreed':
      return ofCheck('agreed', i);
    case 'repair': {
      // A new part that is not coded is not fitted yet.
      const repaired = ofCheck('repaired', i);
      return repaired === 'done' && checkOf(i, 'coded')?.state === 'open' ? 'open' : repaired;
    }
    case 'proof': {
      const checks = i.checks.filter((c) => PROOF.includes(c.id));
      if (checks.some((c) => c.state === 'failed')) return 'failed';
      return checks.length > 0 && checks.every((c) => c.state === 'done') ? 'done' : 'open';
    }
    case 'release':
      return 'open';
  }
}

function ofCheck(id: ProofCheckId, i: ProgressInputs): StageState {
  const check = checkOf(i, id);
  return check ? check.state : isAllGood(i) ? 'left out' : 'open';
}
