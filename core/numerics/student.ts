/**
 * Student's t distribution with four degrees of freedom, scale 1: about normal in the middle, with tails that
 * fall by a power. Closed forms: Abramowitz & Stegun 26.7.4 for even degrees of freedom (from memory);
 * compared with scipy in the tests. NaN for NaN.
 */
export function studentDensity(t: number): number {
  const q = 1 + (t * t) / 4;
  return 0.375 / (q * q * Math.sqrt(q));
}

/** Probability of at most `t`. Accepts the infinities. */
export function studentCdf(t: number): number {
  if (!Number.isFinite(t)) return t > 0 ? 1 : t < 0 ? 0 : NaN;
  const q = 1 + (t * t) / 4;
  return 0.5 + 0.375 * (t / Math.sqrt(q)) * (1 - (t * t) / q / 12);
}
