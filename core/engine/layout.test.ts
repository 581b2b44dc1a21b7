import fc from 'fast-check';
import { arrange, checkEngine, describeNumbering, type Engine, sharedGroups } from './layout';

const vee = (cylinders: number, extra: Partial<Engine> = {}): Engine => ({ layout: 'vee', cylinders, ...extra });

test('an inline engine is one row, front first', () => {
  expect(arrange({ layout: 'inline', cylinders: 5 })).toEqual([{ bank: 'inline', cylinders: [1, 2, 3, 4, 5] }]);
  expect(arrange({ layout: 'inline', cylinders: 3, numbering: { from: 'flywheel' } })[0]?.cylinders).toEqual([3, 2, 1]);
});
test('vee numbering conventions', () => {
  expect(arrange(vee(8, { numbering: { scheme: 'odd-even' } })).map((r) => r.cylinders)).toEqual([
    [1, 3, 5, 7],
    [2, 4, 6, 8],
  ]);
  expect(arrange(vee(6, { numbering: { scheme: 'sequential', firstBank: 'right' } }))).toEqual([
    { bank: 'left', cylinders: [4, 5, 6] },
    { bank: 'right', cylinders: [1, 2, 3] },
  ]);
  expect(arrange(vee(4, { numbering: { scheme: 'odd-even', from: 'flywheel', firstBank: 'right' } }))).toEqual([
    { bank: 'left', cylinders: [4, 2] },
    { bank: 'right', cylinders: [3, 1] },
  ]);
});
test('the convention is said in words', () => {
  expect(describeNumbering(vee(8, { numbering: { scheme: 'odd-even' } }))).toBe('odd left, even right, from the front');
  expect(describeNumbering({ layout: 'inline', cylinders: 4, numbering: { from: 'flywheel' } })).toBe(
    'numbered from the flywheel end',
  );
});
test.each<[Engine, string]>([
  [{ layout: 'inline', cylinders: 0 }, '/cylinders'],
  [{ layout: 'inline', cylinders: 13 }, '/cylinders'],
  [{ layout: 'inline', cylinders: 2.5 }, '/cylinders'],
  [vee(2), '/cylinders'],
  [vee(7), '/cylinders'],
  [vee(18), '/cylinders'],
  [{ layout: 'inline', cylinders: 4, firingOrder: [1, 3, 4] }, '/firingOrder'],
  [{ layout: 'inline', cylinders: 4, firingOrder: [1, 3, 4, 3] }, '/firingOrder/3'],
  [{ layout: 'inline', cylinders: 4, firingOrder: [1, 3, 5, 2] }, '/firingOrder/2'],
  [{ layout: 'inline', cylinders: 4, groups: { front: [1, 9] } }, '/groups/front/1'],
  [{ layout: 'inline', cylinders: 4, groups: { 'a/b': [] } }, '/groups/a~1b'],
  [{ layout: 'inline', cylinders: 4, groups: { a: [1, 1] } }, '/groups/a/1'],
])('bad engine %j is refused at %s', (engine, path) => {
  expect(checkEngine(engine).map((p) => p.path)).toContain(path);
});
test('any valid engine shows each cylinder exactly once', () => {
  const engines = fc.record({
    layout: fc.constantFrom('inline' as const, 'vee' as const),
    half: fc.integer({ min: 2, max: 6 }),
    scheme: fc.constantFrom('sequential' as const, 'odd-even' as const),
    from: fc.constantFrom('front' as const, 'flywheel' as const),
    firstBank: fc.constantFrom('left' as const, 'right' as const),
  });
  fc.assert(
    fc.property(engines, ({ layout, half, ...numbering }) => {
      const engine: Engine = { layout, cylinders: half * 2, numbering };
      expect(checkEngine(engine)).toEqual([]);
      const shown = arrange(engine).flatMap((r) => r.cylinders);
      expect(shown.toSorted((a, b) => a - b)).toEqual(Array.from({ length: half * 2 }, (_, i) => i + 1));
    }),
  );
});
test('banks are groups only where the numbering is stated; own groups come first', () => {
  expect([...sharedGroups(vee(8)).keys()]).toEqual([]);
  expect([...sharedGroups(vee(8, { numbering: { scheme: 'odd-even' }, groups: { fuse: [1, 3] } })).keys()]).toEqual([
    'fuse',
    'left bank',
    'right bank',
  ]);
});
