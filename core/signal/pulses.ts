import { quantile, selectInPlace } from '../numerics/select';
import { BLOCK, type Level, thresholdAt } from './course';

/** A leaving of the course and a coming back, in samples of the stretch. */
export interface RawPulse {
  readonly sign: 1 | -1;
  readonly first: number;
  readonly last: number;
  readonly depth: number;
  readonly course: number;
  readonly level: number;
  /** How many times the needed depth it has. */
  readonly clearness: number;
}

/**
 * A contact opens and closes within this; a pressure or an air flow takes longer. Common practice, no source.
 */
const EDGE_s = 0.025;
/** Above this distance of samples an edge cannot be told from a quick move of the engine. */
const SLOW_s = 0.08;
/** Samples that tell the course beside a pulse. */
const BESIDE = 5;
/** Reach of the look at how steeply the channel moves by itself. */
const NEAR = 48;
/** Times the noise of one sample: from here on edges can be seen in the samples. */
const CLEAR_EDGES = 8;
const LONG_SHARE = 0.04;
/**
 * Of its span above nothing: a channel that is switched off, where a recorder cuts off the lower half of its
 * noise.
 */
const OFF_SHARE = 0.03;
/** Of the deeper edge: a pulse whose one edge is much lower is a step with something else beside it. */
const LEAST_SIDE = 0.3;
/** More than so many are no list that a person reads. */
const MOST = 5000;

export interface Stretched {
  readonly values: Float64Array;
  readonly levels: readonly Level[];
  readonly period_s: number;
  readonly step: number;
  /** Of a slow recording: the steepest step from sample to sample that it makes again and again; else 0. */
  readonly steepest: number;
  /** What the channel covers but for its extremes. */
  readonly span: number;
}

/** Prepares what `pulses` and `pulseIn` ask of a stretch. */
export function stretched(values: Float64Array, levels: readonly Level[], period_s: number, step: number): Stretched {
  const steepest = period_s < EDGE_s ? 0 : usualSteepest(values);
  return {
    values,
    levels,
    period_s,
    step,
    steepest,
    span: quantile(thin(values), 0.99) - quantile(thin(values), 0.01),
  };
}

/** The steepest steps may be the edges of what is looked for. */
const SET_ASIDE_STEPS = 12;

function usualSteepest(values: Float64Array): number {
  const steps = new Float64Array(Math.max(0, values.length - 1));
  for (let i = 0; i < steps.length; i++) steps[i] = Math.abs((values[i + 1] ?? NaN) - (values[i] ?? NaN));
  return selectInPlace(steps, Math.max(0, steps.length - 1 - SET_ASIDE_STEPS));
}

/**
 * Every n-th of many samples, 20,000 to 40,000; the same array where there are fewer. NaN stays where it
 * falls.
 */
export function thin(values: Float64Array): Float64Array {
  const stride = Math.max(1, Math.floor(values.length / 20_000));
  if (stride === 1) return values;
  const out = new Float64Array(Math.ceil(values.length / stride));
  for (let i = 0; i < out.length; i++) out[i] = values[i * stride] ?? NaN;
  return out;
}

/**
 * All pulses of a stretch, in order of time: short ones from the finest level, longer ones from coarser
 * levels.
 */
export function pulses(s: Stretched): RawPulse[] {
  const found: RawPulse[] = [];
  const taken = (first: number, last: number): boolean => found.some((p) => p.first <= last + 1 && p.last >= first - 1);
  for (const level of s.levels) {
    const scale = 4 ** level.level;
    for (const [from, to, sign] of candidates(level, s.step)) {
      if (found.length >= MOST) break;
      if (taken(from * scale, (to + 1) * scale - 1)) continue;
      const pulse = pulseIn(s, level, from, to, sign);
      if (pulse && !taken(pulse.first, pulse.last)) found.push(pulse);
    }
  }
  return found.sort((a, b) => a.first - b.first);
}

/** Runs of samples that are further off their course than the threshold: first, last and side. */
function* candidates(level: Level, step: number): Generator<readonly [number, number, 1 | -1]> {
  const { values, course } = level;
  let from = -1;
  let side: 1 | -1 = 1;
  for (let b = 0; b * BLOCK < values.length; b++) {
    const threshold = thresholdAt(level, b * BLOCK, step);
    const end = Math.min(values.length, (b + 1) * BLOCK);
    for (let i = b * BLOCK; i < end; i++) {
      const off = (values[i] ?? NaN) - (course[i] ?? NaN);
      const now = off > threshold ? 1 : off < -threshold ? -1 : 0;
      if (from >= 0 && now !== side) {
        yield [from, i - 1, side];
        from = -1;
      }
      if (now !== 0 && from < 0) {
        from = i;
        side = now;
      }
    }
  }
  if (from >= 0) yield [from, values.length - 1, side];
}

/**
 * Looks at one candidate in the samples themselves: whether both edges are those of a contact, whether it
 * comes back to where it was, and whether it is more than the channel's own steepness nearby. `null`: it is
 * none of that.
 */
export function pulseIn(s: Stretched, level: Level, from: number, to: number, sign: 1 | -1): RawPulse | null {
  const { values } = s;
  const scale = 4 ** level.level;
  const pad = level.level === 0 ? 1 : scale;
  const a = from * scale;
  const b = Math.min(values.length, (to + 1) * scale) - 1;
  if (a - pad - 3 < 0 || b + pad + 3 >= values.length) return null;
  const sides = level.level === 0 ? besideCourse(level) : besideSamples(values, a - pad, b + pad);
  const left = (i: number): number => sign * ((values[i] ?? NaN) - sides.left(i));
  const right = (i: number): number => sign * ((values[i] ?? NaN) - sides.right(i));
  // Of a short pulse the deepest sample, of a long one what most of it has.
  const inside = (off: (i: number) => number): number => {
    const all = Float64Array.from({ length: b - a + 1 }, (_, i) => off(a + i));
    return selectInPlace(all, all.length <= 3 ? all.length - 1 : Math.floor(all.length * 0.6));
  };
  const [onLeft, onRight] = [inside(left), inside(right)];
  const depth = (onLeft + onRight) / 2;
  const sigma = s.levels[0]?.sigma[Math.floor(a / BLOCK)] ?? 0;
  const isOff = Math.abs(sides.left(a)) < OFF_SHARE * s.span;
  const needed = Math.max(
    thresholdAt(level, from, s.step),
    level.level === 0 ? 0 : longNeeds(s, sigma),
    isOff ? LONG_SHARE * s.span : 0,
  );
  if (!(Math.min(onLeft, onRight) >= needed) || Math.min(onLeft, onRight) < LEAST_SIDE * Math.max(onLeft, onRight))
    return null;
  let first = a;
  while (first < b && left(first) < onLeft / 2) first++;
  let last = b;
  while (last > first && right(last) < onRight / 2) last--;
  while (first > Math.max(0, a - pad) && left(first - 1) > onLeft / 2) first--;
  while (last < Math.min(values.length - 1, b + pad) && right(last + 1) > onRight / 2) last++;
  const floor = (side: number): number => Math.max(0.2 * side, 2.5 * sigma);
  const longest = Math.max(1, Math.round(EDGE_s / s.period_s));
  const edgeBefore = edgeLength(left, first, -1, onLeft, floor(onLeft), last - first);
  const edgeAfter = edgeLength(right, last, 1, onRight, floor(onRight), last - first);
  const edge = Math.max(edgeBefore, edgeAfter);
  if (edge > longest) return null;
  const steepness = Math.max(
    steepnessBeside(s, first, last),
    flankBeside(values, first - edgeBefore - 1, -1, sigma),
    flankBeside(values, last + edgeAfter + 1, 1, sigma),
  );
  if ((0.6 * depth) / (edge + 1) < 1.2 * steepness) return null;
  const course = (sides.left(first) + sides.right(last)) / 2;
  const pulse = { sign, first, last, depth, course, level: course + sign * depth, clearness: depth / needed };
  return s.period_s >= SLOW_s && !isBeyondTheRest(values, pulse) ? null : pulse;
}

/**
 * The depth that a pulse of many samples must have: its edges must be seen in single samples, and a share of
 * all that the channel does, for slow moves of little height are what engines do. `sigma`: noise of single
 * samples, 0 or more, in the unit of the channel, as the result. NaN for NaN.
 */
export const longNeeds = (s: Stretched, sigma: number): number => Math.max(CLEAR_EDGES * sigma, LONG_SHARE * s.span);

/** The value that a pulse is measured from on either side, by sample. */
interface Sides {
  readonly left: (index: number) => number;
  readonly right: (index: number) => number;
}

/** A short pulse is measured from the course itself, which a few samples do not move, also on a flank. */
function besideCourse({ course }: Level): Sides {
  const at = (i: number): number => course[Math.min(course.length - 1, Math.max(0, i))] ?? NaN;
  return { left: at, right: at };
}

/** A longer one from the samples before it and after it: while it lasts, the engine may have gone on. */
function besideSamples(values: Float64Array, from: number, to: number): Sides {
  const before = medianOf(values, from - BESIDE, from);
  const after = medianOf(values, to + 1, to + 1 + BESIDE);
  return { left: () => before, right: () => after };
}

/** Samples between a fifth and four fifths of the depth at one end. */
function edgeLength(
  off: (i: number) => number,
  end: number,
  way: 1 | -1,
  depth: number,
  floor: number,
  length: number,
): number {
  let edge = 0;
  while (edge < 64 && off(end + way * (edge + 1)) > floor) edge++;
  let inner = 0;
  while (inner < length / 2 && off(end - way * inner) < 0.8 * depth) inner++;
  return edge + (length === 0 ? 0 : inner);
}

/** The steepest step of the course beside a pulse; of slow recordings, what they do anywhere. */
function steepnessBeside(s: Stretched, first: number, last: number): number {
  if (s.period_s >= EDGE_s) return s.steepest;
  const [level] = s.levels;
  if (!level) return 0;
  const { course, half } = level;
  let steepest = 0;
  const look = (from: number, to: number): void => {
    for (let i = Math.max(1, from); i < Math.min(course.length, to); i++) {
      const move = Math.abs((course[i] ?? NaN) - (course[i - 1] ?? NaN));
      if (move > steepest) steepest = move;
    }
  };
  look(first - half - NEAR, first - half);
  look(last + half + 2, last + half + 1 + NEAR);
  return steepest;
}

/** Samples right beside a pulse that its course does not tell of yet. */
const CLOSE = 9;

/**
 * The steepest flank of several samples right beside a pulse, where the course still has the pulse in its
 * window: of two moves that follow each other in one direction the smaller one, less what noise makes.
 */
function flankBeside(values: Float64Array, end: number, way: 1 | -1, sigma: number): number {
  let steepest = 0;
  for (let k = 0; k < CLOSE; k++) {
    const i = end + way * k;
    const one = (values[i] ?? NaN) - (values[i + way] ?? NaN);
    const two = (values[i + way] ?? NaN) - (values[i + 2 * way] ?? NaN);
    if (one * two > 0) steepest = Math.max(steepest, Math.min(Math.abs(one), Math.abs(two)) - 2 * sigma);
  }
  return steepest;
}

/**
 * Whether a pulse of a slow recording goes clearly where the rest hardly ever is: downwards easier than
 * upwards.
 */
function isBeyondTheRest(values: Float64Array, { sign, level }: RawPulse): boolean {
  const [low, high] = [quantile(values, 0.01), quantile(values, 0.99)];
  const span = high - low;
  return sign < 0 ? level < low - 0.1 * span : level > high + 0.3 * span;
}

/** Median of a part, cut to what is there. */
function medianOf(values: Float64Array, from: number, to: number): number {
  const part = values.slice(Math.max(0, from), Math.min(values.length, to));
  return selectInPlace(part, part.length >> 1);
}
