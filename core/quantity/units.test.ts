import fc from 'fast-check';
import { findUnit, fromBase, requireUnit, toBase, UNITS } from './units';
import { baseValue, enteredValue, unitValue } from './values';
import { joinAnd, printLimit, printQuantity, printValue } from './print';

test('psi, inHg and lbf ft after NIST SP 811, appendix B.8 (from memory)', () => {
  expect(toBase(unitValue(1), findUnit('psi')!)).toBeCloseTo(6894.757, 3);
  expect(toBase(unitValue(1), findUnit('inHg')!)).toBeCloseTo(3386.389, 3);
  expect(toBase(unitValue(1), findUnit('lbf ft')!)).toBeCloseTo(1.355818, 6);
});
test('temperature scales: 0 degC = 273.15 K = 32 degF', () => {
  expect(toBase(unitValue(273.15), findUnit('K')!)).toBeCloseTo(0, 12);
  expect(toBase(unitValue(32), findUnit('degF')!)).toBeCloseTo(0, 12);
  expect(fromBase(baseValue(100), findUnit('degF')!)).toBeCloseTo(212, 10);
});
test('prefixes only where they make sense', () => {
  expect(findUnit('kohm')?.scale).toBe(1000);
  expect(findUnit('mV')?.scale).toBe(0.001);
  expect(findUnit('kPa')?.scale).toBe(1000);
  expect(findUnit('kpsi')).toBeUndefined();
  expect(findUnit('florp')).toBeUndefined();
});
test('a wrong unit is refused with what would be right', () => {
  expect(requireUnit('V', 'resistance')).toMatchObject({ ok: false, error: expect.stringContaining('ohm') as string });
  expect(requireUnit('florp', 'voltage')).toMatchObject({
    ok: false,
    error: expect.stringContaining('unknown unit') as string,
  });
});
test('every unit goes there and back', () => {
  fc.assert(
    fc.property(fc.constantFrom(...UNITS), fc.double({ min: -1e6, max: 1e6, noNaN: true }), (unit, x) => {
      expect(fromBase(toBase(unitValue(x), { unit, scale: 1 }), { unit, scale: 1 })).toBeCloseTo(x, 6);
    }),
  );
});
test('printing keeps the digits that were typed', () => {
  expect(printValue(0.4, 0.1)).toBe('0.4');
  expect(printValue(0.39999999999999997, 0.1)).toBe('0.4');
  expect(printValue(4500, 100)).toBe('4.5 k');
  expect(printValue(-0.00001, 0.1)).toBe('0.0');
  expect(printValue(NaN, 1)).toBe('–');
  expect(printQuantity(201, 1, 'Ω')).toBe('201 Ω');
  expect(printQuantity(97800, 100, 'Ω')).toBe('97.8 kΩ');
  expect(printLimit(1, 'Ω')).toBe('1.0 Ω');
  expect(printLimit(86000, 'Ω')).toBe('86 kΩ');
  expect(joinAnd([1, 2, 7])).toBe('1, 2 and 7');
});

test.each([NaN, Infinity, -Infinity])('%s is no value in any system of units', (n) => {
  for (const make of [baseValue, unitValue, enteredValue]) expect(() => make(n)).toThrow(RangeError);
});
test('a conversion that leaves the numbers is refused, not passed on', () => {
  expect(() => toBase(unitValue(1e300), { unit: findUnit('bar')!.unit, scale: 1e12 })).toThrow(RangeError);
});
