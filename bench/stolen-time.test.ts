import { stolenShare, ticksOf } from './stolen-time';

// Two samples of one machine, a second apart, with two processors: 200 ticks.
const FIRST = 'cpu  100 0 20 800 5 0 2 30 0 0\ncpu0 50 0 10 400 2 0 1 15 0 0\n';
const SECOND = 'cpu  170 0 30 810 5 0 2 140 0 0\n';

test('ticks are read off the line of all processors; what is not one is nothing', () => {
  expect(ticksOf(FIRST, 5)).toEqual({ at_ms: 5, all: 957, stolen: 30 });
  for (const other of ['', 'cpu0 1 2 3 4 5 6 7 8', 'cpu 1 2 3', 'cpu a b c d e f g h'])
    expect(ticksOf(other, 0)).toBeNull();
});

test('the share of a time is that between the samples around it', () => {
  const seen = [ticksOf(FIRST, 1000)!, ticksOf(SECOND, 2000)!];
  expect(stolenShare(seen, 1500)).toBeCloseTo(110 / 200, 6);
  expect(stolenShare(seen, 0)).toBeCloseTo(110 / 200, 6);
  // Nothing has passed since the newest sample.
  expect(stolenShare(seen, 3000)).toBe(0);
  expect(stolenShare([], 0)).toBe(0);
});
