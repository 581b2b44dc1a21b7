import type { Channel } from './types';

/** Values at equal distances. NaN where the channel says nothing. */
export interface Grid {
  readonly start_s: number;
  readonly step_s: number;
  readonly values: Float64Array;
}

/** A pause of more than so many periods is not bridged by a straight line. */
const BRIDGED_PERIODS = 8;

/** A channel's value at any moment, by a straight line between two samples; NaN outside and over gaps. */
export function valueAt(channel: Channel, t_s: number): number {
  const { clock, values } = channel;
  const i = clock.before(t_s);
  if (i < 0 || i >= values.length) return NaN;
  const [a, ta] = [values[i] ?? NaN, clock.at(i)];
  if (i === values.length - 1) return t_s - ta <= clock.period_s ? a : NaN;
  const [b, tb] = [values[i + 1] ?? NaN, clock.at(i + 1)];
  if (tb - ta > BRIDGED_PERIODS * clock.period_s || tb <= ta) return t_s - ta <= clock.period_s ? a : NaN;
  return a + ((b - a) * (t_s - ta)) / (tb - ta);
}

/** The channel on a grid, by straight lines. */
export const onGrid = (channel: Channel, start_s: number, step_s: number, count: number): Grid => ({
  start_s,
  step_s,
  values: Float64Array.from({ length: count }, (_, i) => valueAt(channel, start_s + i * step_s)),
});

/** The stretch of time that two channels share, or `null`. */
export function sharedTime(a: Channel, b: Channel): { readonly from_s: number; readonly to_s: number } | null {
  const from_s = Math.max(a.clock.at(0), b.clock.at(0));
  const to_s = Math.min(a.clock.at(a.values.length - 1), b.clock.at(b.values.length - 1));
  return to_s > from_s ? { from_s, to_s } : null;
}
