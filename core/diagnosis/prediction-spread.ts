import { floatAt } from '../numerics/cell';
import { groupBy } from '../foundation/collections';
import type { Instance } from './predictions';
import type { Hypothesis } from './types';

/** What the few draws and the coarse sizes of predictions leave open. */

/** Means of equal good parts differ by less than this share of their spread. */
const ALIKE = 0.5;

/**
 * By how much the spread of each reading is to be taken wider or narrower, so that equal good parts in equal
 * places are as uncertain as each other: few draws alone would spread them unevenly, and the one with the
 * narrowest would be accused first. Factors above 0, one for each instance; 1 where nothing is predicted.
 */
export function evenly(instances: readonly Instance[], good: readonly { mean: number; sd: number }[]): number[] {
  const factor = instances.map(() => 1);
  const sdOf = (i: number): number => good[i]?.sd ?? 0;
  const meanOf = (i: number): number => good[i]?.mean ?? 0;
  const spread = instances.flatMap((_, i) => (sdOf(i) > 0 && Number.isFinite(meanOf(i)) ? [i] : []));
  for (const all of groupBy(spread, (i) => `${instances[i]?.test} ${instances[i]?.mode}`).values()) {
    const sorted = all.toSorted((a, b) => meanOf(a) - meanOf(b));
    let alike: number[] = [];
    const settle = (): void => {
      const shared = Math.sqrt(alike.reduce((sum, i) => sum + sdOf(i) ** 2, 0) / Math.max(1, alike.length));
      for (const i of alike) factor[i] = shared / sdOf(i);
    };
    for (const i of sorted) {
      const [first] = alike;
      if (first !== undefined && meanOf(i) - meanOf(first) > ALIKE * Math.max(sdOf(i), sdOf(first))) {
        settle();
        alike = [];
      }
      alike.push(i);
    }
    settle();
  }
  return factor;
}

/** To a neighbouring size; 0 where there is none, or no difference that is a number. */
function stepTo(neighbour: number, n: number, i: number, mean: Float64Array, k: number): number {
  if (neighbour < 0) return 0;
  const difference = floatAt(mean, neighbour * n + i) - floatAt(mean, k);
  return Number.isFinite(difference) ? difference : 0;
}

/**
 * From each size half way to its neighbours of the same suspect; the smallest and the largest reach as far
 * outwards as inwards.
 */
export function reachOf(
  hypotheses: readonly Hypothesis[],
  mean: Float64Array,
  n: number,
): { below: Float64Array; above: Float64Array } {
  const [below, above] = [new Float64Array(mean.length), new Float64Array(mean.length)];
  for (const [h, x] of hypotheses.entries()) {
    if (x.members.length !== 1) continue;
    const [before, after] = [h - 1, h + 1].map((o) =>
      hypotheses[o]?.key === x.key && hypotheses[o].members.length === 1 ? o : -1,
    ) as [number, number];
    for (let i = 0; i < n; i++) {
      const k = h * n + i;
      const [one, other] = [stepTo(before, n, i, mean, k), stepTo(after, n, i, mean, k)];
      // Where there is one neighbour only it reaches as far to the other side.
      const [a, b] = [one === 0 ? -other : one, other === 0 ? -one : other];
      below[k] = Math.max(0, -a, -b) / 2;
      above[k] = Math.max(0, a, b) / 2;
    }
  }
  return { below, above };
}

/** Beside the healthy circuit, where that is the first hypothesis. */
export function looseAt(
  hypotheses: readonly Hypothesis[],
  mean: Float64Array,
  sd: Float64Array,
  n: number,
): Float64Array {
  const loose = new Float64Array(mean.length);
  if (hypotheses[0]?.members.length !== 0) return loose;
  for (const [h, { members }] of hypotheses.entries()) {
    if (!members.some((m) => m.intermittent)) continue;
    for (let i = 0; i < n; i++) {
      const [a, b] = [floatAt(mean, h * n + i), floatAt(mean, i)];
      loose[h * n + i] = a !== b && Math.abs(a - b) > 2 * floatAt(sd, i) + 1e-6 ? 1 : 0;
    }
  }
  return loose;
}
