import { quantile } from '../numerics/select';
import type { RawPulse } from './pulses';
import { thin } from './pulses';
import type { Channel } from './types';

/**
 * While the starter turns, a battery keeps this share of its rest at least, for this long. Common practice,
 * no source.
 */
const LEAST_SHARE = 0.4;
const SHORTEST_s = 0.25;
/** Below this it is no battery, above neither. */
const [LEAST_V, MOST_V] = [8, 32];

export const isBattery = ({ role, unit, values }: Channel): boolean => {
  if (role === 'battery') return true;
  const usual = quantile(thin(values), 0.5);
  return role === 'other' && unit === 'V' && usual > LEAST_V && usual < MOST_V;
};

/** Whether a battery's voltage dips as a starter makes it dip: no dropout. */
export const isCranking = (p: RawPulse, period_s: number): boolean =>
  p.sign < 0 && (p.last - p.first + 1) * period_s >= SHORTEST_s && p.level > LEAST_SHARE * p.course;

/**
 * Below this share of what it usually has, a battery that ripples drives a starter. Common practice, no
 * source.
 */
const CRANKING_SHARE = 0.93;

/**
 * Whether a battery ripples because the starter turns the engine from compression to compression: no noise.
 */
export function isCrankingRipple(
  part: { readonly first: number; readonly last: number },
  values: Float64Array,
): boolean {
  const level = quantile(values.slice(part.first, part.last + 1), 0.5);
  const usual = quantile(thin(values), 0.5);
  return level < CRANKING_SHARE * usual && level > LEAST_SHARE * usual;
}
