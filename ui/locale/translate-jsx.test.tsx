import { renderToStaticMarkup } from 'react-dom/server';
import type { ReactNode } from 'react';
import { asFor, type Locale, PLAIN, type Translation } from '../../core/locale/locale';
import { partsOf } from './translate-jsx';

const WORDS: Translation = {
  'Press {0} to save {1} readings': '{1} Messungen speichern: {0} drücken',
  '{0} of {1} read': '{0} von {1} gelesen',
  Close: 'Schließen',
  Name: 'Name der Person',
  'Leave depot {0} out': 'Depot {0} weglassen',
};
/** Drawn for a reader: elements are made while they read. */
const drawn = (make: () => ReactNode, words: Translation | null = WORDS, locale: Partial<Locale> = {}): string =>
  asFor({ locale: { ...PLAIN, language: 'de', ...locale }, words }, () => renderToStaticMarkup(make()));

const Button = ({ children, label }: { children: ReactNode; label?: string }) => (
  <button aria-label={label}>{children}</button>
);

test('a sentence with elements and values in it is one text, in another order', () => {
  const n = 8;
  expect(
    drawn(() => (
      <p>
        Press <b>Enter</b> to save {n} readings
      </p>
    )),
  ).toBe('<p>8 Messungen speichern: <b>Enter</b> drücken</p>');
});
test('values that are words themselves do not hide the sentence', () => {
  const [a, b] = ['Close', 'eight'];
  expect(
    drawn(() => (
      <p>
        {a} of {b} read
      </p>
    )),
  ).toBe('<p>Schließen von eight gelesen</p>');
});
test('a sentence that a component gets', () => {
  const i = 2;
  expect(drawn(() => <Button label="Close">Leave depot {i} out</Button>)).toBe(
    '<button aria-label="Schließen">Depot 2 weglassen</button>',
  );
});
test('attributes that people read, and no others', () =>
  expect(drawn(() => <input placeholder="Name" name="Name" defaultValue="Name" />)).toBe(
    '<input placeholder="Name der Person" name="Name" value="Name"/>',
  ));
test('code is nobody’s language', () => expect(drawn(() => <code>Close</code>)).toBe('<code>Close</code>'));
test('an option is chosen by what stands in the sources', () =>
  expect(
    drawn(() => (
      <select>
        <option>Close</option>
      </select>
    )),
  ).toBe('<select><option value="Close">Schließen</option></select>'));
test('what is not in the catalogue stays', () =>
  expect(drawn(() => <p>Behind the mill</p>)).toBe('<p>Behind the mill</p>'));
test('numbers get the mark of the reader, in English too', () => {
  const value = 0.4;
  expect(drawn(() => <p>{value} V</p>, null, { decimal: 'comma' })).toBe('<p>0,4 V</p>');
  expect(drawn(() => <p>{value} V</p>, null)).toBe('<p>0.4 V</p>');
});
test('parts of a text', () => expect(partsOf('Press {0} to save')).toEqual(['Press ', null, ' to save']));
