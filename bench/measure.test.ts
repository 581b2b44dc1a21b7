import { percentile } from './measure';

test('nearest rank', () => {
  const numbers = [5, 1, 4, 2, 3];
  expect([0.2, 0.5, 0.95, 1].map((s) => percentile(numbers, s))).toEqual([1, 3, 5, 5]);
  expect(percentile([], 0.5)).toBeNaN();
});
