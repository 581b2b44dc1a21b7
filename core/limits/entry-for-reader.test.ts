import fc from 'fast-check';
import { asFor, PLAIN } from '../locale/locale';
import { inReaderUnit, readerUnit } from '../quantity/reader-unit';
import { readEntry } from './entry';
import { entryForReader, entryWords, withReaderUnits } from './entry-for-reader';
import type { Limits } from './types';

const imperial = <T>(work: () => T): T => asFor({ locale: { ...PLAIN, units: 'imperial' }, words: null }, work);
const KPA: Limits = { quantity: 'pressure', unit: 'kPa', lower: 300, upper: 400 };
const OHM: Limits = { quantity: 'resistance', unit: 'ohm', upper: 1 };

// psi and lbf ft after NIST SP 811, appendix B.8, written from memory: 1 psi = 6.894 757 kPa, 1 lbf ft =
// 1.355 818 N m.
test.each([
  ['kPa', 100, 14.5038, 'psi'],
  ['bar', 1, 14.5038, 'psi'],
  ['MPa', 160, 23206, 'psi'],
  ['Nm', 20, 14.7512, 'lbf ft'],
])('%s', (symbol, value, shown, unit) => {
  const to = imperial(() => readerUnit(symbol));
  expect(to).toMatchObject({ isOther: true, symbol: unit });
  expect(to.of(value) / shown).toBeCloseTo(1, 4);
  expect(readerUnit(symbol)).toMatchObject({ isOther: false });
});
test.each([
  ['psi', 25, 172.369, 'kPa'],
  ['lbf ft', 15, 20.3373, 'Nm'],
  ['inHg', 10, 33.8639, 'kPa'],
])('%s, to a metric reader', (symbol, value, shown, unit) => {
  const to = asFor({ locale: { ...PLAIN, units: 'metric' }, words: null }, () => readerUnit(symbol));
  expect(to).toMatchObject({ isOther: true, symbol: unit });
  expect(to.of(value) / shown).toBeCloseTo(1, 5);
});
test.each([
  ['ohm', 'Ω'],
  ['degC', '°C'],
  ['psi', 'psi'],
  ['inHg', 'inHg'],
  ['furlong', 'furlong'],
])('%s stays as it is for everybody', (symbol, shown) =>
  expect(imperial(() => readerUnit(symbol))).toMatchObject({ isOther: false, symbol: shown }),
);
test('as many digits as the value had steps, or four', () => {
  const unit = imperial(() => readerUnit('kPa'));
  expect(inReaderUnit(350, 1, unit)).toBe('50.8');
  expect(inReaderUnit(350, 10, unit)).toBe('51');
  expect(inReaderUnit(350, 0, unit)).toBe('50.76');
  expect(inReaderUnit(NaN, 1, unit)).toBe('–');
});

test('an entry as it is read by either', () => {
  expect(entryWords('350', KPA)).toBe('350 kPa');
  expect(imperial(() => entryWords('350', KPA))).toBe('50.8 psi');
  expect(imperial(() => entryWords('340~350', KPA))).toBe('49.3~50.8 psi');
  expect(imperial(() => entryWords('>600', KPA))).toBe('>87.0 psi');
  expect(imperial(() => entryForReader('50.8 psi', KPA))).toEqual({ value: '50.8', unit: 'psi' });
  // What was typed with its unit is shown as it was typed.
  expect(imperial(() => entryWords('3.5 bar', KPA))).toBe('3.5 bar');
  expect(imperial(() => entryWords('OL', OHM))).toBe('OL');
  expect(imperial(() => entryForReader('0.4', OHM))).toEqual({ value: '0.4', unit: 'Ω' });
});

test('bare digits mean the unit beside the field', () => {
  expect(withReaderUnits('50.8', KPA)).toBe('50.8');
  expect(imperial(() => withReaderUnits('50.8', KPA))).toBe('50.8 psi');
  expect(imperial(() => withReaderUnits('350 kPa', KPA))).toBe('350 kPa');
  expect(imperial(() => withReaderUnits('OL', KPA))).toBe('OL');
  expect(imperial(() => withReaderUnits('0.4', OHM))).toBe('0.4');
  const sensor: Limits = {
    quantity: 'voltage',
    unit: 'V',
    transfer: {
      kind: 'table',
      stimulus: { quantity: 'pressure', unit: 'kPa' },
      points: [
        [0, 0.5],
        [400, 4.5],
      ],
    },
  };
  expect(imperial(() => withReaderUnits('2.31 @ 50', sensor))).toBe('2.31 @ 50 psi');
  expect(imperial(() => withReaderUnits('2.31 @ 350 kPa', sensor))).toBe('2.31 @ 350 kPa');
});
test('what is typed in psi is read as that pressure, whatever is typed', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 9000 }), (tenths) => {
      const typed = (tenths / 10).toFixed(1);
      const read = readEntry(
        imperial(() => withReaderUnits(typed, KPA)),
        KPA,
      );
      const { entry } = read.ok ? read.value : { entry: null };
      if (entry?.kind !== 'number' || !entry.unit) throw new Error(typed);
      expect(entry.unit.unit.symbol).toBe('psi');
      expect(entry.value).toBe(Number(typed));
    }),
  );
});
