/**
 * Median of numbers in ascending order: the middle one, or the mean of the two in the middle. NaN for none.
 */
export function medianSorted(sorted: readonly number[]): number {
  const middle = sorted.length >> 1;
  const high = sorted[middle] ?? NaN;
  const low = sorted.length % 2 ? high : (sorted[middle - 1] ?? NaN);
  return (low + high) / 2;
}
