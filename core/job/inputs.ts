import type { FindingBody, ProposedFinding } from '../evidence/finding';
import type { PlanStep } from '../plan/types';
import type { ProofCheck, Recorded } from '../repair/types';

/** The stages of a job, in the order in which technicians work. */
export const STAGES = ['complaint', 'codes', 'tests', 'finding', 'agreed', 'repair', 'proof', 'release'] as const;
export type StageId = (typeof STAGES)[number];

/** A step of the plan with what the catalogue and the circuits say of it. */
export interface PlannedTest extends Pick<PlanStep, 'test' | 'name' | 'minutes' | 'why' | 'run' | 'doubt'> {
  readonly needs: readonly string[];
  readonly tells: string | null;
  /** It wants an engine that has not run. */
  readonly isCold: boolean;
}

/** What a job's progress is worked out from. */
export interface ProgressInputs {
  readonly closed: boolean;
  /** Somebody has read the codes, whether there were any or none. */
  readonly codesRead: boolean;
  /** Something was measured or seen. */
  readonly begun: boolean;
  readonly findings: readonly { readonly id: string; readonly body: FindingBody }[];
  readonly proposals: readonly ProposedFinding[];
  readonly records: readonly Recorded[];
  /** What stands between the repair and its release (`proofOf`). */
  readonly checks: readonly ProofCheck[];
  /** The tests to do, in the plan's order. */
  readonly planned: readonly PlannedTest[];
  /** Findings of which one or the whole set is a question. */
  readonly choices: readonly string[];
  /** The engine ran a short time ago. */
  readonly isWarm: boolean;
}
