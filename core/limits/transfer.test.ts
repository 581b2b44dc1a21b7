import { unitValue } from '../quantity/values';
import fc from 'fast-check';
import { requireUnit } from '../quantity/units';
import { checkLimits } from './check';
import { predict } from './at';
import {
  betaResistance_ohm,
  checkTransfer,
  expectedAt,
  slopeAt,
  steinhartHart_degC,
  steinhartHartResistance_ohm,
  type Transfer,
} from './transfer';
import type { Limits } from './types';

const unit = (symbol: string, quantity: 'voltage' | 'resistance') => {
  const found = requireUnit(symbol, quantity);
  if (!found.ok) throw new Error(found.error);
  return found.value;
};
const [VOLT, OHM, KILOHM] = [unit('V', 'voltage'), unit('ohm', 'resistance'), unit('kohm', 'resistance')];

/**
 * Resistances of a 10 kilohm thermistor (at 25 °C) as widely published for this curve, and its coefficients.
 * Both from memory.
 */
const TABLE: readonly (readonly [number, number])[] = [
  [-40, 335671],
  [-20, 96974],
  [0, 32650],
  [25, 10000],
  [50, 3603],
  [70, 1752],
  [100, 679],
];
const CURVE = { a: 1.129148e-3, b: 2.34125e-4, c: 8.76741e-8 };

describe('Steinhart-Hart', () => {
  test.each(TABLE)('at %i °C the table says %i ohm', (t, ohm) => {
    expect(Math.abs(steinhartHart_degC(CURVE, ohm) - t)).toBeLessThan(0.05);
    expect(steinhartHartResistance_ohm(CURVE, t) / ohm).toBeCloseTo(1, 2);
  });
  test('resistance and temperature undo each other', () => {
    fc.assert(
      fc.property(fc.double({ min: -60, max: 200, noNaN: true }), (t) => {
        expect(steinhartHart_degC(CURVE, steinhartHartResistance_ohm(CURVE, t))).toBeCloseTo(t, 6);
      }),
    );
  });
  test('with c = 0 it is the β equation', () => {
    const beta = { resistance_ohm: 10_000, at_degC: 25, beta_K: 3900 };
    const plain = { a: 1 / 298.15 - Math.log(10_000) / 3900, b: 1 / 3900, c: 0 };
    for (const t of [-30, 0, 25, 90])
      expect(steinhartHartResistance_ohm(plain, t) / betaResistance_ohm(beta, t)).toBeCloseTo(1, 9);
  });
  test('nothing below absolute zero', () => expect(steinhartHartResistance_ohm(CURVE, -300)).toBeNaN());
});

const LINE: Transfer = {
  kind: 'ratiometric',
  stimulus: { quantity: 'pressure', unit: 'kPa' },
  supply_V: 5,
  low: { at: 0, ratio: 0.1 },
  high: { at: 400, ratio: 0.9 },
};
const POINTS: Transfer = {
  kind: 'table',
  stimulus: { quantity: 'pressure', unit: 'bar' },
  points: [
    [0, 0.5],
    [1, 1.5],
    [3, 4.5],
  ],
};

describe('what a sensor should show', () => {
  test('a ratiometric line: 0.5 V at rest, 4.5 V at full scale, nothing where it would leave its supply', () => {
    expect([0, 200, 400].map((p) => expectedAt(LINE, p, VOLT))).toEqual([0.5, 2.5, 4.5]);
    expect([expectedAt(LINE, -100, VOLT), expectedAt(LINE, 500, VOLT), expectedAt(LINE, NaN, VOLT)]).toEqual([
      null,
      null,
      null,
    ]);
    expect(slopeAt(LINE, 100, VOLT)).toBeCloseTo(0.01, 9);
  });
  test('a table: straight between its points, nothing outside', () => {
    expect([0, 0.5, 1, 2, 3].map((p) => expectedAt(POINTS, p, VOLT))).toEqual([0.5, 1, 1.5, 3, 4.5]);
    expect([expectedAt(POINTS, -0.1, VOLT), expectedAt(POINTS, 3.1, VOLT)]).toEqual([null, null]);
  });
  test('a thermistor in the unit of the limits', () => {
    expect(expectedAt({ kind: 'ntc-steinhart-hart', ...CURVE }, 25, OHM)).toBeCloseTo(10_000, -1);
    expect(expectedAt({ kind: 'ntc-steinhart-hart', ...CURVE }, 25, KILOHM)).toBeCloseTo(10, 2);
  });
  test('limits about the prediction: absolute, percent and what the gauge may be off, added', () => {
    const limits: Limits = {
      quantity: 'voltage',
      unit: 'V',
      transfer: LINE,
      tolerance: { absolute: 0.05, percentOfExpected: 2, stimulus: 5 },
    };
    expect(predict(limits, unitValue(200))).toMatchObject({
      expected: 2.5,
      limits: { lower: expect.closeTo(2.35, 9) as number, upper: expect.closeTo(2.65, 9) as number },
    });
  });
});

test.each<[Transfer, string, string[]]>([
  [{ ...LINE, supply_V: 0 }, 'voltage', ['/t/supply_V']],
  [{ ...LINE, high: { at: 0, ratio: 2 } }, 'voltage', ['/t/high/at', '/t/high/ratio']],
  [LINE, 'resistance', ['/t/kind']],
  [{ ...POINTS, points: [[0, 1]] }, 'voltage', ['/t/points']],
  [
    {
      ...POINTS,
      points: [
        [0, 1],
        [0, 2],
      ],
    },
    'voltage',
    ['/t/points/1/0'],
  ],
  [{ ...POINTS, stimulus: { quantity: 'pressure', unit: 'V' } }, 'voltage', ['/t/stimulus/unit']],
  [{ kind: 'ntc-beta', resistance_ohm: 0, at_degC: 20, beta_K: 3500 }, 'resistance', ['/t/beta_K']],
])('a function that cannot be: %j', (t, quantity, paths) => {
  expect(checkTransfer(t, quantity as 'voltage', '/t').map((p) => p.path)).toEqual(paths);
});

test('limits with a function need a tolerance and no limits of their own', () => {
  const limits: Limits = { quantity: 'voltage', unit: 'V', transfer: LINE, upper: 4 };
  expect(checkLimits(limits).map((p) => p.path)).toEqual(['/tolerance', '/transfer']);
});
