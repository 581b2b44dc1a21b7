import type { Quantity } from '../quantity/units';

/**
 * What an instrument says of its own accuracy: percent of reading plus a number of counts of the last digit,
 * per range. All numbers are in the base unit of the quantity (ohm, volt, ampere, …).
 */
export interface AccuracyRange {
  readonly quantity: Quantity;
  /** Top of the range. */
  readonly upTo: number;
  readonly percentOfReading: number;
  readonly counts: number;
  /** One count. */
  readonly resolution: number;
}

export interface Instrument {
  readonly kind: string;
  readonly name?: string | undefined;
  /** What the meter shows with its leads touched together, ohm; `null` where nobody has looked. */
  readonly leadZero_ohm: number | null;
  /** One step of the digits in which the lead zero was read, ohm. */
  readonly leadZeroResolution_ohm: number;
  readonly accuracy: readonly AccuracyRange[];
  /**
   * How well touching the leads together repeats, and a probe's contact with it: half width, ohm. Default 0:
   * nobody has said.
   */
  readonly leadRepeatability_ohm?: number | undefined;
  /** What a clamp gives per ampere. */
  readonly clamp_mVperA?: number | undefined;
  /** What the clamp shows away from any wire, ampere; `null` where nobody has looked. */
  readonly clampZero_A?: number | null | undefined;
}

/**
 * Leads and extensions that nobody has zeroed add something between nothing and this much.
 * Common practice, no source: meter leads of 0.2 to 0.5 ohm.
 */
export const UNZEROED_LEADS_MOST_OHM = 0.5;

/**
 * The range of smallest resolution that holds the value, which is in the base unit of the quantity; `null`
 * where none does, and for NaN.
 */
export function finestRangeFor(instrument: Instrument, quantity: Quantity, value: number): AccuracyRange | null {
  const holding = instrument.accuracy.filter((r) => r.quantity === quantity && r.upTo >= Math.abs(value));
  return holding.reduce<AccuracyRange | null>(
    (best, r) => (best === null || r.resolution < best.resolution ? r : best),
    null,
  );
}

/**
 * The range in which a value is read: the smallest that holds it, else the largest there is. The value is in
 * the base unit of the quantity. `null` where no range of the quantity is stated.
 */
export function rangeFor(
  instrument: Pick<Instrument, 'accuracy'>,
  quantity: Quantity,
  value: number,
): AccuracyRange | null {
  let best: AccuracyRange | null = null;
  for (const range of instrument.accuracy) {
    if (range.quantity !== quantity) continue;
    const fits = range.upTo >= Math.abs(value);
    const bestFits = best !== null && best.upTo >= Math.abs(value);
    if (best === null || (fits ? !bestFits || range.upTo < best.upTo : !bestFits && range.upTo > best.upTo))
      best = range;
  }
  return best;
}
