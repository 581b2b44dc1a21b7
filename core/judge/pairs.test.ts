import { judgeShipped } from './shipped';
import { findSlip } from './slip';
import type { Judgement, Limits } from './types';

const PAIR: Limits = { quantity: 'voltage', unit: 'V', lower: -0.1, upper: 0.1, pair: 'scan tool' };
const FREE: Limits = { quantity: 'voltage', unit: 'V', stimulus: { quantity: 'pressure', unit: 'kPa' } };

function judge(limits: Limits, entries: readonly string[]): Judgement {
  const judged = judgeShipped({
    test: 'x',
    engine: null,
    condition: {},
    instrument: null,
    limits,
    readings: entries.map((entry, i) => ({ position: `p${i + 1}`, entry })),
  });
  if (!judged.ok) throw new Error(judged.error.map((p) => `${p.path} ${p.message}`).join('; '));
  return judged.value;
}
const problem = (limits: Limits, entry: string): string => {
  try {
    judge(limits, [entry]);
    return '';
  } catch (e) {
    return (e as Error).message;
  }
};

describe('two instruments on one thing', () => {
  test.each([
    ['2.31 @ 2.29', 0.02, 'within'],
    ['2310 mV @ 2.29', 0.02, 'within'],
    ['2,50@2,10 V', 0.4, 'high'],
    ['1.90 @ 2.29', -0.39, 'low'],
  ])('%s is a difference of %s V', (entry, difference, verdict) => {
    const [r] = judge(PAIR, [entry]).readings;
    expect(r?.corrected).toBeCloseTo(difference, 9);
    expect([r?.verdict, r?.entry]).toEqual([verdict, entry]);
  });
  test('gauge against gauge, each in its own unit', () => {
    const bar: Limits = { quantity: 'pressure', unit: 'kPa', lower: -5, upper: 5, pair: 'second gauge' };
    expect(judge(bar, ['2 bar @ 29 psi']).readings[0]?.corrected).toBeCloseTo(200 - 199.948, 2);
  });
  test('one of the two alone is asked for, and what no meter shows is refused on either side', () => {
    expect(problem(PAIR, '2.31')).toMatch(/Type both: .*what the scan tool shows, such as 2.31 @ 2.31/);
    expect(problem(PAIR, '2.31 @ open')).not.toBe('');
    expect(problem(PAIR, '99999 @ 99999')).not.toBe('');
  });
  test('a real disagreement is no slip of the prefix', () =>
    expect(findSlip('2.51 @ 2.01', 'p1', PAIR, [])).toBeNull());
});

describe('without a limit nothing is good', () => {
  test('what was read stands as read, and the set is not called good', () => {
    const j = judge({ quantity: 'voltage', unit: 'V' }, ['1.2', '1.3']);
    expect(j.readings.map((r) => [r.verdict, r.severity])).toEqual([
      ['no-limit', 'none'],
      ['no-limit', 'none'],
    ]);
    expect([j.pattern, j.summary]).toEqual(['undecided', 'All 2 are read; no limit is set that could judge them.']);
  });
  test('where only some positions have none, those are named', () => {
    const limits: Limits = { quantity: 'voltage', unit: 'V', byPosition: { p1: { lower: 1, upper: 2 } } };
    expect(judge(limits, ['1.2', '1.3']).summary).toBe('No limit is set for p2; p1 is in.');
  });
  test('neighbours are compared all the same', () => {
    const j = judge({ quantity: 'current', unit: 'A', neighbours: { maxRatio: 1.3 } }, ['100', '101', '150', '99']);
    expect(j.suspects).toEqual(['p3']);
  });
});

describe('volts over pressure', () => {
  // Ordinary least squares: Anscombe's first set, American Statistician 27 (1973) 17; y = 3.00 + 0.500 x.
  // From memory.
  const X = [10, 8, 13, 9, 11, 14, 6, 4, 12, 7, 5];
  const Y = [8.04, 6.95, 7.58, 8.81, 8.33, 9.96, 7.24, 4.26, 10.84, 4.82, 5.68];
  test('the line is the published one', () => {
    const { fit } = judge(
      FREE,
      Y.map((y, i) => `${y} @ ${X[i]} kPa`),
    );
    expect(fit?.slope).toBeCloseTo(0.5, 3);
    expect(fit?.intercept).toBeCloseTo(3.0, 3);
    expect(fit?.worst.position).toBe('p3');
  });
  test('two gauges of a sensor with two ports', () => {
    const [r] = judge(FREE, ['2.35 @ 180 kPa - 1.2 bar']).readings;
    expect(r?.at).toEqual({ value: 60, unit: 'kPa' });
  });
  test('said in words, judged by nothing', () => {
    const j = judge(FREE, ['0.5 @ 0', '2.5 @ 100', '4.5 @ 200']);
    expect(j.summary).toMatch(/no limit is set.* A line through them: 0\.50+ V at 0 kPa, 0\.0200* V for each kPa more/);
    expect(j.fit?.worst.residual).toBeCloseTo(0, 9);
  });
  test('fewer than three pressures draw no line', () =>
    expect(judge(FREE, ['0.5 @ 0', '2.5 @ 100', '2.6 @ 100']).fit).toBeUndefined());
});

describe('commanded against reported', () => {
  const reported = (...values: readonly string[]): string => {
    const judged = judgeShipped({
      test: 'actuator-position',
      engine: null,
      condition: {},
      instrument: null,
      limits: {
        quantity: 'ratio',
        unit: '%',
        stimulus: { quantity: 'ratio', unit: '%' },
        sequence: { direction: 'either' },
      },
      readings: values.map((entry, i) => ({ position: `${i * 25} %`, entry })),
    });
    return judged.ok ? judged.value.summary : JSON.stringify(judged.error);
  };
  test.each([
    [['98', '76', '51', '24', '2'], /against what is asked: reversed/],
    [['88', '88', '88', '89', '88'], /hardly follows/],
    [['14', '39', '62', '88', '100'], /about 1\d % above what is asked, everywhere: an offset/],
  ])('%j', (values, said) => expect(reported(...values)).toMatch(said));
  test('what follows needs no word', () =>
    expect(reported('1', '26', '50', '74', '99')).not.toMatch(/asked|line through/));
  test('another command than the post names is typed', () => {
    expect(reported('2 @ 0', '27 @ 30', '52', '74', '99')).not.toMatch(/asked/);
  });
});
