import { medianSorted } from '../numerics/median';
import { above } from './compare';
import { type JudgedReading, type Limits, type Reason, SEVERITY } from './types';

/** Below this many there is no telling which of them is the odd one. */
const LEAST_IN_COMPANY = 3;

/** Median of ascending numbers without the one at `index`; needs at least two numbers. */
function medianWithout(sorted: readonly number[], index: number): number {
  return medianSorted(sorted.filter((_, i) => i !== index));
}

/**
 * Compares each reading that is inside its limits with the median of the others that are: the bad ones are no
 * company, or one healthy part among failed ones would be the odd one out. Readings that stand out become
 * `odd`, unless half or more would: then the set is split and nobody can say who is odd.
 */
export function compareNeighbours(readings: readonly JudgedReading[], limits: Limits): readonly JudgedReading[] {
  const rule = limits.neighbours;
  if (!rule) return readings;
  const company = readings
    .flatMap((reading) =>
      (reading.verdict === 'within' || reading.verdict === 'watch' || reading.verdict === 'no-limit') &&
      reading.corrected !== null
        ? [{ reading, value: reading.corrected }]
        : [],
    )
    .toSorted((a, b) => a.value - b.value);
  if (company.length < LEAST_IN_COMPANY) return readings;
  const values = company.map((c) => c.value);
  const odd = new Map<JudgedReading, Reason>();
  for (const [i, { reading, value }] of company.entries()) {
    const reason = standsOut(value, medianWithout(values, i), rule);
    if (reason)
      odd.set(reading, { ...reason, among: company.filter((_, k) => k !== i).map((c) => c.reading.position) });
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
