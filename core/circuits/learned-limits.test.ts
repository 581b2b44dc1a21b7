import fc from 'fast-check';
import { type GoodReading, learnedLimits } from './learned-limits';

const OHM = { quantity: 'resistance', unit: 'ohm' } as const;
const read = (values: readonly number[], units = 4): GoodReading[] =>
  values.map((value, i) => ({ unitId: `u${i % units}`, value }));
const PLUGS = [1.1, 1.2, 1.15, 1.05, 1.1, 1.25, 1.1, 1.2, 1.0, 1.15, 1.1, 1.2];

test('good readings of the family say what its parts have', () => {
  const limits = learnedLimits(read(PLUGS), OHM);
  expect(limits?.lower).toBeGreaterThan(0.85);
  expect(limits?.lower).toBeLessThan(1.0);
  expect(limits?.upper).toBeGreaterThan(1.25);
  expect(limits?.upper).toBeLessThan(1.45);
});
test('too few, or all of one or two units, say nothing', () => {
  expect(learnedLimits(read(PLUGS.slice(1)), OHM)).toBeNull();
  expect(learnedLimits(read(PLUGS, 2), OHM)).toBeNull();
});
test('whatever was read, the middle lies between the least and the most, and the limits about it', () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: 1e-3, max: 1e6, noNaN: true }), { minLength: 12, maxLength: 60 }), (all) => {
      const limits = learnedLimits(read(all), OHM);
      const [lower, upper] = [limits?.lower ?? NaN, limits?.upper ?? NaN];
      const middle = Math.sqrt(lower * upper);
      expect(middle).toBeGreaterThanOrEqual(Math.min(...all) * (1 - 1e-9));
      expect(middle).toBeLessThanOrEqual(Math.max(...all) * (1 + 1e-9));
      expect(upper).toBeGreaterThan(lower);
    }),
  );
});
