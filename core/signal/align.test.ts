import { normalFrom, seededRandom } from '../numerics/random';
import { alignment } from './align';
import { listedClock, rateClock } from './clock';
import { channel, drive } from './testing';

/** Samples of one course at other moments, in another unit, with noise of their own. */
function seenBy(course: Float64Array, from_s: number, seconds: number, rate_Hz: number, seed: number, gain = 40) {
  const random = seededRandom(seed);
  const times: number[] = [];
  for (let t = 0; t < seconds; t += (1 / rate_Hz) * (0.8 + 0.4 * random())) times.push(t);
  const at = (t: number): number => course[Math.round((from_s + t) * 100)] ?? NaN;
  return channel(
    Float64Array.from(times, (t) => gain * at(t) + 0.02 * gain * normalFrom(random) + 7),
    {
      id: 'scan',
      clock: listedClock(Float64Array.from(times)),
    },
  );
}

describe('two recordings of one drive', () => {
  const course = drive(60_000, 4);
  const pins = [channel(course, { id: 'pin', clock: rateClock(100, course.length) })];

  it.each([
    [37.4, 300, 4, 40],
    [120.25, 400, 10, -3],
    [0, 550, 2, 100],
  ])('begun %s s later, %s s long, %s Hz, gain %s: they are laid on one clock', (late, seconds, rate, gain) => {
    const found = alignment(pins, [seenBy(course, late, seconds, rate, 8, gain)]);
    expect(found).not.toBeNull();
    expect(Math.abs((found?.shift_s ?? 0) - late)).toBeLessThan((found?.uncertainty_s ?? 0) + 0.1);
  });

  it('says nothing where nothing is common, and where one part is like the other', () => {
    expect(alignment(pins, [seenBy(drive(60_000, 99), 50, 300, 5, 8)])).toBeNull();
    const flat = channel(new Float64Array(5000).fill(2));
    expect(alignment([flat], pins)).toBeNull();
    expect(alignment([], pins)).toBeNull();
    // The same blip every ten seconds fits at every tenth second.
    const blips = channel(Float64Array.from({ length: 20_000 }, (_, i) => (i % 1000 < 60 ? 3 : 1)));
    expect(alignment([blips], [{ ...blips, id: 'b' }])).toBeNull();
  });
});
