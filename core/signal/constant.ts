import { quantileInPlace } from '../numerics/select';
import { BLOCK } from './course';

/** A run of samples that are equal to the last digit. */
export interface ConstantRun {
  readonly first: number;
  readonly last: number;
  readonly level: number;
}

/** A run is no chance when fewer than this many of its length are expected in the recording. */
const EXPECTED = 1e-3;
/** Less than this is no state that a person looks for. */
const SHORTEST_s = 0.5;
const FEWEST = 20;
/** A run is a state when it is so many times as long as the longest that is usual. */
const TIMES_USUAL = 6;

/**
 * Runs of equal samples that are too long for the noise of this channel: where two neighbours are equal with
 * probability p, a run of n is expected N·pⁿ times among N samples (runs of successes: Feller, An
 * Introduction to Probability Theory I, XIII.7). p is that of the calmest hundredth of the recording, so that
 * a channel which is coarse or calm by nature is not accused. `values` without NaN.
 */
export function constantRuns(values: Float64Array, period_s: number): ConstantRun[] {
  const needed = Math.max(
    improbableLength(values),
    TIMES_USUAL * usualLongest(values),
    FEWEST,
    Math.round(SHORTEST_s / period_s),
  );
  return runsOf(values, needed);
}

/**
 * The longest run of equal samples that a block usually has, of the calmer quarter of the blocks: neighbours
 * whose noise goes together make longer runs than chance alone.
 */
function usualLongest(values: Float64Array): number {
  const blocks = Math.max(1, Math.floor(values.length / BLOCK));
  const size = Math.floor(values.length / blocks);
  const longest = new Float64Array(blocks);
  for (let b = 0; b < blocks; b++) {
    let run = 1;
    for (let i = b * size + 1; i < (b + 1) * size; i++) {
      run = values[i] === values[i - 1] ? run + 1 : 1;
      if (run > (longest[b] ?? 0)) longest[b] = run;
    }
  }
  return quantileInPlace(longest, 0.75);
}

/**
 * Blocks that are calmer than this share of all. A converter whose step is larger than the noise rests for
 * seconds where the signal lies in the middle of a step, and seldom elsewhere: the calm blocks say what is
 * usual.
 */
const CALMEST = 0.99;

/** The length from which a run of equal samples is no chance. */
export function improbableLength(values: Float64Array): number {
  const blocks = Math.max(1, Math.floor(values.length / BLOCK));
  const size = Math.floor(values.length / blocks);
  const shares = new Float64Array(blocks);
  let kept = 0;
  for (let b = 0; b < blocks; b++) {
    let equal = 0;
    let longest = 0;
    let run = 0;
    for (let i = b * size + 1; i < (b + 1) * size; i++) {
      run = values[i] === values[i - 1] ? run + 1 : 0;
      if (run > 0) equal++;
      if (run > longest) longest = run;
    }
    // The longest run of a block is what is asked about: it does not speak for its own likelihood.
    const rest = size - 1 - longest;
    if (rest > size / 4) shares[kept++] = (equal - longest) / rest;
  }
  if (kept === 0) return Infinity;
  const p = quantileInPlace(shares, CALMEST, kept);
  // The share itself is known no better than this from one block.
  const p1 = Math.min(0.9999, p + 2 * Math.sqrt(Math.max(p * (1 - p), 0.002) / size));
  return Math.ceil(Math.log(EXPECTED / values.length) / Math.log(p1));
}

export function runsOf(values: Float64Array, needed: number): ConstantRun[] {
  const runs: ConstantRun[] = [];
  let first = 0;
  for (let i = 1; i <= values.length; i++) {
    if (i < values.length && values[i] === values[first]) continue;
    if (i - first >= needed) runs.push({ first, last: i - 1, level: values[first] ?? NaN });
    first = i;
  }
  return runs;
}
