import { execFileSync } from 'node:child_process';
import fc from 'fast-check';
import type { Instrument } from '../metrology/instrument';
import { judgeShipped } from './shipped';
import { findSlip } from './slip';
import type { Judgement, Limits, ReadingIn, TestSet } from './types';

/** What must hold whatever is read. */
const METER: Instrument = {
  kind: 'multimeter',
  leadZero_ohm: 0.2,
  leadZeroResolution_ohm: 0.1,
  accuracy: [{ quantity: 'resistance', upTo: 200, percentOfReading: 0.8, counts: 3, resolution: 0.1 }],
};
const LIMITS: Limits = {
  quantity: 'resistance',
  unit: 'ohm',
  lower: 0.3,
  upper: 1,
  watchUpper: 0.9,
  neighbours: { maxRatio: 2 },
  shortBelow: 0.05,
  openAbove: 1e4,
};
const judge = (set: Partial<TestSet> & { readings: readonly ReadingIn[] }): Judgement => {
  const judged = judgeShipped({ test: 'x', engine: null, condition: {}, instrument: METER, limits: LIMITS, ...set });
  if (!judged.ok) throw new Error(JSON.stringify(judged.error));
  return judged.value;
};
const ohms = fc.oneof(
  fc.integer({ min: 2, max: 30 }).map((n) => (n / 10).toFixed(1)),
  fc.constantFrom('OL', '201', '4k5', '0.4~0.9', '>20M', '0.00'),
);
const entries = fc.array(ohms, { minLength: 1, maxLength: 8 });
const at = (list: readonly string[]): ReadingIn[] => list.map((entry, i) => ({ position: `p${i + 1}`, entry }));
const verdicts = (j: Judgement) => Object.fromEntries(j.readings.map((r) => [r.position, r.verdict]));

test('the order in which readings were taken changes no verdict', () => {
  fc.assert(
    fc.property(
      entries.chain((list) => fc.tuple(fc.constant(list), fc.shuffledSubarray(at(list), { minLength: list.length }))),
      ([list, shuffled]) => {
        expect(verdicts(judge({ readings: shuffled }))).toEqual(verdicts(judge({ readings: at(list) })));
      },
    ),
  );
});
test('limits in milliohm say the same as limits in ohm', () => {
  const milli: Limits = {
    ...LIMITS,
    unit: 'mohm',
    lower: 300,
    upper: 1000,
    watchUpper: 900,
    shortBelow: 50,
    openAbove: 1e7,
  };
  const typed = (entry: string): string =>
    /^[\d.]+$/.test(entry) ? `${entry} ohm` : entry.replace('0.4~0.9', '0.4~0.9 ohm');
  fc.assert(
    fc.property(entries, (list) => {
      expect(verdicts(judge({ limits: milli, readings: at(list.map(typed)) }))).toEqual(
        verdicts(judge({ readings: at(list.map(typed)) })),
      );
    }),
  );
});
test('limits by position judge as the same limits alone would', () => {
  const plain: Limits = { quantity: 'resistance', unit: 'ohm', lower: 0.3, upper: 1, shortBelow: 0.05, openAbove: 1e4 };
  const open: Limits = { quantity: 'resistance', unit: 'ohm', upper: 2, shortBelow: 0.05, openAbove: 1e4 };
  const own: Limits = {
    ...plain,
    lower: 5,
    upper: 9,
    byPosition: { p1: { lower: 0.3, upper: 1 }, p2: { lower: null, upper: 2 } },
  };
  fc.assert(
    fc.property(ohms, ohms, (a, b) => {
      const together = verdicts(judge({ limits: own, readings: at([a, b]) }));
      const alone = (entry: string, limits: Limits) =>
        judge({ limits, readings: [{ position: 'p', entry }] }).readings[0]?.verdict;
      expect([together.p1, together.p2]).toEqual([alone(a, plain), alone(b, open)]);
    }),
  );
});
test('whoever asks for more accepts no more: guarded, then three-way, then simple', () => {
  const passes = (entry: string, decision: TestSet['decision']): boolean =>
    judge({ decision, readings: [{ position: 'p', entry }] }).readings[0]?.severity === 'pass';
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 160 }).map((n) => (n / 100).toFixed(2)),
      (entry) => {
        const [guarded, threeWay, simple] = (['guarded', 'three-way', 'simple'] as const).map((d) => passes(entry, d));
        if (guarded) expect(threeWay).toBe(true);
        if (threeWay) expect(simple).toBe(true);
      },
    ),
  );
});
test('a good set stays good without a member that was not compared, and no verdict is ever missing', () => {
  fc.assert(
    fc.property(entries, (list) => {
      const j = judge({ readings: at(list), positions: at([...list, 'x']).map((r) => r.position) });
      expect(j.readings).toHaveLength(list.length + 1);
      expect(j.pattern).toBe('incomplete');
      for (const r of j.readings) expect(r.reasons.length).toBeGreaterThan(0);
    }),
  );
});
test('what a slip proposes is never a slip itself, and lies where it was said to fit', () => {
  const limits: Limits = { quantity: 'resistance', unit: 'ohm', lower: 0.3, upper: 1 };
  fc.assert(
    fc.property(fc.double({ min: 1e-6, max: 1e7, noNaN: true }), (value) => {
      const slip = findSlip(String(Number(value.toPrecision(4))), 'p', limits, []);
      if (!slip) return;
      expect(slip.meant).toBeGreaterThanOrEqual(0.3 - 1e-9);
      expect(slip.meant).toBeLessThanOrEqual(1 + 1e-9);
      expect(findSlip(`${Number(slip.meant.toPrecision(12))} ohm`, 'p', limits, [])).toBeNull();
    }),
  );
});

describe('against a simulation in numpy', () => {
  /**
   * 400,000 draws of everything that is rectangular: digits, gain, lead zero, contact, temperature; then the
   * measurement as the technician does it.
   */
  const simulate = (read: number, zero: number, warm: number, alpha: number): { mean: number; sd: number } => {
    const code = [
      'import json, numpy as np',
      'g = np.random.default_rng(20261123)',
      'n = 400000',
      'u = lambda a: g.uniform(-a, a, n)',
      `net = (${read} + u(0.05)) - (${zero} + u(0.05)) + u(0.02)`,
      `net = net + (${read} - ${zero}) * u(0.008)`,
      `out = net / (1 + ${alpha} * (${warm} + u(2) - 20))`,
      'print(json.dumps({"mean": float(out.mean()), "sd": float(out.std())}))',
    ].join('\n');
    return JSON.parse(execFileSync('/usr/bin/python3', ['-c', code], { encoding: 'utf8' })) as {
      mean: number;
      sd: number;
    };
  };
  test.each([
    [5.0, 0.2, 60, 0.00393],
    [12.4, 0.3, 95, 0.00393],
    [0.9, 0.2, 20, 0],
  ])('%d ohm with leads of %d at %d °C', (read, zero, warm, alpha) => {
    const r = judge({
      instrument: { ...METER, leadZero_ohm: zero, leadRepeatability_ohm: 0.02 },
      condition: { partTemperature_degC: warm },
      limits: { quantity: 'resistance', unit: 'ohm', upper: 100, temperatureCoefficient_perK: alpha },
      readings: [{ position: 'p', entry: read.toFixed(1) }],
    }).readings[0]!;
    const { mean, sd } = simulate(read, zero, warm, alpha);
    expect(Math.abs((r.corrected ?? 0) / mean - 1)).toBeLessThan(2e-3);
    expect(Math.abs((r.standardUncertainty ?? 0) / sd - 1)).toBeLessThan(0.02);
  });
});
