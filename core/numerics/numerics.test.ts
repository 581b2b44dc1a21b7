import fc from 'fast-check';
import { bisectRising } from './bisect';
import { cell, floatAt, intAt } from './cell';
import { interpolateLinear } from './interpolate';
import { medianSorted } from './median';
import { pythonList } from './testing';

const number = fc.double({ min: -1e6, max: 1e6, noNaN: true });

test('the median is that of numpy, whatever the numbers', () => {
  const lists = fc.sample(fc.array(number, { minLength: 1, maxLength: 9 }), { numRuns: 40, seed: 3 });
  const wanted = pythonList(`[np.median(x) for x in ${JSON.stringify(lists)}]`);
  lists.forEach((x, i) => {
    expect(medianSorted(x.toSorted((a, b) => a - b))).toBeCloseTo(wanted[i] ?? NaN, 6);
  });
  expect(medianSorted([])).toBeNaN();
});
test('straight lines between points are those of numpy, and nothing outside', () => {
  const points = [
    [0, 0.5],
    [100, 2],
    [150, 2.1],
    [400, 4.5],
  ] as const;
  const xs = [0, 1, 50, 100, 149.5, 150, 399, 400];
  const wanted = pythonList(`list(np.interp(${JSON.stringify(xs)}, [0, 100, 150, 400], [0.5, 2, 2.1, 4.5]))`);
  xs.forEach((x, i) => {
    expect(interpolateLinear(points, x)).toBeCloseTo(wanted[i] ?? NaN, 12);
  });
  for (const x of [-0.001, 400.001, NaN]) expect(interpolateLinear(points, x)).toBeNull();
  expect(interpolateLinear([], 1)).toBeNull();
});
test('halving finds where a rising function reaches a value, and stays inside', () => {
  fc.assert(
    fc.property(fc.double({ min: -8, max: 8, noNaN: true }), (x) => {
      const found = bisectRising((t) => t ** 3, x ** 3, { low: -8, high: 8, tolerance: 1e-9 });
      expect(Math.abs(found - x)).toBeLessThan(1e-8);
    }),
  );
  const to = { low: 0, high: 1, tolerance: 1e-9 };
  expect(bisectRising((t) => t, 5, to)).toBeCloseTo(1, 8);
  expect(bisectRising((t) => t, -5, to)).toBeCloseTo(0, 8);
});
test('an index outside of an array is refused, not calculated with', () => {
  expect(cell([1, 2], 1)).toBe(2);
  expect(floatAt(Float64Array.of(0), 0)).toBe(0);
  expect(intAt(Int32Array.of(0, 7), 1)).toBe(7);
  for (const i of [-1, 2, 0.5, NaN]) {
    expect(() => cell([1, 2], i)).toThrow(RangeError);
    expect(() => floatAt(Float64Array.of(1, 2), i)).toThrow(RangeError);
    expect(() => intAt(Int32Array.of(1, 2), i)).toThrow(RangeError);
  }
});
