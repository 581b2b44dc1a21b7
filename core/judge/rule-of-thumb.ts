import { medianSorted } from '../numerics/median';
import { type JudgedReading, type Limits, type Reason, SEVERITY } from './types';

/**
 * How far beyond a general rule of thumb parts of another type may stand, as a factor. Common practice, no
 * source: glow plugs of different types are sold from 0.25 to 1.5 ohm.
 */
const OF_ANOTHER_TYPE = 2;
/**
 * Parts of one type and temperature stand no further apart than this, as a ratio. Common practice, no source.
 */
const ALIKE = 1.4;
/** So many have to agree before the limit is doubted. */
const LEAST_ALIKE = 3;

/**
 * Whether two readings, in one unit, can be of good parts of one type: by their ratio. False where one is 0,
 * negative or NaN.
 */
export const isAlike = (a: number, b: number): boolean => a > 0 && b > 0 && Math.max(a / b, b / a) <= ALIKE;

type Numbered = JudgedReading & { readonly corrected: NonNullable<JudgedReading['corrected']> };
const isNumbered = (r: JudgedReading): r is Numbered => r.corrected !== null && r.verdict !== 'unsteady';

/** Further outside its limits than parts of another type would be; open and shorted too. */
export function isFarBeyond(r: JudgedReading, limits: Limits): boolean {
  if (r.verdict === 'open' || r.verdict === 'short' || r.verdict === 'unsteady' || r.verdict === 'failed') return true;
  if (r.corrected === null) return false;
  const { lower, upper } = r.limits ?? { lower: limits.lower ?? null, upper: limits.upper ?? null };
  return (
    (upper !== null && upper > 0 && r.corrected > OF_ANOTHER_TYPE * upper) ||
    (lower !== null && lower > 0 && r.corrected < lower / OF_ANOTHER_TYPE)
  );
}

/**
 * Judged by nothing but a general rule, and not so far out that no type of part explains it: it accuses only.
 */
export const isOnlyByThumb = (r: JudgedReading, limits: Limits): boolean =>
  limits.status === 'rule-of-thumb' && (r.verdict === 'high' || r.verdict === 'low') && !isFarBeyond(r, limits);

/**
 * Where most of a set agree with each other and stand beyond a general rule of thumb on one side, the rule is
 * doubted and not the parts: they become `watch`.
 */
export function doubtRuleOfThumb(readings: readonly JudgedReading[], limits: Limits): readonly JudgedReading[] {
  if (limits.status !== 'rule-of-thumb') return readings;
  const read = readings.filter((r) => r.verdict !== 'not-measured');
  const numbered = read.filter(isNumbered).toSorted((a, b) => a.corrected - b.corrected);
  const alike = largestCompany(numbered);
  if (alike.length < LEAST_ALIKE || alike.length * 2 <= read.length) return readings;
  for (const side of ['high', 'low'] as const) {
    const beyond = alike.filter((r) => r.verdict === side && !isFarBeyond(r, limits));
    if (beyond.length * 2 <= alike.length) continue;
    const reason: Reason = {
      rule: 'rule-of-thumb-doubted',
      median: medianSorted(alike.map((r) => r.corrected)),
      among: alike.map((r) => r.position),
    };
    return readings.map((r) =>
      beyond.some((b) => b === r)
        ? { ...r, verdict: 'watch', severity: SEVERITY.watch, reasons: [reason, ...r.reasons] }
        : r,
    );
  }
  return readings;
}

/** Of ascending readings the most that stand no further apart than parts of one type. */
function largestCompany(ascending: readonly Numbered[]): readonly Numbered[] {
  let best: readonly Numbered[] = [];
  for (const [i, first] of ascending.entries()) {
    const own = ascending.slice(i).filter((r) => first.corrected > 0 && r.corrected <= ALIKE * first.corrected);
    if (own.length > best.length) best = own;
  }
  return best;
}
