import fc from 'fast-check';
import { limitsAt } from './at';
import { checkLimits } from './check';
import { readEntry } from './entry';
import type { Limits } from './types';

const VOLTS: Limits = {
  quantity: 'voltage',
  unit: 'V',
  lower: 11.5,
  upper: 15,
  byPosition: { ground: { lower: null, upper: 0.2 }, 'pin/7~': { upper: 12 } },
};

describe('limits at a position', () => {
  test('what is said there replaces, null takes away, the rest stays', () => {
    expect(limitsAt(VOLTS, 'ground')).toEqual({ quantity: 'voltage', unit: 'V', upper: 0.2 });
    expect(limitsAt(VOLTS, 'pin/7~')).toEqual({ quantity: 'voltage', unit: 'V', lower: 11.5, upper: 12 });
  });
  test('elsewhere they are the same object', () => expect(limitsAt(VOLTS, 'feed')).toBe(VOLTS));
  test('a name that every object has is no position', () => expect(limitsAt(VOLTS, 'constructor')).toBe(VOLTS));
  test('a position whose limits are out of order is named', () => {
    expect(checkLimits({ ...VOLTS, byPosition: { 'pin/7~': { lower: 13, upper: 12 } } }).map((p) => p.path)).toEqual([
      '/byPosition/pin~17~0/lower',
    ]);
  });
});

const BOOST: Limits = {
  quantity: 'voltage',
  unit: 'V',
  transfer: {
    kind: 'table',
    stimulus: { quantity: 'pressure', unit: 'kPa' },
    points: [
      [0, 0.5],
      [200, 4.5],
    ],
  },
  tolerance: { absolute: 0.1 },
};
const PLUG: Limits = { quantity: 'resistance', unit: 'ohm', lower: 0.3, upper: 1 };
const read = (text: string, limits: Limits, clamp: number | null = null) => {
  const result = readEntry(text, limits, clamp);
  if (!result.ok) throw new Error(result.error);
  return result.value;
};

describe('what stands behind an at sign', () => {
  test.each([
    ['2.35 @ 150 kPa', 150],
    ['2.35@150', 150],
    ['2,35 @ 1.5 bar', 150],
    ['2.35 @ 21.75566 psi', 150],
  ])('%s', (text, kPa) => {
    expect(read(text, BOOST).at?.value).toBeCloseTo(kPa, 3);
  });
  test('its digits tell how well the gauge was read', () => {
    expect(read('2.35 @ 1.5 bar', BOOST).at?.resolution).toBeCloseTo(10, 9);
    expect(read('2.35 @ 150', BOOST).at?.resolution).toBe(1);
  });
  test('a resistance may have been read at another temperature', () => {
    expect(read('0.9 @ 60', PLUG).at).toMatchObject({ value: 60, stimulus: { quantity: 'temperature' } });
    expect(read('0.9 @ 140 degF', PLUG).at?.value).toBeCloseTo(60, 9);
  });
  test.each<[string, Limits, RegExp]>([
    ['2.35', BOOST, /type it behind @/],
    ['2.35 @ 20 V', BOOST, /unit of voltage/],
    ['2.35 @ OL', BOOST, /stands a pressure/],
    ['2.35 @', BOOST, /stands a pressure/],
    ['12.4 @ 20', { quantity: 'voltage', unit: 'V' }, /has something behind @/],
  ])('%s is refused', (text, limits, why) => {
    const result = readEntry(text, limits);
    expect(result.ok ? '' : result.error).toMatch(why);
  });
});

describe('a clamp is read in volts', () => {
  const AMPS: Limits = { quantity: 'current', unit: 'A' };
  test.each([
    ['131 mV', 10, 13.1, 0.1],
    ['0.131 V', 10, 13.1, 0.1],
    ['85mV', 1, 85, 1],
    ['85 mV', 100, 0.85, 0.01],
  ])('%s at %i mV/A is %d A to %d', (text, ratio, amps, step) => {
    const { entry } = read(text, AMPS, ratio);
    if (entry.kind !== 'number') throw new Error(entry.kind);
    expect([entry.value, entry.resolution]).toEqual([expect.closeTo(amps, 9), expect.closeTo(step, 9)]);
  });
  test('amperes are amperes, and without a clamp there are no volts', () => {
    expect(read('13.1', AMPS, 10).entry).toMatchObject({ kind: 'number', value: 13.1 });
    expect(readEntry('131 mV', AMPS)).toMatchObject({ ok: false, error: expect.stringContaining('ratio') as string });
  });
});

describe('an observation', () => {
  const SEEN: Limits = { quantity: 'observation', unit: 'seen' };
  test.each([
    ['p', true, ''],
    ['Pass', true, ''],
    ['ok', true, ''],
    ['good: dry', true, 'dry'],
    ['f oil in the connector', false, 'oil in the connector'],
    ['FAIL', false, ''],
    ['bad, pin 4', false, 'pin 4'],
  ])('%s', (text, good, note) => {
    expect(read(text, SEEN).entry).toEqual({ kind: 'seen', good, note });
  });
  test.each(['0.6', 'perhaps', 'passing', 'OL'])('%s is none', (text) => expect(readEntry(text, SEEN).ok).toBe(false));
});

test('any text is read or refused, never thrown', () => {
  fc.assert(
    fc.property(
      fc.string({ maxLength: 60 }),
      fc.constantFrom(BOOST, PLUG, VOLTS),
      fc.option(fc.constantFrom(1, 10, 100)),
      (text, limits, clamp) => {
        const result = readEntry(text, limits, clamp);
        if (!result.ok) expect(result.error.length).toBeGreaterThan(5);
        else if (result.value.entry.kind === 'number') expect(Number.isFinite(result.value.entry.value)).toBe(true);
      },
    ),
  );
});
