import fc from 'fast-check';
import { QUANTITIES } from '../quantity/units';
import { beginTest, idFrom } from './beginning';
import { checkDefinition } from './check';

const ASKED = {
  name: 'Gate connector, pin by pin',
  area: 'Harness',
  part: 'gate wire',
  quantity: 'resistance',
  layout: 'pins',
  positions: ['pin A', 'pin B'],
  probe: 'Between each pin and the frame.',
  proves: 'Tells a broken gate wire from a broken switch.',
} as const;

test.each(QUANTITIES)('a test of %s that was only named is sound', (quantity) => {
  const made = beginTest({ ...ASKED, quantity }, new Set());
  expect(checkDefinition(made)).toEqual([]);
  expect(made).toMatchObject({ id: 'gate-connector-pin-by-pin', purpose: ASKED.proves });
});

test('a test of every cylinder names no places', () => {
  expect(checkDefinition(beginTest({ ...ASKED, layout: 'cylinders', positions: ['x'] }, new Set()))).toEqual([]);
});

test('whatever it is called, its id is one, and is free', () => {
  const taken = new Set(['test', 'plug', 'plug-2']);
  expect(idFrom('Plug', taken)).toBe('plug-3');
  expect(idFrom('???', taken)).toBe('test-2');
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme', maxLength: 120 }), (name) => {
      const id = idFrom(name, taken);
      expect(taken.has(id)).toBe(false);
      expect(checkDefinition({ ...beginTest({ ...ASKED, name }, taken) }).filter((p) => p.path === '/id')).toEqual([]);
    }),
  );
});
