import { readerUnit } from '../quantity/reader-unit';
import { tr } from '../locale/translate';
import { capital } from '../foundation/text';
import type { Advice } from '../catalogue/types';
import { printValue } from '../quantity/print';
import { isSuspect } from './pattern';
import { isFarBeyond } from './rule-of-thumb';
import type { JudgedReading, Limits, MeasurementDoubt, Reason } from './types';
import { namePositions, rangeWords } from './words';

/** A voltage below this share of what is asked for at least is none: also what a dead meter shows. */
const DEAD = 0.05;

const reasonOf = <R extends Reason['rule']>(r: JudgedReading, rule: R): Extract<Reason, { rule: R }> | undefined =>
  r.reasons.find((x): x is Extract<Reason, { rule: R }> => x.rule === rule);

/**
 * What must be settled about the measurement before a reading of the set convicts anybody. `spoken`: the
 * advice of the test that holds. `isMeterProven`: somebody has seen this meter read a known value right.
 * Common practice, no source.
 */
export function doubtsOf(
  readings: readonly JudgedReading[],
  limits: Limits,
  spoken: readonly Advice[],
  isMeterProven: boolean,
): MeasurementDoubt[] {
  return [
    ...doubtedLeads(readings, limits),
    ...(isMeterProven ? [] : doubtedMeter(readings, limits, spoken)),
    ...doubtedLimit(readings, limits),
  ];
}

/** Readings that leads could have made: they add to every one. */
function doubtedLeads(readings: readonly JudgedReading[], limits: Limits): MeasurementDoubt[] {
  const suspects = readings.filter(isSuspect);
  const below = suspects.filter((r) => reasonOf(r, 'below-lead-zero'));
  const unzeroed = readings.filter(
    (r) =>
      (isSuspect(r) && reasonOf(r, 'leads-not-zeroed') && !isFarBeyond(r, limits)) ||
      reasonOf(r, 'cannot-tell')?.remedy === 'zero-leads',
  );
  return [
    ...(below.length
      ? [
          {
            kind: 'leads' as const,
            positions: below.map((r) => r.position),
            say: tr`Zero the leads again: ${namePositions(below.map((r) => r.position))} ${below.length > 1 ? 'read' : 'reads'} less than the leads alone.`,
          },
        ]
      : []),
    ...(unzeroed.length
      ? [
          {
            kind: 'leads' as const,
            positions: unzeroed.map((r) => r.position),
            say: tr`Zero the leads first: what they add is in the ${unzeroed.length > 1 ? 'readings' : 'reading'} of ${namePositions(unzeroed.map((r) => r.position))}.`,
          },
        ]
      : []),
  ];
}

function doubtedMeter(
  readings: readonly JudgedReading[],
  limits: Limits,
  spoken: readonly Advice[],
): MeasurementDoubt[] {
  const suspects = readings.filter(isSuspect);
  const recheck = suspects.filter((r) => reasonOf(r, 'recheck-margin'));
  const dead = suspects.filter((r) => isDead(r, limits));
  const those = spoken.some((a) => a.doubts === 'meter')
    ? suspects
    : dead.length > 0 && isAllDead(readings, limits)
      ? dead
      : recheck;
  if (those.length === 0) return [];
  const positions = those.map((r) => r.position);
  return [
    {
      kind: 'meter',
      positions,
      say: tr`Prove the meter first, on a ${limits.quantity === 'voltage' ? 'battery' : 'known value'}: what ${namePositions(positions)} ${positions.length > 1 ? 'show' : 'shows'}, a bad meter would show too.`,
    },
  ];
}

/** Volts where some are asked for, and hardly any are there. */
function isDead(r: JudgedReading, limits: Limits): boolean {
  const least = r.limits ? r.limits.lower : (limits.lower ?? null);
  return (
    limits.quantity === 'voltage' &&
    r.corrected !== null &&
    least !== null &&
    least > 0 &&
    Math.abs(r.corrected) < DEAD * least
  );
}

/** No reading in the set shows that the meter is alive. */
const isAllDead = (readings: readonly JudgedReading[], limits: Limits): boolean =>
  readings.every((r) => r.verdict === 'not-measured' || r.corrected === null || isDead(r, limits));

function doubtedLimit(readings: readonly JudgedReading[], limits: Limits): MeasurementDoubt[] {
  const alike = readings.filter((r) => reasonOf(r, 'rule-of-thumb-doubted'));
  const about = alike[0] && reasonOf(alike[0], 'rule-of-thumb-doubted')?.median;
  if (about === undefined) return [];
  const positions = alike.map((r) => r.position);
  return [
    {
      kind: 'limit',
      positions,
      say: tr`${capital(namePositions(positions))} agree at about ${aboutWords(about, limits.unit)}, outside the general rule of ${rangeWords(limits, limits)}: is the limit of this type another?`,
    },
  ];
}

/**
 * What keeps a reading from convicting: the meter or its leads. What a limit is worth is another question.
 */
export const doubtedAt = (
  doubts: readonly MeasurementDoubt[] | undefined,
  position: JudgedReading['position'],
): MeasurementDoubt | undefined => doubts?.find((d) => d.kind !== 'limit' && d.positions.includes(position));

/** Roughly, in the reader's unit. */
function aboutWords(value: number, symbol: string): string {
  const unit = readerUnit(symbol);
  const shown = unit.of(value);
  return `${printValue(shown, shown / 10)} ${unit.symbol}`;
}
