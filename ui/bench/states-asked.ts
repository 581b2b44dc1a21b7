import type { CircumstanceView } from '../../application/views';
import { STATES } from '../../core/catalogue/shared';
import type { RequiredState } from '../../core/catalogue/types';
import type { Judgement } from '../../core/judge/types';
import type { Run } from './use-run';

/** What the test asks for; and that the meter is proven, where the readings alone leave it in doubt. */
export function statesAsked(
  own: readonly RequiredState[],
  judgement: Judgement,
  c: CircumstanceView,
): readonly RequiredState[] {
  const { meterProven } = STATES;
  if (own.some((s) => s.id === meterProven.id)) return own;
  const isAsked = judgement.doubts?.some((d) => d.kind === 'meter') || c.states.includes(meterProven.id);
  return isAsked ? [METER_ON_KNOWN_VALUE, ...own] : own;
}
const METER_ON_KNOWN_VALUE: RequiredState = {
  ...STATES.meterProven,
  label: 'meter proven on a known value',
  why: 'A bad meter, a wrong range or a bad ground of the black probe shows the same everywhere.',
};

/** Says that the meter was seen to read a known value right. */
export const proveMeter = (run: Run): void =>
  run.change({ states: [...new Set([...run.circumstance.states, METER_ON_KNOWN_VALUE.id])] });
export const isMeterDoubted = (run: Run): boolean => run.judgement.doubts?.some((d) => d.kind === 'meter') ?? false;
