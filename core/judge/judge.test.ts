import fc from 'fast-check';
import type { Engine } from '../engine/layout';
import type { Instrument } from '../metrology/instrument';
import { judgeShipped } from './shipped';
import type { Condition, Judgement, Limits, TestSet, Verdict } from './types';
import { reasonWords } from './words';

/** Check values are common practice, no source: plugs good from 0.3 to 1.0 ohm, open above 10 kilohm. */
const PLUG: Limits = {
  quantity: 'resistance',
  unit: 'ohm',
  lower: 0.3,
  upper: 1,
  watchUpper: 0.9,
  shortBelow: 0.05,
  openAbove: 10000,
  steadyWithin: 0.05,
  neighbours: { maxRatio: 2 },
  source: 'common practice',
};
const METER: Instrument = {
  kind: 'multimeter',
  leadZero_ohm: 0.2,
  leadZeroResolution_ohm: 0.1,
  accuracy: [{ quantity: 'resistance', upTo: 200, percentOfReading: 0.8, counts: 3, resolution: 0.1 }],
};
const inline = (cylinders: number, groups?: Engine['groups']): Engine => ({ layout: 'inline', cylinders, groups });

interface Options {
  limits?: Limits;
  instrument?: Instrument | null;
  engine?: Engine | null;
  condition?: Condition;
}

function setOf(entries: readonly string[] | Readonly<Record<string, string>>, options: Options = {}): TestSet {
  const readings = Array.isArray(entries)
    ? (entries as string[]).map((entry, i) => ({ position: i + 1, entry }))
    : Object.entries(entries).map(([position, entry]) => ({ position, entry }));
  return {
    test: 'glow-plug-resistance',
    engine: options.engine === undefined ? inline(Math.max(1, readings.length)) : options.engine,
    condition: options.condition ?? { connection: 'at-part' },
    instrument: options.instrument === undefined ? METER : options.instrument,
    limits: options.limits ?? PLUG,
    readings,
  };
}
function judge(entries: readonly string[] | Readonly<Record<string, string>>, options: Options = {}): Judgement {
  const judged = judgeShipped(setOf(entries, options));
  if (!judged.ok) throw new Error(JSON.stringify(judged.error));
  return judged.value;
}
const verdicts = (j: Judgement): Verdict[] => j.readings.map((r) => r.verdict);
const one = (entry: string, options: Options = {}) =>
  judge({ probe: entry }, { engine: null, ...options }).readings[0]!;
const errorsOf = (entries: readonly string[], options: Options = {}) => {
  const judged = judgeShipped(setOf(entries, options));
  return judged.ok ? [] : judged.error.map((e) => e.path);
};

describe('one reading', () => {
  test.each<[string, Verdict]>([
    ['0.6', 'within'],
    ['1.1', 'within'],
    ['201', 'high'],
    ['4k5', 'high'],
    ['20k', 'open'],
    ['OL', 'open'],
    ['>20M', 'open'],
    ['>200', 'high'],
    ['0.2', 'short'],
    ['0', 'short'],
    ['', 'not-measured'],
    ['0.4~0.9', 'unsteady'],
    ['0.6~OL', 'unsteady'],
  ])('a plug of %s is %s', (entry, verdict) => expect(one(entry).verdict).toBe(verdict));

  test('the lead zero is subtracted and said', () => {
    const r = one('0.6');
    expect(r.corrected).toBeCloseTo(0.4, 12);
    expect(r.reasons).toContainEqual({ rule: 'lead-zero-subtracted', leadZero_ohm: 0.2 });
  });
  test('a reading below the leads alone asks for a new zero', () => {
    expect(one('0.0').reasons).toContainEqual({ rule: 'below-lead-zero', leadZero_ohm: 0.2 });
  });
  test('limits are inclusive, arithmetic on decimals notwithstanding', () => {
    const limits: Limits = { quantity: 'voltage', unit: 'V', lower: 4.75, upper: 5.25 };
    const at = (entry: string) => one(entry, { limits, instrument: null }).verdict;
    expect(['4.74', '4.75', '5.25', '5.26'].map(at)).toEqual(['low', 'within', 'within', 'high']);
    const zeroed = { ...METER, accuracy: [] };
    expect(one('1.20', { instrument: zeroed, limits: { ...PLUG, watchUpper: undefined } }).verdict).toBe('within');
    // 1.1 - 0.2 = 0.9000000000000001, watch above 0.9
    expect(one('1.1', { instrument: zeroed }).verdict).toBe('within');
  });
  test('inside but not liked: 45 V is the limit of the module supply, below 46 V is watched', () => {
    const limits: Limits = { quantity: 'voltage', unit: 'V', lower: 45, watchLower: 46, upper: 55 };
    const at = (entry: string) => one(entry, { limits, instrument: null }).verdict;
    expect(['44.9', '45.0', '45.9', '46.0', '48.2'].map(at)).toEqual(['low', 'watch', 'watch', 'within', 'within']);
  });
  test('order of magnitude: 97.8 k against 60 to 86 k checks the meter first, ohms are short, megohms open', () => {
    const limits: Limits = {
      quantity: 'resistance',
      unit: 'ohm',
      lower: 60e3,
      upper: 86e3,
      recheckMargin: 0.2,
      shortBelow: 1000,
      openAbove: 1e6,
    };
    const at = (entry: string) => one(entry, { limits }).verdict;
    expect(['97.8k', '103.2k', '103.3k', '48k', '47k', '75k', '12', '3M', 'OL'].map(at)).toEqual([
      'recheck',
      'recheck',
      'high',
      'recheck',
      'low',
      'within',
      'short',
      'open',
      'open',
    ]);
  });
  test('limits in kilohm take a bare entry in kilohm and a prefixed one as it says', () => {
    const limits: Limits = { quantity: 'resistance', unit: 'kohm', lower: 60, upper: 86 };
    expect(one('75.0', { limits }).corrected).toBeCloseTo(75, 2);
    expect(one('75.0k', { limits }).verdict).toBe('within');
    expect(one('75.0 ohm', { limits }).verdict).toBe('low');
  });
  test('insulation asks for at least: overload is good', () => {
    const limits: Limits = { quantity: 'resistance', unit: 'Mohm', lower: 10 };
    expect(one('OL', { limits }).verdict).toBe('within');
    expect(one('>20M', { limits }).verdict).toBe('within');
    expect(one('>5M', { limits }).verdict).toBe('undecided');
    expect(one('2M', { limits }).verdict).toBe('low');
  });
  test('overload where volts are read is the wrong range, not a fault', () => {
    expect(one('OL', { limits: { quantity: 'voltage', unit: 'V', lower: 11, upper: 15 } }).verdict).toBe('recheck');
  });
  test('hot copper is brought to 20 degC: 1.19 ohm at 70 degC is 0.9946 ohm (IEC 60028)', () => {
    const limits: Limits = {
      ...PLUG,
      steadyWithin: undefined,
      watchUpper: undefined,
      temperatureCoefficient_perK: 0.00393,
      referenceTemperature_degC: 20,
    };
    const options = { limits, instrument: null };
    const hot = one('1.190', { ...options, condition: { partTemperature_degC: 70 } });
    expect(hot.corrected).toBeCloseTo(1.19 / 1.1965, 9);
    expect(hot.verdict).toBe('within');
    const unknown = one('1.190', options);
    expect(unknown.verdict).toBe('high');
    expect(unknown.reasons.map((r) => r.rule)).toContain('temperature-unknown');
  });
  test('a wander up to what is allowed is judged by its middle', () => {
    const r = one('0.60~0.64');
    expect(r.verdict).toBe('within');
    expect(r.reasons.map((x) => x.rule)).toContain('steady');
    expect(one('0.7~0.8', { limits: { ...PLUG, steadyWithin: undefined } }).verdict).toBe('within');
    expect(one('0.5~0.7', { limits: { ...PLUG, steadyWithin: undefined } }).verdict).toBe('unsteady');
  });
});

describe('what the meter cannot tell', () => {
  test('at the limit, with the accuracy known', () => {
    const r = one('1.2');
    expect(r.verdict).toBe('undecided');
    expect(r.probabilityWithin).toBeCloseTo(0.5, 2);
    expect(r.reasons[0]).toMatchObject({ rule: 'cannot-tell', limit: 1, remedy: 'current-instead' });
  });
  test('digits too coarse for the limit', () => {
    const limits: Limits = { quantity: 'voltage', unit: 'V', lower: 4.75, upper: 5.25 };
    expect(one('5', { limits, instrument: null }).reasons[0]).toMatchObject({
      rule: 'cannot-tell',
      remedy: 'more-digits',
    });
    expect(one('5.0', { limits, instrument: null }).verdict).toBe('within');
  });
  test('leads that nobody zeroed may be what is too much; they cannot make a good reading of a bad plug', () => {
    const instrument = { ...METER, leadZero_ohm: null };
    const high = one('1.3', { instrument });
    expect(high.verdict).toBe('undecided');
    expect(high.reasons[0]).toMatchObject({ rule: 'cannot-tell', remedy: 'zero-leads' });
    expect(one('2.0', { instrument }).verdict).toBe('high');
    expect(one('0.8', { instrument: { ...instrument, accuracy: [] } }).verdict).toBe('within');
  });
});

describe('a set', () => {
  test('good', () =>
    expect(judge(['0.6', '0.7', '0.6', '0.8'])).toMatchObject({
      pattern: 'good',
      suspects: [],
      group: null,
      summary: 'All 4 are inside 0.3 to 1.0 Ω.',
    }));
  test('one', () =>
    expect(judge(['0.6', 'OL', '0.6', '0.8'])).toMatchObject({
      pattern: 'one',
      suspects: [2],
      summary: 'Cylinder 2 is open; 1, 3 and 4 are in.',
    }));
  test('mostly bad: the limit convicts, not the company', () => {
    const j = judge(['201', 'OL', '0.6', '3.4', '1k2']);
    expect(j).toMatchObject({ pattern: 'some', suspects: [1, 2, 4, 5] });
    expect(j.readings[2]?.verdict).toBe('within');
    expect(j.advice.join(' ')).toMatch(/Most of the set is bad/);
  });
  test('all', () => expect(judge(['OL', 'OL', '201']).pattern).toBe('all'));
  test('a bank of a vee, all and only its members', () => {
    const engine: Engine = { layout: 'vee', cylinders: 8, numbering: { scheme: 'odd-even' } };
    const bank = ['0.6', 'OL', '0.6', 'OL', '0.7', 'OL', '0.6', 'OL'];
    expect(judge(bank, { engine })).toMatchObject({ pattern: 'group', group: 'right bank', suspects: [2, 4, 6, 8] });
    expect(judge(bank.with(0, 'OL'), { engine })).toMatchObject({ pattern: 'some', group: null });
    expect(judge(bank.with(7, '0.6'), { engine })).toMatchObject({ pattern: 'some', group: null });
  });
  test('a named group', () => {
    expect(judge(['OL', '9.9', '0.6', '0.6'], { engine: inline(4, { 'harness-front': [1, 2] }) })).toMatchObject({
      pattern: 'group',
      group: 'harness-front',
    });
  });
  test('missing cylinders are named and the suspects so far too', () => {
    const j = judge(['0.6', 'OL'], { engine: inline(4) });
    expect(j).toMatchObject({ pattern: 'incomplete', suspects: [2] });
    expect(j.readings.map((r) => [r.position, r.verdict])).toEqual([
      [1, 'within'],
      [2, 'open'],
      [3, 'not-measured'],
      [4, 'not-measured'],
    ]);
  });
  test('nobody to blame, but not everything can be told', () => {
    expect(judge(['0.6', '1.2', '0.7', '0.6'])).toMatchObject({ pattern: 'undecided', suspects: [] });
  });
  test('odd one out only among the good', () => {
    expect(verdicts(judge(['0.60', '1.05', '0.60', '0.62']))).toEqual(['within', 'odd', 'within', 'within']);
    expect(judge(['0.60', '1.05', '0.60', '0.62']).readings[1]?.reasons[0]).toMatchObject({
      rule: 'neighbours',
      among: [1, 3, 4],
    });
    expect(verdicts(judge(['201', '300', '0.60', '250']))).toEqual(['high', 'high', 'within', 'high']);
  });
  test('a split set has no odd one', () => {
    const limits: Limits = { ...PLUG, lower: 0.1, watchUpper: undefined };
    expect(verdicts(judge(['0.40', '0.40', '1.05', '1.05'], { limits }))).toEqual([
      'within',
      'within',
      'within',
      'within',
    ]);
  });
  test('a spread in amperes, common practice: about 3 A between plugs', () => {
    const limits: Limits = { quantity: 'current', unit: 'A', lower: 5, upper: 25, neighbours: { maxDifference: 3 } };
    expect(verdicts(judge(['14.0', '14.2', '10.1', '14.1'], { limits, instrument: null }))).toEqual([
      'within',
      'within',
      'odd',
      'within',
    ]);
  });
  test('engine states as positions', () => {
    const limits: Limits = { quantity: 'voltage', unit: 'V', lower: 45, watchLower: 46, upper: 60 };
    const j = judge({ 'key-on': '48.1', cranking: '43.0', idle: '47.5' }, { engine: null, limits, instrument: null });
    expect(j).toMatchObject({ pattern: 'one', suspects: ['cranking'] });
  });
});

describe('input that is wrong names its place', () => {
  test.each<[string, readonly string[], Options, string]>([
    ['lower above upper', ['1'], { limits: { ...PLUG, lower: 2 } }, '/limits/lower'],
    ['NaN limit', ['1'], { limits: { ...PLUG, upper: NaN } }, '/limits/upper'],
    ['unknown unit', ['1'], { limits: { ...PLUG, unit: 'florp' } }, '/limits/unit'],
    ['unit of another quantity', ['1'], { limits: { ...PLUG, unit: 'V' } }, '/limits/unit'],
    ['ratio of one', ['1'], { limits: { ...PLUG, neighbours: { maxRatio: 1 } } }, '/limits/neighbours/maxRatio'],
    ['a cylinder too many', ['1', '1', '1'], { engine: inline(2) }, '/readings/2/position'],
    ['unreadable', ['0.6', 'abc'], {}, '/readings/1/entry'],
    ['wrong quantity', ['12 V'], {}, '/readings/0/entry'],
    ['negative lead zero', ['1'], { instrument: { ...METER, leadZero_ohm: -1 } }, '/instrument/leadZero'],
    ['impossible temperature', ['1'], { condition: { partTemperature_degC: -300 } }, '/condition/partTemperature_degC'],
  ])('%s', (_, entries, options, path) => expect(errorsOf(entries, options)).toContain(path));
  test('a position read twice', () => {
    const set = setOf(['1', '1']);
    const judged = judgeShipped({
      ...set,
      readings: [
        { position: 1, entry: '1' },
        { position: 1, entry: '2' },
      ],
    });
    expect(judged).toMatchObject({ ok: false, error: [{ path: '/readings/1/position' }] });
  });
});

describe('properties', () => {
  const entry = fc.oneof(
    fc.constantFrom('OL', '', '0.4~0.9', '>20M', '0.6~OL', '4k5'),
    fc.double({ min: 0, max: 1000, noNaN: true }).map((x) => x.toFixed(1)),
  );
  const set = fc.array(entry, { minLength: 1, maxLength: 12 });

  test('same set, same judgement; every verdict has a reason that makes a sentence', () => {
    fc.assert(
      fc.property(set, (entries) => {
        const j = judge(entries);
        expect(judge(entries)).toEqual(j);
        for (const r of j.readings) {
          expect(r.reasons.length).toBeGreaterThan(0);
          for (const reason of r.reasons) expect(reasonWords(reason, PLUG, r.resolution)).toMatch(/[.:]$|[.]/);
        }
      }),
    );
  });
  test('company never turns a reading outside its limits into a good one, and adding cylinders changes no absolute verdict', () => {
    fc.assert(
      fc.property(set, (entries) => {
        const j = judge(entries);
        for (const [i, r] of j.readings.entries()) {
          const alone = one(entries[i] as string).verdict;
          if (r.verdict !== alone) expect([alone, r.verdict]).toEqual([expect.stringMatching(/within|watch/), 'odd']);
        }
      }),
    );
  });
  test('the order of the readings does not matter', () => {
    fc.assert(
      fc.property(set, fc.infiniteStream(fc.nat()), (entries, keys) => {
        const base = setOf(entries);
        const shuffled = base.readings
          .map((r) => ({ r, k: keys.next().value as number }))
          .toSorted((a, b) => a.k - b.k)
          .map((x) => x.r);
        const [a, b] = [judgeShipped(base), judgeShipped({ ...base, readings: shuffled })];
        if (!a.ok || !b.ok) throw new Error('not judged');
        expect(b.value.pattern).toBe(a.value.pattern);
        expect(
          [...b.value.readings].toSorted((x, y) => Number(x.position) - Number(y.position)).map((r) => r.verdict),
        ).toEqual(verdicts(a.value));
      }),
    );
  });
});

describe('a position that was read again', () => {
  const repeat = (limits: Limits, earlier: string[], entry: string, more: Partial<TestSet> = {}) => {
    const judged = judgeShipped({
      test: 'x',
      engine: null,
      condition: {},
      instrument: null,
      limits,
      readings: [{ position: 1, entry, earlier }],
      ...more,
    });
    if (!judged.ok) throw new Error(JSON.stringify(judged.error));
    const [r] = judged.value.readings;
    return r?.reasons.some((x) => x.rule === 'repeats-differ');
  };
  const CLAMP: Instrument = {
    kind: 'clamp',
    leadZero_ohm: null,
    leadZeroResolution_ohm: 0,
    accuracy: [],
    clamp_mVperA: 10,
  };
  const AMPERES: Limits = { quantity: 'current', unit: 'A', lower: 5, upper: 20 };

  test.each<[string, Limits, string[], string, boolean]>([
    ['with and without its unit', { quantity: 'pressure', unit: 'psi', lower: 25, upper: 40 }, ['30'], '30 psi', false],
    ['in two units', { quantity: 'pressure', unit: 'kPa', lower: 100, upper: 300 }, ['2 bar'], '200', false],
    [
      'far apart, limits in millivolts',
      { quantity: 'voltage', unit: 'mV', upper: 200, steadyWithin: 20 },
      ['190 mV'],
      '50 mV',
      true,
    ],
    ['far apart, bare digits', { quantity: 'voltage', unit: 'mV', upper: 200, steadyWithin: 20 }, ['190'], '50', true],
    [
      'two steps of the coarser digits apart',
      { quantity: 'resistance', unit: 'ohm', upper: 1 },
      ['0.6'],
      '0.75',
      false,
    ],
    ['open once', { quantity: 'resistance', unit: 'ohm', upper: 1 }, ['OL'], '0.6', true],
    ['beyond the range both times', { quantity: 'resistance', unit: 'ohm', lower: 1e6 }, ['>20M'], '>20M', false],
    ['wandering once', { quantity: 'resistance', unit: 'ohm', upper: 1 }, ['0.4~0.9'], '0.6', true],
  ])('%s', (_, limits, earlier, entry, differs) => expect(repeat(limits, earlier, entry)).toBe(differs));

  test('through a clamp the same voltage twice is the same current', () => {
    expect(repeat(AMPERES, ['85 mV'], '85 mV', { instrument: CLAMP })).toBe(false);
    expect(repeat(AMPERES, ['85 mV'], '8.5', { instrument: CLAMP })).toBe(false);
    expect(repeat(AMPERES, ['85 mV'], '120 mV', { instrument: CLAMP })).toBe(true);
  });
  test('against a gauge it is the distance from what was predicted that counts', () => {
    const gauge: Limits = {
      quantity: 'voltage',
      unit: 'V',
      transfer: {
        kind: 'ratiometric',
        stimulus: { quantity: 'pressure', unit: 'kPa' },
        supply_V: 5,
        low: { at: 0, ratio: 0.1 },
        high: { at: 400, ratio: 0.9 },
      },
      tolerance: { absolute: 0.1 },
    };
    expect(repeat(gauge, ['1.5 @ 100'], '2.5 @ 200')).toBe(false);
    expect(repeat(gauge, ['1.9 @ 100'], '2.5 @ 200')).toBe(true);
  });
});
