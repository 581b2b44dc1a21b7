import { requireUnit } from '../quantity/units';
import { unitValue, type UnitValue } from '../quantity/values';
import { expectedAt, slopeAt } from './transfer';
import type { Limits, LimitsInForce } from './types';

/**
 * Limits that have passed `checkLimits`: every number is finite and in their unit, so that naming it copies
 * nothing.
 */
const inForce = (limits: Limits): LimitsInForce => limits as LimitsInForce;

/**
 * The limits as they are at one position; they must have passed `checkLimits`. The same object where nothing
 * differs there.
 */
export function limitsAt(limits: Limits, position: number | string): LimitsInForce {
  const own =
    limits.byPosition && Object.hasOwn(limits.byPosition, String(position))
      ? limits.byPosition[String(position)]
      : undefined;
  if (!own) return inForce(limits);
  const merged = Object.entries({ ...limits, ...own }).filter(
    ([field, value]) => value !== null && field !== 'byPosition',
  );
  return inForce(Object.fromEntries(merged) as unknown as Limits);
}

/** What a transfer function asks for at a stimulus. */
export interface Predicted {
  readonly limits: LimitsInForce & { readonly lower: UnitValue; readonly upper: UnitValue };
  readonly expected: UnitValue;
  /** Reading per unit of stimulus, both in their own units. */
  readonly slope: number;
}

/**
 * Limits about the value that the transfer function predicts for a stimulus in its own unit; `null` where
 * there is no function or it says nothing there.
 */
export function predict(limits: Limits, stimulus: UnitValue): Predicted | null {
  const { transfer, tolerance = {} } = limits;
  const asked = requireUnit(limits.unit, limits.quantity);
  if (!transfer || !asked.ok) return null;
  const expected = expectedAt(transfer, stimulus, asked.value);
  if (expected === null) return null;
  const slope = slopeAt(transfer, stimulus, asked.value);
  const allowed =
    (tolerance.absolute ?? 0) +
    (Math.abs(expected) * (tolerance.percentOfExpected ?? 0)) / 100 +
    Math.abs(slope) * (tolerance.stimulus ?? 0);
  return {
    expected,
    slope,
    limits: { ...inForce(limits), lower: unitValue(expected - allowed), upper: unitValue(expected + allowed) },
  };
}
