import type { Engine } from '../engine/layout';
import { CATALOGUE, findTest } from './catalogue';
import { inOrder, positionsOf } from './positions';

const V4: Engine = { layout: 'vee', cylinders: 4 };
const at = (...positions: (number | string)[]) => positions.map((position) => ({ position }));

test('a test of cylinders has those of the engine', () => {
  expect(positionsOf(findTest('glow-plug-current')!, V4)).toEqual([1, 2, 3, 4]);
});
test('a test of states has its own, whatever the engine', () => {
  expect(positionsOf(findTest('injector-module-supply')!, V4)).toEqual([
    'key on',
    'self-test buzz',
    'cranking',
    'idle',
    'raised idle (cold)',
  ]);
});
test('cylinders stand in number order, states as the test lists them', () => {
  expect(inOrder(findTest('glow-plug-current'), at(10, 2, 1)).map((r) => r.position)).toEqual([1, 2, 10]);
  expect(inOrder(findTest('injector-module-supply'), at('idle', 'key on', 'cranking')).map((r) => r.position)).toEqual([
    'key on',
    'cranking',
    'idle',
  ]);
});
test('a test that nobody knows keeps the order it came in', () => {
  expect(inOrder(findTest('florp'), at('b', 'a')).map((r) => r.position)).toEqual(['b', 'a']);
});
test('energy comes first', () => expect(CATALOGUE[0]?.area).toBe('Energy first'));
test('names of places are there once in a test, and none looks like a cylinder', () => {
  for (const t of CATALOGUE) {
    if (t.positions === 'cylinders') continue;
    expect(new Set(t.positions).size).toBe(t.positions.length);
    for (const p of t.positions) expect(p).not.toMatch(/^\d+$|,/);
  }
});
test('whatever carries injector voltage says so before the step', () => {
  for (const t of CATALOGUE.filter((x) => /injector/i.test(x.area)))
    expect(t.cautions.map((c) => c.id)).toContain('injector-voltage');
});
test('whatever can make a plug glow warns of starting fluid', () => {
  for (const t of CATALOGUE.filter((x) => x.area === 'Glow plugs'))
    expect(t.cautions.map((c) => c.id)).toContain('no-starting-fluid');
});
