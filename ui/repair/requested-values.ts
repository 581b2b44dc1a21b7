import type { FittingSequence, FittingStep } from '../../core/repair/sequences';
import type { JobView } from '../../application/views';
import type { ServiceLine } from '../../application/repair-view';

/** Under which a step's value stands in the service data. */
export const keyOf = (sequence: FittingSequence, step: FittingStep): string => `${sequence.id}/${step.id}`;

/** What the workshop asks a step to reach; absent: nobody has entered it. */
export const requestedValuesOf = (
  view: JobView,
  sequence: FittingSequence,
  step: FittingStep,
): ServiceLine | undefined => view.repair.service.find((s) => s.kind === 'fitting' && s.key === keyOf(sequence, step));
