/**
 * Running median over `2 * half + 1` samples from `from` up to and without `to`, written to `out` at the same
 * indices. At the ends the first and the last sample are repeated, as `scipy.ndimage.median_filter` does with
 * mode *nearest*, with which it is compared. It follows a steep flank without delay and forgets what lasts
 * for at most `half` samples (Tukey, Exploratory Data Analysis, 1977, chapter 7). The window is kept sorted:
 * for the small windows that are used here, moving a few neighbours is quicker than any tree. `values` may
 * hold no NaN.
 */
export function runningMedian(
  values: Float64Array,
  half: number,
  out: Float64Array,
  from = 0,
  to = values.length,
): Float64Array {
  if (to <= from) return out;
  const width = 2 * half + 1;
  const window = new Float64Array(width);
  const at = (i: number): number => values[i < from ? from : i >= to ? to - 1 : i] ?? NaN;
  for (let i = 0; i < width; i++) window[i] = at(from - half + i);
  window.sort();
  out[from] = window[half] ?? NaN;
  for (let i = from + 1; i < to; i++) {
    replace(window, at(i - half - 1), at(i + half));
    out[i] = window[half] ?? NaN;
  }
  return out;
}

/** Takes `gone` out of a sorted window and puts `come` in. */
function replace(window: Float64Array, gone: number, come: number): void {
  if (gone === come) return;
  let i = 0;
  while ((window[i] ?? Infinity) < gone) i++;
  if (come > gone) {
    const last = window.length - 1;
    while (i < last && (window[i + 1] ?? Infinity) < come) {
      window[i] = window[i + 1] ?? NaN;
      i++;
    }
  } else {
    while (i > 0 && (window[i - 1] ?? -Infinity) > come) {
      window[i] = window[i - 1] ?? NaN;
      i--;
    }
  }
  window[i] = come;
}

/**
 * Every four neighbours of the first `count` as one: the mean of the two in the middle, which one outlier of
 * four does not move. What is left of the last four is dropped; four with a NaN give NaN.
 */
export function quarter(values: Float64Array, count: number): Float64Array {
  const out = new Float64Array(count >> 2);
  for (let j = 0; j < out.length; j++) {
    const i = 4 * j;
    const [a, b, c, d] = [values[i] ?? NaN, values[i + 1] ?? NaN, values[i + 2] ?? NaN, values[i + 3] ?? NaN];
    const low = Math.max(Math.min(a, b), Math.min(c, d));
    const high = Math.min(Math.max(a, b), Math.max(c, d));
    out[j] = (low + high) / 2;
  }
  return out;
}
