import { CATALOGUE } from '../catalogue/catalogue';
import type { Known, Statement } from '../evidence/types';
import { isCold, makePlan } from './plan';
import type { PlanInputs } from './types';

// The order of the work is common practice, no source.

const NOTHING: Known = { statements: [], contradictions: [], doubts: [], mended: [] };
const INPUTS: PlanInputs = {
  tests: CATALOGUE,
  areas: [],
  complaint: '',
  conditions: [],
  done: [],
  known: NOTHING,
  before: [],
  changes: [],
};
const plan = (more: Partial<PlanInputs> = {}) =>
  makePlan({
    ...INPUTS,
    // The order of all of them.
    most: 99,
    ...more,
  });
const todo = (more: Partial<PlanInputs> = {}) =>
  plan(more)
    .steps.filter((s) => s.state === 'to do')
    .map((s) => s.test);
const known = (...statements: Partial<Statement>[]): Known => ({
  contradictions: [],
  doubts: [],
  mended: [],
  statements: statements.map((s): Statement => ({
    rule: 'measured',
    stand: 'suspect',
    target: { kind: 'part', name: 'plug', position: 3 },
    text: 'x',
    from: [{ kind: 'run', id: 'r', label: 'Glow plugs' }],
    ...s,
  })),
});

test('five at most, each with its reason; what a person added or moved stays', () => {
  const areas = ['Sensors', 'Injectors', 'Glow plugs'];
  const own = (more: Partial<PlanInputs>) => makePlan({ ...INPUTS, areas, ...more }).steps;
  expect(own({})).toHaveLength(5);
  expect(own({}).every((s) => s.why !== '')).toBe(true);
  const added = own({ changes: [{ kind: 'add', test: 'fuel-shut-off-click' }] });
  expect(added.map((s) => s.test)).toContain('fuel-shut-off-click');
  expect(added).toHaveLength(5);
});
test.each([
  ['The boosted supply of the injector module is low', ['Sensors', 'Actuators']],
  ['Fault code when reading pressure of the tyres', ['Sensors']],
])('no bare word brings tests in: %s', (complaint, areas) =>
  expect(plan({ complaint }).steps.filter((s) => areas.includes(s.area))).toEqual([]),
);

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
test('what a measurement leaves in doubt is settled first, in the run that was begun', () => {
  const doubt = { run: 'r7', test: 'glow-plug-resistance', kind: 'meter', say: 'Prove the meter first.' } as const;
  const done = [{ test: 'glow-plug-resistance', pattern: 'all' }] as const;
  const [first] = plan({ known: { ...NOTHING, doubts: [doubt] }, done }).steps;
  expect(first).toMatchObject({ test: 'glow-plug-resistance', state: 'to do', why: doubt.say, run: 'r7' });
  expect(plan({ done }).steps.find((s) => s.test === 'glow-plug-resistance')?.state).toBe('done');
});
test('solenoid or piezo is known once one of them was tested, in this job or before', () => {
  const ids = (more: Partial<PlanInputs>): string[] => todo({ areas: ['Injectors'], ...more });
  expect(ids({})).toContain('injector-resistance');
  expect(ids({ done: [{ test: 'injector-resistance-piezo', pattern: 'good' }] })).not.toContain('injector-resistance');
  expect(ids({ doneBefore: ['injector-resistance-piezo'] })).not.toContain('injector-resistance');
  expect(ids({ doneBefore: ['injector-resistance-piezo'] })).toContain('injector-resistance-piezo');
  expect(ids({ doneBefore: ['injector-resistance'] })).toContain('injector-resistance');
});

test('several injectors with codes at once: the loom first; one alone: the injectors', () => {
  const first = (codedInjectors: number[]) =>
    todo({ areas: ['Injectors', 'Harness'], codedInjectors }).filter((id) => id !== 'battery-at-rest')[0];
  expect(first([2, 4, 5])).toMatch(/^harness/);
  expect(first([4])).toMatch(/^injector/);
  expect(first([4, 4])).toMatch(/^injector/);
});
test('what was begun is gone on with, what is complete is not', () => {
  const of = (pattern: 'incomplete' | 'good') =>
    plan({ areas: ['Injectors'], done: [{ test: 'injector-resistance', pattern, run: 'r1' }] }).steps.find(
      (s) => s.test === 'injector-resistance',
    );
  expect(of('incomplete')).toMatchObject({ state: 'to do', run: 'r1' });
  expect(of('good')?.run).toBeUndefined();
});

describe('what is fitted', () => {
  const areas = ['Injectors'];
  const ids = (more: Partial<PlanInputs>) => todo({ areas, ...more });
  test('is asked once, where tests want different kinds of it and nobody knows', () => {
    expect(plan({ areas }).asks).toEqual([{ kind: 'injector', options: ['solenoid', 'piezo'] }]);
    expect(plan({ areas: ['Glow plugs'] }).asks).toEqual([]);
    expect(plan({ areas, fitted: { injector: 'piezo' } }).asks).toEqual([]);
    expect(plan({ areas, doneBefore: ['injector-resistance'] }).asks).toEqual([]);
  });
  test('chooses among the tests: a piezo engine is asked for no solenoid', () => {
    expect(ids({ fitted: { injector: 'piezo' } })).toContain('injector-resistance-piezo');
    expect(ids({ fitted: { injector: 'piezo' } })).not.toContain('injector-resistance');
    expect(ids({ fitted: { injector: 'solenoid' } })).toContain('injector-resistance');
  });
});

test('what is doubted goes first whatever was moved, at its own run, and says why', () => {
  const known = {
    ...INPUTS.known,
    doubts: [{ run: 'r1', test: 'injector-resistance', kind: 'meter' as const, say: 'Prove the meter first.' }],
  };
  const done = [{ test: 'injector-resistance', pattern: 'one' as const, run: 'r1' }];
  const moved = [{ kind: 'move' as const, test: 'injector-self-test', before: 'injector-resistance' }];
  const [first] = plan({ areas: ['Injectors'], known, done, changes: moved }).steps;
  expect(first).toMatchObject({ test: 'injector-resistance', run: 'r1', doubt: 'Prove the meter first.' });
});
test('a fault that comes and goes is waited for by a logger, however much else there is, for as long as its rate asks for', () => {
  const steps = (more: Partial<PlanInputs>) =>
    makePlan({ ...INPUTS, complaint: 'Cuts out, misfires, low power', areas: ['Sensors', 'Injectors'], ...more }).steps;
  const log = (more: Partial<PlanInputs>) => steps(more).find((s) => s.test === 'pins-log');
  expect(log({})).toBeUndefined();
  expect(log({ conditions: ['intermittent'] })?.why).toContain('Say in the intake how often');
  expect(log({ conditions: ['intermittent'], shown: { times: 3, hours: 2 } })?.why).toContain('record for 3 h');
  expect(steps({ conditions: ['intermittent'] })).toHaveLength(5);
});
