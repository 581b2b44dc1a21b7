import { normalFrom, seededRandom } from '../numerics/random';
import { driveEvents } from './drive';
import { searchRecording } from './recording';
import { channel } from './testing';

const RATE = 50;
/** Volts at 50 Hz from a course in seconds, with a little noise. */
function recorded(seconds: number, course: (t: number) => number, seed: number): Float64Array {
  const random = seededRandom(seed);
  return Float64Array.from({ length: seconds * RATE }, (_, i) => course(i / RATE) + 0.01 * normalFrom(random));
}
const sensor = (id: string, on: (t: number) => boolean, seed: number, high = 2) =>
  channel(
    recorded(120, (t) => (on(t) ? high + 0.5 * Math.sin(t / 3) : 0), seed),
    { id, rate_Hz: RATE },
  );
const battery = (course: (t: number) => number) =>
  channel(recorded(120, course, 9), { id: 'b', role: 'battery', rate_Hz: RATE });

describe('what a drive did, from its channels', () => {
  const on = (t: number): boolean => t > 5 && t < 110;

  it('finds key, starter, engine and key off, in order and to the moment', () => {
    const volts = (t: number): number =>
      t > 10 && t < 12 ? 9.8 + 0.4 * Math.sin(40 * t) : t >= 12 && t < 110 ? 14.1 : 12.4;
    const events = driveEvents([sensor('a', on, 1), sensor('c', on, 2), battery(volts)]);
    expect(events.map((e) => e.kind)).toEqual(['key-on', 'cranking', 'running', 'key-off']);
    for (const [i, at_s] of [5, 10, 12, 110].entries())
      expect(Math.abs((events[i]?.from_s ?? 0) - at_s)).toBeLessThan(0.3);
  });

  it('does not call an engine running that was only turned', () => {
    const volts = (t: number): number => (t > 10 && t < 14 ? 9.5 : 12.4);
    expect(driveEvents([battery(volts)]).map((e) => e.kind)).toEqual(['cranking']);
  });

  it('takes one lost sensor for no key, and a jump of the load for no starter', () => {
    const sensors = [sensor('a', (t) => t < 40 || t > 60, 1), sensor('c', () => true, 2), sensor('d', () => true, 3)];
    // A sensor of three is gone for twenty seconds while the others go on; those others are never off.
    const events = driveEvents([...sensors, sensor('e', (t) => t < 118, 4)]);
    expect(events.filter((e) => e.kind === 'key-off' && e.from_s < 100)).toEqual([]);
    expect(driveEvents([battery((t) => (t > 50 ? 13.4 : 14.1))])).toEqual([]);
  });

  it('judges no sensor by its limits while the key is off, and every other one', () => {
    const limits = { lower: 0.5, upper: 3 };
    const all = [sensor('a', on, 1), { ...sensor('c', on, 2), limits }];
    expect(searchRecording(all).findings.filter((f) => f.kind === 'out-of-limits')).toEqual([]);
    const high = { ...sensor('c', on, 2, 2.9), limits };
    const found = searchRecording([all[0] ?? high, high]).findings.filter((f) => f.kind === 'out-of-limits');
    expect(found.length).toBeGreaterThan(1);
    expect(found.every((f) => f.from_s > 4 && f.to_s < 111)).toBe(true);
  });

  it('says nothing where nothing tells', () => {
    expect(driveEvents([])).toEqual([]);
    expect(driveEvents([sensor('a', () => true, 1)])).toEqual([]);
  });
});
