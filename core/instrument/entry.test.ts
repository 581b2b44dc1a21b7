import fc from 'fast-check';
import { entryToBase, parseEntry } from '../quantity/entry';
import { baseUnit, type Quantity } from '../quantity/units';
import { entryOf, wanderEntry } from './entry';

it.each([
  [0.62, 0.01, 'resistance', '0.62 Ω'],
  [97_800, 100, 'resistance', '97.8 kΩ'],
  [2_201_000, 1000, 'resistance', '2.201 MΩ'],
  [12.34, 0.01, 'voltage', '12.34 V'],
  [0.0123, 1e-4, 'voltage', '12.3 mV'],
  [null, 0, 'resistance', 'OL'],
  [21.5, 0.1, 'temperature', '21.5 °C'],
] as const)('%s by %s is %s', (value, step, quantity, entry) => expect(entryOf(value, step, quantity)).toBe(entry));

it('of a wander says both sides', () => {
  expect(wanderEntry(0.4, 0.9, 0.1, 'resistance')).toBe('0.4~0.9 Ω');
  expect(wanderEntry(0.4, null, 0.1, 'resistance')).toBe('0.4 Ω~OL');
  expect(parseEntry('0.4 Ω~OL', 'resistance')).toMatchObject({ ok: true, value: { kind: 'wander', high: null } });
});

it('is read as what was shown, with the same resolution', () => {
  const quantities = fc.constantFrom<Quantity>('resistance', 'voltage', 'current', 'frequency');
  fc.assert(
    fc.property(
      quantities,
      fc.integer({ min: -9999, max: 9999 }),
      fc.integer({ min: -4, max: 4 }),
      (quantity, n, exponent) => {
        const step = 10 ** exponent;
        const typed = entryOf(n * step, step, quantity);
        const read = parseEntry(typed, quantity);
        if (!read.ok || read.value.kind !== 'number') throw new Error(`${typed} is not read`);
        const base = entryToBase(read.value, { unit: baseUnit(quantity), scale: 1 });
        expect(base.value).toBeCloseTo(n * step, 7);
        expect(base.resolution / step).toBeCloseTo(1, 6);
      },
    ),
  );
});
