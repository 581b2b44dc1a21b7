import fc from 'fast-check';
import { crossCorrelation, fft, powerOfTwo } from './fft';
import { normalFrom, seededRandom } from './random';
import { pythonList } from './testing';

const noise = (n: number, seed: number): Float64Array => {
  const random = seededRandom(seed);
  return Float64Array.from({ length: n }, () => normalFrom(random));
};
const list = (values: ArrayLike<number>): string => `[${Array.from(values).join(',')}]`;

it('has the spectrum of numpy', () => {
  const [re, im] = [noise(256, 1), noise(256, 2)];
  const expected = pythonList(
    `(lambda s: list(s.real)+list(s.imag))(np.fft.fft(np.array(${list(re)})+1j*np.array(${list(im)})))`,
  );
  fft(re, im);
  [...re, ...im].forEach((v, i) => expect(v).toBeCloseTo(expected[i] ?? NaN, 9));
});

it('comes back from its spectrum, and is what the definition says', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 6 }), fc.integer(), (power, seed) => {
      const n = 2 ** power;
      const [x, y] = [noise(n, seed), noise(n, seed + 1)];
      const [re, im] = [x.slice(), y.slice()];
      fft(re, im);
      for (let k = 0; k < n; k += 5) {
        let sum = 0;
        for (let i = 0; i < n; i++) {
          const a = (-2 * Math.PI * i * k) / n;
          sum += x[i]! * Math.cos(a) - y[i]! * Math.sin(a);
        }
        expect(re[k]).toBeCloseTo(sum, 8);
      }
      fft(re, im, true);
      re.forEach((v, i) => expect(v / n).toBeCloseTo(x[i]!, 10));
      im.forEach((v, i) => expect(v / n).toBeCloseTo(y[i]!, 10));
    }),
    { numRuns: 40 },
  );
  expect(() => fft(new Float64Array(6), new Float64Array(6))).toThrow(RangeError);
  expect([0, 1, 2, 3, 5, 1024, 1025].map(powerOfTwo)).toEqual([1, 1, 2, 4, 8, 1024, 2048]);
});

it('has the cross-correlation of scipy at every lag', () => {
  const [x, y] = [noise(70, 3), noise(41, 4)];
  const expected = pythonList(
    `list(__import__('scipy.signal',fromlist=['x']).correlate(${list(y)}, ${list(x)}, mode='full'))`,
  );
  const got = crossCorrelation(x, y);
  expect(got).toHaveLength(expected.length);
  got.forEach((v, i) => expect(v).toBeCloseTo(expected[i] ?? NaN, 9));
});

it('has no sums of nothing, and none that a NaN leaves', () => {
  expect(crossCorrelation(new Float64Array(), new Float64Array())).toHaveLength(0);
  expect([...crossCorrelation(Float64Array.of(1, NaN), Float64Array.of(2, 3))]).toEqual([NaN, NaN, NaN]);
});
