import type { FindingBody, ProposedFinding } from '../evidence/finding';
import { type ProofInputs, proofOf } from '../repair/proof';
import { openQuotations } from '../repair/quotation';
import type { ProofCheck, ProofCheckId, Recorded } from '../repair/types';

/** The stages of a job, in the order in which technicians work. */
export const STAGES = ['complaint', 'codes', 'tests', 'finding', 'agreed', 'repair', 'proof', 'release'] as const;
export type StageId = (typeof STAGES)[number];

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
}

export interface ProgressInputs {
  readonly closed: boolean;
  /** Somebody has read the codes, whether there were any or none. */
  readonly codesRead: boolean;
  /** Something was measured or seen. */
  readonly begun: boolean;
  readonly findings: readonly { readonly body: FindingBody }[];
  readonly proposals: readonly ProposedFinding[];
  readonly records: readonly Recorded[];
  /** What stands between the repair and its release (`proofOf`). */
  readonly checks: readonly ProofCheck[];
  /** Name of the test that the plan puts first; `null` where it has none or was not asked. */
  readonly nextTest: string | null;
}

/** What a job holds, as it is read for its page and, of many jobs at once, for the yard. */
export interface JobHolds extends ProofInputs, Pick<ProgressInputs, 'closed' | 'proposals' | 'nextTest'> {}

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
    nextTest: job.nextTest,
  });

/** What proves a repair, of all that stands before a release. */
const PROOF: readonly ProofCheckId[] = ['measured-again', 'coded', 'codes-cleared', 'road-test', 'vehicle-scan'];

/**
 * Where a job stands. The first stage that is neither done nor left out is next; nothing is stored, so it
 * cannot grow stale.
 */
export function progressFrom(i: ProgressInputs): JobProgress {
  const states = new Map(STAGES.map((id) => [id, i.closed && id !== 'codes' ? 'done' : stateOf(id, i)]));
  const now = i.closed ? null : (STAGES.find((id) => !isBehind(states.get(id))) ?? 'release');
  const stages = STAGES.map((id): Stage => {
    const state = states.get(id) ?? 'open';
    return { id, state: id === now && state === 'open' ? 'now' : state };
  });
  return { stages, now, say: now === null ? 'Released.' : SAY[now](i) };
}

const isBehind = (state: StageState | undefined): boolean => state === 'done' || state === 'left out';

const isFound = (i: ProgressInputs): boolean => i.findings.some((f) => f.body.kind === 'found');
const convicted = (i: ProgressInputs): ProposedFinding | undefined =>
  i.proposals.find((p) => p.confidence !== 'possible');
const checkOf = (i: ProgressInputs, id: ProofCheckId): ProofCheck | undefined => i.checks.find((c) => c.id === id);
/** A check without a complaint that held: everything is good, nothing is to be found or mended. */
const isAllGood = (i: ProgressInputs): boolean => !isFound(i) && checkOf(i, 'finding')?.state === 'done';

function stateOf(id: StageId, i: ProgressInputs): StageState {
  switch (id) {
    case 'complaint':
      return 'done';
    case 'codes':
      return i.codesRead ? 'done' : i.begun || i.findings.length ? 'left out' : 'open';
    case 'tests':
      return isFound(i) || isAllGood(i) || convicted(i) ? 'done' : 'open';
    case 'finding':
      return isAllGood(i) ? 'left out' : isFound(i) ? 'done' : 'open';
    case 'agreed':
      return ofCheck('agreed', i);
    case 'repair':
      return ofCheck('repaired', i);
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

const SAY: Readonly<Record<StageId, (i: ProgressInputs) => string>> = {
  complaint: () => 'Write down the complaint.',
  codes: ({ nextTest }) =>
    `Read the fault codes${nextTest ? `, or begin with: ${nextTest}` : ', or begin with the plan'}.`,
  tests: (i) => {
    const notFound = i.findings.map((f) => f.body).findLast((f) => f.kind === 'not-found');
    if (notFound) return `Not found yet. When it returns: ${notFound.ifReturns}`;
    return i.nextTest ? `Measure next: ${i.nextTest}.` : 'Go on with the plan.';
  },
  finding: (i) => `Write the finding: ${convicted(i)?.text ?? 'the evidence bears one'}.`,
  agreed: ({ records }) => sayAgreed(records),
  repair: (i) => checkOf(i, 'repaired')?.why ?? 'Repair it.',
  proof: (i) => {
    const checks = i.checks.filter((c) => PROOF.includes(c.id));
    const next = checks.find((c) => c.state === 'failed') ?? checks.find((c) => c.state !== 'done');
    return next ? `${next.label}: ${next.why}` : 'Prove the repair.';
  },
  release: () => 'Everything is proven: release it.',
};

function sayAgreed(records: readonly Recorded[]): string {
  const quoted = openQuotations(records).at(-1);
  switch (quoted?.answer) {
    case undefined:
      return 'Decide on one or the set, and quote it to the payer.';
    case 'unanswered':
      return 'The quotation waits for the payer’s answer.';
    case 'deferred':
      return `The payer deferred it${quoted.until ? ` until ${quoted.until}` : ''}.`;
    case 'declined':
      return 'The payer declined: quote it anew, or a lead releases it with what is left open.';
  }
}
