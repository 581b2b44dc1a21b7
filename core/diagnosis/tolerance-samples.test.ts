import { deviation, SAMPLES } from './tolerance-samples';

const drawn = (part: number): number[] => Array.from({ length: SAMPLES }, (_, d) => deviation(part, d));
const mean = (v: readonly number[]): number => v.reduce((a, b) => a + b, 0) / v.length;

test('every part has mean 0 and standard deviation 1, and the same draws every time', () => {
  for (let part = 0; part < 200; part++) {
    const v = drawn(part);
    expect(mean(v)).toBeCloseTo(0, 12);
    expect(mean(v.map((x) => x * x))).toBeCloseTo(1, 4);
    expect(drawn(part)).toEqual(v);
  }
});
test('draws come in mirrored pairs', () => {
  for (let part = 0; part < 50; part++)
    for (let d = 0; d < SAMPLES; d += 2) expect(deviation(part, d)).toBe(-deviation(part, d + 1));
});
test('parts deviate independently of each other: over all pairs of them the correlation is about none', () => {
  const parts = Array.from({ length: 60 }, (_, i) => drawn(i));
  const correlations = parts.flatMap((a, i) => parts.slice(i + 1).map((b) => mean(a.map((x, d) => x * (b[d] ?? 0)))));
  expect(Math.abs(mean(correlations))).toBeLessThan(0.1);
  expect(correlations.filter((c) => c > 0.99).length / correlations.length).toBeLessThan(0.05);
});
