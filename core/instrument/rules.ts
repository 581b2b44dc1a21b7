import { type AccuracyRange, rangeFor } from '../metrology/instrument';
import type { Quantity } from '../quantity/units';
import type { TouchRules } from './touch';

/** What the rules of a touch are made from. Numbers in the base unit of the quantity. */
export interface TouchCard {
  readonly quantity: Quantity;
  readonly accuracy: readonly AccuracyRange[];
  /** What the leads show together; `null`: nobody has looked. */
  readonly leadZero_ohm: number | null;
  /** The limits of the test, where it has any. */
  readonly lower: number | null;
  readonly upper: number | null;
  /** The leads themselves are read: they touch each other on purpose. */
  readonly isLeadZero: boolean;
  /** A probe on nothing shows less than this; of ohms nothing does. Default 0.03. */
  readonly floating?: number;
}

/** A probe on nothing shows less than this, volt and ampere. Common practice, no source. */
const FLOATING = 0.03;
/** Quantities that show next to nothing where there is no contact. */
const NEEDS_PROBE: readonly Quantity[] = ['voltage', 'current', 'frequency'];
/** What leads and contact add at most to what the leads show, ohm. Common practice, no source. */
const CONTACT_ohm = 0.08;
/** Share of the stated accuracy that a display at rest may wander. */
const SHARE = 1 / 2.8;

/**
 * Rules of a touch from the card of the meter: a value stands still within two steps of the last digit, or
 * within a share of the accuracy that the card states where that is more.
 */
export function touchRules(card: TouchCard): TouchRules {
  const rangeOf = (value: number): AccuracyRange | null => rangeFor(card, card.quantity, value);
  return {
    band: (value, step) => {
      const range = rangeOf(value);
      // A display that shows more digits than the card says stands still in them.
      const count = range ? Math.min(range.resolution, step || range.resolution) : 0;
      const accuracy = range ? (range.percentOfReading / 100) * Math.abs(value) + range.counts * count : 0;
      return Math.max(2 * (step || range?.resolution || Math.abs(value) * 1e-4), accuracy * SHARE);
    },
    hold_s: 0.35,
    count: 3,
    isCoarse: (value, step) => {
      const range = rangeOf(value);
      return range !== null && step > 1.5 * range.resolution && Math.abs(value) < 0.95 * range.upTo;
    },
    isOff: (value) =>
      value === null || (NEEDS_PROBE.includes(card.quantity) && Math.abs(value) < (card.floating ?? FLOATING)),
    shortBelow: shortBelow(card),
  };
}

/** One step of the display at a value, from the ranges of a card; 0 where it states none for the quantity. */
export function stepAt(accuracy: readonly AccuracyRange[], quantity: Quantity, value: number): number {
  return rangeFor({ accuracy }, quantity, value)?.resolution ?? 0;
}

/**
 * Below this the probes may touch each other. Only where a good part reads clearly more: else a touch of the
 * part would be taken for a tap.
 */
function shortBelow({ quantity, leadZero_ohm, lower, upper, isLeadZero }: TouchCard): number | null {
  if (quantity !== 'resistance' || isLeadZero) return null;
  const short = (leadZero_ohm ?? 0.2) + CONTACT_ohm;
  const least = lower ?? (upper === null ? null : upper / 4);
  return least !== null && least + (leadZero_ohm ?? 0) > short ? short : null;
}
