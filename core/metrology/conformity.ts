import { normalCdf } from '../numerics/normal';

/**
 * Conformance probability after JCGM 106:2012, clause 7 (clause numbers here from memory): with a measured
 * value y and a normal distribution of standard uncertainty u about it, the probability that the true value
 * lies in [lower, upper] is Φ((upper - y)/u) - Φ((lower - y)/u). A limit that is absent is at infinity. Any
 * consistent unit.
 *
 * With u = 0 it is 0 or 1, limits inclusive. NaN never passes: any NaN gives NaN.
 */
export function probabilityWithin(y: number, u: number, lower: number | null, upper: number | null): number {
  const low = lower ?? -Infinity;
  const high = upper ?? Infinity;
  if ([y, u, low, high].some(Number.isNaN) || u < 0) return NaN;
  if (u === 0) return y >= low && y <= high ? 1 : 0;
  // Subtracting tails on the same side keeps the digits that 1 - small would lose.
  const zLow = (low - y) / u;
  const zHigh = (high - y) / u;
  const p = zLow > 0 ? normalCdf(-zLow) - normalCdf(-zHigh) : normalCdf(zHigh) - normalCdf(zLow);
  return Math.min(1, Math.max(0, p));
}

/**
 * Below this probability of being on one side of a limit, that side no longer counts as plausible. 5 % is the
 * consumer's and the producer's risk that a two-sided 95 % statement leaves.
 */
export const PLAUSIBLE = 0.05;

/**
 * How a workshop accepts: `three-way` says "cannot tell" where both sides of a limit are plausible; `simple`
 * takes the value as it stands (simple acceptance, JCGM 106 clause 8.2); `guarded` accepts only where
 * conformity is proven with 95 % (guarded acceptance after ISO 14253-1) and rejects the rest. Clause numbers
 * from memory.
 */
export const DECISION_RULES = ['three-way', 'simple', 'guarded'] as const;
export type DecisionRule = (typeof DECISION_RULES)[number];
