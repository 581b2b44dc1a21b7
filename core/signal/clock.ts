/** A stretch of samples at equal distances. */
export interface EvenRun {
  /** Index of its first sample. */
  readonly first: number;
  readonly start_s: number;
  readonly period_s: number;
}

/** Samples that follow each other without a gap: from `from` up to and without `to`. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}

/** A jump of the clock after a sample. `missing`: samples that fit into it; 0 where the clock steps back. */
export interface ClockJump {
  readonly after: number;
  readonly from_s: number;
  readonly to_s: number;
  readonly missing: number;
}

/**
 * When each sample of a channel was taken, in seconds. Even clocks are kept as runs, which cost nothing for
 * each sample; others as a list.
 */
export interface Clock {
  readonly count: number;
  /** The usual distance of two samples. */
  readonly period_s: number;
  readonly isEven: boolean;
  /** The runs that it consists of; `null`: it is a list. */
  readonly runs: readonly EvenRun[] | null;
  readonly at: (index: number) => number;
  /** Index of the last sample at or before a moment; -1 before the first. */
  readonly before: (t_s: number) => number;
  readonly jumps: readonly ClockJump[];
  /** Stretches between the jumps. */
  readonly stretches: readonly Stretch[];
}

/** More than this many periods between two samples is a gap: at one and a half a sample is missing. */
const GAP_PERIODS = 1.5;
/** Of clocks that are uneven by nature, such as a scan tool's. */
const GAP_PERIODS_UNEVEN = 8;

/** A clock of runs. `runs` in order, the first at sample 0; throws RangeError where there is none. */
export function evenClock(runs: readonly EvenRun[], count: number): Clock {
  const [first] = runs;
  if (!first) throw new RangeError('a clock needs a run');
  const period_s = usualPeriod(runs, count);
  const runOf = (index: number): EvenRun => runs[lastAtMost(runs.length, (i) => runs[i]?.first ?? 0, index)] ?? first;
  const at = (index: number): number => {
    const run = runOf(index);
    return run.start_s + (index - run.first) * run.period_s;
  };
  const jumps: ClockJump[] = [];
  for (const run of runs.slice(1)) {
    const jump = jumpBetween(run.first - 1, at(run.first - 1), run.start_s, period_s, GAP_PERIODS);
    if (jump) jumps.push(jump);
  }
  const isMonotone = jumps.every((j) => j.to_s > j.from_s);
  const before = isMonotone
    ? (t: number): number => {
        const n = lastAtMost(runs.length, (i) => runs[i]?.start_s ?? 0, t);
        const run = runs[n];
        if (n < 0 || !run) return -1;
        const end = runs[n + 1]?.first ?? count;
        return Math.min(end - 1, run.first + Math.floor((t - run.start_s) / run.period_s + 1e-6));
      }
    : (t: number): number => lastAtMost(count, at, t);
  return { count, period_s, isEven: runs.length === 1, runs, at, before, jumps, stretches: between(jumps, count) };
}

/** A clock of one run from 0 s. */
export const rateClock = (rate_Hz: number, count: number, start_s = 0): Clock =>
  evenClock([{ first: 0, start_s, period_s: 1 / rate_Hz }], count);

/** A clock of a list of times in seconds. Throws RangeError for an empty list. */
export function listedClock(times: Float64Array): Clock {
  if (!times.length) throw new RangeError('a clock needs a sample');
  const differences = Float64Array.from({ length: Math.min(times.length - 1, 100_001) }, (_, i) => {
    const j = Math.floor((i * (times.length - 1)) / Math.min(times.length - 1, 100_001));
    return (times[j + 1] ?? NaN) - (times[j] ?? NaN);
  })
    .filter((d) => d > 0)
    .sort();
  const period_s = differences[differences.length >> 1] ?? 1;
  const spread = (differences[Math.floor(differences.length * 0.95)] ?? period_s) / period_s;
  const isEven = spread < 1.3;
  const at = (index: number): number => times[index] ?? NaN;
  const jumps: ClockJump[] = [];
  for (let i = 1; i < times.length; i++) {
    const [a, b] = [at(i - 1), at(i)];
    if (b - a > GAP_PERIODS * period_s || b < a) {
      const jump = jumpBetween(i - 1, a, b, period_s, isEven ? GAP_PERIODS : GAP_PERIODS_UNEVEN);
      if (jump) jumps.push(jump);
    }
  }
  return {
    count: times.length,
    period_s,
    isEven: false,
    runs: null,
    at,
    before: (t) => lastAtMost(times.length, at, t),
    jumps,
    stretches: between(jumps, times.length),
  };
}

function jumpBetween(after: number, from_s: number, to_s: number, period_s: number, most: number): ClockJump | null {
  const step = to_s - from_s;
  if (step >= 0 && step <= most * period_s) return null;
  return { after, from_s, to_s, missing: Math.max(0, Math.round(step / period_s) - 1) };
}

function between(jumps: readonly ClockJump[], count: number): Stretch[] {
  const starts = [0, ...jumps.map((j) => j.after + 1)];
  return starts.map((from, i) => ({ from, to: starts[i + 1] ?? count }));
}

/** The period that most samples have. */
function usualPeriod(runs: readonly EvenRun[], count: number): number {
  const samples = new Map<number, number>();
  runs.forEach((run, i) => {
    const length = (runs[i + 1]?.first ?? count) - run.first;
    const key = Number(run.period_s.toPrecision(6));
    samples.set(key, (samples.get(key) ?? 0) + length);
  });
  return [...samples].reduce((best, one) => (one[1] > best[1] ? one : best))[0];
}

/** The last index whose value is at most `wanted`, values rising; -1 for none. */
export function lastAtMost(count: number, value: (index: number) => number, wanted: number): number {
  let low = 0;
  let high = count;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (value(middle) <= wanted) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}
