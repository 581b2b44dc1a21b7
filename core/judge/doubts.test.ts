import { judgeShipped } from './shipped';
import type { Judgement, TestSet } from './types';
import { ok } from '../foundation/result';

const METER = { kind: 'multimeter', leadZero_ohm: 0.2, leadZeroResolution_ohm: 0.1, accuracy: [] } as const;
const RULE = { quantity: 'resistance', unit: 'ohm', lower: 0.6, upper: 0.8, status: 'rule-of-thumb' } as const;
const FROM_THE_SHELF = { ...RULE, status: 'approved' } as const;

function judge(entries: readonly string[], more: Partial<TestSet> = {}): Judgement {
  const result = judgeShipped({
    test: 'glow-plug-resistance',
    engine: null,
    condition: {},
    instrument: METER,
    limits: FROM_THE_SHELF,
    readings: entries.map((entry, i) => ({ position: i + 1, entry })),
    ...more,
  });
  if (!result.ok) throw new Error(JSON.stringify(result.error));
  expect(result).toEqual(ok(result.value));
  return result.value;
}
const kinds = (j: Judgement) => j.doubts?.map((d) => d.kind);
const verdicts = (j: Judgement) => j.readings.map((r) => r.verdict);

describe('leads', () => {
  const UNZEROED = { instrument: { ...METER, leadZero_ohm: null } };
  test('what leads could have made is doubted, in a sentence that comes first', () => {
    expect(kinds(judge(['0.5', '0.7', '0.7', '0.7'], UNZEROED))).toEqual(['leads']);
    const j = judge(['0.9', '1.1', '0.9', '0.7'], UNZEROED);
    expect(kinds(j)).toEqual(['leads']);
    expect(j.advice[0]).toMatch(/^Zero the leads first/);
  });
  test('what no lead explains is not', () => {
    const j = judge(['0.7', '201', 'OL', '0.7'], UNZEROED);
    expect(kinds(j)).toEqual([]);
    expect(j.advice.join(' ')).toContain('They explain none of what is out');
  });
  test('less than the leads alone is', () =>
    expect(kinds(judge(['0.2', '1.2', '1.2', '1.2'], { instrument: { ...METER, leadZero_ohm: 0.5 } }))).toContain(
      'leads',
    ));
});

describe('the meter', () => {
  test('is doubted where all of a set is open, until somebody has proven it', () => {
    const all = ['OL', 'OL', 'OL', 'OL'];
    expect(judge(all).doubts).toMatchObject([{ kind: 'meter', positions: [1, 2, 3, 4] }]);
    expect(kinds(judge(all, { isMeterProven: true }))).toEqual([]);
  });
  test('is not where one reading shows that it is alive', () =>
    expect(kinds(judge(['OL', 'OL', '0.9', 'OL']))).toEqual([]));
  test('is where nothing but 0 V was read, and is not beside a reading that is alive', () => {
    const volts = { test: 'glow-plug-supply', limits: { quantity: 'voltage', unit: 'V', lower: 10 } } as const;
    expect(kinds(judge(['0.0', '0.02'], volts))).toEqual(['meter']);
    expect(kinds(judge(['0.0', '11.9'], volts))).toEqual([]);
    expect(kinds(judge(['4.1', '3.9'], volts))).toEqual([]);
  });
});

describe('a general rule of thumb', () => {
  const thumb = { limits: RULE } as const;
  test('is doubted where most agree beyond it; the odd one leads', () => {
    const j = judge(['7.5', '1.3', '1.3', '1.1'], thumb);
    expect(verdicts(j)).toEqual(['high', 'watch', 'watch', 'watch']);
    expect(j.suspects).toEqual([1]);
    expect(j.doubts).toMatchObject([{ kind: 'limit', positions: [2, 3, 4] }]);
    expect(j.doubts?.[0]?.say).toMatch(/agree at about 1\.1 Ω.*is the limit of this type another/);
  });
  test('stands where a maker gave it, where two agree only, and where most are inside', () => {
    expect(verdicts(judge(['7.5', '1.3', '1.3', '1.1']))).toEqual(['high', 'high', 'high', 'high']);
    expect(verdicts(judge(['9.3', '1.2', '1.2', 'OL'], thumb))).toEqual(['high', 'high', 'high', 'open']);
    expect(verdicts(judge(['0.8', '0.9', '0.9', '1.2'], thumb))).toEqual(['within', 'within', 'within', 'high']);
  });
  test('is not doubted by parts that no type explains', () =>
    expect(verdicts(judge(['3.5', '2.9', '3.2', '3.0'], thumb))).toEqual(['high', 'high', 'high', 'high']));
});
