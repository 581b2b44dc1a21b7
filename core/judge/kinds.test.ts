import { findTest } from '../catalogue/catalogue';
import type { Instrument } from '../metrology/instrument';
import { budgetOf } from './budget';
import { judgeShipped } from './shipped';
import { findSlip } from './slip';
import type { Judgement, Limits, ReadingIn, TestSet } from './types';
import { reasonWords } from './words';

/**
 * Every kind of position: pins, states, a sweep, before and after, what is only seen. Check values are common
 * practice, no source.
 */
const METER: Instrument = {
  kind: 'multimeter',
  leadZero_ohm: 0.2,
  leadZeroResolution_ohm: 0.1,
  accuracy: [{ quantity: 'resistance', upTo: 200, percentOfReading: 0.8, counts: 3, resolution: 0.1 }],
};
const named = (entries: Readonly<Record<string, string>>): ReadingIn[] =>
  Object.entries(entries).map(([position, entry]) => ({ position, entry }));

function judge(limits: Limits, readings: readonly ReadingIn[], more: Partial<TestSet> = {}): Judgement {
  const judged = judgeShipped({
    test: 'x',
    engine: null,
    condition: {},
    instrument: null,
    limits,
    readings,
    positions: readings.map((r) => r.position),
    ...more,
  });
  if (!judged.ok) throw new Error(JSON.stringify(judged.error));
  return judged.value;
}
const verdicts = (j: Judgement) => Object.fromEntries(j.readings.map((r) => [r.position, r.verdict]));
const says = (j: Judgement, position: number | string): string => {
  const r = j.readings.find((x) => x.position === position);
  return r ? r.reasons.map((x) => reasonWords(x, j.limits, r.resolution)).join(' ') : '';
};
const test_ = (id: string) => findTest(id)!;
const ruleOf = (id: string, volts?: number): Limits =>
  test_(id).rules.find((r) => r.when?.systemVoltage_V === volts)!.limits;

describe('a table of pins', () => {
  const pins = test_('controller-pins');
  const good = {
    battery: '12.4',
    'switched battery': '12.3',
    'switched battery (key off)': '0.01',
    ignition: '12.3',
    ground: '0.02',
    '5 V reference': '5.01',
    'driver (off)': '12.3',
  };
  test('each pin against its own limits', () => {
    expect(judge(ruleOf('controller-pins', 12), named(good), { definition: pins })).toMatchObject({
      pattern: 'good',
      summary: 'All 7 are inside their limits.',
    });
  });
  test('all feeds and nothing else: what they share', () => {
    const j = judge(
      ruleOf('controller-pins', 12),
      named({ ...good, battery: '9.1', 'switched battery': '9.0', ignition: '9.0' }),
      { definition: pins },
    );
    expect(j).toMatchObject({
      pattern: 'group',
      group: 'feeds',
      suspects: ['battery', 'switched battery', 'ignition'],
    });
    expect(j.advice[0]).toMatch(/master switch, main fuse/);
    expect(j.proven.join(' ')).toMatch(/"feeds" shares is not proven/);
  });
  test('a reading that is fine for one pin fails at another', () => {
    const j = judge(ruleOf('controller-pins', 12), named({ ...good, ground: '12.3' }), { definition: pins });
    expect(verdicts(j)).toMatchObject({ ground: 'high', battery: 'within' });
    expect(j.readings.find((r) => r.position === 'ground')?.limits).toEqual({ lower: -0.1, upper: 0.2 });
  });
});

describe('engine states', () => {
  const limits = ruleOf('battery-cranking', 12);
  test('cranking has its own limit, and what fails only there is said', () => {
    const j = judge(limits, named({ 'at rest': '12.7', cranking: '8.9', after: '12.6' }), {
      definition: test_('battery-cranking'),
    });
    expect(verdicts(j)).toEqual({ 'at rest': 'within', cranking: 'low', after: 'within' });
    expect(j.proven[0]).toMatch(/fails only at cranking and holds at at rest and after/);
  });
  test('a hard state that was not read leaves it open', () => {
    const j = judge(ruleOf('injector-module-supply'), named({ 'key on': '48.2' }), {
      definition: test_('injector-module-supply'),
      positions: ['key on', 'cranking'],
    });
    expect(j.pattern).toBe('incomplete');
    expect(j.advice[0]).toMatch(/stays a suspect/);
  });
});

describe('a sweep', () => {
  const limits = ruleOf('position-sweep');
  const sweep = (...entries: string[]) =>
    judge(
      limits,
      entries.map((entry, i) => ({ position: `${i * 20} %`, entry })),
      { definition: test_('position-sweep') },
    );
  test('smooth and rising', () => expect(sweep('0.52', '1.38', '2.20', '3.05', '3.85', '4.61').pattern).toBe('good'));
  test('a dip is found, and the next is held against what came before it', () => {
    const j = sweep('0.52', '1.38', '2.20', '1.95', '3.85', '4.61');
    expect(verdicts(j)).toMatchObject({ '40 %': 'within', '60 %': 'unsteady', '80 %': 'within' });
    expect(says(j, '60 %')).toMatch(/falls from 2.20 V at 40 % to 1.95 V: it should only rise/);
  });
  test('a jump is found', () =>
    expect(verdicts(sweep('0.52', '1.38', '2.20', '3.60', '4.0', '4.61'))).toMatchObject({ '60 %': 'unsteady' }));
  test('one step of the digits back is no dip', () =>
    expect(sweep('0.52', '1.38', '1.37', '2.5', '3.5', '4.61').suspects).toEqual([]));
  test('one that falls from stop to stop is as good as one that rises', () =>
    expect(sweep('4.84', '3.97', '3.10', '2.24', '1.37', '0.50').pattern).toBe('good'));
  test('too little from stop to stop', () => {
    const j = sweep('1.1', '1.6', '2.20', '3.05', '3.85', '4.0');
    expect(verdicts(j)).toMatchObject({ '0 %': 'failed', '100 %': 'failed' });
    expect(says(j, '0 %')).toMatch(/changes by 2.9\d? V in all, where at least 3.4 V is asked/);
  });
  test('what should move and stands still is not inside its limits', () => {
    const moves = ['before', 'with stimulus'];
    const read = (a: string, b: string) =>
      judge(ruleOf('sensor-signal-moves'), named({ [moves[0]!]: a, [moves[1]!]: b }), {
        definition: test_('sensor-signal-moves'),
        positions: moves,
      });
    expect(verdicts(read('0.91', '0.91'))).toEqual({ before: 'failed', 'with stimulus': 'failed' });
    expect(read('0.91', '1.62').pattern).toBe('good');
    // Half of it proves nothing.
    expect(read('0.91', '-').pattern).toBe('incomplete');
  });
  test('near 5 V the ground is asked for, a little above the usual it is not', () => {
    const rest = (entry: string) =>
      judge(ruleOf('sensor-signal-rest'), named({ 'gauge or difference type': entry }), {
        definition: test_('sensor-signal-rest'),
      });
    expect(rest('4.9').advice.join(' ')).toMatch(/is the ground open/);
    expect(rest('0.8').advice.join(' ')).not.toMatch(/is the ground open/);
    expect(verdicts(rest('0.8'))).toEqual({ 'gauge or difference type': 'recheck' });
  });
  test('an actuator that stands where it is, whatever is asked, is stuck', () => {
    const at = ['0 %', '25 %', '50 %', '75 %', '100 %'];
    const read = (...entries: string[]) =>
      judge(
        ruleOf('actuator-position'),
        at.map((position, i) => ({ position, entry: entries[i] ?? '-' })),
        { definition: test_('actuator-position'), positions: at },
      );
    const stuck = read('88', '88', '88', '88', '88');
    expect(stuck.advice.join(' ')).toMatch(/the mechanism is stuck/);
    expect(read('1', '26', '49', '74', '99').pattern).toBe('good');
    expect(verdicts(read('8', '33', '58', '83', '108'))).toMatchObject({ '25 %': 'high', '75 %': 'high' });
  });
  test('a decay that rises', () => {
    const j = judge(ruleOf('module-decay'), named({ 'at key off': '47', '10 s': '30', '30 s': '33', '60 s': '4' }), {
      definition: test_('module-decay'),
    });
    expect(verdicts(j)).toMatchObject({ '30 s': 'unsteady', '60 s': 'within' });
  });
});

describe('what is only seen', () => {
  const limits: Limits = { quantity: 'observation', unit: 'seen' };
  test('passed and failed, with the note', () => {
    const j = judge(
      limits,
      [1, 2, 3].map((position) => ({ position, entry: position === 2 ? 'f no click' : 'p' })),
      { definition: test_('injector-self-test') },
    );
    expect(j).toMatchObject({
      pattern: 'one',
      suspects: [2],
      summary: 'Cylinder 2 failed (no click); 1 and 3 passed.',
    });
    expect(j.proven[0]).toBe(
      'Cylinders 1 and 3 work, so module, its supply and the common wire are proven as far as they go together.',
    );
    expect(says(j, 2)).toBe('Failed as seen: no click');
  });
  test('all', () => {
    const j = judge(
      limits,
      [1, 2].map((position) => ({ position, entry: 'f' })),
      { definition: test_('injector-self-test') },
    );
    expect(j.summary).toBe('Not one passed: 1 and 2 failed.');
    expect(j.proven[0]).toMatch(/^Nothing they share is proven/);
  });
});

describe('against a gauge', () => {
  const limits: Limits = {
    quantity: 'voltage',
    unit: 'V',
    transfer: {
      kind: 'ratiometric',
      stimulus: { quantity: 'pressure', unit: 'kPa' },
      supply_V: 5,
      low: { at: 0, ratio: 0.1 },
      high: { at: 250, ratio: 0.9 },
    },
    tolerance: { absolute: 0.1 },
  };
  test('each reading against what its own pressure predicts', () => {
    const j = judge(limits, named({ low: '1.14 @ 40 kPa', high: '1.70 @ 1.8 bar' }));
    expect(verdicts(j)).toEqual({ low: 'within', high: 'low' });
    expect(says(j, 'high')).toContain('At 180 kPa the sensor should show 3.38 V; 3.28 V to 3.48 V is allowed.');
  });
  test('outside the function nothing is said', () =>
    expect(verdicts(judge(limits, named({ high: '4.9 @ 400 kPa' })))).toEqual({ high: 'undecided' }));
  test('the digits of the gauge are part of the uncertainty', () => {
    const u = (entry: string): number => judge(limits, named({ here: entry })).readings[0]?.standardUncertainty ?? 0;
    expect(u('2.100 @ 1.0 bar')).toBeGreaterThan(5 * u('2.100 @ 100.0 kPa'));
  });
});

test('a hand that timed in vain', () => {
  const j = judge(
    ruleOf('glow-plug-heat'),
    [1, 2].map((position) => ({ position, entry: position === 1 ? '4' : 'OL' })),
  );
  expect(verdicts(j)).toEqual({ 1: 'within', 2: 'high' });
  expect(says(j, 2)).toBe('It did not come at all.');
});

describe('temperature', () => {
  const copper: Limits = { quantity: 'resistance', unit: 'ohm', lower: 95, upper: 105, material: 'copper' };
  test('hot copper is brought to its reference; the doubt about the temperature counts', () => {
    const hot = judge(copper, [{ position: 'coil', entry: '131.4' }], { condition: { partTemperature_degC: 100 } })
      .readings[0]!;
    expect(hot.corrected).toBeCloseTo(131.4 / (1 + 0.00393 * 80), 9);
    expect(hot.verdict).toBe('within');
    const cold = judge(copper, [{ position: 'coil', entry: '131.4' }]).readings[0]!;
    expect(cold.verdict).toBe('high');
    expect(hot.standardUncertainty).toBeGreaterThan(3 * (cold.standardUncertainty ?? 0));
  });
  test('one that was read hot among cold ones is corrected by its own temperature, and flagged', () => {
    const j = judge(
      copper,
      [
        { position: 1, entry: '97' },
        { position: 2, entry: '98' },
        { position: 3, entry: '116 @ 65' },
      ],
      { condition: { partTemperature_degC: 15 } },
    );
    expect(j.readings[2]?.corrected).toBeCloseTo(116 / (1 + 0.00393 * 45), 9);
    expect(says(j, 3)).toContain('Read at 65 °C, the others at 15 °C');
    expect(j.advice.join(' ')).toContain('Hot and cold parts stand in one set');
  });
  test('a temperature at which the law ends is refused at its reading', () => {
    const judged = judgeShipped({
      test: 'x',
      engine: null,
      condition: {},
      instrument: null,
      limits: { ...copper, temperatureCoefficient_perK: 0.01 },
      readings: [{ position: 1, entry: '97 @ -150' }],
    });
    expect(judged).toMatchObject({ ok: false, error: [{ path: '/readings/0/entry' }] });
  });
});

describe('repeats', () => {
  const limits: Limits = { quantity: 'resistance', unit: 'ohm', upper: 2, steadyWithin: 0.1 };
  test('a part does not change from reading to reading, a contact does', () => {
    const j = judge(limits, [
      { position: 1, entry: '0.6', earlier: ['1.4', '0.9'] },
      { position: 2, entry: '0.7', earlier: ['0.7'] },
    ]);
    expect(verdicts(j)).toEqual({ 1: 'recheck', 2: 'within' });
    expect(says(j, 1)).toContain('Read again it showed 1.4, 0.9 and 0.6');
    expect(j.advice[0]).toMatch(/is a contact: clean it/);
  });
  test('a fail stays a fail', () =>
    expect(verdicts(judge(limits, [{ position: 1, entry: '5.0', earlier: ['9.0'] }]))).toEqual({ 1: 'high' }));
});

describe('another meter in the middle of a set', () => {
  const limits: Limits = { quantity: 'resistance', unit: 'ohm', lower: 0.3, upper: 1 };
  const fine: Instrument = {
    kind: 'multimeter',
    leadZero_ohm: 0.05,
    leadZeroResolution_ohm: 0.01,
    accuracy: [{ quantity: 'resistance', upTo: 60, percentOfReading: 0.4, counts: 3, resolution: 0.01 }],
  };
  test('each reading with its own leads and accuracy', () => {
    const j = judge(
      limits,
      [
        { position: 1, entry: '0.8' },
        { position: 2, entry: '0.65', instrument: fine },
      ],
      { instrument: METER },
    );
    expect(j.readings.map((r) => r.corrected)).toEqual([expect.closeTo(0.6, 9), expect.closeTo(0.6, 9)]);
    expect(j.readings[0]?.standardUncertainty).toBeGreaterThan(5 * (j.readings[1]?.standardUncertainty ?? 1));
  });
  test('its errors are named at the reading', () => {
    const judged = judgeShipped({
      test: 'x',
      engine: null,
      condition: {},
      instrument: null,
      limits,
      readings: [{ position: 1, entry: '0.8', instrument: { ...METER, leadZero_ohm: -1 } }],
    });
    expect(judged).toMatchObject({ ok: false, error: [{ path: '/readings/0/instrument/leadZero' }] });
  });
});

describe('how the workshop accepts', () => {
  const limits: Limits = { quantity: 'resistance', unit: 'ohm', lower: 0.3, upper: 1 };
  const at = (entry: string, decision: TestSet['decision']) =>
    judge(limits, [{ position: 1, entry }], { instrument: METER, decision }).readings[0]!;
  test.each(['1.2', '0.5'])(
    'on the limit (%s with leads of 0.2): three-way cannot tell, simple accepts, guarded does not',
    (entry) => {
      expect(at(entry, 'three-way').verdict).toBe('undecided');
      expect(at(entry, 'simple').verdict).toBe('within');
      expect(at(entry, 'guarded').verdict).toBe(entry === '1.2' ? 'high' : 'low');
      expect(at(entry, 'guarded').reasons[0]).toMatchObject({ rule: 'not-proven', asked: 0.95 });
    },
  );
  test('well inside and well outside they agree', () => {
    for (const decision of ['three-way', 'simple', 'guarded'] as const)
      expect([at('0.8', decision).verdict, at('3.0', decision).verdict]).toEqual(['within', 'high']);
  });
  test.each<[Instrument, string, string, string]>([
    [METER, 'glow-plug-resistance', '1.2', 'current-instead'],
    [METER, 'harness-ring-out', '1.2', 'four-wire'],
    [
      {
        ...METER,
        accuracy: [
          { quantity: 'resistance', upTo: 60, percentOfReading: 0.4, counts: 3, resolution: 0.01 },
          ...METER.accuracy,
        ],
      },
      'harness-ring-out',
      '1.2',
      'more-digits',
    ],
  ])('what would decide it', (instrument, id, entry, remedy) => {
    const j = judge(limits, [{ position: 1, entry }], { instrument, definition: test_(id) });
    expect(j.readings[0]?.reasons[0]).toMatchObject({ rule: 'cannot-tell', remedy });
  });
});

test('the budget names where the uncertainty comes from, and adds up to it', () => {
  const set: TestSet = {
    test: 'x',
    engine: null,
    condition: { partTemperature_degC: 60 },
    instrument: { ...METER, leadRepeatability_ohm: 0.02 },
    limits: { quantity: 'resistance', unit: 'ohm', upper: 10, material: 'copper' },
    readings: [{ position: 1, entry: '5.0' }],
  };
  const judged = judgeShipped(set);
  const lines = budgetOf(set, 1);
  expect(lines.map((l) => l.from).toSorted()).toEqual(['contact', 'digits', 'gain', 'leadZero', 'temperature']);
  expect(Math.hypot(...lines.map((l) => l.standardUncertainty))).toBeCloseTo(
    judged.ok ? (judged.value.readings[0]?.standardUncertainty ?? NaN) : NaN,
    12,
  );
  expect(lines.reduce((sum, l) => sum + l.share, 0)).toBeCloseTo(1, 12);
  expect(budgetOf(set, 9)).toEqual([]);
});

describe('a slip of the prefix', () => {
  const plug: Limits = { quantity: 'resistance', unit: 'ohm', lower: 0.3, upper: 1 };
  const slip = (entry: string, limits: Limits = plug, others: string[] = []) =>
    findSlip(
      entry,
      9,
      limits,
      others.length
        ? judge(
            limits,
            others.map((e, i) => ({ position: i + 1, entry: e })),
          ).readings
        : [],
    );
  test('a thousand times outside, inside without it', () => {
    expect(slip('700')).toMatchObject({ meant: expect.closeTo(0.7, 9) as number, factor: 1e-3, because: 'channel' });
    expect(slip('0.7k')).toMatchObject({ typed: 700, meant: expect.closeTo(0.7, 9) as number });
    expect(slip('70', { ...plug, lower: 60e3, upper: 86e3 })).toMatchObject({ meant: 70e3, factor: 1e3 });
  });
  const ground: Limits = { quantity: 'voltage', unit: 'V', lower: 0, upper: 0.05 };
  const boosted: Limits = { quantity: 'voltage', unit: 'V', lower: 46, upper: 50 };
  const cranking: Limits = { quantity: 'current', unit: 'A', lower: 200, upper: 900 };
  const percent: Limits = { quantity: 'ratio', unit: '%', lower: 0, upper: 100 };
  test.each([
    ['11.5', ground, 'battery', 11.5],
    ['27.9', { ...ground, unit: 'mV', upper: 50 }, null, null],
    ['12 V', { ...ground, unit: 'mV', upper: 50 }, 'battery', 12_000],
    ['478', boosted, 'point', 47.8],
    ['-550', cranking, 'turned', 550],
    ['700', percent, null, null],
  ])('%s: what is asked is %s', (entry, limits, because, meant) => {
    const found = slip(entry, limits);
    expect(found?.because ?? null).toBe(because);
    if (meant !== null) expect(found?.meant).toBeCloseTo(meant, 6);
  });
  test('level with the neighbours, where the limit has one side only', () => {
    expect(slip('1.1k', { quantity: 'resistance', unit: 'ohm', upper: 2 }, ['1.0', '1.2', '1.1'])).toMatchObject({
      because: 'neighbours',
    });
  });
  test.each(['0.7', '201', '4k5', 'OL', '0.4~0.9', '0', 'florp'])('%s is none', (entry) =>
    expect(slip(entry)).toBeNull(),
  );
});

test('groups of a file reach pins, and a set with no good member is said to have none', () => {
  const limits: Limits = { quantity: 'resistance', unit: 'ohm', upper: 2 };
  const j = judge(limits, named({ 'pin 1': 'OL', 'pin 2': '0.4', 'pin 3': '9k', 'pin 4': '0.5' }), {
    groups: { 'front bracket': ['pin 1', 'pin 3'] },
  });
  expect(j).toMatchObject({ pattern: 'group', group: 'front bracket' });
  expect(judge(limits, named({ a: 'OL', b: '9k' }))).toMatchObject({
    pattern: 'all',
    summary: expect.stringMatching(/^Not one is in/) as string,
  });
});
