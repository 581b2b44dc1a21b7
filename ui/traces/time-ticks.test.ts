import fc from 'fast-check';
import { timeTicks } from './time-ticks';

it('divides time as people do', () => {
  expect(timeTicks(0, 3600, 6)).toEqual([0, 600, 1200, 1800, 2400, 3000, 3600]);
  expect(timeTicks(0.3, 1.4, 6)).toHaveLength(6);
  expect(timeTicks(0, 86_400, 6)).toEqual([0, 14_400, 28_800, 43_200, 57_600, 72_000, 86_400]);
  expect(timeTicks(5, 5, 6)).toEqual([]);
});

it('lies in the window, evenly, and is never too much', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -1e5, max: 1e6, noNaN: true }),
      fc.double({ min: 1e-5, max: 1e6, noNaN: true }),
      fc.integer({ min: 2, max: 12 }),
      (from, span, most) => {
        const ticks = timeTicks(from, from + span, most);
        expect(ticks.length).toBeLessThanOrEqual(most + 1);
        for (const t of ticks) {
          expect(t).toBeGreaterThanOrEqual(from - 1e-6 * span - 1e-9);
          expect(t).toBeLessThanOrEqual(from + span + 1e-6 * span + 1e-9);
        }
      },
    ),
  );
});
