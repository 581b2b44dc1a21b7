import { floatAt } from '../numerics/cell';
import type { Probe } from '../circuits/types';
import type { Position } from '../judge/types';
import type { Hypothesis } from './types';

/** A probe at one position. */
export interface Instance {
  readonly test: string;
  readonly position: Position;
  readonly mode: Probe['mode'];
}

/** What each hypothesis predicts for each instance: mean and standard deviation; in ohms the logarithm of it. */
export interface Predictions {
  readonly instances: readonly Instance[];
  readonly hypotheses: readonly Hypothesis[];
  /** [hypothesis * instances + instance]; Infinity is overload. */
  readonly mean: Float64Array;
  readonly sd: Float64Array;
  /**
   * How far below and above the mean the readings reach of faults half way to the next sizes on the grid: any
   * size between two of them is as good.
   */
  readonly below: Float64Array;
  readonly above: Float64Array;
  /** 1 where what comes and goes makes a difference to the reading: there it may be gone, or wander. */
  readonly loose: Float64Array;
  /** The largest voltage in the circuit. */
  readonly volts: number;
  /** How much sources differ among good ones, relative: a battery more than a supply that is held. */
  readonly sourceSpread: number;
}

/** How far sizes between those of the grid reach, as a standard deviation: that of an even distribution. */
export const reachSd = (p: Pick<Predictions, 'below' | 'above'>, k: number): number =>
  (floatAt(p.below, k) + floatAt(p.above, k)) / Math.sqrt(12);
