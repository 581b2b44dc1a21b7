import { fixed, withMark } from '../../locale/numbers';
import { tr } from '../../locale/translate';
import { quantile, robustDeviation } from '../../numerics/select';
import { thin } from '../pulses';
import type { Finding } from '../types';
import { type Capture, type CaptureChannel, cylinderAfter, positionOf } from './capture';
import { clipping } from './connection';
import { cylinderPulses } from './pulses-of';
import type { Compression, Connection, Cranking } from './types';

/** Slower or faster than this nothing cranks, rpm. Common practice, no source. */
const [SLOWEST_rpm, FASTEST_rpm] = [50, 500];
/** The current is looked at on this grid. */
const GRID_Hz = 1000;
/** Of the usual current: below this the starter does not turn. */
const TURNING = 0.3;
/** The inrush lasts at most this long, s. Common practice, no source. */
const INRUSH_s = 0.4;
/**
 * A compression this much lower than the mean of all fails; this much is watched. Common practice, no source.
 */
const [FAIL, WATCH] = [0.8, 0.9];
/** More than this of any starter of a small engine is drag, A. Common practice, no source. */
const DRAG_A = 600;
/**
 * Slower than this with a low battery is the supply, rpm and V of a 12 V system. Common practice, no source.
 */
const [SLOW_rpm, LOW_V] = [150, 9.6];

interface Turning {
  /** Current, or how far the battery dips, on an even grid. */
  readonly values: Float64Array;
  readonly start_s: number;
  readonly step_s: number;
  readonly sign: 1 | -1;
  /** In the channel's own unit: what is added to give what was recorded. */
  readonly rest: number;
}

/**
 * Relative compression from the starter's current, or from the dips of the battery: a peak for each
 * compression, its height above the valleys beside it against the mean of the cycle around it. Which cylinder
 * a peak belongs to comes from a channel that names one; without it peaks are counted in order of time.
 */
export function compression(capture: Capture): Finding[] {
  const channel =
    capture.channels.find((c) => c.role === 'starter-current') ?? capture.channels.find((c) => c.role === 'battery');
  if (!channel) return [];
  const connection = clampFindings(channel);
  const findings: Finding[] = [...clipping(channel), ...connection];
  const turning = turningPart(channel, connection);
  const n = capture.cylinders;
  const period = turning && periodOf(turning, n, capture);
  if (!turning || !period) return findings;
  const peaks = peaksOf(turning, period, n);
  if (peaks.length < n + 1) return findings;
  const first = peaks[0]?.t_s ?? 0;
  const last = peaks.at(-1)?.t_s ?? 0;
  const speed_rpm = (60 * (peaks.length - 1) * (720 / n)) / 360 / (last - first);
  const named = namedPeak(capture, peaks, n);
  const rows = byPosition(
    peaks,
    n,
    (slot) => named && cylinderAfter(capture.firingOrder, named.cylinder, slot - named.slot),
  );
  const relatives = rows.map((r) => r.relative);
  const even = Math.max(...relatives) - Math.min(...relatives) < 0.2 && Math.min(...relatives) > WATCH;
  const base = { channel: channel.id, from_s: first, to_s: last };
  findings.push(...rows.map((r): Compression => compressionFinding(r, base, channel)));
  findings.push(crankingFinding(channel, turning, base, speed_rpm, even, capture));
  return findings;
}

interface Peak {
  readonly t_s: number;
  /** Above the valleys to either side. */
  readonly height: number;
  readonly level: number;
  readonly slot: number;
}

interface Row {
  readonly position: number;
  readonly cylinder: number | null;
  readonly relative: number;
  readonly uncertainty: number;
  readonly peak: number;
  readonly cycles: number;
}

/** Turned round or not zeroed: a current is nothing while the starter stands, and positive while it turns. */
function clampFindings(channel: CaptureChannel): Connection[] {
  if (channel.role !== 'starter-current') return [];
  const some = thin(channel.values);
  const base = {
    kind: 'connection' as const,
    channel: channel.id,
    from_s: channel.clock.at(0),
    to_s: channel.clock.at(channel.values.length - 1),
    severity: 'attention' as const,
    confidence: 0.9,
  };
  const [low, middle, high] = [quantile(some, 0.01), quantile(some, 0.5), quantile(some, 0.99)];
  const isTurned = Math.abs(low) > 1.2 * Math.abs(high) && middle < 0;
  const rest = restOf(channel, isTurned);
  const reach = Math.max(Math.abs(low), Math.abs(high));
  return [
    ...(isTurned
      ? [
          {
            ...base,
            problem: 'turned round' as const,
            offset: 0,
            reasons: [
              'The current is below zero while the starter turns: the clamp is turned round. It was turned back here.',
            ],
          },
        ]
      : []),
    ...(rest !== null && Math.abs(rest) > 0.02 * reach
      ? [
          {
            ...base,
            problem: 'not zeroed' as const,
            offset: rest,
            reasons: [
              tr`While the starter stands the clamp shows ${fixed(rest, 1)} ${channel.unit}: it was not zeroed. It was taken out here.`,
            ],
          },
        ]
      : []),
  ];
}

/**
 * What the clamp shows while the starter stands: the calm part at either end of the recording. `null`: it
 * turns all the time.
 */
function restOf({ values, clock }: CaptureChannel, isTurned: boolean): number | null {
  const count = Math.max(8, Math.round(0.08 / clock.period_s));
  const ends = [values.slice(0, count), values.slice(-count)].map((part) => part.filter(Number.isFinite));
  const whole = quantile(thin(values), isTurned ? 0.02 : 0.98) - quantile(thin(values), isTurned ? 0.98 : 0.02);
  const calm = ends.filter((p) => p.length > 4 && quantile(p, 0.95) - quantile(p, 0.05) < 0.06 * Math.abs(whole));
  const levels = calm.map((p) => quantile(p, 0.5)).sort((a, b) => Math.abs(a) - Math.abs(b));
  const middle = quantile(thin(values), 0.5);
  const [level] = levels;
  return level !== undefined && Math.abs(level) < 0.35 * Math.max(Math.abs(middle), 1e-9) ? level : null;
}

function turningPart(channel: CaptureChannel, connection: readonly Connection[]): Turning | null {
  const isBattery = channel.role === 'battery';
  const isTurned = connection.some((c) => c.problem === 'turned round');
  const rest = isBattery
    ? quantile(thin(channel.values), 0.98)
    : (connection.find((c) => c.problem === 'not zeroed')?.offset ?? 0);
  const sign = isBattery || isTurned ? -1 : 1;
  const step_s = Math.max(1 / GRID_Hz, channel.clock.period_s);
  const grid = averaged(channel, step_s).map((v) => sign * (v - rest));
  const usual = quantile(grid, 0.6);
  if (!(usual > 0)) return null;
  // The longest part in which it turns, without the inrush.
  let [from, best, bestFrom] = [-1, 0, 0];
  const gap = Math.round(0.3 / step_s);
  let low = 0;
  for (let i = 0; i <= grid.length; i++) {
    const isOn = (grid[i] ?? -Infinity) > TURNING * usual;
    if (isOn && from < 0) from = i;
    low = isOn ? 0 : low + 1;
    if (from >= 0 && (i === grid.length || low > gap)) {
      const end = i - low;
      if (end - from > best) [best, bestFrom] = [end - from, from];
      from = -1;
    }
  }
  const hasStart = bestFrom > Math.round(0.05 / step_s);
  const inrush = inrushLength(grid.slice(bestFrom, bestFrom + best), step_s, hasStart);
  const values = grid.slice(bestFrom + inrush, bestFrom + best);
  if (values.length * step_s < 0.4) return null;
  return { values, start_s: channel.clock.at(0) + (bestFrom + inrush) * step_s, step_s, sign, rest };
}

/** Steps until the current has come down from the inrush to what it has later. */
function inrushLength(values: Float64Array, step_s: number, hasStart: boolean): number {
  const most = Math.min(values.length, Math.round(INRUSH_s / step_s));
  const later = quantile(values.slice(Math.min(values.length - 1, 2 * most)), 0.98);
  let last = 0;
  for (let i = 0; i < most; i++) if ((values[i] ?? 0) > 1.1 * later) last = i;
  if (last === 0) return hasStart ? Math.min(most, Math.round(0.1 / step_s)) : 0;
  return last + Math.round(0.05 / step_s);
}

/** Means of the samples of each step of the grid. */
function averaged({ values, clock }: CaptureChannel, step_s: number): Float64Array {
  const start = clock.at(0);
  const count = Math.max(1, Math.floor((clock.at(values.length - 1) - start) / step_s) + 1);
  const sums = new Float64Array(count);
  const counts = new Float64Array(count);
  for (let i = 0; i < values.length; i++) {
    const v = values[i] ?? NaN;
    const k = Math.round((clock.at(i) - start) / step_s);
    if (!Number.isFinite(v) || k < 0 || k >= count) continue;
    sums[k] = (sums[k] ?? 0) + v;
    counts[k] = (counts[k] ?? 0) + 1;
  }
  let last = 0;
  return sums.map((s, k) => (last = (counts[k] ?? 0) > 0 ? s / (counts[k] ?? 1) : last));
}

/**
 * Seconds from one compression to the next: from the crank or a named cylinder where recorded, else by
 * autocorrelation.
 */
function periodOf(turning: Turning, n: number, capture: Capture): number | null {
  const { values, step_s } = turning;
  const least = Math.max(2, Math.floor(120 / (n * FASTEST_rpm) / step_s));
  const most = Math.min(Math.floor(values.length / 2), Math.ceil(120 / (n * SLOWEST_rpm) / step_s));
  const known = knownPeriod(turning, n, capture);
  if (known) return known;
  const smooth = withoutTrend(values, most);
  const correlation = (lag: number): number => {
    let [xy, xx, yy] = [0, 0, 0];
    for (let i = 0; i + lag < smooth.length; i++) {
      const [a, b] = [smooth[i] ?? 0, smooth[i + lag] ?? 0];
      xy += a * b;
      xx += a * a;
      yy += b * b;
    }
    return xx > 0 && yy > 0 ? xy / Math.sqrt(xx * yy) : 0;
  };
  const all: { lag: number; c: number }[] = [];
  for (let lag = least; lag <= most; lag++) all.push({ lag, c: correlation(lag) });
  const tops = all.filter((a, i) => a.c > (all[i - 1]?.c ?? -1) && a.c >= (all[i + 1]?.c ?? -1) && i > 0);
  const best = Math.max(...tops.map((t) => t.c));
  // The shortest that repeats nearly as well: a whole cycle always repeats best.
  const found = tops.find((t) => t.c > 0.55 * best && t.c > 0.2);
  return found ? (found.lag / humpsIn(smooth, found.lag, n)) * step_s : null;
}

/**
 * Of the strongest harmonic: from here on a harmonic is the humps themselves, and no part of the shape of
 * one.
 */
const HARMONIC = 0.08;

/**
 * How many compressions what repeats holds: with a cylinder that hardly compresses only a whole cycle
 * repeats. As many humps as the highest harmonic that is there, of those that a cycle of `n` can have: one
 * hump alone has next to none of them.
 */
function humpsIn(values: Float64Array, lag: number, n: number): number {
  const power = (m: number): number => {
    const count = Math.floor(Math.floor(values.length / lag) * lag);
    let [c, s] = [0, 0];
    for (let i = 0; i < count; i++) {
      const k = (2 * Math.PI * m * i) / lag;
      c += (values[i] ?? 0) * Math.cos(k);
      s += (values[i] ?? 0) * Math.sin(k);
    }
    return c * c + s * s;
  };
  const all = Array.from({ length: n }, (_, i) => power(i + 1));
  const most = Math.max(...all);
  for (let k = n; k > 1; k--) if (n % k === 0 && (all[k - 1] ?? 0) > HARMONIC * most) return k;
  return 1;
}

function knownPeriod({ start_s, values, step_s }: Turning, n: number, capture: Capture): number | null {
  const end_s = start_s + values.length * step_s;
  const position = positionOf(capture);
  if (position) {
    const { times, angles } = position.train;
    const inside = Array.from(times.keys()).filter((i) => (times[i] ?? 0) >= start_s && (times[i] ?? 0) <= end_s);
    const [a, b] = [inside[0], inside.at(-1)];
    if (a !== undefined && b !== undefined && (angles[b] ?? 0) - (angles[a] ?? 0) > 360)
      return (((times[b] ?? 0) - (times[a] ?? 0)) / ((angles[b] ?? 0) - (angles[a] ?? 0))) * (720 / n);
  }
  const own = capture.channels.find((c) => c.role === 'injector-current' && c.cylinder !== undefined);
  const pulses = own && cylinderPulses(own)?.filter((t) => t >= start_s && t <= end_s);
  const [first, last] = [pulses?.[0], pulses?.at(-1)];
  if (!pulses || first === undefined || last === undefined || pulses.length < 2) return null;
  const d = pulses.slice(1).map((t, i) => t - (pulses[i] ?? 0));
  return quantile(d, 0.5) / n;
}

/** Less the running mean over about `window` steps. */
function withoutTrend(values: Float64Array, window: number): Float64Array {
  const trend = smoothed(values, Math.max(4, window));
  return values.map((v, i) => v - (trend[i] ?? 0));
}

/** Running means: over a seventh of a compression noise and ripple of the brushes go, and the hump stays. */
function smoothed(values: Float64Array, window: number): Float64Array {
  const half = Math.max(0, Math.round(window / 2));
  const sums = new Float64Array(values.length + 1);
  for (let i = 0; i < values.length; i++) sums[i + 1] = (sums[i] ?? 0) + (values[i] ?? 0);
  return values.map((_, i) => {
    const [a, b] = [Math.max(0, i - half), Math.min(values.length, i + half + 1)];
    return ((sums[b] ?? 0) - (sums[a] ?? 0)) / (b - a);
  });
}

/** Of the step from one compression to the next: how far a peak may be from where it is expected. */
const SLACK = 0.3;

/**
 * A peak for each compression, also where one is hardly there: it is looked for where the ones before lead
 * to.
 */
function peaksOf(turning: Turning, period_s: number, n: number): Peak[] {
  const { values, start_s, step_s, sign, rest } = turning;
  const smooth = smoothed(values, (0.15 * period_s) / step_s);
  const t = period_s / step_s;
  const highest = (from: number, to: number): number => {
    let at = Math.max(0, Math.round(from));
    for (let i = at; i <= Math.min(smooth.length - 1, Math.round(to)); i++)
      if ((smooth[i] ?? 0) > (smooth[at] ?? 0)) at = i;
    return at;
  };
  const lowest = (from: number, to: number): number => {
    let low = Infinity;
    for (let i = Math.max(0, Math.round(from)); i <= Math.min(smooth.length - 1, Math.round(to)); i++)
      low = Math.min(low, smooth[i] ?? Infinity);
    return low;
  };
  // Begin at the highest of the first cycle: it is a compression for sure.
  const anchor = highest(0, Math.min(smooth.length - 1, n * t));
  const slots: number[] = [];
  const walk = (way: 1 | -1): void => {
    let at = anchor;
    let step = t;
    for (;;) {
      const expected = at + way * step;
      if (expected < 0.15 * t || expected > smooth.length - 1 - 0.15 * t) return;
      const found = highest(expected - SLACK * t, expected + SLACK * t);
      const isPeak = found > expected - SLACK * t + 1 && found < expected + SLACK * t - 1;
      const next = isPeak ? found : Math.round(expected);
      step = Math.min(1.25 * t, Math.max(0.75 * t, 0.7 * step + 0.3 * Math.abs(next - at)));
      slots.push(next);
      at = next;
    }
  };
  slots.push(anchor);
  walk(1);
  walk(-1);
  slots.sort((a, b) => a - b);
  return slots.map((i, slot) => {
    const left = lowest(i - 0.75 * t, i);
    const right = lowest(i, i + 0.75 * t);
    const valley = i < 0.5 * t ? right : i > smooth.length - 0.5 * t ? left : (left + right) / 2;
    const level = smooth[i] ?? NaN;
    return { t_s: start_s + i * step_s, height: Math.max(0, level - valley), level: sign * level + rest, slot };
  });
}

/** Which of the peaks is which cylinder: slot and cylinder of one of them, by the median over all cycles. */
function namedPeak(capture: Capture, peaks: readonly Peak[], n: number): { slot: number; cylinder: number } | null {
  const own = capture.channels.find((c) => c.role === 'injector-current' && c.cylinder !== undefined);
  const pulses = own && cylinderPulses(own);
  if (!pulses || own.cylinder === undefined) return null;
  const votes = new Map<number, number>();
  for (const t of pulses) {
    const near = peaks.reduce((a, b) => (Math.abs(b.t_s - t) < Math.abs(a.t_s - t) ? b : a));
    const after = peaks[peaks.indexOf(near) + 1] ?? peaks[peaks.indexOf(near) - 1];
    if (!after || Math.abs(near.t_s - t) > 0.6 * Math.abs(after.t_s - near.t_s)) continue;
    const k = near.slot % n;
    votes.set(k, (votes.get(k) ?? 0) + 1);
  }
  const [best] = [...votes].sort((a, b) => b[1] - a[1]);
  return best ? { slot: best[0], cylinder: own.cylinder } : null;
}

function byPosition(peaks: readonly Peak[], n: number, cylinderOf: (slot: number) => number | null): Row[] {
  // Against the mean of the cycle around it: while the engine speeds up all of them grow smaller.
  const around = peaks.map((_, i) => {
    const from = Math.max(0, Math.min(i - (n >> 1), peaks.length - n));
    const part = peaks.slice(from, from + n);
    return part.reduce((s, p) => s + p.height, 0) / part.length;
  });
  // The first and the last have a valley on one side only.
  const inner = peaks.map((p, i) => ({ p, r: p.height / (around[i] ?? NaN) })).slice(1, -1);
  const rows = Array.from({ length: n }, (_, position) => {
    const own = inner.filter(({ p }) => p.slot % n === position);
    const values = own.map((o) => o.r);
    const middle = quantile(values, 0.5);
    const spread = robustDeviation(values);
    return {
      position,
      relative: middle,
      uncertainty: Math.max(spread, 0.01) / Math.sqrt(Math.max(1, values.length)),
      peak: quantile(
        own.map(({ p }) => p.level),
        0.5,
      ),
      cycles: values.length,
    };
  }).filter((r) => r.cycles > 0);
  const mean = rows.reduce((s, r) => s + r.relative, 0) / rows.length;
  return rows.map((r) => ({
    ...r,
    relative: r.relative / mean,
    cylinder: cylinderOf(r.position),
    position: r.position + 1,
  }));
}

function compressionFinding(
  r: Row,
  base: { channel: string; from_s: number; to_s: number },
  channel: CaptureChannel,
): Compression {
  const low = r.relative + 2 * r.uncertainty;
  const severity = low < FAIL ? 'fail' : low < WATCH || r.relative < WATCH ? 'attention' : 'pass';
  const who = r.cylinder === null ? tr`The compression at place ${r.position}` : tr`Cylinder ${r.cylinder}`;
  return {
    kind: 'compression',
    ...base,
    severity,
    confidence: Math.max(0.4, Math.min(0.97, 1 - 2 * r.uncertainty)),
    cylinder: r.cylinder,
    position: r.position,
    relative: r.relative,
    uncertainty: r.uncertainty,
    peak: r.peak,
    reasons: [
      tr`${who}: ${Math.round(100 * r.relative)} ± ${Math.max(1, Math.round(100 * r.uncertainty))} % of the mean of all, over ${r.cycles} cycles; its peak is ${withMark(r.peak.toPrecision(3))} ${channel.unit}.`,
      ...(r.cylinder === null ? ['Without a channel that names a cylinder places are counted in order of time.'] : []),
    ],
  };
}

function crankingFinding(
  channel: CaptureChannel,
  turning: Turning,
  base: { channel: string; from_s: number; to_s: number },
  speed_rpm: number,
  even: boolean,
  { channels }: Capture,
): Cranking {
  const isBattery = channel.role === 'battery';
  const mean = turning.values.reduce((s, v) => s + v, 0) / turning.values.length;
  const peak = quantile(turning.values, 0.99);
  const battery = channels.find((c) => c.role === 'battery');
  const sag = battery ? quantile(thin(battery.values), 0.05) : null;
  const { lower, upper } = isBattery ? {} : (channel.limits ?? {});
  const isOver = upper === undefined ? channel.unit === 'A' && peak > DRAG_A : mean > upper;
  const isDrag = !isBattery && even && isOver;
  const isUnder = lower !== undefined && mean < lower;
  const isSupply = !isDrag && speed_rpm < SLOW_rpm && sag !== null && sag < LOW_V;
  const said = [
    tr`The engine turns at ${Math.round(speed_rpm)} rpm${isBattery ? '' : tr`, with ${Math.round(mean)} ${channel.unit} on the average and ${Math.round(peak)} ${channel.unit} at the peaks`}.`,
    even ? 'The compressions are even.' : 'The compressions are not even.',
    ...(isDrag
      ? [
          upper === undefined
            ? tr`Even, but far too much for a small engine's starter (common practice: ${DRAG_A} A): no compression fault, something drags. Compare with what this starter needs.`
            : tr`Even, but more on the average than this starter needs (up to ${upper} ${channel.unit}): no compression fault, something drags.`,
        ]
      : []),
    ...(isUnder ? [tr`Less than this starter takes when it works (${lower} ${channel.unit} and more).`] : []),
    ...(isSupply
      ? [tr`Slow, with a battery down to ${fixed(sag, 1)} V: look at battery and cables before the engine.`]
      : []),
  ];
  return {
    kind: 'cranking',
    ...base,
    severity: isDrag ? 'fail' : isSupply || isUnder || speed_rpm < SLOW_rpm ? 'attention' : 'none',
    confidence: 0.85,
    speed_rpm,
    meanCurrent: isBattery ? null : mean,
    peakCurrent: isBattery ? null : peak,
    even,
    lowSupply: isSupply,
    reasons: said,
  };
}
