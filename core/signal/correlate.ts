/** Where two signals fit best. `lag`: how much later the second is, in samples, with fraction. */
export interface BestLag {
  readonly lag: number;
  /** Pearson's coefficient there. */
  readonly correlation: number;
  /** Whether it is the end of what was searched: the true lag may lie outside. */
  readonly isAtTheEnd: boolean;
}

/**
 * Pearson's correlation of `first[i]` with `second[i + lag]` over the pairs of which both are there; NaN for
 * fewer than four pairs or where one does not move.
 */
export function correlationAt(first: Float64Array, second: Float64Array, lag: number): number {
  let n = 0;
  let [sx, sy, sxx, syy, sxy] = [0, 0, 0, 0, 0];
  const from = Math.max(0, -lag);
  const to = Math.min(first.length, second.length - lag);
  const [x0, y0] = [firstFinite(first), firstFinite(second)];
  for (let i = from; i < to; i++) {
    const x = (first[i] ?? NaN) - x0;
    const y = (second[i + lag] ?? NaN) - y0;
    if (!(Number.isFinite(x) && Number.isFinite(y))) continue;
    n++;
    sx += x;
    sy += y;
    sxx += x * x;
    syy += y * y;
    sxy += x * y;
  }
  if (n < 4) return NaN;
  const [vx, vy] = [sxx - (sx * sx) / n, syy - (sy * sy) / n];
  return vx > 0 && vy > 0 ? (sxy - (sx * sy) / n) / Math.sqrt(vx * vy) : NaN;
}

const firstFinite = (values: Float64Array): number => values.find((v) => Number.isFinite(v)) ?? 0;

/**
 * The lag from `-most` to `most` samples with the largest correlation, between samples by a parabola through
 * the three highest (Jacovitti and Scarano, IEEE Trans. Signal Processing 41, 1993, 525). `null` where
 * nothing moves.
 */
export function bestLag(first: Float64Array, second: Float64Array, most: number): BestLag | null {
  let best = -Infinity;
  let at = 0;
  for (let lag = -most; lag <= most; lag++) {
    const c = correlationAt(first, second, lag);
    // Of equal ones the lag that is smaller in size: a constant stretch says nothing about time.
    if (c > best + 1e-12 || (c > best - 1e-12 && Math.abs(lag) < Math.abs(at))) {
      best = Math.max(c, best);
      at = lag;
    }
  }
  if (!Number.isFinite(best)) return null;
  const [left, right] = [correlationAt(first, second, at - 1), correlationAt(first, second, at + 1)];
  const bend = left - 2 * best + right;
  const shift = Number.isFinite(bend) && bend < 0 ? (0.5 * (left - right)) / bend : 0;
  return { lag: at + Math.max(-0.5, Math.min(0.5, shift)), correlation: best, isAtTheEnd: Math.abs(at) === most };
}
