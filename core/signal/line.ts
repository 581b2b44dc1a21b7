import { MAD_TO_SIGMA, quantile } from '../numerics/select';
import { seededRandom } from '../numerics/random';

/** y = offset + gain · x, with what is left. */
export interface Line {
  readonly offset: number;
  readonly gain: number;
  /** Standard errors. */
  readonly offsetError: number;
  readonly gainError: number;
  /** Root mean square of what is left, of the pairs that the line speaks for. */
  readonly rms: number;
}

/** Tukey's constant: 95 % of the efficiency of least squares where the noise is normal. */
const BISQUARE = 4.685;

/**
 * A straight line that a part of wrong pairs does not move: from the median slope of many pairs (Theil 1950,
 * Sen, JASA 63, 1968, 1379) by iterated least squares with Tukey's bisquare weights (Beaton and Tukey,
 * Technometrics 16, 1974, 147). `null` for fewer than four pairs or where x does not move.
 */
export function robustLine(x: Float64Array, y: Float64Array): Line | null {
  const n = x.length;
  if (n < 4) return null;
  let gain = medianSlope(x, y);
  if (!Number.isFinite(gain)) return null;
  let offset = quantile(
    x.map((v, i) => (y[i] ?? NaN) - gain * v),
    0.5,
  );
  let weights = new Float64Array(n).fill(1);
  for (let pass = 0; pass < 25; pass++) {
    const off = x.map((v, i) => Math.abs((y[i] ?? NaN) - offset - gain * v));
    const scale = Math.max(MAD_TO_SIGMA * quantile(off, 0.5), 1e-12);
    weights = off.map((r) => (r < BISQUARE * scale ? (1 - (r / (BISQUARE * scale)) ** 2) ** 2 : 0));
    const next = weighted(x, y, weights);
    if (!next) break;
    const moved = Math.abs(next.gain - gain) + Math.abs(next.offset - offset);
    ({ gain, offset } = next);
    if (moved < 1e-12) break;
  }
  return withErrors(x, y, weights, offset, gain);
}

function medianSlope(x: Float64Array, y: Float64Array): number {
  const random = seededRandom(5);
  const n = x.length;
  const spread = quantile(x, 0.95) - quantile(x, 0.05);
  const slopes: number[] = [];
  for (let k = 0; k < 4000 && slopes.length < 800; k++) {
    const [i, j] = [Math.floor(random() * n), Math.floor(random() * n)];
    const dx = (x[i] ?? NaN) - (x[j] ?? NaN);
    if (Math.abs(dx) > 0.3 * spread && dx !== 0) slopes.push(((y[i] ?? NaN) - (y[j] ?? NaN)) / dx);
  }
  return quantile(slopes, 0.5);
}

function weighted(x: Float64Array, y: Float64Array, w: Float64Array): { offset: number; gain: number } | null {
  let [s, sx, sy] = [0, 0, 0];
  for (let i = 0; i < x.length; i++) {
    const k = w[i] ?? 0;
    s += k;
    sx += k * (x[i] ?? 0);
    sy += k * (y[i] ?? 0);
  }
  if (!(s > 0)) return null;
  const [mx, my] = [sx / s, sy / s];
  let [sxx, sxy] = [0, 0];
  for (let i = 0; i < x.length; i++) {
    const dx = (x[i] ?? 0) - mx;
    sxx += (w[i] ?? 0) * dx * dx;
    sxy += (w[i] ?? 0) * dx * ((y[i] ?? 0) - my);
  }
  if (!(sxx > 0)) return null;
  const gain = sxy / sxx;
  return { gain, offset: my - gain * mx };
}

function withErrors(x: Float64Array, y: Float64Array, w: Float64Array, offset: number, gain: number): Line {
  let [n, sum, sx] = [0, 0, 0];
  for (let i = 0; i < x.length; i++) {
    if (!((w[i] ?? 0) > 0)) continue;
    n++;
    sum += ((y[i] ?? 0) - offset - gain * (x[i] ?? 0)) ** 2;
    sx += x[i] ?? 0;
  }
  const mean = n ? sx / n : 0;
  let sxx = 0;
  for (let i = 0; i < x.length; i++) if ((w[i] ?? 0) > 0) sxx += ((x[i] ?? 0) - mean) ** 2;
  const variance = sum / Math.max(1, n - 2);
  return {
    offset,
    gain,
    rms: Math.sqrt(sum / Math.max(1, n)),
    gainError: sxx > 0 ? Math.sqrt(variance / sxx) : Infinity,
    offsetError: Math.sqrt(variance * (1 / Math.max(1, n) + (sxx > 0 ? mean ** 2 / sxx : 0))),
  };
}
