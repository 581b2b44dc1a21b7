/**
 * The standard normal distribution, to close to double precision.
 *
 * erf by its series, Abramowitz & Stegun 7.1.6, below |x| = 2; erfc by its continued fraction, 7.1.14,
 * evaluated with the modified Lentz method above that. Compared with scipy in normal.test.ts: relative error
 * below 1e-12 for |z| < 8.
 */
/** erfc is below the smallest double from here on. */
const UNDERFLOW = 27;
const TWO_OVER_SQRT_PI = 2 / Math.sqrt(Math.PI);

function erfSeries(x: number): number {
  let term = x;
  let sum = x;
  for (let n = 1; n < 200; n++) {
    term *= (2 * x * x) / (2 * n + 1);
    sum += term;
    if (term < sum * 1e-17) break;
  }
  return TWO_OVER_SQRT_PI * Math.exp(-x * x) * sum;
}

/** erfc for x >= 2: exp(-x²)/√π · 1/(x + (1/2)/(x + 1/(x + (3/2)/(x + …)))). */
function erfcFraction(x: number): number {
  let f = x;
  let c = x;
  let d = 0;
  for (let n = 1; n < 200; n++) {
    const a = n / 2;
    d = 1 / (x + a * d);
    c = x + a / c;
    const delta = c * d;
    f *= delta;
    if (Math.abs(delta - 1) < 1e-16) break;
  }
  return Math.exp(-x * x) / (Math.sqrt(Math.PI) * f);
}

/** Complementary error function; NaN for NaN. */
export function erfc(x: number): number {
  if (Number.isNaN(x)) return NaN;
  if (x < 0) return 2 - erfc(-x);
  if (x > UNDERFLOW) return 0;
  return x < 2 ? 1 - erfSeries(x) : erfcFraction(x);
}

/** Probability that a standard normal variable is at most z. Accepts the infinities. */
export const normalCdf = (z: number): number => erfc(-z / Math.SQRT2) / 2;

/**
 * The z that a standard normal variable exceeds with probability `tail` (0 < tail <= 0.5), by bisection: 0 or
 * more. NaN for NaN and for any other tail.
 */
export function normalUpperTail(tail: number): number {
  if (!(tail > 0 && tail <= 0.5)) return NaN;
  let low = 0;
  let high = 38;
  for (let n = 0; n < 80; n++) {
    const middle = (low + high) / 2;
    if (erfc(middle / Math.SQRT2) / 2 > tail) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
