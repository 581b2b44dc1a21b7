import type { Quantity } from '../quantity/units';
import { type Instrument, rangeFor } from './instrument';

/**
 * Standard uncertainty of one reading after the GUM (JCGM 100:2008): every bound ±a without further knowledge
 * is a rectangular distribution, u = a/√3 (4.3.7); contributions are combined in quadrature (5.1.2).
 *
 * - digits: ±½ step of what was typed or of what the range shows, whichever is coarser;
 * - gain: percent of reading;
 * - counts: the stated counts, full size. Where the leads were zeroed on the same range the offset that they
 *   stand for is in both readings and goes away with the subtraction; what is left is the second reading's ±½
 *   step (docs/decisions/0002).
 *
 * Clause numbers written from memory.
 */
export interface UncertaintyParts {
  readonly digits: number;
  readonly gain: number;
  readonly counts: number;
  readonly leadZero: number;
  readonly wander: number;
  /** Touching the leads together, and the probe's contact: stated repeatability of the leads. */
  readonly contact: number;
  /** The part's temperature, through the correction to the reference. */
  readonly temperature: number;
  /** What acted on the sensor, through the slope of its transfer function. */
  readonly stimulus: number;
}

export interface UncertaintyInput {
  readonly quantity: Quantity;
  /** As read, base unit. */
  readonly value: number;
  /** After subtraction of the lead zero, base unit: the gain error acts on this difference. */
  readonly net: number;
  readonly resolution: number;
  /** Half the span of a wander that is within what is allowed, base unit. */
  readonly halfWander: number;
  /** The lead zero was subtracted. */
  readonly zeroed: boolean;
  readonly instrument: Instrument | null;
  /**
   * Relative change per kelvin of the corrected value, and half the width in which the temperature is known.
   */
  readonly temperature?: { readonly perK: number; readonly halfWidth_K: number } | null;
  /** Half the width, base unit of the reading, that the stimulus leaves. */
  readonly stimulusHalfWidth?: number;
}

const rectangular = (halfWidth: number): number => halfWidth / Math.sqrt(3);

/** Contributions as standard uncertainties, all in the base unit of the quantity. */
export function uncertaintyParts(input: UncertaintyInput): UncertaintyParts {
  const { instrument, quantity, value, net, resolution, halfWander, zeroed } = input;
  const range = instrument && rangeFor(instrument, quantity, value);
  const stated = range && range.upTo >= Math.abs(value) ? range.resolution : 0;
  const step = Math.max(resolution, stated);
  const cancels =
    zeroed && instrument?.leadZero_ohm != null && range === rangeFor(instrument, quantity, instrument.leadZero_ohm);
  return {
    digits: rectangular(step / 2),
    gain: range ? rectangular((Math.abs(net) * range.percentOfReading) / 100) : 0,
    counts: range && !cancels ? rectangular(range.counts * Math.max(step, range.resolution)) : 0,
    leadZero:
      zeroed && instrument
        ? rectangular(Math.max(instrument.leadZeroResolution_ohm, range ? range.resolution : 0) / 2)
        : 0,
    wander: rectangular(halfWander),
    contact: quantity === 'resistance' && zeroed ? rectangular(instrument?.leadRepeatability_ohm ?? 0) : 0,
    temperature: input.temperature
      ? rectangular(Math.abs(net) * input.temperature.perK * input.temperature.halfWidth_K)
      : 0,
    stimulus: rectangular(input.stimulusHalfWidth ?? 0),
  };
}

/**
 * Root of the sum of squares of the contributions, in their unit (JCGM 100:2008, 5.1.2, without correlation).
 * 0 for no contribution, NaN where one is NaN.
 */
export const combine = (parts: UncertaintyParts): number =>
  Math.hypot(
    parts.digits,
    parts.gain,
    parts.counts,
    parts.leadZero,
    parts.wander,
    parts.contact,
    parts.temperature,
    parts.stimulus,
  );
