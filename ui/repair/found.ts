import type { FindingBody } from '../../core/evidence/finding';

/** A finding of something that is wrong, with its id. */
export interface FoundFinding {
  readonly id: string;
  readonly body: Extract<FindingBody, { kind: 'found' }>;
}
