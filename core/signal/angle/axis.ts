import type { ToothTrain } from './wheel';

/** An angle for each moment: degrees of the crank, rising without end. */
export interface Axis {
  readonly from: 'crank' | 'cylinder';
  /** NaN outside. */
  readonly angleAt: (t_s: number) => number;
  readonly timeAt: (angle_deg: number) => number;
  readonly first_deg: number;
  readonly last_deg: number;
  /** How far an angle may be off, degrees. */
  readonly uncertainty_deg: number;
}

/** Mean speed over an axis, rpm. */
export const speedOf = ({ first_deg, last_deg, timeAt }: Axis): number =>
  ((last_deg - first_deg) / 360 / (timeAt(last_deg) - timeAt(first_deg))) * 60;

/** An axis of the teeth of a crank wheel. */
export const crankAxis = (train: ToothTrain): Axis =>
  axisOf('crank', train.times, train.angles, 0.1 * (360 / train.wheel.teeth));

/**
 * Turns of a crank at idle or while cranking are uneven: within a cycle a straight line is off by this.
 * Common practice, no source.
 */
const UNEVEN_deg = 4;

/**
 * An axis of one cylinder's pulses, a cycle of 720 degrees from each to the next. `null` for fewer than two.
 */
export function cylinderAxis(pulses: Float64Array): Axis | null {
  if (pulses.length < 2) return null;
  const usual = usualPeriod(pulses);
  const angles = new Float64Array(pulses.length);
  for (let i = 1; i < pulses.length; i++)
    // A pulse that did not come is a longer way.
    angles[i] = (angles[i - 1] ?? 0) + 720 * Math.max(1, Math.round(((pulses[i] ?? 0) - (pulses[i - 1] ?? 0)) / usual));
  return axisOf('cylinder', pulses, angles, UNEVEN_deg);
}

/** Median of the distances from each of ascending `times` (s) to the next, s. NaN for fewer than two. */
export function usualPeriod(times: Float64Array): number {
  const d = Array.from(times.slice(1), (t, i) => t - (times[i] ?? NaN)).sort((a, b) => a - b);
  return d[d.length >> 1] ?? NaN;
}

function axisOf(from: Axis['from'], times: Float64Array, angles: Float64Array, uncertainty_deg: number): Axis {
  const along = (xs: Float64Array, ys: Float64Array, x: number): number => {
    const n = xs.length;
    if (!(x >= (xs[0] ?? Infinity)) || x > (xs[n - 1] ?? -Infinity)) return NaN;
    let [low, high] = [0, n - 1];
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if ((xs[middle] ?? 0) <= x) low = middle;
      else high = middle;
    }
    const [a, b, u, v] = [xs[low] ?? 0, xs[high] ?? 0, ys[low] ?? 0, ys[high] ?? 0];
    return b > a ? u + ((x - a) / (b - a)) * (v - u) : u;
  };
  return {
    from,
    angleAt: (t) => along(times, angles, t),
    timeAt: (a) => along(angles, times, a),
    first_deg: angles[0] ?? NaN,
    last_deg: angles[angles.length - 1] ?? NaN,
    uncertainty_deg,
  };
}

/** An angle brought into 0 to `period` (above 0; both in degrees). NaN for NaN, and for a period of 0. */
export const turned = (angle: number, period: number): number => ((angle % period) + period) % period;
/** An angle brought to within half a period of 0, -period/2 included. NaN as above. */
export const nearZero = (angle: number, period: number): number => turned(angle + period / 2, period) - period / 2;

/**
 * Mean of angles that go round, with their standard deviation, by the mean of their directions (Mardia,
 * Statistics of Directional Data, 1972). In the unit of `period`. Of none both are 0, of one the deviation
 * is; NaN where one is.
 */
export function meanAngle(
  angles: readonly number[],
  period: number,
): { readonly mean: number; readonly deviation: number } {
  const k = (2 * Math.PI) / period;
  let [s, c] = [0, 0];
  for (const a of angles) {
    s += Math.sin(k * a);
    c += Math.cos(k * a);
  }
  const mean = turned(Math.atan2(s, c) / k, period);
  const n = Math.max(1, angles.length);
  const sum = angles.reduce((q, a) => q + nearZero(a - mean, period) ** 2, 0);
  return { mean, deviation: Math.sqrt(sum / Math.max(1, n - 1)) };
}
