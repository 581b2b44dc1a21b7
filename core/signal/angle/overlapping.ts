import { quantile, robustDeviation } from '../../numerics/select';

/** What each place of the order gives where pushes overlap, from the energy that its firings leave behind. */
export interface Given {
  /** 1 is the mean of all. */
  readonly relative: number;
  readonly uncertainty: number;
  /** Share of its cycles. */
  readonly misfires: number;
  /** It gives less than the others by far more than they differ among themselves. */
  readonly isLow: boolean;
  /** It may: enough to bear out what another fit says. */
  readonly mayBeLow: boolean;
}

/**
 * So many times the spread of the better two thirds below their mean, and a cylinder is low: of eight to
 * twelve alike ones none is in 998 of 1,000 captures (drawn from normal numbers; the spread of so few is
 * itself uncertain).
 */
const FAR = 11;
/** Another fit that is as good must show it too, so clearly. */
const ALSO = 5;
/** A single firing is missed when it is so many standard deviations of one firing below the good ones. */
const OUTLIER = 6.5;

/**
 * With more than six cylinders the ripple is what many pushes leave of each other: it does not say how much
 * one gives. So a cylinder is low by what the others differ among themselves, and how much a firing gives is
 * what a missed one loses.
 *
 * @param slots of each place of the order what its firings leave, in order of time
 * @param swing how far the energy usually swings within a firing: what a firing gives where none is missed is
 * hardly less
 */
export function givenOf(slots: readonly (readonly number[])[], swing: number): Given[] {
  const means = slots.map((own) => own.reduce((a, b) => a + b, 0) / own.length);
  const better = [...means].sort((a, b) => b - a).slice(0, Math.ceil((2 * means.length) / 3));
  const good = better.reduce((a, b) => a + b, 0) / better.length;
  const spread = Math.sqrt(better.reduce((s, m) => s + (m - good) ** 2, 0) / (better.length - 1));
  const sigma = quantile(slots.map(robustDeviation), 0.5);
  const isLow = means.map((m) => good - m > FAR * spread);
  const whole = wholeOf(slots, isLow, good, sigma, Math.max(swing, FAR * spread));
  const middle = means.reduce((a, b) => a + b, 0) / means.length;
  return slots.map((own, i) => {
    const line = good - (isLow[i] ? whole / 2 : Math.max(OUTLIER * sigma, whole / 2));
    return {
      relative: Math.max(0, 1 + ((means[i] ?? NaN) - middle) / whole),
      uncertainty: Math.hypot(spread, sigma / Math.sqrt(own.length)) / whole,
      misfires: own.filter((v) => v < line).length / own.length,
      isLow: isLow[i] === true,
      mayBeLow: good - (means[i] ?? NaN) > ALSO * spread,
    };
  });
}

/**
 * What a firing gives: what is lost in the worst firings of a low cylinder; where none is low, at least what
 * is said.
 */
function wholeOf(
  slots: readonly (readonly number[])[],
  isLow: readonly boolean[],
  good: number,
  sigma: number,
  least: number,
): number {
  const lost = slots.flatMap((own, i) =>
    isLow[i] ? own.filter((v) => v < good - 2 * sigma).map((v) => good - v) : [],
  );
  return lost.length ? Math.max(quantile(lost, 0.5), 1e-12) : Math.max(least, 1e-12);
}
