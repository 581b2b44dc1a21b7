import fc from 'fast-check';
import { dayShown, isoDayShown } from './dates';
import { asFor, currentLocale, type Locale, localeKey, PLAIN, readFor, type Translation } from './locale';
import { entryShown, fixed, grouped, significant, withMark } from './numbers';
import { PSEUDO, pseudo, pseudoTranslation } from './pseudo';
import { fill, keyOf, tr, word } from './translate';

const COMMA: Locale = { ...PLAIN, decimal: 'comma' };
const as = <T>(locale: Partial<Locale>, work: () => T, words: Translation | null = null): T =>
  asFor({ locale: { ...PLAIN, ...locale }, words }, work);

describe('who reads', () => {
  afterEach(() => readFor(undefined));

  test('nobody: English with a point', () => expect(currentLocale()).toEqual(PLAIN));
  test('as it was asked for, and as before after it, also where the work fails', () => {
    readFor(() => ({ locale: COMMA, words: null }));
    expect(as({ dates: 'ymd' }, currentLocale)).toEqual({ ...PLAIN, dates: 'ymd' });
    expect(currentLocale()).toEqual(COMMA);
    expect(() =>
      as({}, () => {
        throw new Error('no');
      }),
    ).toThrow('no');
    expect(currentLocale()).toEqual(COMMA);
  });
  test('two locales that differ have two keys', () =>
    expect(new Set([PLAIN, COMMA, { ...PLAIN, units: 'imperial' as const }].map(localeKey)).size).toBe(3));
});

describe('numbers', () => {
  test.each([
    [() => fixed(0.446, 2), '0.45', '0,45'],
    [() => significant(0.4, 3), '0.4', '0,4'],
    [() => significant(1234.56, 6), '1234.56', '1234,56'],
    [() => grouped(1_234_567), '1,234,567', '1\u202f234\u202f567'],
    [() => withMark('12'), '12', '12'],
    [() => fixed(NaN, 1), '–', '–'],
    [() => significant(Infinity, 3), '–', '–'],
    [() => entryShown('0.4'), '0.4', '0,4'],
    [() => entryShown('0,4'), '0.4', '0,4'],
    [() => entryShown('0.4~0,9 @ 21.5'), '0.4~0.9 @ 21.5', '0,4~0,9 @ 21,5'],
    [() => entryShown('4k5'), '4k5', '4k5'],
    [() => entryShown('1.2.3'), '1.2.3', '1.2.3'],
    [() => entryShown('OL'), 'OL', 'OL'],
  ])('%s', (shown, point, comma) => {
    expect(shown()).toBe(point);
    expect(as(COMMA, shown)).toBe(comma);
  });
  test('what is shown says the same number in both', () => {
    fc.assert(
      fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), fc.integer({ min: 0, max: 6 }), (n, decimals) => {
        expect(Number(as(COMMA, () => fixed(n, decimals)).replace(',', '.'))).toBe(Number(n.toFixed(decimals)));
      }),
    );
  });
});

test.each([
  ['dmy', '23 Nov 2026'],
  ['mdy', 'Nov 23, 2026'],
  ['ymd', '2026-11-23'],
] as const)('a day, %s', (dates, shown) => {
  expect(as({ dates }, () => dayShown(2026, 11, 23))).toBe(shown);
  expect(as({ dates }, () => isoDayShown('2026-11-23'))).toBe(shown);
  expect(as({ dates }, () => isoDayShown('next week'))).toBe('next week');
  expect(as({ dates }, () => isoDayShown('2026-13-01'))).toBe('2026-13-01');
});
// Written from memory of the Unicode CLDR.
test('the month in the language of the reader', () =>
  expect(as({ language: 'fr' }, () => dayShown(2026, 3, 5))).toBe('5 mars 2026'));

describe('texts', () => {
  const GERMAN: Translation = {
    '{0} reads {1}': '{1} zeigt {0}',
    open: 'offen',
    'Too high.': 'Zu hoch.',
    'Read it again.': 'Noch einmal messen.',
  };
  const german = <T>(work: () => T): T => as({ language: 'de', decimal: 'comma' }, work, GERMAN);

  test('the fixed parts are the key', () => expect(keyOf(['', ' reads ', ''])).toBe('{0} reads {1}'));
  test('without a translation it is what stands there, numbers with the mark', () => {
    expect(tr`${'Plug 4'} reads ${0.4}`).toBe('Plug 4 reads 0.4');
    expect(as(COMMA, () => tr`${'Plug 4'} reads ${0.4}`)).toBe('Plug 4 reads 0,4');
  });
  test('a translation may turn it around; words that are put in are looked up too', () =>
    expect(german(() => tr`${'open'} reads ${0.4}`)).toBe('0,4 zeigt offen'));
  test('what the catalogue does not know stays', () => {
    expect(german(() => tr`${1} of ${2}`)).toBe('1 of 2');
    expect(german(() => word('constructor'))).toBe('constructor');
    expect(german(() => word('Behind the mill'))).toBe('Behind the mill');
  });
  test('sentence by sentence, and space around stays', () => {
    expect(german(() => word('Too high. Read it again.'))).toBe('Zu hoch. Noch einmal messen.');
    expect(german(() => word(' open '))).toBe(' offen ');
  });
  test('a place without a value stays as it stands', () => expect(fill('{0} and {7}', ['a'])).toBe('a and {7}'));
});

describe('the pseudo-language', () => {
  test('leaves no plain letter, and every place', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(...'abcxyzABCXYZ .,{0}1') }), (text) => {
        const shown = pseudo(text);
        expect(shown.replace(/\{\w+\}/g, '')).not.toMatch(/[A-Za-z]/);
        expect(shown.match(/\{\w+\}/g)).toEqual(text.match(/\{\w+\}/g));
      }),
    );
  });
  test('is a translation of all of it', () => {
    const words = pseudoTranslation(['{0} reads {1}']);
    expect(as({ language: PSEUDO }, () => tr`${'x1'} reads ${2}`, words)).toBe('x1 ŕéáđš 2');
  });
});
