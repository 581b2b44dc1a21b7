import { shownUnit } from '../quantity/reader-unit';
import { correctedWords, positionWords, rangeWords, reasonWords } from './words';
import { judgedReading } from './testing';
import type { JudgedReading, Limits, Reason } from './types';

const OHM: Limits = { quantity: 'resistance', unit: 'ohm', lower: 0.3, upper: 1 };
const say = (reason: Reason, limits = OHM, resolution: number | null = 0.1): string =>
  reasonWords(reason, limits, resolution);
const judged = (
  corrected: number | null,
  standardUncertainty: number | null,
  resolution: number | null,
): JudgedReading => judgedReading({ entry: '', value: null, corrected, standardUncertainty, resolution });

test.each<[Reason, string]>([
  [
    { rule: 'above-upper', value: 201, limit: 1, margin: 200, source: 'sheet 7' },
    '201.0 Ω is above the limit of 1.0 Ω (sheet 7).',
  ],
  [{ rule: 'below-lower', value: 0.1, limit: 0.3, margin: 0.2, source: null }, '0.1 Ω is below the limit of 0.3 Ω.'],
  [{ rule: 'overload', meansAbove: 10000 }, 'The meter shows overload: more than 10 kΩ counts as open.'],
  [{ rule: 'overload', meansAbove: null }, 'The meter shows overload: no path for its current.'],
  [
    { rule: 'wanders', low: 0.4, high: 0.9, span: 0.5, allowed: 0.05 },
    'The display wanders by 0.5 Ω, from 0.4 Ω to 0.9 Ω; 0.05 Ω is allowed.',
  ],
  [
    { rule: 'wanders', low: 0.6, high: null, span: null, allowed: 0.05 },
    'The contact breaks: the display goes from 0.6 Ω to overload.',
  ],
  [
    { rule: 'recheck-margin', value: 97800, limit: 86000, beyondPercent: 13.72, marginPercent: 20 },
    '97.8000 kΩ is 14 % beyond 86 kΩ; up to 20 % beyond, the meter, leads, range and ground point are checked before the part.',
  ],
  [
    { rule: 'cannot-tell', value: 1, limit: 1, expandedUncertainty: 0.1, probabilityWithin: 0.5, remedy: 'zero-leads' },
    '1.0 Ω ± 0.1 Ω lies on both sides of 1.0 Ω, 50 % likely inside. Touch the leads together, enter what the meter shows, and this can be decided.',
  ],
  [{ rule: 'lead-zero-subtracted', leadZero_ohm: 0.2 }, "The leads' own 0.2 Ω is subtracted."],
  [
    { rule: 'temperature-corrected', from_degC: 70, to_degC: 20, coefficient_perK: 0.00393, factor: 0.8358 },
    'Brought from 70 °C to 20 °C with 0.00393 per K.',
  ],
  [
    {
      rule: 'neighbours',
      value: 0.9,
      median: 0.4,
      ratio: 2.25,
      difference: 0.5,
      maxRatio: 2,
      maxDifference: null,
      among: [1, 3, 4],
    },
    '0.9 Ω against 0.4 Ω, the middle of 1, 3 and 4: 2.3 times apart; 2 times is allowed.',
  ],
  [
    {
      rule: 'neighbours',
      value: 10,
      median: 14,
      ratio: 1.4,
      difference: 4,
      maxRatio: null,
      maxDifference: 3,
      among: [1, 2],
    },
    '10.0 Ω against 14.0 Ω, the middle of 1 and 2: 4.0 Ω apart; 3.0 Ω is allowed.',
  ],
])('%j', (reason, sentence) => expect(say(reason)).toBe(sentence));

test('a unit with a prefix of its own is not prefixed again', () => {
  const limits: Limits = { quantity: 'resistance', unit: 'kohm', lower: 60, upper: 86 };
  expect(shownUnit('kohm')).toBe('kΩ');
  expect(rangeWords(limits, limits)).toBe('60 to 86 kΩ');
  expect(say({ rule: 'below-short', value: 0.012, limit: 1 }, limits)).toBe('0.012 kΩ is below 1 kΩ: shorted.');
});
test('ranges', () => {
  expect(rangeWords(OHM, OHM)).toBe('0.3 to 1.0 Ω');
  expect(rangeWords({ upper: 1 }, OHM)).toBe('up to 1.0 Ω');
  expect(rangeWords({ lower: 45 }, { quantity: 'voltage', unit: 'V' })).toBe('at least 45 V');
  expect(rangeWords({ lower: 500, upper: 2000 }, OHM)).toBe('500 Ω to 2 kΩ');
  expect(rangeWords({}, OHM)).toBe('no limit');
});
test('a corrected value is rounded to the typed digits, its uncertainty upwards', () => {
  expect(correctedWords(judged(0.39999999999999997, 0.0409, 0.1), OHM)).toBe('0.4 ± 0.1');
  expect(correctedWords(judged(200.8, 0.93, 1), OHM)).toBe('201 ± 2');
  expect(correctedWords(judged(4499.8, 35, 100), OHM)).toBe('4.5 k ± 0.1 k');
  expect(correctedWords(judged(null, null, null), OHM)).toBe('');
});
test('positions', () => {
  expect(positionWords(3)).toBe('cylinder 3');
  expect(positionWords('key-on')).toBe('key-on');
});
