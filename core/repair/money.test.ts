import fc from 'fast-check';
import { fromMinor, minorDigits, moneyWords, toMinor } from './money';

/** Minor units after ISO 4217; these few from memory of its list. */
test.each([
  ['EUR', 2],
  ['JPY', 0],
  ['TND', 3],
  ['XXQ', 2],
  ['no code', 2],
])('%s has %i places', (currency, digits) => expect(minorDigits(currency)).toBe(digits));
test.each([
  [123450, 'EUR', '1,234.50 EUR'],
  [5, 'EUR', '0.05 EUR'],
  [1234567, 'JPY', '1,234,567 JPY'],
  [1234567, 'TND', '1,234.567 TND'],
  [-250, 'EUR', '-2.50 EUR'],
])('%i %s', (minor, currency, words) => expect(moneyWords(minor, currency)).toBe(words));
test('written and read again it is the same', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 1e12 }), fc.constantFrom('EUR', 'JPY', 'TND'), (minor, currency) =>
      expect(toMinor(Number(fromMinor(minor, currency)), currency)).toBe(minor),
    ),
  );
});
