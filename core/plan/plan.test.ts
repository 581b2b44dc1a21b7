import { CATALOGUE } from '../catalogue/catalogue';
import type { Known, Statement } from '../evidence/types';
import { isCold, makePlan } from './plan';
import type { PlanInputs } from './types';

// The order of the work is common practice, no source.

const NOTHING: Known = { statements: [], contradictions: [] };
const plan = (more: Partial<PlanInputs> = {}) =>
  makePlan({
    tests: CATALOGUE,
    areas: [],
    complaint: '',
    conditions: [],
    done: [],
    known: NOTHING,
    before: [],
    changes: [],
    ...more,
  });
const todo = (more: Partial<PlanInputs> = {}) =>
  plan(more)
    .steps.filter((s) => s.state === 'to do')
    .map((s) => s.test);
const known = (...statements: Partial<Statement>[]): Known => ({
  contradictions: [],
  statements: statements.map((s): Statement => ({
    rule: 'measured',
    stand: 'suspect',
    target: { kind: 'part', name: 'plug', position: 3 },
    text: 'x',
    from: [{ kind: 'run', id: 'r', label: 'Glow plugs' }],
    ...s,
  })),
});

test('energy first, whatever the complaint', () => {
  expect(todo()[0]).toBe('battery-at-rest');
  expect(todo({ complaint: 'Misfires', areas: ['Injectors'] })[0]).toBe('battery-at-rest');
  expect(todo({ complaint: 'Slow to start' }).slice(0, 2)).toEqual(['battery-at-rest', 'battery-cranking']);
});
test('codes before complaint, cheap before dear, tests of a running engine last', () => {
  const steps = todo({ areas: ['Sensors'], complaint: 'No power' });
  expect(steps.indexOf('sensor-reference')).toBeLessThan(steps.indexOf('vane-actuator-coil'));
  expect(steps.slice(-2).sort()).toEqual(['airflow-peak', 'rail-full-demand']);
});
test('cold tests before what warms the engine', () => {
  const steps = plan({ areas: ['Injectors', 'Glow plugs'] })
    .steps.filter((s) => s.state === 'to do')
    .map((s) => CATALOGUE.find((t) => t.id === s.test));
  const lastCold = steps.findLastIndex((t) => t !== undefined && isCold(t));
  const firstRunning = steps.findIndex((t) => t?.condition.engine === 'running');
  expect([lastCold >= 0, firstRunning > lastCold]).toEqual([true, true]);
});
test('what shares an opened cover or a second person says so, and total minutes add up', () => {
  const { steps, minutes } = plan({ conditions: ['wet'], areas: ['Air and fuel'] });
  expect(steps.map((s) => s.with)).toEqual(
    expect.arrayContaining(['cover already open', 'second person already there']),
  );
  expect(minutes).toBe(steps.filter((s) => s.state === 'to do').reduce((sum, s) => sum + s.minutes, 0));
});
test('it recomputes as results come in: a suspect in its circuit asks for the part by itself first', () => {
  const before = todo({ complaint: 'Rough when cold' });
  const after = todo({
    complaint: 'Rough when cold',
    done: [{ test: 'glow-plug-current', pattern: 'one' }],
    known: known({}),
  });
  expect(before).toContain('glow-plug-current');
  expect(after).not.toContain('glow-plug-current');
  expect(after.slice(1, 3).sort()).toEqual(['glow-plug-resistance', 'glow-plug-through-harness']);
});
test('a module too low: its input side first', () =>
  expect(
    todo({ known: known({ target: { kind: 'part', name: 'module', position: null } }), areas: ['Injector module'] })[1],
  ).toBe('module-input'));
test('all dead: what they share', () =>
  expect(
    todo({
      known: known({
        rule: 'all-fail',
        target: { kind: 'shared', name: 'feed, relay or control unit, fuse and ground', position: null },
      }),
    }),
  ).toEqual(expect.arrayContaining(['glow-supply', 'glow-feed-voltage'])));
test('what is proven is not measured again', () => {
  const proven = known({
    stand: 'cleared',
    rule: 'shared-proven',
    target: { kind: 'shared', name: 'feed, relay or control unit, fuse and ground', position: null },
  });
  expect(todo({ areas: ['Glow plugs'], known: proven, changes: [] })).not.toContain('glow-supply');
});
test('once something is convicted, its area is not searched on', () =>
  expect(todo({ areas: ['Glow plugs'], known: known({ stand: 'bad', rule: 'bare-part' }) })).toEqual([
    'battery-at-rest',
    'glow-plug-through-harness',
  ]));
test('what found a fault on this unit before is planned again', () =>
  expect(plan({ before: ['harness-ring-out'] }).steps.find((s) => s.test === 'harness-ring-out')?.why).toContain(
    'before',
  ));

describe('what a person changes stays changed', () => {
  const base = { areas: ['Sensors'] };
  test('skip with a reason, and back', () => {
    const skipped = plan({ ...base, changes: [{ kind: 'skip', test: 'sensor-ground', because: 'No access' }] });
    expect(skipped.steps.find((s) => s.test === 'sensor-ground')).toMatchObject({
      state: 'skipped',
      because: 'No access',
    });
    expect(skipped.minutes).toBe(plan(base).minutes - 2);
    expect(
      todo({
        ...base,
        changes: [
          { kind: 'skip', test: 'sensor-ground', because: 'x' },
          { kind: 'unskip', test: 'sensor-ground' },
        ],
      }),
    ).toEqual(todo(base));
  });
  test('moved before another, or last; a move of what is not there does nothing', () => {
    const [first = '', second = ''] = todo(base);
    expect(todo({ ...base, changes: [{ kind: 'move', test: second, before: first }] }).slice(0, 2)).toEqual([
      second,
      first,
    ]);
    expect(todo({ ...base, changes: [{ kind: 'move', test: first, before: null }] }).at(-1)).toBe(first);
    expect(
      todo({
        ...base,
        changes: [
          { kind: 'move', test: 'florp', before: first },
          { kind: 'move', test: first, before: 'florp' },
          { kind: 'move', test: first, before: first },
        ],
      }),
    ).toEqual(todo(base));
  });
  test('added', () => expect(todo({ changes: [{ kind: 'add', test: 'glow-plug-heat' }] })).toContain('glow-plug-heat'));
});
test('of two tests that cost the same time, the one that uses nothing up goes first', () => {
  const [template] = CATALOGUE.filter((t) => t.id === 'sensor-reference');
  if (!template) throw new Error('no template');
  const [plain, dear] = [
    { ...template, id: 'own-plain' },
    { ...template, id: 'own-dear', uses: [{ what: 'a sealing washer', worth_min: 4 }] },
  ];
  const added = {
    changes: [
      { kind: 'add' as const, test: 'own-dear' },
      { kind: 'add' as const, test: 'own-plain' },
    ],
  };
  const ours = (tests: readonly (typeof plain)[]): string[] =>
    todo({ tests: [...CATALOGUE, ...tests], ...added }).filter((id) => id.startsWith('own-'));
  expect(ours([dear, plain])).toEqual(['own-plain', 'own-dear']);
  expect(ours([plain, dear])).toEqual(['own-plain', 'own-dear']);
  expect(ours([{ ...dear, uses: [] }, plain])).toEqual(['own-dear', 'own-plain']);
});
test('a workshop’s own test is planned where it says so', () => {
  const [template] = CATALOGUE.filter((t) => t.id === 'harness-visual');
  if (!template) throw new Error('no template');
  const own = { ...template, id: 'own-look', area: 'Sensors' };
  expect(todo({ tests: [...CATALOGUE, own], areas: ['Sensors'] })).not.toContain('own-look');
  expect(todo({ tests: [...CATALOGUE, { ...own, firstLine: true }], areas: ['Sensors'] })).toContain('own-look');
});
