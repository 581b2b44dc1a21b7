import { enteredValue } from './values';
import fc from 'fast-check';
import { entryToBase, parseEntry } from './entry';
import { findUnit, type Quantity } from './units';

const ohm = { unit: findUnit('ohm')!.unit, scale: 1 };

function read(text: string, quantity: Quantity = 'resistance') {
  const parsed = parseEntry(text, quantity);
  if (!parsed.ok) throw new Error(parsed.error);
  return parsed.value;
}
function valueOf(text: string, quantity: Quantity = 'resistance'): [number, number] {
  const entry = read(text, quantity);
  if (entry.kind !== 'number') throw new Error(`${text} is ${entry.kind}`);
  return [entry.value, entry.resolution];
}
const refusal = (text: string, quantity: Quantity = 'resistance') => {
  const parsed = parseEntry(text, quantity);
  return parsed.ok ? null : parsed.error;
};

describe('numbers as people type them', () => {
  test.each<[string, number, number]>([
    ['0.6', 0.6, 0.1],
    ['0,60', 0.6, 0.01],
    ['.5', 0.5, 0.1],
    ['12', 12, 1],
    ['12.', 12, 1],
    ['-0.1', -0.1, 0.1],
    ['+3', 3, 1],
    ['97.8k', 97800, 100],
    ['97.8 kΩ', 97800, 100],
    ['97,8 K', 97800, 100],
    ['1.5 Mohm', 1.5e6, 1e5],
    ['250 m', 0.25, 0.001],
    ['250 mΩ', 0.25, 0.001],
    ['47 R', 47, 1],
    ['0.6 Ohm', 0.6, 0.1],
    ['0.6Ω', 0.6, 0.1],
    ['\u22120.1', -0.1, 0.1],
    ['  7.0  ', 7, 0.1],
  ])('%s', (text, value, resolution) => {
    expect(valueOf(text)).toEqual([value, resolution]);
  });

  test.each<[string, Quantity, number]>([
    ['12.6', 'voltage', 12.6],
    ['4.98 V', 'voltage', 4.98],
    ['350 mV', 'voltage', 0.35],
    ['12V6', 'voltage', 12.6],
    ['8.5 A', 'current', 8.5],
    ['3A5', 'current', 3.5],
    ['2.5 bar', 'pressure', 2.5],
    ['36 psi', 'pressure', 36],
    ['50 %', 'ratio', 50],
    ['-5 °C', 'temperature', -5],
  ])('%s as %s', (text, quantity, value) => {
    expect(valueOf(text, quantity)[0]).toBe(value);
  });

  test('the unit typed is kept, so that 36 psi is not 36 bar', () => {
    const entry = read('36 psi', 'pressure');
    if (entry.kind !== 'number') throw new Error('not a number');
    expect(entryToBase(entry, findUnit('bar')!).value).toBeCloseTo(248211.26, 1);
    const bare = read('2.5', 'pressure');
    if (bare.kind !== 'number') throw new Error('not a number');
    expect(entryToBase(bare, findUnit('bar')!).value).toBe(250000);
  });
});

describe('RKM code', () => {
  // Examples of the coding in IEC 60062 (marking codes for resistors): R47, 4R7, 47R, 4K7, 47K, 1M0, 2M2, L
  // for milliohm. Written from memory of the standard's table.
  test.each<[string, number]>([
    ['R47', 0.47],
    ['4R7', 4.7],
    ['0R6', 0.6],
    ['47R', 47],
    ['4K7', 4700],
    ['4k7', 4700],
    ['1M0', 1e6],
    ['2M2', 2.2e6],
    ['4L7', 0.0047],
    ['1G0', 1e9],
  ])('%s', (text, value) => {
    expect(valueOf(text)[0]).toBeCloseTo(value, 12);
  });
  test('its digits tell the resolution', () => expect(valueOf('4k50')).toEqual([4500, 10]));
  test('a unit may follow', () => expect(valueOf('4k7 Ω')[0]).toBe(4700));
  test('R does not make volts of ohms', () => expect(refusal('4R7', 'voltage')).toMatch(/voltage/));
});

describe('overload, wander, beyond, nothing', () => {
  test.each(['OL', 'ol', '0L', 'O.L', '0.L', '.OL'.slice(1), 'open', 'OPEN', '∞', ' OL ', 'OL MΩ', 'OL kohm'])(
    '%s is overload',
    (text) => {
      expect(read(text).kind).toBe('overload');
    },
  );
  test.each(['', '  ', '-', '–'])('"%s" is nothing', (text) => expect(read(text).kind).toBe('nothing'));
  test('wander', () => expect(read('0.4~0.9')).toMatchObject({ kind: 'wander', low: 0.4, high: 0.9, resolution: 0.1 }));
  test('a prefix at the end serves both sides', () => expect(read('0.4~0.9k')).toMatchObject({ low: 400, high: 900 }));
  test('each side may have its own', () => expect(read('900~1k1')).toMatchObject({ low: 900, high: 1100 }));
  test('into overload', () => expect(read('0.6~OL')).toMatchObject({ kind: 'wander', low: 0.6, high: null }));
  test('beyond', () => expect(read('>20M')).toMatchObject({ kind: 'beyond', value: 20e6 }));
});

describe('what cannot be read says so', () => {
  test.each([
    'abc',
    '0.6.1',
    '1e5',
    '--1',
    '0.6 florps',
    '~',
    '0.4~',
    '~0.9',
    '1~2~3',
    '>',
    '>OL',
    '0.9~0.4',
    '4k7k',
    'k',
    '0x10',
    'NaN',
    '1 2',
    '0.4k~0.9',
  ])('%s', (text) => {
    expect(refusal(text)).toBeTruthy();
  });
  test('a unit of another quantity is named', () =>
    expect(refusal('12.6 V')).toBe('This test reads resistance; "V" is a unit of voltage.'));
  test('length is limited', () => expect(refusal('1'.repeat(41))).toMatch(/40/));
});

describe('properties', () => {
  test('never throws, and numbers are finite', () => {
    fc.assert(
      fc.property(
        fc.oneof(fc.string(), fc.string({ unit: fc.constantFrom(...'0123456789.,+-~>kKMmRLOL Ω∞V') })),
        (text) => {
          const parsed = parseEntry(text, 'resistance');
          if (!parsed.ok) return parsed.error.length > 0;
          const entry = parsed.value;
          if (entry.kind === 'number' || entry.kind === 'beyond')
            return Number.isFinite(entry.value) && entry.resolution > 0;
          return (
            entry.kind !== 'wander' || (Number.isFinite(entry.low) && (entry.high === null || entry.high >= entry.low))
          );
        },
      ),
      { numRuns: 3000 },
    );
  });

  test('point and comma, suffix and RKM say the same', () => {
    fc.assert(
      fc.property(
        fc.nat(99999),
        fc.integer({ min: 1, max: 9999 }),
        fc.constantFrom('k', 'M', 'm', 'G'),
        (whole, fraction, prefix) => {
          const point = valueOf(`${whole}.${fraction}${prefix}`);
          expect(valueOf(`${whole},${fraction} ${prefix}Ω`)).toEqual(point);
          expect(valueOf(`${whole}${prefix}${fraction}`)).toEqual(point);
        },
      ),
    );
  });

  test('a printed decimal comes back as the very same number', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1e9 }), fc.integer({ min: 0, max: 6 }), (digits, decimals) => {
        const text = (digits / 10 ** decimals).toFixed(decimals);
        expect(valueOf(text)[0]).toBe(Number(text));
        expect(
          entryToBase({ value: enteredValue(valueOf(text)[0]), resolution: enteredValue(1), unit: null }, ohm).value,
        ).toBe(Number(text));
      }),
    );
  });
});
