/**
 * Discrete Fourier transform in place, radix 2 (Cooley and Tukey, Mathematics of Computation 19, 1965, 297).
 * The length of both lists is a power of two: throws RangeError otherwise. `inverse`: without the division by
 * the length.
 */
export function fft(re: Float64Array, im: Float64Array, inverse = false): void {
  const n = re.length;
  if (n === 0 || (n & (n - 1)) !== 0 || im.length !== n) throw new RangeError(`${n} is no power of two`);
  for (let i = 1, j = 0; i < n; i++) {
    let bit = n >> 1;
    for (; j & bit; bit >>= 1) j ^= bit;
    j ^= bit;
    if (i < j) {
      [re[i], re[j]] = [re[j] ?? 0, re[i] ?? 0];
      [im[i], im[j]] = [im[j] ?? 0, im[i] ?? 0];
    }
  }
  // One table of the unit circle for all sizes: products of a rotation would lose digits.
  const half = n >> 1;
  const cos = Float64Array.from({ length: half }, (_, k) => Math.cos((2 * Math.PI * k) / n));
  const sin = Float64Array.from({ length: half }, (_, k) => (inverse ? 1 : -1) * Math.sin((2 * Math.PI * k) / n));
  for (let size = 2; size <= n; size <<= 1) {
    const step = n / size;
    const middle = size >> 1;
    for (let from = 0; from < n; from += size)
      for (let k = 0; k < middle; k++) {
        const [a, b] = [from + k, from + k + middle];
        const [c, s] = [cos[k * step] ?? 0, sin[k * step] ?? 0];
        const [br, bi] = [re[b] ?? 0, im[b] ?? 0];
        const [tr, ti] = [br * c - bi * s, br * s + bi * c];
        re[b] = (re[a] ?? 0) - tr;
        im[b] = (im[a] ?? 0) - ti;
        re[a] = (re[a] ?? 0) + tr;
        im[a] = (im[a] ?? 0) + ti;
      }
  }
}

/** The smallest power of two that is at least `n`. */
export const powerOfTwo = (n: number): number => 2 ** Math.ceil(Math.log2(Math.max(1, n)));

/**
 * Sums of first[i] · second[i + lag] for all lags from -(first.length - 1) to second.length - 1, in that
 * order: the cross-correlation, by way of the spectrum. One NaN makes all sums NaN; of two
 * empty arrays there are none.
 */
export function crossCorrelation(first: Float64Array, second: Float64Array): Float64Array {
  const n = powerOfTwo(first.length + second.length);
  const [ar, ai, br, bi] = [new Float64Array(n), new Float64Array(n), new Float64Array(n), new Float64Array(n)];
  ar.set(first);
  br.set(second);
  fft(ar, ai);
  fft(br, bi);
  for (let k = 0; k < n; k++) {
    const [x, y, u, v] = [ar[k] ?? 0, ai[k] ?? 0, br[k] ?? 0, bi[k] ?? 0];
    ar[k] = x * u + y * v;
    ai[k] = x * v - y * u;
  }
  fft(ar, ai, true);
  const before = first.length - 1;
  return Float64Array.from({ length: first.length + second.length - 1 }, (_, i) => (ar[(i - before + n) % n] ?? 0) / n);
}
