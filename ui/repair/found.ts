import type { FindingBody } from '../../core/evidence/finding';
import type { Position } from '../../core/judge/types';
import type { FittingStep } from '../../core/repair/sequences';

/** A finding of something that is wrong, with its id. */
export interface FoundFinding {
  readonly id: string;
  readonly body: Extract<FindingBody, { kind: 'found' }>;
}

/** A step at a position; no position: once for all. */
export interface Place {
  readonly step: FittingStep;
  readonly position: Position | undefined;
}
