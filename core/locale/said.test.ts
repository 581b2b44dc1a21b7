import fc from 'fast-check';
import catalogue from '../../words/catalogue.json';
import { driveEvents } from '../signal/drive';
import { searchRecording } from '../signal/recording';
import { channel, drive } from '../signal/testing';
import { asFor, type Locale, PLAIN, type Reader } from './locale';
import { fixed, grouped } from './numbers';
import { PSEUDO, pseudoTranslation } from './pseudo';
import { sayerOf, sayingOf } from './said';
import { tr, word } from './translate';

const COMMA: Locale = { ...PLAIN, decimal: 'comma' };
const reader = (locale: Locale, words: Reader['words'] = null): Reader => ({ locale, words });
const texts = (all: readonly string[]) => all;
const GERMAN = {
  '{0} reads {1}.': 'An {0} steht {1}.',
  plug: 'Kerze',
  'And {0} more.': 'Und {0} weitere.',
  'It rested.': 'Es ruhte.',
};

test('what was said in plain words is said again as it would have been said at once', () => {
  const say = () => [
    tr`${'plug'} reads ${fixed(0.6, 1)}.`,
    `${tr`${'plug 3'} reads ${tr`${fixed(1.25, 2)} V`}.`} ${tr`And ${12} more.`} It rested.`,
    tr`${'7 V7.5 line'} reads ${grouped(12_345)}.`,
  ];
  const { result, said } = sayingOf(say, texts);
  expect(result).toEqual(asFor(reader(PLAIN), say));
  for (const who of [reader(COMMA), reader({ ...COMMA, language: 'de' }, GERMAN)]) {
    const again = asFor(who, () => result.map(sayerOf(said)));
    expect(again).toEqual(
      asFor(who, say).map((t) =>
        t.replace(
          'It rested.',
          asFor(who, () => word('It rested.')),
        ),
      ),
    );
  }
  expect(asFor(reader({ ...COMMA, language: 'de' }, GERMAN), () => result.map(sayerOf(said)))[0]).toBe(
    'An Kerze steht 0,6.',
  );
});

test('only what is kept is noted, with what it is made of', () => {
  const { said } = sayingOf(
    () => [tr`${tr`${1} s`} or so`, tr`${2} thrown away`],
    (all) => all.slice(0, 1),
  );
  expect(said).toEqual({ '1 s or so': ['{0} or so', '1 s'], '1 s': ['{0} s', '1'] });
});

test('words that nothing was noted of stay, but for those that the sources have', () => {
  const who = reader({ ...COMMA, language: 'de' }, GERMAN);
  expect(asFor(who, () => ['Runa said 4.5', 'plug', '4.5 V', '1,234'].map(sayerOf({})))).toEqual([
    'Runa said 4.5',
    'Kerze',
    '4,5 V',
    '1\u202f234',
  ]);
});

test('whatever is noted, saying it again comes to an end and says something', () => {
  const text = fc.string({ minLength: 1, maxLength: 6, unit: fc.constantFrom('a', ' ', '.', '1') });
  const said = fc.dictionary(text, fc.array(fc.oneof(text, fc.constant('{0} {1}')), { minLength: 1, maxLength: 3 }));
  fc.assert(
    fc.property(said, text, (all, t) => {
      const again = asFor(reader(COMMA), () => sayerOf(all)(t));
      expect(typeof again).toBe('string');
      expect(again.length).toBeLessThan(1e7);
    }),
  );
  // Sentences of two sentences of two sentences …
  const many = Object.fromEntries(Array.from({ length: 60 }, (_, i) => [`s${i}`, ['{0}'.repeat(600), `s${i + 1}`]]));
  expect(asFor(reader(COMMA), () => sayerOf(many)('s0')).length).toBeLessThan(2e7);
});

test('the search of a recording: each sentence as if the search had been made for the reader', () => {
  const values = drive(6_000, 4);
  const rail = channel(
    values.map((v, i) => (i > 2_000 && i < 2_004 ? 0.02 : i > 4_000 && i < 4_200 ? 1.234 : v)),
    { id: 'rail', name: 'rail pressure' },
  );
  const battery = channel(
    values.map((_, i) => (i < 300 ? 12.61 : i < 500 ? 9.4 + 0.3 * Math.sin(i) : 14.1)),
    { id: 'bat', name: 'battery', role: 'battery' },
  );
  const search = () => {
    const { findings, searched, summary } = searchRecording([rail, battery]);
    return [
      ...findings.flatMap((f) => f.reasons),
      ...driveEvents([rail, battery]).flatMap((e) => e.reasons),
      ...searched.flatMap((s) => s.why ?? []),
      summary,
    ];
  };
  const { result, said } = sayingOf(search, texts);
  expect(result.length).toBeGreaterThan(4);
  const words = pseudoTranslation(Object.keys(catalogue.texts));
  for (const who of [reader(COMMA), reader({ ...COMMA, language: PSEUDO }, words)])
    // A text without values is looked up where it is shown.
    expect(asFor(who, () => result.map(sayerOf(said)))).toEqual(asFor(who, () => search().map(word)));
});
