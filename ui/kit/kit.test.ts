import fc from 'fast-check';
import { asFor, PLAIN } from '../../core/locale/locale';
import { DraftReader, numberShown } from './draft';
import { showRefusal } from './form-errors';
import { readNumber } from './read-number';
import { shownTime } from './time';

test.each<[string, number | undefined]>([
  ['8120', 8120],
  ['8 120', 8120],
  ['8,120', 8120],
  ['1,234,567', 1234567],
  ['12,5', 12.5],
  ['12.5', 12.5],
  [' 7 ', 7],
  ['-3', -3],
  ['', undefined],
  ['abc', undefined],
  ['1.2.3', undefined],
  ['12h', undefined],
  ['1e5', undefined],
  ['0,125', 0.125],
  ['1234,567', 1234.567],
  ['1 234.5', 1234.5],
])('"%s" is %s', (text, number) => expect(readNumber(text)).toBe(number));

test.each<[string, number | undefined]>([
  ['8.120', 8120],
  ['8,120', 8.12],
  ['1.234.567,8', 1234567.8],
  ['1 234,5', 1234.5],
  ['12.50', 12.5],
  ['0.125', 0.125],
  ['1,2,3', undefined],
])('to whoever reads a comma "%s" is %s', (text, number) =>
  expect(asFor({ locale: { ...PLAIN, decimal: 'comma' }, words: null }, () => readNumber(text))).toBe(number),
);

test.each([
  ['point', '1,250', ['"1,250" can be read in two ways: write 1250 or 1.250.']],
  ['point', '0,125', 0.125],
  ['point', '1.250', 1.25],
  ['comma', '1.250', ['"1.250" can be read in two ways: write 1250 or 1,250.']],
  ['comma', '1,250', 1.25],
  ['comma', '1.25', 1.25],
] as const)('a field of a form, for whoever reads a %s: "%s" is %j', (decimal, typed, expected) => {
  const read = new DraftReader({ a: typed });
  const value = asFor({ locale: { ...PLAIN, decimal }, words: null }, () => read.number('a', '/a'));
  expect(value ?? read.problems.map((p) => p.message)).toEqual(expected);
});

test('what a form shows it reads again, whatever mark the reader has', () => {
  for (const decimal of ['point', 'comma'] as const)
    asFor({ locale: { ...PLAIN, decimal }, words: null }, () => {
      fc.assert(
        fc.property(
          fc.double({ min: -1e6, max: 1e6, noNaN: true }).map((x) => Number(x.toPrecision(6))),
          (x) => {
            const read = new DraftReader({ a: numberShown(x) });
            expect([read.number('a', '/a'), read.problems]).toEqual([x === 0 ? 0 : x, []]);
          },
        ),
      );
    });
});

test('times are shown in the depot’s zone', () => {
  expect(shownTime('2026-07-01T23:30:00Z', 'Etc/UTC')).toBe('1 Jul 2026, 23:30');
  expect(shownTime('2026-07-01T23:30:00Z', 'Etc/GMT-2')).toBe('2 Jul 2026, 01:30');
});

describe('a refusal on a form', () => {
  const fields = ['code', 'firingOrder'] as const;
  const shown = (failure: Parameters<typeof showRefusal>[0]) => {
    const errors: Record<string, string | undefined> = {};
    showRefusal<{ code: string; firingOrder: string }>(
      failure,
      (field, error) => {
        errors[field] = error.message;
      },
      [...fields],
    );
    return errors;
  };
  const refused = (path: string) =>
    shown({
      kind: 'refused',
      problem: { type: '', title: 't', status: 422, detail: '', errors: [{ path, message: 'm' }] },
    });
  test('stands at its field, wherever that lies in the document', () => {
    expect(refused('/code')).toEqual({ code: 'm' });
    expect(refused('/engine/firingOrder/3')).toEqual({ firingOrder: 'm' });
  });
  test('stands above the button where it belongs to no field', () =>
    expect(refused('/depotId')).toEqual({ root: 'm' }));
  test('says that nothing is lost when there is no server', () =>
    expect(shown({ kind: 'unreachable' }).root).toMatch(/still here/));
});
