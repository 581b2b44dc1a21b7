import { normalFrom, seededRandom } from './random';
import { pythonList } from './testing';
import { chanceToShow, hoursToRecord, recordingWords } from './rare-events';

it('has the chance of scipy’s negative binomial', () => {
  for (const [times, seen, hours] of [
    [1, 2, 3],
    [4, 10, 6],
    [20, 5, 0.5],
  ] as const) {
    // No event in `hours`, with a rate of shape `times` over `seen` hours.
    const [none] = pythonList(
      `[__import__('scipy.stats',fromlist=['x']).nbinom.pmf(0, ${times}, ${seen}/(${seen}+${hours}))]`,
    );
    expect(chanceToShow({ times, hours: seen }, hours)).toBeCloseTo(1 - none!, 10);
  }
});

it('is held by events that come by chance: nine of ten recordings of that length catch it', () => {
  const random = seededRandom(6);
  const exponential = (rate: number): number => -Math.log(1 - random()) / rate;
  let caught = 0;
  const all = 4000;
  for (let i = 0; i < all; i++) {
    // A rate that nobody knows; what was seen until the third event says all there is.
    const rate = Math.exp(normalFrom(random));
    const hours = exponential(rate) + exponential(rate) + exponential(rate);
    if (exponential(rate) <= hoursToRecord({ times: 3, hours })) caught++;
  }
  expect(caught / all).toBeGreaterThan(0.88);
  expect(caught / all).toBeLessThan(0.92);
});

it('asks for longer the less is known, and comes near the law of rare events where much is', () => {
  expect(hoursToRecord({ times: 1, hours: 1 })).toBeCloseTo(9, 6);
  expect(hoursToRecord({ times: 1000, hours: 1000 })).toBeCloseTo(-Math.log(0.1), 2);
  expect(chanceToShow({ times: 2, hours: 3 }, 0)).toBe(0);
  expect(recordingWords({ times: 2, hours: 10 })).toBe(
    'It showed itself 2 times in 10 h: record for 22 h, it then shows with 90 %.',
  );
  expect(recordingWords({ times: 1, hours: 0.5 })).toMatch(/once in 30 min: record for 5 h/);
});

it('says what it cannot: never seen, no time, no number', () => {
  expect(hoursToRecord({ times: 0, hours: 5 })).toBe(Infinity);
  expect(chanceToShow({ times: 3, hours: 5 }, 0)).toBe(0);
  expect([chanceToShow({ times: 3, hours: 5 }, NaN), hoursToRecord({ times: NaN, hours: 5 })]).toEqual([NaN, NaN]);
});
