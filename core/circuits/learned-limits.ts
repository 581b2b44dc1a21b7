import type { Limits } from '../limits/types';

/** A good reading of a part of the same engine family. */
export interface GoodReading {
  readonly unitId: string;
  /** In the unit of the limits. */
  readonly value: number;
}

/** Fewer say nothing of a type of part. Common practice, no source. */
const LEAST_READINGS = 12;
const LEAST_UNITS = 3;
/** Parts differ by at least so much, as a standard deviation of the logarithm. */
const LEAST_SPREAD = 0.08;
/** Limits lie so many standard deviations either side, as `withLimits` takes them. */
const SIGMAS = 2;

/**
 * Limits as the good readings of a family show them, where nobody has entered any: about the geometric mean,
 * two standard deviations either side. `null` where too few were read, or on too few units.
 */
export function learnedLimits(good: readonly GoodReading[], of: Pick<Limits, 'quantity' | 'unit'>): Limits | null {
  const own = good.filter((g) => g.value > 0 && Number.isFinite(g.value));
  if (own.length < LEAST_READINGS || new Set(own.map((g) => g.unitId)).size < LEAST_UNITS) return null;
  const logs = own.map((g) => Math.log(g.value));
  const mean = logs.reduce((a, b) => a + b, 0) / logs.length;
  const variance = logs.reduce((a, b) => a + (b - mean) ** 2, 0) / (logs.length - 1);
  const spread = Math.max(LEAST_SPREAD, Math.sqrt(variance));
  return { ...of, lower: Math.exp(mean - SIGMAS * spread), upper: Math.exp(mean + SIGMAS * spread) };
}
