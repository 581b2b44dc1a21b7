import { solveBanded } from '../../numerics/banded';
import { quantile } from '../../numerics/select';
import type { Position } from './capture';
import { type Intervals, intervalsOf } from './intervals';

/** What the speed of the crank says of each firing, fitted to the teeth themselves. */
export interface Pushes {
  /** Top dead centre of firing `k` is at `top_deg + k * step_deg`. */
  readonly top_deg: number;
  readonly step_deg: number;
  /** The firing that `left` begins with. */
  readonly first: number;
  /** Energy that each firing leaves behind, (degrees per second)². */
  readonly left: Float64Array;
  /** The fitted energy at an angle; NaN outside. */
  readonly energyAt: (angle_deg: number) => number;
}

/** A push grows and fades as x·exp(-x), x from its beginning in widths. */
interface Shape {
  /** After top dead centre, degrees. */
  readonly begin: number;
  /** Until its torque is highest, degrees. */
  readonly width: number;
}

/** Common practice, no source. */
const USUAL: Shape = { begin: 0, width: 20 };
/** Shapes that are tried where pushes overlap. */
const TRIED: readonly Shape[] = [-16, -8, 0, 8, 16].flatMap((begin) => [11, 17, 26].map((width) => ({ begin, width })));
/** Firings that a shape is chosen by. */
const CHOOSE_BY = 400;
/** Shapes whose sum of squares is within so many variances of the best fit the teeth as well. */
const AS_WELL = 9;
/** After so many widths all is given. */
const OVER = 8;

/**
 * Fits the energy of the crank (the square of its speed) from tooth to tooth: a ripple that is the same in
 * every firing (gas that is compressed and let out again, and the usual push), and a level for each firing,
 * which goes over into the next as combustion gives. Where pushes overlap they are told apart by the fit.
 * Weighted least squares; derived here.
 *
 * @param top_deg top dead centre of one cylinder, degrees on the wheel
 * @param overlapping whether a push lasts into the next: then its shape is looked for
 * @returns the simplest fit first; a second one where another shape fits best. Empty where there are too few
 * teeth for so many
 *   firings.
 */
export function pushesOf(
  { train, crankEdges }: Position,
  cylinders: number,
  top_deg: number,
  overlapping: boolean,
): Pushes[] {
  const step = 720 / cylinders;
  const perFiring = (step * (train.wheel.teeth - train.wheel.missing * (train.wheel.gaps ?? 1))) / 360;
  const waves = Math.max(0, Math.min(4, Math.floor(perFiring / 2 - 0.5)));
  const problem = problemOf(intervalsOf(train, crankEdges.kind === 'coil'), step, top_deg, waves);
  const whole = (shape: Shape): Pushes[] => {
    const own = fit(problem, shape);
    return own ? [own] : [];
  };
  if (!overlapping) return whole(USUAL);
  const some = firstOf(problem, Math.ceil(CHOOSE_BY * perFiring));
  const fits = TRIED.flatMap((shape) => fit(some, shape) ?? []);
  const best = fits.reduce<Fit | null>((a, b) => (a && a.squares / a.freedom <= b.squares / b.freedom ? a : b), null);
  if (!best) return [];
  // What a missed push takes with it may be told as one cylinder or as two: of shapes that fit as well, as
  // few as can be.
  const simplest = fits
    .filter((f) => f.squares <= (best.squares / best.freedom) * (f.freedom + AS_WELL))
    .map((f) => ({ shape: f.shape, unevenness: unevenness(f, cylinders) }))
    .reduce((a, b) => (b.unevenness < a.unevenness ? b : a));
  return simplest.shape === best.shape ? whole(best.shape) : [...whole(simplest.shape), ...whole(best.shape)];
}

/**
 * How many cylinders the differences are spread over, counted in the largest of them: 1 where one cylinder
 * alone differs.
 */
function unevenness({ left, first }: Pushes, n: number): number {
  const sums = new Float64Array(n);
  left.forEach((v, i) => (sums[(((first + i) % n) + n) % n] = (sums[(((first + i) % n) + n) % n] ?? 0) + v));
  const middle = quantile(sums, 0.5);
  const off = sums.map((v) => Math.abs(v - middle));
  return off.reduce((s, v) => s + v, 0) / Math.max(...off);
}

/** Intervals with what is to be explained: the energy, and the waves that every firing has. */
interface Problem {
  readonly seen: Intervals;
  readonly step: number;
  readonly top: number;
  readonly columns: readonly Float64Array[];
}

function problemOf(seen: Intervals, step: number, top: number, waves: number): Problem {
  const columns = [seen.energy];
  for (let h = 1; h <= waves; h++) {
    const w = (2 * Math.PI * h) / step;
    const mean = (f: (x: number) => number): Float64Array =>
      seen.from.map((a, i) => {
        const b = seen.to[i] ?? NaN;
        return (f(w * (b - top)) - f(w * (a - top))) / (w * (b - a));
      });
    columns.push(
      mean(Math.sin),
      mean((x) => -Math.cos(x)),
    );
  }
  return { seen, step, top, columns };
}

function firstOf({ seen, step, top, columns }: Problem, count: number): Problem {
  const cut = (v: Float64Array): Float64Array => v.slice(0, count);
  return {
    seen: { from: cut(seen.from), to: cut(seen.to), energy: cut(seen.energy), weight: cut(seen.weight) },
    step,
    top,
    columns: columns.map(cut),
  };
}

/** Share of the whole that is given `x` widths after the beginning. */
const given = (x: number): number => (x <= 0 ? 0 : x >= OVER ? 1 : 1 - (1 + x) * Math.exp(-x));
/** Its integral from the beginning. */
const givenSum = (x: number): number => (x <= 0 ? 0 : x - 2 + (2 + x) * Math.exp(-x));

/**
 * Levels of which each holds from when the firing before it begins to give until its own has given all: how
 * much of each is in each interval.
 */
interface Levels {
  readonly first: number;
  readonly count: number;
  /** Levels in one interval at most. */
  readonly wide: number;
  /** The first level in each interval. */
  readonly low: Int32Array;
  /** Shares of `wide` levels from `low` on, interval after interval. */
  readonly share: Float64Array;
}

function levelsOf({ seen, step, top }: Problem, { begin, width }: Shape): Levels | null {
  const n = seen.from.length;
  const first = Math.ceil(((seen.from[0] ?? NaN) - top) / step);
  const count = Math.floor(((seen.to[n - 1] ?? NaN) - top) / step) - first + 1;
  if (!(count > 3)) return null;
  const longest = seen.to.reduce((most, b, i) => Math.max(most, b - (seen.from[i] ?? b)), 0);
  const wide = Math.ceil((OVER * width + longest) / step) + 2;
  const low = new Int32Array(n);
  const share = new Float64Array(n * wide);
  for (let i = 0; i < n; i++) {
    const [a, b] = [seen.from[i] ?? NaN, seen.to[i] ?? NaN];
    const from = Math.floor((a - top - begin - OVER * width) / step) - first;
    low[i] = Math.max(0, Math.min(count - 1, from));
    // Mean share of level k+1 and all after it.
    const after = (k: number): number => {
      if (k < 0) return 1;
      if (k >= count - 1) return 0;
      const at = top + begin + (first + k) * step;
      return (width * (givenSum((b - at) / width) - givenSum((a - at) / width))) / (b - a);
    };
    let before = after((low[i] ?? 0) - 1);
    for (let m = 0; m < wide && (low[i] ?? 0) + m < count; m++) {
      const next = after((low[i] ?? 0) + m);
      share[i * wide + m] = before - next;
      before = next;
    }
  }
  return { first, count, wide, low, share };
}

type Fit = Pushes & { readonly shape: Shape; readonly squares: number; readonly freedom: number };

function fit(problem: Problem, shape: Shape): Fit | null {
  const levels = levelsOf(problem, shape);
  const solved = levels && levelsOfColumns(problem, levels);
  if (!solved) return null;
  const heights = wavesLeft(problem, levels, solved);
  if (!heights) return null;
  const level = (solved[0] ?? new Float64Array(0)).map((y, k) =>
    heights.of.reduce((v, h, a) => v - h * (solved[a + 1]?.[k] ?? 0), y),
  );
  return {
    top_deg: problem.top,
    step_deg: problem.step,
    first: levels.first,
    left: level.slice(1).map((v, k) => v - (level[k] ?? NaN)),
    energyAt: energyOf(problem, shape, levels, level, heights.of),
    shape,
    squares: heights.squares,
    freedom: Math.max(1, problem.seen.from.length - levels.count - heights.of.length),
  };
}

/** Of each column the levels that come nearest to it. */
function levelsOfColumns({ seen, columns }: Problem, { count, wide, low, share }: Levels): Float64Array[] | null {
  const band = new Float64Array(count * wide);
  const right = columns.map(() => new Float64Array(count));
  for (let i = 0; i < seen.from.length; i++) {
    const [from, w] = [low[i] ?? 0, seen.weight[i] ?? 0];
    for (let m = 0; m < wide && from + m < count; m++) {
      const own = w * (share[i * wide + m] ?? 0);
      if (own === 0) continue;
      for (let k = 0; k <= m; k++) {
        const at = (from + m) * wide + m - k;
        band[at] = (band[at] ?? 0) + own * (share[i * wide + k] ?? 0);
      }
      for (let c = 0; c < columns.length; c++) {
        const r = right[c];
        if (r) r[from + m] = (r[from + m] ?? 0) + own * (columns[c]?.[i] ?? NaN);
      }
    }
  }
  // A level that no tooth has seen must not stop the others.
  let largest = 0;
  for (let k = 0; k < count; k++) largest = Math.max(largest, band[k * wide] ?? 0);
  for (let k = 0; k < count; k++) band[k * wide] = (band[k * wide] ?? 0) + 1e-9 * largest;
  return solveBanded(band, wide - 1, right) ? right : null;
}

/** How high the waves are in what the levels leave, and the squares that are left then. */
function wavesLeft(
  { seen, columns }: Problem,
  { count, wide, low, share }: Levels,
  solved: readonly Float64Array[],
): { readonly of: Float64Array; readonly squares: number } | null {
  const n = columns.length;
  const cross = new Float64Array(n * n);
  const left = new Float64Array(n);
  for (let i = 0; i < seen.from.length; i++) {
    const from = low[i] ?? 0;
    for (let c = 0; c < n; c++) {
      let v = columns[c]?.[i] ?? NaN;
      const own = solved[c];
      for (let m = 0; m < wide && from + m < count; m++) v -= (share[i * wide + m] ?? 0) * (own?.[from + m] ?? NaN);
      left[c] = v;
    }
    const w = seen.weight[i] ?? 0;
    for (let a = 0; a < n; a++)
      for (let b = 0; b <= a; b++) cross[a * n + b] = (cross[a * n + b] ?? 0) + w * (left[a] ?? 0) * (left[b] ?? 0);
  }
  const small = n - 1;
  const of = new Float64Array(small);
  if (small > 0) {
    const inner = new Float64Array(small * small);
    let trace = 0;
    for (let a = 0; a < small; a++) {
      of[a] = cross[(a + 1) * n] ?? 0;
      for (let k = 0; k <= a; k++) inner[a * small + k] = cross[(a + 1) * n + a + 1 - k] ?? 0;
      trace += inner[a * small] ?? 0;
    }
    for (let a = 0; a < small; a++) inner[a * small] = (inner[a * small] ?? 0) + 1e-9 * trace;
    if (!solveBanded(inner, small - 1, [of])) return null;
  }
  return { of, squares: of.reduce((s, h, a) => s - h * (cross[(a + 1) * n] ?? 0), cross[0] ?? 0) };
}

function energyOf(
  { seen, step, top }: Problem,
  { begin, width }: Shape,
  { first, count }: Levels,
  level: Float64Array,
  heights: Float64Array,
): Pushes['energyAt'] {
  const [start, end] = [seen.from[0] ?? NaN, seen.to.at(-1) ?? NaN];
  return (angle) => {
    if (!(angle >= start && angle <= end)) return NaN;
    const from = Math.max(0, Math.floor((angle - top - begin - OVER * width) / step) - first);
    const to = Math.min(count - 2, Math.ceil((angle - top - begin) / step) - first);
    let sum = level[Math.min(from, count - 1)] ?? NaN;
    for (let k = from; k <= to; k++)
      sum += ((level[k + 1] ?? NaN) - (level[k] ?? NaN)) * given((angle - top - begin - (first + k) * step) / width);
    for (let h = 0; 2 * h < heights.length; h++) {
      const w = (2 * Math.PI * (h + 1) * (angle - top)) / step;
      sum += (heights[2 * h] ?? 0) * Math.cos(w) + (heights[2 * h + 1] ?? 0) * Math.sin(w);
    }
    return sum;
  };
}
