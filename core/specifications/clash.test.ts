import { differences, findClashes } from './clash';
import type { Specification } from './types';

const spec = (more: Partial<Specification> = {}): Specification => ({
  id: 'a',
  series: 'a',
  revision: 1,
  test: 't',
  scope: 'family',
  of: 'L4',
  when: {},
  school: null,
  limits: { quantity: 'resistance', unit: 'ohm', upper: 1 },
  source: 'sheet 1',
  status: 'approved',
  ...more,
});
const kinds = (incoming: Specification, ...there: Specification[]) => findClashes(incoming, there).map((c) => c.kind);

test('the next revision of its own series is shown with what changes', () => {
  const [clash] = findClashes(
    spec({ limits: { quantity: 'resistance', unit: 'ohm', upper: 1.5, lower: 0.3 }, source: 'sheet 2' }),
    [spec()],
  );
  expect(clash).toMatchObject({
    kind: 'revision',
    differs: [
      { field: 'upper', there: 1, here: 1.5 },
      { field: 'lower', there: null, here: 0.3 },
      { field: 'source', there: 'sheet 1', here: 'sheet 2' },
    ],
  });
});
test('the same again is no change', () => expect(kinds(spec(), spec())).toEqual(['same']));
test('exactly the same condition in another series clashes', () =>
  expect(kinds(spec({ series: 'b', source: 'other' }), spec())).toEqual(['clash']));
test('conditions that can hold together overlap', () => {
  expect(
    kinds(spec({ series: 'b', when: { toTemperature_degC: 40 } }), spec({ when: { fromTemperature_degC: 30 } })),
  ).toEqual(['overlap']);
  expect(
    kinds(spec({ series: 'b', when: { toTemperature_degC: 20 } }), spec({ when: { fromTemperature_degC: 30 } })),
  ).toEqual([]);
  expect(kinds(spec({ series: 'b', when: { key: 'on' } }), spec({ when: { key: 'off' } }))).toEqual([]);
});
test('another school, part, test or what is off the shelf does not clash', () => {
  expect(
    kinds(
      spec({ series: 'b', school: 'strict' }),
      spec(),
      spec({ of: 'V8' }),
      spec({ test: 'u' }),
      spec({ school: 'strict', status: 'withdrawn' }),
    ),
  ).toEqual([]);
});
test('the order of keys is no difference', () => {
  expect(differences(spec({ limits: { unit: 'ohm', upper: 1, quantity: 'resistance' } }), spec())).toEqual([]);
});
