import { quantile, robustDeviation } from '../../numerics/select';
import { thin } from '../pulses';
import type { Channel } from '../types';
import { usualPeriod } from './axis';

/** One event of a current: several pulses close to each other are one injection. */
export interface CurrentPulse {
  readonly start_s: number;
  readonly end_s: number;
  readonly peak: number;
  /** Time integral above the rest, unit · seconds. */
  readonly charge: number;
}

export interface CurrentPulses {
  readonly pulses: readonly CurrentPulse[];
  /** Where the current rests, and what a pulse usually reaches above it. */
  readonly rest: number;
  readonly height: number;
  readonly isTurned: boolean;
}

/** A pulse begins and ends at this share of the usual height. */
const SHARE = 0.3;
/** Pulses nearer to each other than this share of the usual distance belong to one injection. */
const TOGETHER = 0.35;

const found = new WeakMap<Channel, Map<number | undefined, CurrentPulses | null>>();

/**
 * The pulses of a current that rests in between. A clamp that is turned round is turned back. `null` where
 * nothing pulses.
 */
export function currentPulses(channel: Channel, together_s?: number): CurrentPulses | null {
  const known = found.get(channel) ?? new Map<number | undefined, CurrentPulses | null>();
  found.set(channel, known);
  const before = known.get(together_s);
  if (before !== undefined) return before;
  const pulses = lookForPulses(channel, together_s);
  known.set(together_s, pulses);
  return pulses;
}

function lookForPulses(channel: Channel, together_s?: number): CurrentPulses | null {
  const some = Float64Array.from(thin(channel.values)).filter((v) => Number.isFinite(v));
  if (some.length < 50) return null;
  const rest = quantile(some, 0.5);
  const { low, high } = extremes(channel.values);
  const [up, down] = [high - rest, rest - low];
  const isTurned = down > 1.5 * up;
  const height = isTurned ? down : up;
  const noise = robustDeviation(some);
  if (!(height > 6 * noise) || !(height > 3 * channel.step)) return null;
  const sign = isTurned ? -1 : 1;
  const raw = rawPulses(channel, rest, sign, SHARE * height);
  if (!raw.length) return null;
  const pulses = joined(raw, together_s ?? TOGETHER * distanceOf(raw));
  return { pulses, rest, height, isTurned };
}

/** The highest and lowest value that two neighbours share: one wrong sample is no pulse. */
function extremes(values: Float64Array): { readonly low: number; readonly high: number } {
  let [low, high] = [Infinity, -Infinity];
  for (let i = 1; i < values.length; i++) {
    const [a, b] = [values[i - 1] ?? NaN, values[i] ?? NaN];
    if (Math.max(a, b) < low) low = Math.max(a, b);
    if (Math.min(a, b) > high) high = Math.min(a, b);
  }
  return { low, high };
}

function rawPulses({ values, clock }: Channel, rest: number, sign: number, limit: number): CurrentPulse[] {
  const out: CurrentPulse[] = [];
  let [from, peak, charge] = [-1, 0, 0];
  for (let i = 0; i <= values.length; i++) {
    const v = i < values.length ? sign * ((values[i] ?? NaN) - rest) : -Infinity;
    if (v > limit) {
      if (from < 0) [from, peak, charge] = [i, 0, 0];
      peak = Math.max(peak, v);
      charge += v * clock.period_s;
    } else if (from >= 0 && !Number.isNaN(v)) {
      // Between the last sample below the limit and the first above it.
      const [a, b] = [sign * ((values[from - 1] ?? NaN) - rest), sign * ((values[from] ?? NaN) - rest)];
      const part = from > 0 && b > a ? (limit - a) / (b - a) : 1;
      out.push({
        start_s: clock.at(from) - (1 - part) * clock.period_s,
        end_s: clock.at(Math.max(from, i - 1)),
        peak,
        charge,
      });
      from = -1;
    }
  }
  return out;
}

/** The usual distance of injections: of all distances the larger kind. */
function distanceOf(raw: readonly CurrentPulse[]): number {
  const d = raw.slice(1).map((p, i) => p.start_s - (raw[i]?.start_s ?? NaN));
  const large = quantile(d, 0.9);
  const far = d.filter((x) => x > 0.4 * large);
  return far.length ? quantile(far, 0.5) : Infinity;
}

function joined(raw: readonly CurrentPulse[], together_s: number): CurrentPulse[] {
  const out: CurrentPulse[] = [];
  for (const p of raw) {
    const last = out.at(-1);
    if (last && p.start_s - last.start_s < together_s)
      out[out.length - 1] = {
        start_s: last.start_s,
        end_s: p.end_s,
        peak: Math.max(last.peak, p.peak),
        charge: last.charge + p.charge,
      };
    else out.push(p);
  }
  return out;
}

/** When one cylinder injects: a pulse a cycle. `null`: too few, or not regular. */
export function cylinderPulses(channel: Channel): Float64Array | null {
  const found = currentPulses(channel);
  if (!found || found.pulses.length < 2) return null;
  const times = Float64Array.from(found.pulses, (p) => p.start_s);
  const usual = usualPeriod(times);
  const regular = Array.from(times.slice(1), (t, i) => (t - (times[i] ?? NaN)) / usual);
  return regular.filter((r) => r > 0.7 && r < 1.4).length >= 0.5 * regular.length ? times : null;
}
