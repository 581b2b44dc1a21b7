/**
 * Comparisons with limits. Limits are inclusive, and a reading that is arithmetic on decimal digits (1.1 -
 * 0.2) must not fail by the last bit of a double: differences below 1e-9 of the larger number, or below
 * 1e-12, count as equal.
 */
const SLACK = 1e-9;
const TINY = 1e-12;

/** `slack`: a difference that counts as none, in the unit of both. */
export const above = (a: number, b: number, slack = 0): boolean =>
  a - b > Math.max(slack, TINY, SLACK * Math.max(Math.abs(a), Math.abs(b)));
export const below = (a: number, b: number, slack = 0): boolean => above(b, a, slack);
export const same = (a: number, b: number, slack = 0): boolean => !above(a, b, slack) && !below(a, b, slack);
