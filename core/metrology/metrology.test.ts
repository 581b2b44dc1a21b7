import { execFileSync } from 'node:child_process';
import fc from 'fast-check';
import { probabilityWithin } from './conformity';
import { type Instrument, rangeFor } from './instrument';
import { erfc, normalCdf } from '../numerics/normal';
import { COPPER_COEFFICIENT_PER_K, toReferenceFactor } from './temperature';
import { combine, uncertaintyParts } from './uncertainty';

/** Runs a line of Python with Debian's scipy; the result is JSON. */
function scipy(expression: string): number[] {
  const code = `import json\nfrom scipy.stats import norm\nfrom scipy.special import erfc\nprint(json.dumps(${expression}))`;
  return JSON.parse(execFileSync('/usr/bin/python3', ['-c', code], { encoding: 'utf8' })) as number[];
}

describe('normal distribution against scipy', () => {
  const zs = Array.from({ length: 321 }, (_, i) => (i - 160) / 20);
  test('cdf, relative error below 1e-12', () => {
    const reference = scipy(`[float(norm.cdf(z)) for z in ${JSON.stringify(zs)}]`);
    for (const [i, z] of zs.entries()) {
      const want = reference[i] as number;
      expect(Math.abs(normalCdf(z) - want) / want).toBeLessThan(1e-12);
    }
  });
  test('erfc in the far tail', () => {
    const xs = [1.9999, 2, 2.0001, 4, 6, 10, 20];
    const reference = scipy(`[float(erfc(x)) for x in ${JSON.stringify(xs)}]`);
    for (const [i, x] of xs.entries()) expect(erfc(x) / (reference[i] as number)).toBeCloseTo(1, 12);
  });
  test('ends and NaN', () => {
    expect([normalCdf(-Infinity), normalCdf(0), normalCdf(Infinity)]).toEqual([0, 0.5, 1]);
    expect(normalCdf(NaN)).toBeNaN();
  });
});

describe('conformance probability, JCGM 106 sense', () => {
  test('two-sided, recomputed with scipy', () => {
    const cases = [
      [0.4, 0.0409, 0.3, 1],
      [1, 0.05, 0.3, 1],
      [1.05, 0.05, 0.3, 1],
      [0.65, 0.5, 0.3, 1],
      [60.4, 0.2, 59.7, 60.2],
    ];
    const reference = scipy(
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

  test('zeroed on the same range: two half steps and the gain, by hand', () => {
    const byHand = Math.hypot(0.05 / Math.sqrt(3), 0.05 / Math.sqrt(3), 0.0032 / Math.sqrt(3));
    expect(combine(uncertaintyParts(base))).toBeCloseTo(byHand, 12);
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
