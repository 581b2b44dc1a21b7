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
])('"%s" is %s', (text, number) => expect(readNumber(text)).toBe(number));

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
