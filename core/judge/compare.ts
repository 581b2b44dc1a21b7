/**
 * Comparisons with limits. Limits are inclusive, and a reading that is arithmetic on decimal digits (1.1 -
 * 0.2) must not fail by the last bit of a double: differences below 1e-9 of the larger number, or below
 * 1e-12, count as equal.
 */
const SLACK = 1e-9;
const TINY = 1e-12;

/**
 * Is `a` above `b` by more than rounding? `slack`: a difference that counts as none. All in one unit. False
 * where either is NaN: what is not above and not below has to be caught before, by `checkLimits` and the
 * entry.
 */
export const above = (a: number, b: number, slack = 0): boolean =>
  a - b > Math.max(slack, TINY, SLACK * Math.max(Math.abs(a), Math.abs(b)));
/**
 * The same the other way round: is `a` below `b`? False where either is NaN.
 */
export const below = (a: number, b: number, slack = 0): boolean => above(b, a, slack);
/**
 * Neither above nor below within rounding and `slack`. True where either is NaN.
 */
export const same = (a: number, b: number, slack = 0): boolean => !above(a, b, slack) && !below(a, b, slack);
