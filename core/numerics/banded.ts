/**
 * Solves A·x = b for symmetric positive definite A with few diagonals, in place of many right sides:
 * Cholesky's L·Lᵀ within the band (Golub and Van Loan, Matrix Computations, 4th ed., 4.3.5; from memory).
 *
 * @param band the lower half by rows: `band[i * (width + 1) + k]` is A[i][i - k], k from 0 to `width`.
 * Overwritten with L.
 * @param rightSides each of the length of A. Overwritten with x.
 * @returns the diagonal of L, or `null` where A is not positive definite (NaN included).
 */
export function solveBanded(
  band: Float64Array,
  width: number,
  rightSides: readonly Float64Array[],
): Float64Array | null {
  const row = width + 1;
  const n = band.length / row;
  const at = (i: number, k: number): number => band[i * row + k] ?? 0;
  const diagonal = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    for (let k = Math.min(width, i); k >= 0; k--) {
      const j = i - k;
      let sum = at(i, k);
      for (let m = Math.max(0, i - width, j - width); m < j; m++) sum -= at(i, i - m) * at(j, j - m);
      if (k > 0) band[i * row + k] = sum / (diagonal[j] ?? NaN);
      else if (!(sum > 0)) return null;
      else band[i * row] = diagonal[i] = Math.sqrt(sum);
    }
  }
  for (const b of rightSides) {
    for (let i = 0; i < n; i++) {
      let sum = b[i] ?? NaN;
      for (let k = 1; k <= Math.min(width, i); k++) sum -= at(i, k) * (b[i - k] ?? NaN);
      b[i] = sum / (diagonal[i] ?? NaN);
    }
    for (let i = n - 1; i >= 0; i--) {
      let sum = b[i] ?? NaN;
      for (let k = 1; k <= Math.min(width, n - 1 - i); k++) sum -= at(i + k, k) * (b[i + k] ?? NaN);
      b[i] = sum / (diagonal[i] ?? NaN);
    }
  }
  return diagonal;
}
