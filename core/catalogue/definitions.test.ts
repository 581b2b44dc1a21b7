import type { Engine } from '../engine/layout';
import { limitsAt } from '../limits/at';
import { CATALOGUE, findTest, withOwn } from './catalogue';
import { checkDefinition } from './check';
import { positionsOf, probeAt } from './positions';
import { indexFindable, searchWords } from './search';
import type { TestDefinition } from './types';

const L4: Engine = { layout: 'inline', cylinders: 4 };
const get = (id: string): TestDefinition => findTest(id)!;
const each = CATALOGUE.map((t) => [t.id, t] as const);

test.each(each)('%s can be used as it stands', (_, t) => expect(checkDefinition(t)).toEqual([]));
test.each(each)('%s: layout and positions say the same', (_, t) => {
  const places = positionsOf(t, L4);
  expect(places.length).toBeGreaterThan(0);
  expect(t.layout === 'single').toBe(t.positions !== 'cylinders' && t.positions.length === 1);
  for (const p of places) expect(probeAt(t, p).length).toBeGreaterThan(5);
});

/** Everything of the trade that is a direct measurement or observation. */
test.each([
  'glow-plug-resistance',
  'glow-plug-through-harness',
  'glow-plug-current',
  'glow-plug-current-later',
  'glow-feed-voltage',
  'glow-supply',
  'glow-plug-heat',
  'harness-pins',
  'harness-insulation',
  'harness-wiggle',
  'pin-drag',
  'harness-visual',
  'injector-resistance',
  'injector-resistance-piezo',
  'injector-insulation',
  'injector-self-test',
  'cut-out-fault-present',
  'cut-out-healthy',
  'injector-return-flow',
  'module-input',
  'injector-module-supply',
  'module-decay',
  'module-buzz',
  'sensor-reference',
  'sensor-ground',
  'sensor-ground-load',
  'sensor-signal-rest',
  'sensor-signal-moves',
  'sensor-unplugged',
  'sensor-bypass',
  'sensor-meter-scan',
  'sensor-transfer',
  'sensor-bench',
  'position-sensor-primary',
  'position-sensor-secondary',
  'hall-supply',
  'position-sensor-tip',
  'position-sensor-gap',
  'position-sweep',
  'vane-actuator-coil',
  'actuator-position',
  'controller-pins',
  'low-side-driver',
  'fuel-shut-off',
  'battery-at-rest',
  'battery-cranking',
  'voltage-drop',
  'airflow-peak',
  'rail-full-demand',
  'supply-pressure',
  'supply-build-time',
])('the catalogue has %s', (id) => expect(findTest(id)).toBeDefined());

test('rules by system voltage exist for both', () => {
  for (const t of CATALOGUE) {
    const volts = t.rules.map((r) => r.when?.systemVoltage_V).filter((v) => v !== undefined);
    expect(volts.length === 0 || (volts.includes(12) && volts.includes(24))).toBe(true);
  }
});

/** Where each caution of the trade belongs. */
test.each([
  ['bench-heat', 'glow-plug-heat'],
  ['high-pressure-fuel', 'injector-return-flow'],
  ['high-pressure-fuel', 'rail-full-demand'],
  ['high-pressure-fuel', 'supply-pressure'],
  ['running', 'cut-out-fault-present'],
  ['road-test', 'cut-out-fault-present'],
  ['crank-only', 'battery-cranking'],
  ['five-volts', 'sensor-bypass'],
  ['no-piercing', 'harness-wiggle'],
  ['battery-gas', 'battery-at-rest'],
  ['hot-exhaust', 'vane-actuator-coil'],
  ['hot-engine', 'glow-plug-removal'],
  ['injector-voltage', 'module-buzz'],
])('%s stands at %s', (caution, id) => expect(get(id).cautions.map((c) => c.id)).toContain(caution));
test('whatever cranks or runs the engine says to keep clear', () => {
  for (const t of CATALOGUE.filter((x) => /running|cranking|each state/.test(x.condition.engine)))
    expect([t.id, t.cautions.some((c) => c.id === 'running')]).toEqual([t.id, true]);
});

describe('a definition that cannot be used', () => {
  const broken = (change: object) => checkDefinition({ ...get('harness-pins'), ...change }, '/test').map((p) => p.path);
  test.each<[object, string]>([
    [{ id: 'Harness Pins' }, '/test/id'],
    [{ unit: 'V' }, '/test/unit'],
    [{ positions: 'cylinders' }, '/test/layout'],
    [{ positions: ['a', 'a'] }, '/test/positions/1'],
    [{ positions: ['7'] }, '/test/positions/0'],
    [{ probes: { elsewhere: 'there' } }, '/test/probes/elsewhere'],
    [{ groups: { 'a/b': ['nowhere'] } }, '/test/groups/a~1b/0'],
    [{ condition: { key: 'on', engine: 'stopped' } }, '/test/condition/key'],
    [{ states: [] }, '/test/states'],
    [{ cautions: [] }, '/test/cautions'],
    [{ rules: [{ limits: { quantity: 'voltage', unit: 'V' } }] }, '/test/rules/0/limits/quantity'],
    [
      { rules: [{ limits: { quantity: 'resistance', unit: 'ohm', lower: 2, upper: 1 } }] },
      '/test/rules/0/limits/lower',
    ],
    [
      { rules: [{ limits: { quantity: 'resistance', unit: 'ohm', byPosition: { nowhere: { upper: 1 } } } }] },
      '/test/rules/0/limits/byPosition/nowhere',
    ],
  ])('%j', (change, path) => expect(broken(change)).toContain(path));
});

describe('the workshop’s own', () => {
  const own = { ...get('harness-pins'), name: 'Ours' };
  test('the same id replaces, a new one joins its area', () => {
    const all = withOwn([own, { ...own, id: 'ours-too', name: 'Another' }]);
    expect(all.find((t) => t.id === 'harness-pins')?.name).toBe('Ours');
    const ids = all.map((t) => t.id);
    expect(ids.indexOf('ours-too')).toBeLessThan(ids.indexOf('injector-resistance'));
    expect(all).toHaveLength(CATALOGUE.length + 1);
  });
  test('without own ones the order is that of the work', () => expect(withOwn([])).toEqual(CATALOGUE));
});

describe('found while typing', () => {
  const find = indexFindable(CATALOGUE.map((t) => ({ id: t.id, name: t.name, words: searchWords(t) })));
  const ids = (query: string): string[] => find(query).map((t) => t.id);
  test.each([
    ['glow cur', 'glow-plug-current'],
    ['CLAMP', 'glow-plug-current'],
    ['buzz', 'module-buzz'],
    ['raised idle', 'injector-module-supply'],
    ['piez', 'injector-resistance-piezo'],
    ['100 %', 'position-sweep'],
    ['drag', 'pin-drag'],
  ])('%s', (query, id) => expect(ids(query)).toContain(id));
  test('what has it in its name comes first', () => expect(ids('battery')[0]).toBe('battery-at-rest'));
  test('every word must begin a word', () => expect([ids('attery'), ids('glow florp')]).toEqual([[], []]));
  test('nothing typed finds all', () => expect(ids('  ')).toHaveLength(CATALOGUE.length));
});

test('a position keeps what the rule says of all', () => {
  expect(limitsAt(get('controller-pins').rules[0]!.limits, 'ground')).toMatchObject({ lower: -0.1, upper: 0.2 });
});
