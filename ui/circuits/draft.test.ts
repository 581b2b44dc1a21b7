import { CATALOGUE } from '../../core/catalogue/catalogue';
import { CIRCUITS } from '../../core/circuits/library';
import { circuitOf, draftOf, valueKeys } from './draft';

const read = (draft: Parameters<typeof circuitOf>[0]) => circuitOf(draft, 1, CATALOGUE);
const paths = (draft: Parameters<typeof circuitOf>[0]): string[] => {
  const r = read(draft);
  return r.ok ? [] : r.error.map((p) => p.path);
};

test.each(CIRCUITS.map((c) => [c.id, c] as const))('%s: through the form and back it is the same circuit', (_, c) => {
  const back = read(draftOf(c, false));
  expect(back).toEqual({ ok: true, value: { ...c, revision: 1 } });
  const copy = read(draftOf(c, true));
  expect(copy).toMatchObject({ ok: true, value: { id: `${c.id}-own` } });
});
describe('what is wrong stands at its field', () => {
  const draft = draftOf(CIRCUITS[0]!, true);
  const [key = ''] = valueKeys(draft);
  test.each<[string, Record<string, string>, string]>([
    ['no number', { [`value ${key}`]: 'a lot' }, `/circuit/values/${key}/value`],
    ['nothing', { [`value ${key}`]: '' }, `/circuit/values/${key}/value`],
    ['below zero', { [`value ${key}`]: '-1' }, `/circuit/values/${key}/value`],
    ['a spread of 400 %', { [`spread ${key}`]: '400' }, `/circuit/values/${key}/spread`],
    ['a short name with spaces', { id: 'My Circuit' }, '/circuit/id'],
    ['no name', { name: ' ' }, '/circuit/name'],
    ['no JSON', { more: '{' }, '/circuit/more'],
    ['JSON of another kind', { more: '{"elements": 5}' }, '/circuit/elements'],
  ])('%s', (_, change, path) => expect(paths({ ...draft, ...change })).toContain(path));
  test('a comma is a decimal point, families are listed with commas', () => {
    expect(read({ ...draft, [`value ${key}`]: '12,8', families: 'L4-20, V8-61' })).toMatchObject({
      ok: true,
      value: { families: ['L4-20', 'V8-61'], values: { [key]: { value: 12.8 } } },
    });
  });
  test('names that lead nowhere are named', () => {
    const more = JSON.parse(draft.more ?? '') as { suspects: { element: string }[]; probes: { test: string }[] };
    more.suspects[0]!.element = 'nothing';
    more.probes[0]!.test = 'no-such-test';
    expect(paths({ ...draft, more: JSON.stringify(more) })).toEqual(
      expect.arrayContaining(['/circuit/suspects/0/element', '/circuit/probes/0/test']),
    );
  });
});
