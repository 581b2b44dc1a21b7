import { requireUnit } from '../quantity/units';
import { expectedAt, slopeAt } from './transfer';
import type { Limits } from './types';

/** The limits as they are at one position. The same object where nothing differs there. */
export function limitsAt(limits: Limits, position: number | string): Limits {
  const own =
    limits.byPosition && Object.hasOwn(limits.byPosition, String(position))
      ? limits.byPosition[String(position)]
      : undefined;
  if (!own) return limits;
  const merged = Object.entries({ ...limits, ...own }).filter(
    ([field, value]) => value !== null && field !== 'byPosition',
  );
  return Object.fromEntries(merged) as unknown as Limits;
}

/** What a transfer function asks for at a stimulus. */
export interface Predicted {
  readonly limits: Limits;
  /** In the unit of the limits. */
  readonly expected: number;
  /** Reading per unit of stimulus. */
  readonly slope: number;
}

/**
 * Limits about the value that the transfer function predicts for a stimulus in its own unit; `null` where there is no
 * function or it says nothing there.
 */
export function predict(limits: Limits, stimulus: number): Predicted | null {
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
  return { expected, slope, limits: { ...limits, lower: expected - allowed, upper: expected + allowed } };
}
