/**
 * Where a rising function reaches a value, by halving: a point of [low, high] within `tolerance` of it. `low`
 * where the function is above the value already there, `high` where it never reaches it. Ends after at most
 * 200 halvings, NaN of `f` counts as above.
 *
 * The bisection method; needs no slope and cannot leave the interval.
 */
export function bisectRising(
  f: (x: number) => number,
  value: number,
  { low, high, tolerance }: { readonly low: number; readonly high: number; readonly tolerance: number },
): number {
  let [from, to] = [low, high];
  for (let i = 0; i < 200 && to - from > tolerance; i++) {
    const middle = (from + to) / 2;
    if (f(middle) < value) from = middle;
    else to = middle;
  }
  return (from + to) / 2;
}
