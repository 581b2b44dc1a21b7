import { quantile } from '../../numerics/select';
import type { Edges } from './edges';

export interface Wheel {
  /** With the missing ones. */
  readonly teeth: number;
  /** At each gap. */
  readonly missing: number;
  /** Gaps in a turn; absent: one. */
  readonly gaps?: number | undefined;
}

/** Teeth of a turning wheel with the angle of each; gaps are filled in with even steps. */
export interface ToothTrain {
  readonly wheel: Wheel;
  readonly times: Float64Array;
  /**
   * Degrees from the first tooth after the first gap, rising; a multiple of 360 at each first tooth after a
   * gap.
   */
  readonly angles: Float64Array;
  /** 1 for a tooth, 0 for a mark that was filled in. */
  readonly isTooth: Uint8Array;
  /** Share of the turns in which the teeth were counted as they should be. */
  readonly counted: number;
  readonly edge: 'rising' | 'falling';
  /** Several gaps at even distances: which of them is the first is not told. */
  readonly isEven?: boolean | undefined;
}

/** An interval that is so much longer than its neighbours is a gap: a missing tooth doubles it. */
const GAP = 1.55;
/** Slower than this it stands, s for a tooth. */
const STANDING_s = 0.6;
const FEWEST_TURNS = 1;

/**
 * The wheel that a position signal comes from, with the angle of every tooth; `null` where no wheel with a
 * gap is seen. The edge that counts is the steeper one of a coil; where both are alike, and of a Hall sensor,
 * the one that ends the gap: a signal that is turned over chooses the same place of the wheel.
 */
export function toothTrain(edges: Edges, stated?: Wheel): ToothTrain | null {
  const options = (['rising', 'falling'] as const).flatMap((edge) => {
    const train = trainOf(edges[edge], edge, stated);
    return train ? [train] : [];
  });
  const [one, two] = options;
  if (!one || !two) return one ?? null;
  if (Math.abs(one.counted - two.counted) > 0.2) return one.counted > two.counted ? one : two;
  const { rising, falling } = edges.slope;
  if (edges.kind === 'coil' && Math.max(rising, falling) > 1.25 * Math.min(rising, falling))
    return (
      (rising > falling ? options.find((o) => o.edge === 'rising') : options.find((o) => o.edge === 'falling')) ?? one
    );
  return levelBefore(edges, one) >= levelBefore(edges, two) ? one : two;
}

/**
 * How much longer than usual the level lasts that the first tooth's edge ends: of the edge that ends the gap
 * so much longer as teeth are missing, of the other one as long as ever.
 */
function levelBefore(edges: Edges, train: ToothTrain): number {
  const other = edges[train.edge === 'rising' ? 'falling' : 'rising'];
  const since = (t: number): number => t - (other[lastBefore(other, t)] ?? NaN);
  const first = firstTeeth(train).map(since).filter(Number.isFinite);
  const all = Array.from(train.times, since).filter(Number.isFinite);
  return first.length ? quantile(first, 0.5) / quantile(all, 0.5) : 0;
}

const firstTeeth = ({ times, angles }: ToothTrain): number[] =>
  Array.from(times).filter((_, i) => Math.abs((angles[i] ?? NaN) % 360) < 1e-6);

function lastBefore(times: Float64Array, t: number): number {
  let [low, high] = [0, times.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((times[middle] ?? Infinity) < t) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}

function trainOf(all: Float64Array, edge: 'rising' | 'falling', stated?: Wheel): ToothTrain | null {
  const times = longestTurning(withoutExtra(all));
  if (times.length < 8) return null;
  const ratios = ratiosOf(times);
  const limit = stated ? Math.max(GAP, 1 + stated.missing * 0.5) : GAP;
  const gaps = ratios.flatMap((r, i) => (r > limit ? [i] : []));
  if (stated?.missing === 0) return evenTrain(times, edge, stated);
  if (gaps.length < FEWEST_TURNS + 1) return null;
  if (stated && (stated.gaps ?? 1) > 1) return statedGaps(times, gaps, stated, edge);
  const missing =
    stated?.missing ??
    Math.max(
      1,
      Math.round(
        quantile(
          gaps.map((i) => ratios[i] ?? NaN),
          0.5,
        ) - 1,
      ),
    );
  if (stated) return laid(times, gaps, gaps, stated, edge);
  const turn = usualTurn(gaps, missing);
  if (turn === null || turn.teeth < 3) return null;
  const { teeth } = turn;
  return laid(times, gaps, turn.starts, turn.gaps > 1 ? { teeth, missing, gaps: turn.gaps } : { teeth, missing }, edge);
}

/** Several gaps a turn that somebody stated: even ones are a smaller wheel that turns so many times. */
function statedGaps(
  times: Float64Array,
  gaps: readonly number[],
  stated: Wheel,
  edge: ToothTrain['edge'],
): ToothTrain | null {
  const many = stated.gaps ?? 1;
  const turn = usualTurn(gaps, stated.missing);
  if (turn && turn.gaps > 1) return laid(times, gaps, turn.starts, stated, edge);
  if (stated.teeth % many !== 0) return null;
  const small = laid(times, gaps, gaps, { teeth: stated.teeth / many, missing: stated.missing }, edge);
  return inTurns(small, many);
}

/** A train whose pattern comes back `many` times a turn: the pattern is not the turn. */
export function inTurns(train: ToothTrain, many: number): ToothTrain {
  const { teeth, missing } = train.wheel;
  return {
    ...train,
    wheel: { teeth: teeth * many, missing, gaps: many },
    angles: train.angles.map((a) => a / many),
    isEven: true,
  };
}

/** A wheel without a gap: any tooth is as good as another. */
function evenTrain(times: Float64Array, edge: 'rising' | 'falling', wheel: Wheel): ToothTrain {
  return {
    wheel,
    times,
    angles: times.map((_, i) => (i * 360) / wheel.teeth),
    isTooth: new Uint8Array(times.length).fill(1),
    counted: 1,
    edge,
  };
}

/**
 * Teeth of a turn, with the gaps that begin one: where two unlike gaps take turns, the one before more teeth.
 */
function usualTurn(
  gaps: readonly number[],
  missing: number,
): { readonly teeth: number; readonly gaps: number; readonly starts: readonly number[] } | null {
  const counts = gaps.slice(1).map((g, i) => g - (gaps[i] ?? 0));
  const alike = (a: readonly number[]): boolean =>
    a.length > 0 && a.filter((n) => n === quantile(a, 0.5)).length >= 0.6 * a.length;
  if (alike(counts)) return { teeth: quantile(counts, 0.5) + missing, gaps: 1, starts: gaps };
  const [even, odd] = [counts.filter((_, i) => i % 2 === 0), counts.filter((_, i) => i % 2 === 1)];
  if (!alike(even) || !alike(odd)) return null;
  const [a, b] = [quantile(even, 0.5), quantile(odd, 0.5)];
  const parity = a > b ? 0 : 1;
  return { teeth: a + b + 2 * missing, gaps: 2, starts: gaps.filter((_, i) => i % 2 === parity) };
}

/** The longest stretch in which the wheel turns. */
function longestTurning(times: Float64Array): Float64Array {
  let [from, best, bestFrom] = [0, 0, 0];
  for (let i = 1; i <= times.length; i++) {
    if (i < times.length && (times[i] ?? 0) - (times[i - 1] ?? 0) < STANDING_s) continue;
    if (i - from > best) [best, bestFrom] = [i - from, from];
    from = i;
  }
  return times.slice(bestFrom, bestFrom + best);
}

/** Without edges of spikes: two short intervals that are one usual one together. */
function withoutExtra(times: Float64Array): Float64Array {
  const kept: number[] = [];
  for (let i = 0; i < times.length; i++) {
    const t = times[i] ?? NaN;
    const b = kept.at(-1);
    // Of the last few intervals: one of them may be a gap.
    const usual =
      kept.length > 5
        ? quantile(
            [1, 2, 3, 4, 5].map((k) => (kept.at(-k) ?? NaN) - (kept.at(-k - 1) ?? NaN)),
            0.5,
          )
        : 0;
    if (b !== undefined && t - b < 0.4 * usual && (times[i + 1] ?? Infinity) - b < 1.3 * usual) continue;
    kept.push(t);
  }
  return Float64Array.from(kept);
}

/** Each interval against the median of the two before and the two after it. */
function ratiosOf(times: Float64Array): number[] {
  const d = times.slice(1).map((t, i) => t - (times[i] ?? NaN));
  return Array.from(d, (own, i) => {
    const near = [d[i - 2], d[i - 1], d[i + 1], d[i + 2]].filter((v): v is number => v !== undefined);
    return own / quantile(near, 0.5);
  });
}

/**
 * Puts angles to teeth: a turn that was not counted right is stretched over its 360 degrees, and lowers the
 * share. `gaps` are all long intervals, `begins` those that a turn begins after.
 */
function laid(
  times: Float64Array,
  gaps: readonly number[],
  begins: readonly number[],
  wheel: Wheel,
  edge: 'rising' | 'falling',
): ToothTrain {
  const step = 360 / wheel.teeth;
  const many = wheel.gaps ?? 1;
  const real = wheel.teeth - many * wheel.missing;
  // Gaps that are too near to the one before are slow teeth, not gaps.
  const starts: number[] = [];
  for (const g of begins) if (!starts.length || g + 1 - (starts.at(-1) ?? 0) >= 0.6 * real) starts.push(g + 1);
  const inner = new Set(many > 1 ? gaps : []);
  const put = filledBy(times, wheel);
  const first = starts[0] ?? 0;
  // What was seen before the first gap, counted backwards from it.
  const lead = Math.min(first, real);
  let back = -(wheel.missing + 1) * step;
  const before: number[] = [];
  for (let i = first - 1; i >= first - lead; i--) {
    before.unshift(back);
    back -= (inner.has(i - 1) ? wheel.missing + 1 : 1) * step;
  }
  before.forEach((angle, k) => put.tooth(first - lead + k, angle));
  if (lead > 0) put.marks(first - 1, first, -(wheel.missing + 1) * step);
  let right = 0;
  let turns = 0;
  starts.forEach((from, n) => {
    const next = starts[n + 1];
    const to = next ?? Math.min(times.length, from + real);
    // Steps from the first tooth to each one, over the gaps within the turn.
    const steps: number[] = [0];
    for (let i = from + 1; i < to; i++) steps.push((steps.at(-1) ?? 0) + (inner.has(i - 1) ? wheel.missing + 1 : 1));
    const all = steps.at(-1) ?? 0;
    const isRight = to - from === real && all === wheel.teeth - wheel.missing - 1;
    // A gap may have been overlooked: then it is several turns.
    const whole = next === undefined ? 1 : Math.max(1, Math.round((to - from) / real));
    if (next !== undefined) {
      turns++;
      if (isRight) right++;
    }
    const base = n > 0 ? Math.round(put.last() / 360 + 1e-9) * 360 : 0;
    const stretch =
      next === undefined || isRight ? step : (whole * 360 - (wheel.missing + 1) * step) / Math.max(1, all);
    for (let i = from; i < to; i++) {
      const angle = base + (steps[i - from] ?? 0) * stretch;
      if (i > from && inner.has(i - 1) && isRight) put.marks(i - 1, i, angle - (wheel.missing + 1) * step);
      put.tooth(i, angle);
    }
    if (next !== undefined) put.marks(to - 1, to, base + whole * 360 - (wheel.missing + 1) * step);
  });
  return { wheel, ...put.all(), counted: turns ? right / turns : 0, edge };
}

/**
 * Takes teeth with their angles, and fills index marks in by Hermite's cubic: the speed at either side goes
 * over into the other.
 */
function filledBy(times: Float64Array, wheel: Wheel) {
  const step = 360 / wheel.teeth;
  const [outT, outA, real]: [number[], number[], number[]] = [[], [], []];
  const put = (t: number, a: number, isReal: 0 | 1): void => {
    outT.push(t);
    outA.push(a);
    real.push(isReal);
  };
  const marks = (before: number, after: number, a0: number): void => {
    const [t0, t1] = [times[before] ?? NaN, times[after] ?? NaN];
    const steps = wheel.missing + 1;
    const slope = (at: number, way: 1 | -1): number => {
      const one = Math.abs((times[at] ?? NaN) - (times[at + way] ?? NaN));
      const two = Math.abs((times[at + way] ?? NaN) - (times[at + 2 * way] ?? NaN));
      const own = 1.5 * one - 0.5 * two;
      const mean = (t1 - t0) / steps;
      return Number.isFinite(own) ? Math.min(1.5 * mean, Math.max(0.6 * mean, own)) : mean;
    };
    const [s0, s1] = [slope(before, -1) * steps, slope(after, 1) * steps];
    for (let m = 1; m <= wheel.missing; m++) {
      const x = m / steps;
      const t =
        (2 * x ** 3 - 3 * x ** 2 + 1) * t0 +
        (x ** 3 - 2 * x ** 2 + x) * s0 +
        (3 * x ** 2 - 2 * x ** 3) * t1 +
        (x ** 3 - x ** 2) * s1;
      put(t, a0 + m * step, 0);
    }
  };
  return {
    tooth: (i: number, angle: number): void => put(times[i] ?? NaN, angle, 1),
    marks,
    /** The angle that was put last. */
    last: (): number => outA.at(-1) ?? 0,
    all: () => ({ times: Float64Array.from(outT), angles: Float64Array.from(outA), isTooth: Uint8Array.from(real) }),
  };
}
