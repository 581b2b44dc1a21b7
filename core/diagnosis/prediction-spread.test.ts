import fc from 'fast-check';
import type { Instance } from './predictions';
import { evenly, looseAt, reachOf } from './prediction-spread';
import type { Hypothesis, Member } from './types';

const member = (key: string, ohms: number, intermittent = false): Member => ({
  key,
  element: key,
  position: null,
  fault: 'series',
  ohms,
  intermittent,
  when: [],
  is: 'path',
  name: key,
  words: 'has resistance',
});
const fault = (key: string, ohms: number, intermittent = false): Hypothesis => ({
  key,
  weight: 1,
  members: [member(key, ohms, intermittent)],
});
const HEALTHY: Hypothesis = { key: 'outside', members: [], weight: 0 };
const points = (n: number, test = 'glow-feed-voltage'): Instance[] =>
  Array.from({ length: n }, (_, i) => ({ test, position: i + 1, mode: 'voltage' }));

describe('what lies between the sizes of a fault', () => {
  const sizes = [HEALTHY, fault('wire', 1), fault('wire', 5), fault('wire', 20), fault('plug', 3)];
  test('reaches half way to the sizes beside it, at the ends as far outwards', () => {
    const { below, above } = reachOf(sizes, Float64Array.from([12, 10, 6, 5, 9]), 1);
    expect([...below]).toEqual([0, 2, 0.5, 0.5, 0]);
    expect([...above]).toEqual([0, 2, 2, 0.5, 0]);
  });
  /** Of sizes that would show these means, from the smallest: where one ends, the next begins. */
  function expectNoGap(all: readonly number[]): void {
    const means = all.toSorted((a, b) => a - b);
    const { below, above } = reachOf(
      means.map((_, i) => fault('wire', i)),
      Float64Array.from(means),
      1,
    );
    for (let i = 0; i + 1 < means.length; i++)
      expect((means[i] ?? 0) + (above[i] ?? 0)).toBeCloseTo((means[i + 1] ?? 0) - (below[i + 1] ?? 0), 9);
  }
  test('between neighbours there is neither a gap nor an overlap', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.double({ min: -50, max: 50, noNaN: true }), { minLength: 2, maxLength: 7 }),
        expectNoGap,
      ),
    );
  });
  test('nor where the difference of two is the smallest there is', () => {
    expectNoGap([0, 6e-323, 6.4e-323, 1e-9]);
  });
  test('overload is no neighbour: nothing reaches to infinity', () => {
    const { below, above } = reachOf(sizes.slice(1, 4), Float64Array.from([1, 3, Infinity]), 1);
    expect([...below, ...above].every(Number.isFinite)).toBe(true);
  });
});

describe('what comes and goes', () => {
  test('is loose where it makes a difference beside the healthy circuit, and nowhere else', () => {
    const all = [HEALTHY, fault('steady', 1), fault('loose', 1, true)];
    const mean = Float64Array.from([12, 12, 3, 12, 3, 12.01]);
    const sd = Float64Array.from([0.1, 0.1, 0.1, 0.1, 0.1, 0.1]);
    expect([...looseAt(all, mean, sd, 2)]).toEqual([0, 0, 0, 0, 1, 0]);
  });
  test('without a healthy circuit beside it nothing is said to be', () =>
    expect([...looseAt([fault('loose', 1, true)], Float64Array.of(3), Float64Array.of(0.1), 1)]).toEqual([0]));
});

describe('equal good parts', () => {
  test('are as uncertain as each other: their spreads become the root mean square', () => {
    const sds = [0.1, 0.3, 0.2];
    const factors = evenly(
      points(3),
      sds.map((sd) => ({ mean: 11, sd })),
    );
    const shared = Math.sqrt((0.01 + 0.09 + 0.04) / 3);
    factors.forEach((f, i) => {
      expect(f * (sds[i] ?? 0)).toBeCloseTo(shared, 12);
    });
  });
  test('places that differ keep their own, and so do other tests', () => {
    const two = [...points(2), ...points(1, 'glow-plug-current')];
    expect(
      evenly(two, [
        { mean: 12, sd: 0.1 },
        { mean: 6, sd: 0.3 },
        { mean: 12, sd: 0.5 },
      ]),
    ).toEqual([1, 1, 1]);
  });
  test('the whole uncertainty stays what it was, whatever there is', () => {
    const good = fc.record({
      mean: fc.oneof(fc.double({ min: -20, max: 20, noNaN: true }), fc.constant(Infinity)),
      sd: fc.double({ min: 0, max: 5, noNaN: true }).map((s) => (s < 1e-6 ? 0 : s)),
    });
    fc.assert(
      fc.property(fc.array(good, { minLength: 1, maxLength: 12 }), (all) => {
        const factors = evenly(points(all.length), all);
        const sum = (of: (i: number) => number): number => all.reduce((s, _, i) => s + of(i) ** 2, 0);
        const [before, after] = [sum((i) => all[i]?.sd ?? 0), sum((i) => (all[i]?.sd ?? 0) * (factors[i] ?? NaN))];
        expect(Math.abs(after - before)).toBeLessThanOrEqual(1e-9 * Math.max(1, before));
      }),
    );
  });
});
