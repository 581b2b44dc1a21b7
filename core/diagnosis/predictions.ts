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

/**
 * What each hypothesis predicts for each instance: mean and standard deviation; in ohms the logarithm of it.
 */
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
  /**
   * [instance] How much all good parts of a set differ together from those of another type, as far as it
   * shows: of the logarithm of ohms, relative of amperes.
   */
  readonly batch: Float64Array;
  /** The largest voltage in the circuit. */
  readonly volts: number;
  /** How much sources differ among good ones, relative: a battery more than a supply that is held. */
  readonly sourceSpread: number;
}

/**
 * Whether a hypothesis changes nothing of what an instance shows; the first hypothesis is the healthy
 * circuit.
 */
export function showsAsGood(p: Predictions, hypothesis: number, instance: number): boolean {
  const k = hypothesis * p.instances.length + instance;
  return (
    p.loose[k] === 0 &&
    p.mean[k] === p.mean[instance] &&
    p.sd[k] === p.sd[instance] &&
    p.below[k] === p.below[instance] &&
    p.above[k] === p.above[instance]
  );
}

/**
 * How far sizes between those of the grid reach, as a standard deviation: that of an even distribution, its
 * width over √12. 0 for what has no sizes. RangeError for a `k` that is not there.
 */
export const reachSd = (p: Pick<Predictions, 'below' | 'above'>, k: number): number =>
  (floatAt(p.below, k) + floatAt(p.above, k)) / Math.sqrt(12);
