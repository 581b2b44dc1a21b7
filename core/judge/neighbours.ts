import { above } from './compare';
import { type JudgedReading, type Limits, type Reason, SEVERITY } from './types';

/** Below this many there is no telling which of them is the odd one. */
const LEAST_IN_COMPANY = 3;

/** Median of numbers in ascending order, at least one. */
export function medianSorted(sorted: readonly number[]): number {
  const middle = sorted.length >> 1;
  const high = sorted[middle] as number;
  return sorted.length % 2 ? high : ((sorted[middle - 1] as number) + high) / 2;
}

/** Median of ascending numbers without the one at `index`; needs at least two numbers. */
function medianWithout(sorted: readonly number[], index: number): number {
  return medianSorted(sorted.filter((_, i) => i !== index));
}

/**
 * Compares each reading that is inside its limits with the median of the others that are: the bad ones are no
 * company, or one healthy part among failed ones would be the odd one out. Readings that stand out become `odd`, unless
 * half or more would: then the set is split and nobody can say who is odd.
 */
export function compareNeighbours(readings: readonly JudgedReading[], limits: Limits): readonly JudgedReading[] {
  const rule = limits.neighbours;
  if (!rule) return readings;
  const company = readings
    .filter((r) => (r.verdict === 'within' || r.verdict === 'watch') && r.corrected !== null)
    .toSorted((a, b) => (a.corrected as number) - (b.corrected as number));
  if (company.length < LEAST_IN_COMPANY) return readings;
  const values = company.map((r) => r.corrected as number);
  const odd = new Map<JudgedReading, Reason>();
  for (const [i, reading] of company.entries()) {
    const reason = standsOut(values[i] as number, medianWithout(values, i), rule);
    if (reason) odd.set(reading, { ...reason, among: company.filter((_, k) => k !== i).map((r) => r.position) });
  }
  if (odd.size === 0 || odd.size * 2 >= company.length) return readings;
  return readings.map((r) => {
    const reason = odd.get(r);
    return reason ? { ...r, verdict: 'odd', severity: SEVERITY.odd, reasons: [reason, ...r.reasons] } : r;
  });
}

function standsOut(value: number, median: number, rule: NonNullable<Limits['neighbours']>) {
  const { maxRatio = null, maxDifference = null } = rule;
  const ratio = value > 0 && median > 0 ? Math.max(value / median, median / value) : null;
  const difference = Math.abs(value - median);
  const tooFar =
    (maxRatio !== null && ratio !== null && above(ratio, maxRatio)) ||
    (maxDifference !== null && above(difference, maxDifference));
  return tooFar ? { rule: 'neighbours' as const, value, median, ratio, difference, maxRatio, maxDifference } : null;
}
