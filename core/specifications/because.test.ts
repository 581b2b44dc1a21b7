import fc from 'fast-check';
import catalogue from '../../words/catalogue.json';
import { asFor, PLAIN, type Reader } from '../locale/locale';
import { PSEUDO, pseudo, pseudoTranslation } from '../locale/pseudo';
import { appliedBy, because, becauseForReader } from './because';
import { SCOPES, type Situation, type Specification } from './types';

const OTHER: Reader = {
  locale: { ...PLAIN, language: PSEUDO },
  words: pseudoTranslation(Object.keys(catalogue.texts)),
};
const schools = fc.option(
  fc.oneof(fc.string({ maxLength: 12 }), fc.constantFrom('tight”; of the house rule “wide', 'a.\nb', 'loose')),
);

test('why limits were chosen is kept in plain words, whoever began the run, and said again to each reader', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...SCOPES),
      fc.nat(3),
      schools,
      schools,
      fc.boolean(),
      (scope, met, school, other, isOther) => {
        const specification = { scope, school } as Specification;
        const situation = { school: isOther ? other : school } as Situation;
        const kept = because(specification, situation, met);
        expect(asFor(OTHER, () => because(specification, situation, met))).toBe(kept);
        expect(becauseForReader(kept)).toBe(kept);
        const said = asFor(OTHER, () => becauseForReader(kept));
        // The name of a house rule is a person's, and stands in both.
        const named = school === null ? [] : [school];
        expect(named.every((name) => said.includes(`“${name}”`) || OTHER.words?.[name.trim()])).toBe(true);
        const without = (text: string): string => named.reduce((t, name) => t.replaceAll(`“${name}”`, '“”'), text);
        if (!named.some((name) => OTHER.words?.[name.trim()])) expect(without(said)).not.toMatch(/[a-z]{3}/);
      },
    ),
  );
});

test.each([
  [
    'It is a general rule: nothing more exact is on the shelf.',
    pseudo('It is a general rule: nothing more exact is on the shelf.'),
  ],
  [
    'It is this depot’s own rule; 2 of its conditions are met.',
    pseudo('It is this depot’s own rule; 2 of its conditions are met.'),
  ],
  [appliedBy('J. Brandt'), `${pseudo('Applied by ')}J. Brandt.`],
  ['Somebody wrote this by hand.', 'Somebody wrote this by hand.'],
  ['', ''],
])('"%s" to another reader', (kept, said) => {
  expect(asFor(OTHER, () => becauseForReader(kept))).toBe(said);
});
