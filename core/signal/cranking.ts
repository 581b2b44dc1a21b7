import { quantile } from '../numerics/select';
import type { Channel } from './types';

/** Samples of a stretch. */
export interface Dip {
  readonly first: number;
  readonly last: number;
}

/** While the starter turns, a battery falls to between these shares of its rest. Common practice, no source. */
const LOW_SHARE = 0.4;
const HIGH_SHARE = 0.93;
const LONGEST_s = 30;
const SHORTEST_s = 0.25;
/** Below this it is no battery. */
const LEAST_V = 8;

/** Where a battery's voltage dips as a starter makes it dip: no dropout. Empty for channels that are no battery. */
export function cranking(channel: Channel, values: Float64Array): Dip[] {
  if (!isBattery(channel, values)) return [];
  const { period_s } = channel.clock;
  const rest = quantile(values, 0.5);
  const dips: Dip[] = [];
  for (let i = 0; i < values.length; i++) {
    if (!((values[i] ?? NaN) < HIGH_SHARE * rest)) continue;
    let end = i;
    const pause = Math.max(1, Math.round(0.3 / period_s));
    for (let k = i; k < values.length && k - end <= pause; k++) if ((values[k] ?? NaN) < HIGH_SHARE * rest) end = k;
    const length_s = (end - i + 1) * period_s;
    const level = quantile(values.slice(i, end + 1), 0.5);
    if (length_s >= SHORTEST_s && length_s <= LONGEST_s && level > LOW_SHARE * rest) dips.push({ first: i, last: end });
    i = end;
  }
  return dips;
}

const isBattery = (channel: Channel, values: Float64Array): boolean =>
  channel.role === 'battery' ||
  (channel.role === 'other' && channel.unit === 'V' && quantile(values, 0.5) > LEAST_V && quantile(values, 0.5) < 32);
