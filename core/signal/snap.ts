import { fixed } from '../locale/numbers';
import { tr } from '../locale/translate';
import { quantile } from '../numerics/select';
import { bestLag } from './correlate';
import { onGrid } from './grid';
import { type Move } from './moves';
import type { Severity } from '../foundation/vocabulary';
import type { Channel, ChannelRole, Shape, Snap } from './types';
import { say, span } from './words';

/**
 * Peaks of a snap of the throttle in volts at the pin: from the first value on as it should be, below the
 * second an intake leak, a blocked intake or exhaust, or a stuck exhaust-gas valve. Common practice, no
 * source.
 */
export const SNAP_PEAKS_V: Partial<Record<ChannelRole, readonly [good: number, poor: number]>> = {
  airflow: [4.5, 4.45],
  'rail-pressure': [3.8, 3.0],
};
/**
 * Two curves of one shape correlate at least so well; below the second they part. Common practice, no source.
 */
const SAME_SHAPE = 0.95;
const OTHER_SHAPE = 0.85;
/** Of the span: a snap lifts the leading channel at least so far. */
const LEAST_RISE = 0.35;
const AFTER_s = 4;
const BEFORE_s = 1;
const LONGEST_DELAY_s = 1.5;

/**
 * Peak and rise time of every snap of the throttle in each channel, and whether the first two channels have
 * one shape.
 */
export function snaps(channels: readonly Channel[], moves: readonly Move[]): (Snap | Shape)[] {
  const leading = channels.find((c) => c.role === 'airflow') ?? channels[0];
  if (!leading) return [];
  const found = moves.filter((m) => rises(leading, m));
  return found.flatMap((move, i) => {
    const event = i + 1;
    const end = Math.min(move.to_s + AFTER_s, found[i + 1]?.from_s ?? Infinity);
    const each = channels.flatMap((c) => snapOf(c, event, move, end) ?? []);
    const other = channels.find((c) => c !== leading && each.some((s) => s.channel === c.id));
    const isThere = each.some((s) => s.channel === leading.id);
    const shape = other && isThere ? shapeOf(leading, other, event, move, end) : null;
    return shape ? [...each, shape] : each;
  });
}

function rises(channel: Channel, move: Move): boolean {
  const whole = quantile(channel.values, 0.999) - quantile(channel.values, 0.01);
  const before = levelAround(channel, move.from_s - BEFORE_s, move.from_s);
  return whole > 0 && highestIn(channel, move.from_s, move.to_s)[1] - before > LEAST_RISE * whole;
}

function levelAround({ clock, values }: Channel, from_s: number, to_s: number): number {
  const from = Math.max(0, clock.before(from_s));
  return quantile(values.slice(from, Math.max(from + 1, clock.before(to_s) + 1)), 0.5);
}

/**
 * The highest value in a stretch of time that its neighbours share (one wrong sample is no peak), with its
 * index.
 */
function highestIn({ clock, values }: Channel, from_s: number, to_s: number): readonly [number, number] {
  let best: readonly [number, number] = [-1, -Infinity];
  const last = Math.min(values.length - 1, clock.before(to_s));
  for (let i = Math.max(0, clock.before(from_s)); i <= last; i++) {
    const [a, b, c] = [values[i - 1] ?? NaN, values[i] ?? NaN, values[i + 1] ?? NaN];
    const kept = Number.isNaN(a + c) ? b : Math.max(Math.min(a, b), Math.min(Math.max(a, b), c));
    if (kept > best[1]) best = [i, kept];
  }
  return best;
}

function snapOf(channel: Channel, event: number, move: Move, end_s: number): Snap | null {
  const { clock, values } = channel;
  const before = levelAround(channel, move.from_s - BEFORE_s, move.from_s);
  const [at, peak] = highestIn(channel, move.from_s, end_s);
  const whole = quantile(channel.values, 0.999) - quantile(channel.values, 0.01);
  if (at < 0 || peak - before < 0.15 * whole) return null;
  const crossing = (share: number): number => {
    const wanted = before + share * (peak - before);
    let i = at;
    while (i > 0 && clock.at(i) > move.from_s - BEFORE_s && !((values[i] ?? NaN) < wanted)) i--;
    const [a, b] = [values[i] ?? NaN, values[i + 1] ?? NaN];
    return clock.at(i) + (b > a ? ((wanted - a) / (b - a)) * (clock.at(i + 1) - clock.at(i)) : 0);
  };
  const rise_s = crossing(0.9) - crossing(0.1);
  const { severity, reason } = judgedPeak(channel, peak);
  return {
    kind: 'snap',
    channel: channel.id,
    event,
    from_s: crossing(0.1),
    to_s: clock.at(at),
    severity,
    confidence: 0.85,
    peak,
    rise_s,
    reasons: [
      tr`Snap ${event}: from ${say(before, channel)} to a peak of ${say(peak, channel)} ${channel.unit}, 10 to 90 % in ${span(rise_s)}.`,
      ...reason,
    ],
  };
}

function judgedPeak(channel: Channel, peak: number): { severity: Severity; reason: string[] } {
  const limits = channel.unit === 'V' ? SNAP_PEAKS_V[channel.role] : undefined;
  if (!limits) return { severity: 'none', reason: [] };
  const [good, poor] = limits;
  const usual = tr`${good} V or more is usual at a full snap (common practice, no source)`;
  if (peak >= good) return { severity: 'pass', reason: [`${usual}.`] };
  const causes = 'an intake leak, a blocked intake or exhaust, or a stuck exhaust-gas valve look like this';
  return { severity: peak < poor ? 'fail' : 'attention', reason: [`${usual}; ${causes}.`] };
}

function shapeOf(a: Channel, b: Channel, event: number, move: Move, end_s: number): Shape | null {
  const from_s = move.from_s - BEFORE_s;
  const step_s = Math.max(0.01, Math.min(a.clock.period_s, b.clock.period_s));
  const count = Math.floor((end_s - from_s) / step_s);
  if (count < 8) return null;
  const most = Math.min(Math.round(LONGEST_DELAY_s / step_s), Math.floor(count / 3));
  const best = bestLag(onGrid(a, from_s, step_s, count).values, onGrid(b, from_s, step_s, count).values, most);
  if (!best) return null;
  const { correlation } = best;
  const delay_s = best.lag * step_s;
  const isSame = correlation >= SAME_SHAPE;
  return {
    kind: 'shape',
    channel: b.id,
    of: a.id,
    event,
    from_s,
    to_s: end_s,
    severity: isSame ? 'pass' : correlation < OTHER_SHAPE ? 'fail' : 'attention',
    confidence: 0.8,
    correlation,
    delay_s,
    reasons: [
      tr`Snap ${event}: ${b.name} follows ${a.name} by ${span(Math.abs(delay_s))}${delay_s < 0 ? ' earlier' : ''}, correlation ${fixed(correlation, 3)}.`,
      isSame
        ? 'Both curves have one shape.'
        : 'The shapes part: with an intake leak, a blockage or a stuck exhaust-gas valve they do (common practice, no source).',
    ],
  };
}
