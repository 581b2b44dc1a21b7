import fc from 'fast-check';
import { probabilityWithin } from './conformity';
import { type Instrument, rangeFor } from './instrument';
import { python, pythonList } from '../numerics/testing';
import { COPPER_COEFFICIENT_PER_K, toReferenceFactor } from './temperature';
import { combine, uncertaintyParts } from './uncertainty';

describe('conformance probability, JCGM 106 sense', () => {
  test('two-sided, recomputed with scipy', () => {
    const cases = [
      [0.4, 0.0409, 0.3, 1],
      [1, 0.05, 0.3, 1],
      [1.05, 0.05, 0.3, 1],
      [0.65, 0.5, 0.3, 1],
      [60.4, 0.2, 59.7, 60.2],
    ];
    const reference = pythonList(
      `[float(norm.cdf((c[3]-c[0])/c[1])-norm.cdf((c[2]-c[0])/c[1])) for c in ${JSON.stringify(cases)}]`,
    );
    for (const [i, [y, u, low, high]] of (cases as [number, number, number, number][]).entries()) {
      expect(probabilityWithin(y, u, low, high)).toBeCloseTo(reference[i] as number, 12);
    }
  });
  test('hand table: one standard uncertainty inside a one-sided limit is 84.1 %, two are 97.7 %, on it 50 %', () => {
    expect(probabilityWithin(0.9, 0.1, null, 1)).toBeCloseTo(0.8413, 4);
    expect(probabilityWithin(0.8, 0.1, null, 1)).toBeCloseTo(0.9772, 4);
    expect(probabilityWithin(1, 0.1, null, 1)).toBeCloseTo(0.5, 12);
  });
  test('without uncertainty the limits are inclusive; NaN never passes', () => {
    expect(probabilityWithin(1, 0, 0.3, 1)).toBe(1);
    expect(probabilityWithin(1.1, 0, 0.3, 1)).toBe(0);
    expect(probabilityWithin(0.5, 0.1, NaN, 1)).toBeNaN();
    expect(probabilityWithin(NaN, 0.1, 0, 1)).toBeNaN();
  });
  test('is a probability, and grows with the interval', () => {
    const x = fc.double({ min: -100, max: 100, noNaN: true });
    fc.assert(
      fc.property(
        x,
        fc.double({ min: 1e-3, max: 10, noNaN: true }),
        x,
        fc.double({ min: 0, max: 50, noNaN: true }),
        fc.double({ min: 0, max: 5, noNaN: true }),
        (y, u, low, width, more) => {
          const p = probabilityWithin(y, u, low, low + width);
          expect(p).toBeGreaterThanOrEqual(0);
          expect(p).toBeLessThanOrEqual(1);
          expect(probabilityWithin(y, u, low - more, low + width + more)).toBeGreaterThanOrEqual(p - 1e-12);
        },
      ),
    );
  });
});

describe('temperature', () => {
  test('copper, IEC 60028: 10 ohm at 20 degC is 11.965 ohm at 70 degC', () => {
    expect(11.965 * (toReferenceFactor(70, 20, COPPER_COEFFICIENT_PER_K) as number)).toBeCloseTo(10, 10);
  });
  test('no correction for nothing, none where the law ends', () => {
    expect(toReferenceFactor(90, 20, 0)).toBe(1);
    expect(toReferenceFactor(-250, 20, 0.00393)).toBeNull();
  });
});

describe('uncertainty of a reading', () => {
  const range = { quantity: 'resistance' as const, upTo: 200, percentOfReading: 0.8, counts: 3, resolution: 0.1 };
  const meter: Instrument = {
    kind: 'multimeter',
    leadZero_ohm: 0.2,
    leadZeroResolution_ohm: 0.1,
    accuracy: [range, { ...range, upTo: 2000, resolution: 1 }],
  };
  const base = {
    quantity: 'resistance' as const,
    value: 0.6,
    net: 0.4,
    resolution: 0.1,
    halfWander: 0,
    zeroed: true,
    instrument: meter,
  };

  test('zeroed on the same range: as a Monte Carlo of the two readings has it (JCGM 101), a million draws', () => {
    // Half a step of the digits each for the reading and the zero; the gain of 0.8 % acts on their difference
    // of 0.4 ohm.
    const drawn = python(
      '(lambda r: float(np.std(r.uniform(-0.05, 0.05, 10**6) - r.uniform(-0.05, 0.05, 10**6) + 0.4 * r.uniform(-0.008, 0.008, 10**6))))(np.random.default_rng(7))',
    );
    expect(combine(uncertaintyParts(base)) / drawn).toBeCloseTo(1, 2);
  });
  test('not zeroed, or on another range, the counts stay', () => {
    expect(uncertaintyParts({ ...base, zeroed: false }).counts).toBeCloseTo(0.3 / Math.sqrt(3), 12);
    expect(uncertaintyParts({ ...base, value: 900, net: 899.8, resolution: 1 }).counts).toBeCloseTo(
      3 / Math.sqrt(3),
      12,
    );
  });
  test('the smallest range that holds the value is used, else the largest', () => {
    expect(rangeFor(meter, 'resistance', 150)?.upTo).toBe(200);
    expect(rangeFor(meter, 'resistance', 201)?.upTo).toBe(2000);
    expect(rangeFor(meter, 'resistance', 1e6)?.upTo).toBe(2000);
    expect(rangeFor(meter, 'voltage', 1)).toBeNull();
  });
});
