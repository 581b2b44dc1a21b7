import fc from 'fast-check';
import { meanAngle, nearZero, turned, usualPeriod } from './axis';

const PERIOD = 720;
const angle = fc.double({ min: -1e5, max: 1e5, noNaN: true });

test('an angle is brought into the period, and to within half a period of 0, by whole turns only', () => {
  fc.assert(
    fc.property(angle, (a) => {
      const [inside, near] = [turned(a, PERIOD), nearZero(a, PERIOD)];
      expect(inside).toBeGreaterThanOrEqual(0);
      expect(inside).toBeLessThanOrEqual(PERIOD);
      expect(Math.abs(near)).toBeLessThanOrEqual(PERIOD / 2);
      for (const b of [inside, near])
        expect(Math.abs((a - b) / PERIOD - Math.round((a - b) / PERIOD))).toBeLessThan(1e-9);
    }),
  );
  expect(nearZero(360, PERIOD)).toBe(-360);
  expect([turned(NaN, PERIOD), nearZero(NaN, PERIOD), turned(1, 0)]).toEqual([NaN, NaN, NaN]);
});

test('a mean of angles turns with them, wherever the period begins', () => {
  const near = fc.array(fc.double({ min: -20, max: 20, noNaN: true }), { minLength: 2, maxLength: 12 });
  fc.assert(
    fc.property(near, angle, (offsets, by) => {
      const alone = meanAngle(offsets, PERIOD);
      const moved = meanAngle(
        offsets.map((o) => o + by),
        PERIOD,
      );
      expect(nearZero(moved.mean - alone.mean - by, PERIOD)).toBeCloseTo(0, 6);
      expect(moved.deviation).toBeCloseTo(alone.deviation, 6);
    }),
  );
  expect(meanAngle([710, 10], PERIOD).mean).toBeCloseTo(0, 9);
  expect(meanAngle([], PERIOD)).toEqual({ mean: 0, deviation: 0 });
  expect(meanAngle([90], PERIOD).deviation).toBeCloseTo(0, 9);
  expect(meanAngle([90, NaN], PERIOD).mean).toBeNaN();
});

test('the usual distance is the median: one pulse that did not come does not move it', () => {
  expect(usualPeriod(Float64Array.of(0, 1, 2, 4, 5, 6))).toBe(1);
  expect([usualPeriod(Float64Array.of(3)), usualPeriod(new Float64Array())]).toEqual([NaN, NaN]);
});
