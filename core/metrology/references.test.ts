import { probabilityWithin } from './conformity';
import { CONDUCTORS, pt100_ohm, temperatureSensitivity_perK, toReferenceFactor } from './temperature';
import { python } from '../numerics/testing';
import { combine, type UncertaintyParts, uncertaintyParts } from './uncertainty';

/**
 * Worked examples and tables of published standards. All of them written from memory of the document;
 * recomputed with scipy where that says more.
 */
const parts = (...u: number[]): UncertaintyParts => {
  const [digits = 0, gain = 0, counts = 0, leadZero = 0, wander = 0, contact = 0, temperature = 0, stimulus = 0] = u;
  return { digits, gain, counts, leadZero, wander, contact, temperature, stimulus };
};

describe('GUM, JCGM 100:2008', () => {
  test('example H.1, end gauge: components of 25, 9.7, 2.9 and 16.6 nm combine to 32 nm', () => {
    const u = combine(parts(25, 9.7, 2.9, 16.6));
    expect(u).toBeCloseTo(python('np.sqrt(np.sum(np.array([25, 9.7, 2.9, 16.6])**2))'), 10);
    expect(Math.round(u)).toBe(32);
  });
  test('4.3.7: one step of the digits is a rectangular distribution: its standard deviation, by numpy of a fine grid', () => {
    const { digits } = uncertaintyParts({
      quantity: 'voltage',
      value: 12,
      net: 12,
      resolution: 1,
      halfWander: 0,
      zeroed: false,
      instrument: null,
    });
    expect(digits).toBeCloseTo(python('np.std(np.linspace(-0.5, 0.5, 2000001))'), 6);
  });
});

describe('JCGM 106:2012', () => {
  test('clause 7, breakdown voltage of a Zener diode: -5.47 V with u 0.05 V against -5.40 V at most conforms with 92 %', () => {
    const p = probabilityWithin(-5.47, 0.05, null, -5.4);
    expect(p).toBeCloseTo(python('norm.cdf((-5.40+5.47)/0.05)'), 12);
    expect(p).toBeCloseTo(0.92, 2);
  });
  test.each([
    [0.8, 0.84],
    [0.9, 1.28],
    [0.95, 1.64],
    [0.99, 2.33],
    [0.999, 3.09],
  ])('table 1: probability %d at %d standard uncertainties inside one limit', (p, z) => {
    expect(probabilityWithin(-z, 1, null, 0)).toBeCloseTo(p, 2);
  });
});

describe('Pt100, IEC 60751', () => {
  test.each([
    [-200, 18.52],
    [-100, 60.26],
    [0, 100],
    [50, 119.4],
    [100, 138.51],
    [200, 175.86],
    [850, 390.48],
  ])('%i °C is %d ohm', (t, ohm) => {
    expect(pt100_ohm(t)).toBeCloseTo(ohm, 2);
  });
  test('nothing outside its range', () =>
    expect([pt100_ohm(-201), pt100_ohm(851), pt100_ohm(NaN)]).toEqual([NaN, NaN, NaN]));
  test('the linear correction brings a Pt100 read at 40 °C to 20 °C within 0.1 %', () => {
    const factor = toReferenceFactor(40, 20, CONDUCTORS.platinum) ?? NaN;
    expect((pt100_ohm(40) * factor) / pt100_ohm(20)).toBeCloseTo(1, 3);
  });
  test('the sensitivity is the derivative of the correction', () => {
    const at = (t: number): number => toReferenceFactor(t, 20, 0.00393) ?? NaN;
    expect(temperatureSensitivity_perK(60, 20, 0.00393)).toBeCloseTo(
      Math.abs((at(60.001) - at(59.999)) / 0.002 / at(60)),
      6,
    );
  });
});
