import type { Severity } from '../foundation/vocabulary';

/** What every finding of a recording says. */
export interface FindingBase {
  readonly channel: string;
  readonly from_s: number;
  readonly to_s: number;
  readonly severity: Severity;
  /** 0 to 1: how sure it is that this is what was recorded. */
  readonly confidence: number;
  readonly reasons: readonly string[];
}
