import type { Quantity } from '../quantity/units';
import type { UnitValue } from '../quantity/values';
import type { Stimulus, Transfer } from './transfer';

/** The part of the limits that can differ from position to position. `null` takes a limit of the set away. */
export interface LimitsAtPosition {
  readonly lower?: number | null | undefined;
  readonly upper?: number | null | undefined;
  readonly watchLower?: number | null | undefined;
  readonly watchUpper?: number | null | undefined;
  readonly shortBelow?: number | null | undefined;
  readonly openAbove?: number | null | undefined;
  readonly recheckMargin?: number | null | undefined;
  readonly steadyWithin?: number | null | undefined;
}

/** How far a reading may be from what a transfer function predicts. What is given is added up. */
export interface Tolerance {
  /** In the unit of the limits. */
  readonly absolute?: number | undefined;
  readonly percentOfExpected?: number | undefined;
  /** In the unit of the transfer's stimulus: what the gauge may be off. */
  readonly stimulus?: number | undefined;
}

/** Readings that must follow one another, in the order of the test's positions. */
export interface Sequence {
  /** `either`: that of the readings as a whole. */
  readonly direction: 'rising' | 'falling' | 'either';
  /** The least that they must change in all, in the unit of the limits. Default: any. */
  readonly leastChange?: number | undefined;
  /** The largest step between neighbours, in the unit of the limits. Default: any. */
  readonly maxStep?: number | undefined;
}

export type LimitStatus = 'draft' | 'approved' | 'rule-of-thumb';

/** Limits as they stand on the shelf. All values in `unit`, absent means that there is no such limit. */
export interface Limits {
  readonly quantity: Quantity;
  readonly unit: string;
  /** Inclusive. */
  readonly lower?: number | undefined;
  /** Inclusive. */
  readonly upper?: number | undefined;
  /** Inside the limits but not liked: below this, above that. */
  readonly watchLower?: number | undefined;
  readonly watchUpper?: number | undefined;
  /** Fraction beyond a limit that means "check the measuring chain first". Default 0. */
  readonly recheckMargin?: number | undefined;
  /** Below it the part is shorted; default: nothing is called a short. */
  readonly shortBelow?: number | undefined;
  /** Above it the part is open; default: only an overload is. */
  readonly openAbove?: number | undefined;
  /** A wander up to this span counts as steady. Default: one step of the digits. */
  readonly steadyWithin?: number | undefined;
  /** How far a reading may be from its good neighbours. Default: no comparison. */
  readonly neighbours?:
    { readonly maxRatio?: number | undefined; readonly maxDifference?: number | undefined } | undefined;
  readonly referenceTemperature_degC?: number | undefined;
  /** 0 or absent: no correction, unless `material` has one. Copper: 0.00393. */
  readonly temperatureCoefficient_perK?: number | undefined;
  /** Conductor, instead of a coefficient. */
  readonly material?: 'copper' | 'aluminium' | 'platinum' | undefined;
  /** What differs at single positions. */
  readonly byPosition?: Readonly<Record<string, LimitsAtPosition>> | undefined;
  readonly sequence?: Sequence | undefined;
  /** Predicts the reading from what is typed behind an at sign; `tolerance` says how closely. */
  readonly transfer?: Transfer | undefined;
  readonly tolerance?: Tolerance | undefined;
  /**
   * Two instruments read the same: behind an at sign stands what this one shows, and the difference is
   * judged. Such as "scan tool".
   */
  readonly pair?: string | undefined;
  /** What acted on the sensor may stand behind an at sign, although nothing predicts the reading from it. */
  readonly stimulus?: Stimulus | undefined;
  readonly source?: string | undefined;
  readonly status?: LimitStatus | undefined;
}

type LimitNumber =
  'lower' | 'upper' | 'watchLower' | 'watchUpper' | 'shortBelow' | 'openAbove' | 'recheckMargin' | 'steadyWithin';

/**
 * Limits as they hold at one position: they have passed `checkLimits`, so every number is finite and in their
 * own unit.
 */
export type LimitsInForce = Omit<Limits, LimitNumber> & {
  readonly [field in LimitNumber]?: UnitValue | undefined;
};
