import { erfc, normalCdf, normalUpperTail } from './normal';
import { pythonList } from './testing';

describe('normal distribution against scipy', () => {
  const zs = Array.from({ length: 321 }, (_, i) => (i - 160) / 20);
  test('cdf, relative error below 1e-12', () => {
    const reference = pythonList(`[float(norm.cdf(z)) for z in ${JSON.stringify(zs)}]`);
    for (const [i, z] of zs.entries()) {
      const want = reference[i] as number;
      expect(Math.abs(normalCdf(z) - want) / want).toBeLessThan(1e-12);
    }
  });
  test('erfc in the far tail', () => {
    const xs = [1.9999, 2, 2.0001, 4, 6, 10, 20];
    const reference = pythonList(`[float(erfc(x)) for x in ${JSON.stringify(xs)}]`);
    for (const [i, x] of xs.entries()) expect(erfc(x) / (reference[i] as number)).toBeCloseTo(1, 12);
  });
  test('the z of an upper tail, to eleven decimals', () => {
    const tails = [0.5, 0.4, 0.158655, 0.05, 1e-3, 1e-9, 1e-30, 1e-200];
    const reference = pythonList(`[float(norm.isf(p)) for p in ${JSON.stringify(tails)}]`);
    for (const [i, p] of tails.entries()) expect(normalUpperTail(p)).toBeCloseTo(reference[i] as number, 11);
    for (const none of [0, -0.1, 0.51, NaN]) expect(normalUpperTail(none)).toBeNaN();
  });
  test('ends and NaN', () => {
    expect([normalCdf(-Infinity), normalCdf(0), normalCdf(Infinity)]).toEqual([0, 0.5, 1]);
    expect(normalCdf(NaN)).toBeNaN();
  });
});
