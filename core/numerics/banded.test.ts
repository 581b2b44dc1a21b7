import fc from 'fast-check';
import { solveBanded } from './banded';

/** A band of B·Bᵀ + 1, B lower with `width` diagonals: positive definite by its making. */
function matrixOf(n: number, width: number, values: readonly number[]): number[][] {
  const b = (i: number, j: number): number => (j <= i && i - j <= width ? (values[i * (width + 1) + i - j] ?? 0) : 0);
  return Array.from({ length: n }, (_, i) =>
    Array.from({ length: n }, (_, j) =>
      Array.from({ length: n }, (_, k) => b(i, k) * b(j, k)).reduce((s, v) => s + v, i === j ? 1 : 0),
    ),
  );
}

const bandOf = (a: readonly (readonly number[])[], width: number): Float64Array =>
  Float64Array.from(a.flatMap((row, i) => Array.from({ length: width + 1 }, (_, k) => row[i - k] ?? 0)));

describe('a system with few diagonals', () => {
  test('what is found, put in again, gives the right side', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9 }),
        fc.integer({ min: 0, max: 3 }),
        fc.array(fc.double({ min: -3, max: 3, noNaN: true }), { minLength: 36, maxLength: 36 }),
        fc.array(fc.double({ min: -9, max: 9, noNaN: true }), { minLength: 18, maxLength: 18 }),
        (n, width, values, right) => {
          const a = matrixOf(n, width, values);
          const [one, two] = [right.slice(0, n), right.slice(9, 9 + n)];
          const x = [Float64Array.from(one), Float64Array.from(two)];
          expect(solveBanded(bandOf(a, width), width, x)).not.toBeNull();
          const largest = Math.max(1, ...x.flatMap((v) => Array.from(v, Math.abs)));
          [one, two].forEach((b, s) =>
            a.forEach((row, i) =>
              expect(Math.abs(row.reduce((sum, v, j) => sum + v * (x[s]?.[j] ?? NaN), 0) - (b[i] ?? NaN))).toBeLessThan(
                1e-9 * largest * 100,
              ),
            ),
          );
        },
      ),
    );
  });
  test('4 2; 2 5 has L = 2, 1, 2 (worked by hand)', () => {
    const x = Float64Array.from([8, 9]);
    expect(solveBanded(Float64Array.from([4, 0, 5, 2]), 1, [x])).toEqual(Float64Array.from([2, 2]));
    expect(Array.from(x)).toEqual([1.375, 1.25]);
  });
  test('what is not positive definite, or no number, has no answer', () => {
    expect(solveBanded(Float64Array.from([1, 0, 1, 2]), 1, [])).toBeNull();
    expect(solveBanded(Float64Array.from([NaN]), 0, [])).toBeNull();
  });
});
