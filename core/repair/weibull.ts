import { bisectRising } from '../numerics/bisect';
/**
 * Lives of parts by the Weibull distribution (W. Weibull, 1951; formulas as in any reliability handbook, for
 * instance NIST/SEMATECH e-Handbook 8.1.6.2; written from memory). Ages in hours.
 */
export interface Weibull {
  /** Shape: 1 fails at random, above 1 wears out. */
  readonly shape: number;
  /** Scale, hours: 63 % have failed by then. */
  readonly scale_h: number;
}

/**
 * Probability, 0 to 1, that a part that works at `age_h` fails within the next `horizon_h`: with the
 * reliability R(t) = exp(-(t/η)^β), 1 - R(age + horizon)/R(age). Ages and horizon in hours, 0 or more; shape
 * and scale above 0. NaN for NaN. Source: Weibull (1951); as in the NIST/SEMATECH e-Handbook 8.1.6.2, from
 * memory.
 */
export function failureWithin({ shape, scale_h }: Weibull, age_h: number, horizon_h: number): number {
  return 1 - Math.exp((age_h / scale_h) ** shape - ((age_h + horizon_h) / scale_h) ** shape);
}

/** A part's life: the age at which it failed, or to which it has held. */
export interface Life {
  readonly age_h: number;
  readonly failed: boolean;
}

/** Fewer failures than this say nothing of a shape. Common practice, no source. */
export const ENOUGH_FAILURES = 8;

/**
 * Maximum likelihood for lives of which some have not ended (right-censored): the shape is the root of
 * Σ t^k ln t / Σ t^k - 1/k - mean of ln t of the failures, found by bisection between 0.05 and 50 to 1e-12;
 * the scale follows, in hours. Lives of no age are left out. `null` where there are fewer failures than
 * `ENOUGH_FAILURES`, or all are of one age. Source: as above; checked against scipy.
 */
export function fitWeibull(lives: readonly Life[]): Weibull | null {
  const all = lives.filter((l) => l.age_h > 0);
  const failures = all.filter((l) => l.failed);
  if (failures.length < ENOUGH_FAILURES || new Set(failures.map((l) => l.age_h)).size < 2) return null;
  // In units of the longest life: powers of it stay within reach.
  const unit = Math.max(...all.map((l) => l.age_h));
  const logs = all.map((l) => Math.log(l.age_h / unit));
  const meanLog = failures.reduce((s, l) => s + Math.log(l.age_h / unit), 0) / failures.length;
  const excess = (k: number): number => {
    let [sum, weighted] = [0, 0];
    for (const x of logs) {
      const p = Math.exp(k * x);
      sum += p;
      weighted += p * x;
    }
    return weighted / sum - 1 / k - meanLog;
  };
  const [low, high] = [0.05, 50];
  if (excess(low) > 0 || excess(high) < 0) return null;
  const shape = bisectRising(excess, 0, { low, high, tolerance: 1e-12 });
  const sum = logs.reduce((s, x) => s + Math.exp(shape * x), 0);
  return { shape, scale_h: unit * (sum / failures.length) ** (1 / shape) };
}
