import { tr } from '../locale/translate';
import { quantile, robustDeviation, selectInPlace } from '../numerics/select';
import type { Channel, Onset } from './types';
import { moment, say, span } from './words';

/** What the whole recording did at one moment: at least one channel moved. */
export interface Move {
  readonly from_s: number;
  readonly to_s: number;
}

/** A move is looked for over this time to either side. */
const REACH_s = 0.25;
/** Of a channel's span: less is no move. */
const LEAST_SHARE = 0.1;
/** Moves that follow each other within this are one event. */
const PAUSE_s = 1;
/** A slow channel may answer this much later. */
const ANSWER_s = 20;
const BEFORE_s = 2;
/** A list that a person can use. */
const MOST = 500;

/** How a channel moves: on a coarse grid, with its noise and its span. */
interface Shape {
  readonly channel: Channel;
  readonly grid: Float64Array;
  readonly start_s: number;
  readonly step_s: number;
  readonly noise: number;
  readonly span: number;
}

function shapeOf(channel: Channel): Shape | null {
  const { clock, values } = channel;
  const step_s = Math.max(0.05, clock.period_s);
  const start_s = clock.at(0);
  const count = Math.floor((clock.at(values.length - 1) - start_s) / step_s) + 1;
  if (!(count > 3) || count > 50_000_000) return null;
  const grid = new Float64Array(count).fill(NaN);
  const bucket = new Float64Array(4096);
  let filled = 0;
  let at = 0;
  const flush = (): void => {
    if (filled) grid[at] = selectInPlace(bucket, filled >> 1, filled);
    filled = 0;
  };
  for (let i = 0; i < values.length; i++) {
    const place = Math.floor((clock.at(i) - start_s) / step_s + 1e-9);
    if (place !== at) {
      flush();
      at = Math.max(0, Math.min(count - 1, place));
    }
    const v = values[i] ?? NaN;
    if (Number.isFinite(v) && filled < bucket.length) bucket[filled++] = v;
  }
  flush();
  for (let i = 1; i < count; i++) if (Number.isNaN(grid[i] ?? NaN)) grid[i] = grid[i - 1] ?? NaN;
  const moves = Float64Array.from({ length: Math.min(count - 1, 20_000) }, (_, k) => {
    const i = Math.floor((k * (count - 1)) / Math.min(count - 1, 20_000));
    return Math.abs((grid[i + 1] ?? NaN) - (grid[i] ?? NaN));
  });
  const noise = Math.max(1.05 * quantile(moves, 0.5), channel.step);
  return { channel, grid, start_s, step_s, noise, span: quantile(grid, 0.998) - quantile(grid, 0.002) };
}

/** Stretches of time in which at least one channel moves quickly, in order; of more than 500 the first. */
export function movesOf(channels: readonly Channel[]): Move[] {
  const marks: Move[] = [];
  for (const channel of channels) {
    const shape = shapeOf(channel);
    if (!shape) continue;
    const { grid, start_s, step_s, noise } = shape;
    const reach = Math.max(1, Math.round(REACH_s / step_s));
    const least = Math.max(LEAST_SHARE * shape.span, 8 * noise);
    if (!(least > 0)) continue;
    let from = -1;
    for (let i = reach; i <= grid.length; i++) {
      const isMoving = i + reach < grid.length && Math.abs((grid[i + reach] ?? NaN) - (grid[i - reach] ?? NaN)) > least;
      if (isMoving && from < 0) from = i;
      if (!isMoving && from >= 0) {
        marks.push({ from_s: start_s + from * step_s, to_s: start_s + (i - 1 + reach) * step_s });
        from = -1;
      }
    }
  }
  return joined(marks).slice(0, MOST);
}

function joined(marks: readonly Move[]): Move[] {
  const sorted = [...marks].sort((a, b) => a.from_s - b.from_s);
  const out: { from_s: number; to_s: number }[] = [];
  for (const m of sorted) {
    const last = out[out.length - 1];
    if (last && m.from_s <= last.to_s + PAUSE_s) last.to_s = Math.max(last.to_s, m.to_s);
    else out.push({ ...m });
  }
  return out;
}

/**
 * When each channel began to move in an event, sorted: what moved first comes first. The moment is where the
 * first part of the flank, continued as a power of time, meets the level before it; its uncertainty has the
 * distance of samples, the noise over the slope, and how far a straight line would say otherwise. Channels
 * that do not move clearly are left out.
 */
export function onsets(channels: readonly Channel[], moves: readonly Move[]): Onset[] {
  return moves.flatMap((move, event) => {
    const end = Math.min(moves[event + 1]?.from_s ?? Infinity, Math.max(move.to_s, move.from_s + ANSWER_s));
    const start = Math.max(move.from_s - BEFORE_s, moves[event - 1]?.to_s ?? -Infinity);
    return channels
      .flatMap((channel) => {
        const onset = onsetIn(channel, start, move.from_s, end);
        return onset ? [onsetFinding(channel, event + 1, onset)] : [];
      })
      .sort((a, b) => a.at_s - b.at_s);
  });
}

interface RawOnset {
  readonly at_s: number;
  readonly uncertainty_s: number;
  readonly move: number;
}

function onsetIn(channel: Channel, start_s: number, from_s: number, to_s: number): RawOnset | null {
  const { clock, values } = channel;
  const first = Math.max(0, clock.before(start_s) + 1);
  // The mark of a move begins up to its reach early.
  const rest = Math.max(first + 3, clock.before(from_s - 0.05));
  const last = clock.before(to_s);
  if (last - rest < 2) return null;
  const calm = values.slice(first, rest + 1).filter((v) => Number.isFinite(v));
  if (calm.length < 3) return null;
  const before = quantile(calm, 0.5);
  const noise = Math.max(robustDeviation(calm), channel.step / 2, 1e-12);
  const smooth = (i: number): number => median3(values, i, first, last) - before;
  const usable = (i: number): boolean => Number.isFinite(smooth(i));
  // The first direction in which it clearly goes, and how far.
  let side = 0;
  let extreme = 0;
  let peak = rest;
  let whole = 0;
  for (let i = rest; i <= last; i++) if (usable(i)) whole = Math.max(whole, Math.abs(smooth(i)));
  if (whole < 8 * noise) return null;
  for (let i = rest; i <= last; i++) {
    if (!usable(i)) continue;
    const off = smooth(i);
    if (side === 0 && Math.abs(off) > Math.max(6 * noise, 0.3 * whole)) side = Math.sign(off);
    if (side !== 0 && off * side > extreme) {
      extreme = off * side;
      peak = i;
    }
    if (side !== 0 && off * side < 0.5 * extreme) break;
  }
  if (side === 0) return null;
  const crossing = (share: number): number | null => {
    const wanted = share * extreme;
    let i = peak;
    while (i > first && !(smooth(i) * side < wanted)) i--;
    const [a, b] = [smooth(i) * side, smooth(i + 1) * side];
    if (!(b > a)) return null;
    return clock.at(i) + ((wanted - a) / (b - a)) * (clock.at(i + 1) - clock.at(i));
  };
  // Three heights, each four times the one before, the lowest as low as the noise allows.
  const low = Math.min(0.06, Math.max(0.01, (3 * noise) / extreme));
  const [t1, t2, t3] = [crossing(low), crossing(4 * low), crossing(16 * low)];
  if (t1 === null || t2 === null || t3 === null) return null;
  const { at_s, linear_s } = startOf(t1, t2, t3);
  const slope = (3 * low * extreme) / Math.max(t2 - t1, 1e-9);
  const period = clock.period_s;
  // Within one sample nothing tells where between the two it began.
  const sampled = period / Math.sqrt(12);
  return {
    at_s,
    uncertainty_s: Math.hypot(
      sampled,
      noise / slope,
      (at_s - linear_s) / 2,
      (t1 - at_s) / 2,
      t2 - t1 < period ? period / 3 : 0,
    ),
    move: side * extreme,
  };
}

/**
 * Where a flank begins that passes heights of 1, 4 and 16 at these times, if it grows as a power of time: (t
 * − start)^p has (t3 − t2) / (t2 − t1) = 4^(1/p). A flank that starts straight has p = 1, one that starts
 * gently more. `linear_s`: with p = 1, as the intersection of tangents would say. All in s. Times that do not
 * ascend, or NaN, give the straight one for both. Derived here.
 */
export function startOf(t1: number, t2: number, t3: number): { readonly at_s: number; readonly linear_s: number } {
  const linear_s = t1 - (t2 - t1) / 3;
  const ratio = (t3 - t2) / (t2 - t1);
  if (!(t2 > t1) || !(t3 > t2)) return { at_s: linear_s, linear_s };
  const inverse = Math.min(1.05, Math.max(0.35, Math.log(ratio) / Math.log(4)));
  return { at_s: t1 - (t2 - t1) / (4 ** inverse - 1), linear_s };
}

function median3(values: Float64Array, i: number, first: number, last: number): number {
  const [a, b, c] = [values[Math.max(first, i - 1)] ?? NaN, values[i] ?? NaN, values[Math.min(last, i + 1)] ?? NaN];
  return Math.max(Math.min(a, b), Math.min(Math.max(a, b), c));
}

const onsetFinding = (channel: Channel, event: number, o: RawOnset): Onset => ({
  kind: 'onset',
  channel: channel.id,
  event,
  from_s: o.at_s,
  to_s: o.at_s + o.uncertainty_s,
  at_s: o.at_s,
  uncertainty_s: o.uncertainty_s,
  move: o.move,
  severity: 'none',
  confidence: 0.9,
  reasons: [
    tr`Event ${event}: it began to ${o.move > 0 ? 'rise' : 'fall'} at ${moment(o.at_s)} ± ${span(o.uncertainty_s)}, by ${say(Math.abs(o.move), channel)} ${channel.unit}.`,
  ],
});
