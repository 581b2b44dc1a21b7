/**
 * The element that would stand at `k` if the first `count` values were sorted; reorders them. Expected time
 * is linear: Hoare's selection (Hoare, "Algorithm 65: Find", CACM 4(7), 1961), pivot of three. No NaN may be
 * among them. NaN for none.
 */
export function selectInPlace(values: Float64Array, k: number, count: number = values.length): number {
  if (count === 0) return NaN;
  let low = 0;
  let high = count - 1;
  const wanted = Math.min(Math.max(k, 0), high);
  while (low < high) {
    const pivot = middleOfThree(values[low] ?? NaN, values[(low + high) >> 1] ?? NaN, values[high] ?? NaN);
    let i = low;
    let j = high;
    while (i <= j) {
      while ((values[i] ?? NaN) < pivot) i++;
      while ((values[j] ?? NaN) > pivot) j--;
      if (i > j) break;
      const swapped = values[i] ?? NaN;
      values[i] = values[j] ?? NaN;
      values[j] = swapped;
      i++;
      j--;
    }
    if (wanted <= j) high = j;
    else if (wanted >= i) low = i;
    else break;
  }
  return values[wanted] ?? NaN;
}

const middleOfThree = (a: number, b: number, c: number): number =>
  a < b ? (b < c ? b : a < c ? c : a) : a < c ? a : b < c ? c : b;

/**
 * The value below which the share `q` (0 to 1) of the first `count` values lies; reorders them. NaN for none.
 */
export const quantileInPlace = (values: Float64Array, q: number, count: number = values.length): number =>
  selectInPlace(values, Math.min(count - 1, Math.floor(q * count)), count);

/** The same of any list, which stays as it is. Values that are no number are left out. */
export function quantile(values: ArrayLike<number>, q: number): number {
  const copy = Float64Array.from(Array.from(values).filter((v) => Number.isFinite(v)));
  return quantileInPlace(copy, q);
}

/**
 * Of normal noise, the median of the deviation times this is the standard deviation (Hampel, JASA 69, 1974,
 * 383).
 */
export const MAD_TO_SIGMA = 1.4826;

/**
 * Standard deviation of normal noise, from the median of the deviations from the median: what is far off
 * hardly counts. NaN for none.
 */
export function robustDeviation(values: ArrayLike<number>): number {
  const middle = quantile(values, 0.5);
  return (
    MAD_TO_SIGMA *
    quantile(
      Float64Array.from(values, (v) => Math.abs(v - middle)),
      0.5,
    )
  );
}
