import { MAD_TO_SIGMA, quantileInPlace, selectInPlace } from '../numerics/select';
import { normalUpperTail } from '../numerics/normal';
import { seededRandom } from '../numerics/random';
import { quarter, runningMedian } from './running-median';

/** Samples of one block share their noise. */
export const BLOCK = 512;
/** So many false candidates are expected in one search of one channel, if its noise were normal. */
const FALSE_CANDIDATES = 1e-4;
/** A window of the coarsest level spans this at most: what lasts longer is a state, not a dropout. */
const LONGEST_WINDOW_s = 120;
/** The window of the running median has twice this and one: it forgets what lasts for seven samples. */
const HALF = 7;

/** One channel at one coarseness: each sample stands for `4 ** level` of the recording. */
export interface Level {
  readonly level: number;
  readonly half: number;
  readonly values: Float64Array;
  readonly course: Float64Array;
  /** Standard deviation of a sample from its course, a value for each block. */
  readonly sigma: Float64Array;
  /** How many of them a deviation must have: more where the noise has heavy tails. */
  readonly z: number;
}

/**
 * The course of a stretch at every coarseness, finest first. The course is the running median, the deviation
 * from it the residual. Dropouts of up to seven samples leave the finest course; longer ones leave a coarser
 * one.
 */
export function levelsOf(values: Float64Array, period_s: number, step: number, total: number): Level[] {
  const levels: Level[] = [];
  let samples = values;
  let span_s = period_s;
  for (let level = 0; samples.length > 4 * HALF + 2; level++) {
    levels.push(levelAt(level, samples, HALF, step, total));
    span_s *= 4;
    if (span_s * 15 > LONGEST_WINDOW_s) break;
    samples = quarter(samples, samples.length);
  }
  return levels;
}

function levelAt(level: number, values: Float64Array, half: number, step: number, total: number): Level {
  const course = runningMedian(values, half, new Float64Array(values.length));
  const sigma = sigmaByBlock(values, course, step);
  return { level, half, values, course, sigma, z: neededZ({ values, course, sigma, step }, total) };
}

/** Even spread over one step, for the samples of a block. */
const SPREAD = ((random) => Float64Array.from({ length: BLOCK }, () => random() - 0.5))(seededRandom(4));

/**
 * Noise of each block: never below what the step of the recording alone makes, and no lower than its quieter
 * half.
 */
function sigmaByBlock(values: Float64Array, course: Float64Array, step: number): Float64Array {
  const blocks = Math.max(1, Math.ceil(values.length / BLOCK));
  const raw = new Float64Array(blocks);
  const scratch = new Float64Array(BLOCK);
  for (let b = 0; b < blocks; b++) {
    const from = Math.min(b * BLOCK, Math.max(0, values.length - BLOCK));
    const count = Math.min(BLOCK, values.length - from);
    // Rounded deviations have few values: spread over a step, their median says more than a whole number of
    // steps.
    for (let i = 0; i < count; i++)
      scratch[i] = Math.abs((values[from + i] ?? NaN) - (course[from + i] ?? NaN) + step * (SPREAD[i] ?? 0));
    raw[b] = MAD_TO_SIGMA * quantileInPlace(scratch, 0.5, count);
  }
  const quiet = quantileInPlace(Float64Array.from(raw), 0.25);
  // A quantised value is off by up to half a step: standard deviation step / √12.
  const least = Math.max(quiet * 0.5, step * 0.3);
  return raw.map((_, b) => Math.max(least, raw[b] ?? 0, raw[b - 1] ?? 0, raw[b + 1] ?? 0));
}

/** Samples with their course, the noise of each block, and the step of the recording. */
interface Residual {
  readonly values: Float64Array;
  readonly course: Float64Array;
  readonly sigma: Float64Array;
  readonly step: number;
}

/** Blocks that are looked at for the tails of the noise, at most. */
const TAIL_BLOCKS = 1200;
/** So many of the largest deviations may be what is looked for: they do not speak for the noise. */
const SET_ASIDE = 20;
const LARGEST_Z = 120;
/** The noise of a block and the quantiles of its tail are estimates themselves. */
const MARGIN = 1.2;

/**
 * How many standard deviations a sample must be off to be no chance. For normal noise by its tail. Where the
 * tail of this noise is heavier, by the generalised Pareto law through three of its quantiles (Pickands,
 * Annals of Statistics 3, 1975, 119). Both sides are looked at apart and the lighter one counts: noise has
 * two sides, a loose contact has one.
 */
function neededZ(noise: Residual, total: number): number {
  const normal = normalUpperTail(FALSE_CANDIDATES / (2 * Math.max(total, 100)));
  const wanted = FALSE_CANDIDATES / (2 * Math.max(total, 100));
  const tails = ([1, -1] as const).map((side) => tailOf(noise, side, wanted));
  return Math.min(LARGEST_Z, MARGIN * Math.max(normal, Math.min(...tails)));
}

/** The tail begins where so many samples lie beyond. */
const TAIL_SHARE = 0.03;
/** Quantiles of the tail that the law is fitted to. */
const QUANTILES = 12;
/** The shape of a tail is not better known than a few standard errors of its estimate. */
const SHAPE_ERRORS = 2;

/**
 * The deviation that is exceeded with the wanted probability on one side: the generalised Pareto law
 * (Pickands, Annals of Statistics 3, 1975, 119) through the quantiles of its tail, by least squares with the
 * variances of quantiles. Its shape is taken heavier by its own uncertainty, for it is carried far beyond the
 * samples. 0: too few samples to tell.
 */
function tailOf(noise: Residual, side: 1 | -1, wanted: number): number {
  const { peaks, kept, seen } = peaksOf(noise, side);
  const least = Math.max(0.0002, SET_ASIDE / seen);
  if (least > TAIL_SHARE / 4) return 0;
  const shares = Array.from(
    { length: QUANTILES },
    (_, i) => TAIL_SHARE * (least / TAIL_SHARE) ** (i / (QUANTILES - 1)),
  );
  const first = Math.round(TAIL_SHARE * seen);
  if (first < 1 || first > kept) return 0;
  // Only the tail is put in order: it is a small part of all peaks.
  selectInPlace(peaks, first - 1, kept);
  const tail = peaks.subarray(0, first).sort();
  const beyond = shares.map((share) => -(tail[Math.round(share * seen) - 1] ?? NaN));
  const [start = NaN] = beyond;
  if (!beyond.every((q) => Number.isFinite(q))) return 0;
  let best = { shape: 0, scale: 0, off: Infinity };
  for (let shape = -0.4; shape <= 1; shape += 0.02) {
    const fit = scaleFor(shape, shares, beyond);
    if (fit.off < best.off) best = { shape, ...fit };
  }
  const shape = Math.max(0, best.shape) + (SHAPE_ERRORS * (1 + Math.max(0, best.shape))) / Math.sqrt(TAIL_SHARE * seen);
  return start + scaleFor(shape, shares, beyond).scale * reach(shape, TAIL_SHARE / wanted);
}

/**
 * How many scales beyond its start a tail of this shape is exceeded with a probability that is `times`
 * smaller.
 */
const reach = (shape: number, times: number): number =>
  Math.abs(shape) < 1e-6 ? Math.log(times) : (times ** shape - 1) / shape;

/** The scale that fits best to quantiles of a tail of this shape, and the weighted square of what is left. */
function scaleFor(
  shape: number,
  shares: readonly number[],
  beyond: readonly number[],
): { readonly scale: number; readonly off: number } {
  const [start = NaN] = beyond;
  let [xy, xx, yy] = [0, 0, 0];
  for (let i = 1; i < shares.length; i++) {
    const share = shares[i] ?? NaN;
    const x = reach(shape, TAIL_SHARE / share);
    const y = (beyond[i] ?? NaN) - start;
    const weight = share * (share / TAIL_SHARE) ** (2 * shape);
    xy += weight * x * y;
    xx += weight * x * x;
    yy += weight * y * y;
  }
  const scale = Math.max(0, xy / xx);
  // Weights depend on the shape: what is left is compared in parts of what there was.
  return { scale, off: (yy - scale * xy) / yy };
}

/**
 * The largest deviation of each run of samples on one side of the course, negated, in standard deviations.
 */
function peaksOf(
  { values, course, sigma, step }: Residual,
  side: 1 | -1,
): { readonly peaks: Float64Array; readonly kept: number; readonly seen: number } {
  const blocks = sigma.length;
  // What was rounded to steps is spread over a step again: quantiles of few different values tell no tail.
  const spread = seededRandom(3);
  const every = Math.max(1, Math.ceil(blocks / TAIL_BLOCKS));
  const peaks = new Float64Array(Math.ceil(blocks / every) * BLOCK);
  let kept = 0;
  let seen = 0;
  for (let b = 0; b < blocks; b += every) {
    const s = sigma[b] ?? NaN;
    if (!(s > 0)) continue;
    const end = Math.min(values.length, (b + 1) * BLOCK);
    let peak = 0;
    for (let i = b * BLOCK; i < end; i++) {
      const u = (side * ((values[i] ?? NaN) - (course[i] ?? NaN)) + step * (spread() - 0.5)) / s;
      seen++;
      if (u > 1) peak = Math.max(peak, u);
      else if (peak > 0) {
        peaks[kept++] = -peak;
        peak = 0;
      }
    }
    if (peak > 0) peaks[kept++] = -peak;
  }
  return { peaks, kept, seen };
}

/** Steps of the recording that are no more than rounding and a flicker. */
const LEAST_STEPS = 5;

/**
 * How far the sample at `index` of a level must be off its course, in the unit of the channel. `step`: one
 * step of the recording, 0 or more, same unit. Infinity beyond the samples whose noise is known.
 */
export const thresholdAt = (level: Level, index: number, step: number): number =>
  Math.max(level.z * (level.sigma[Math.floor(index / BLOCK)] ?? Infinity), LEAST_STEPS * step);

/**
 * Samples without NaN: what is missing repeats the last that is there. Returns `null` where nothing is there.
 */
export function held(values: Float64Array, from: number, to: number): Float64Array | null {
  let last = NaN;
  for (let i = from; i < to && Number.isNaN(last); i++) last = values[i] ?? NaN;
  if (Number.isNaN(last)) return null;
  const out = values.slice(from, to);
  for (let i = 0; i < out.length; i++) {
    const v = out[i] ?? NaN;
    if (Number.isFinite(v)) last = v;
    else out[i] = last;
  }
  return out;
}
