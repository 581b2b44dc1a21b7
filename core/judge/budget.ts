import { limitsAt, predict } from '../limits/at';
import type { UncertaintyParts } from '../metrology/uncertainty';
import { entryToBase } from '../quantity/entry';
import { requireUnit } from '../quantity/units';
import { combine } from '../metrology/uncertainty';
import { baseValue } from '../quantity/values';
import { measure } from './measure';
import { parseReadings } from './parse';
import type { Position, TestSet } from './types';

/** One line of an uncertainty budget. */
export interface Contribution {
  readonly from: keyof UncertaintyParts;
  readonly words: string;
  /** Standard uncertainty in the unit of the limits. */
  readonly standardUncertainty: number;
  /** Share of the combined variance, 0 to 1. */
  readonly share: number;
}

const WORDS: Readonly<Record<keyof UncertaintyParts, string>> = {
  digits: 'half a step of the digits',
  gain: 'percent of reading of this range',
  counts: 'counts of this range',
  leadZero: 'digits of the lead zero',
  wander: 'wander of the display',
  contact: 'how well leads and contact repeat',
  temperature: 'temperature of the part, ± 2 K',
  stimulus: 'digits of the gauge',
};

/**
 * The uncertainty budget of one reading after the GUM (JCGM 100), largest first; every contribution is
 * rectangular. Empty where there is no number. The set must have passed `checkSet`.
 */
export function budgetOf(set: TestSet, position: Position): readonly Contribution[] {
  const own = set.readings.filter((r) => r.position === position);
  const [reading] = parseReadings({ ...set, readings: own }).readings;
  const asked = requireUnit(set.limits.unit, set.limits.quantity);
  if (!reading || !asked.ok || reading.entry.kind !== 'number') return [];
  const { entry, at, instrument } = reading;
  const { value, resolution } = entryToBase(entry, asked.value);
  const limits = limitsAt(set.limits, position);
  const slope = at ? (predict(limits, at.value)?.slope ?? 0) : 0;
  const { parts } = measure(value, resolution, baseValue(0), {
    limits,
    condition: set.condition,
    instrument,
    limitUnit: asked.value,
    decision: set.decision ?? 'three-way',
    at,
    slope,
    ofPosition: false,
    part: '',
  });
  const total = combine(parts) ** 2;
  return (Object.keys(WORDS) as (keyof UncertaintyParts)[])
    .map((from) => ({
      from,
      words: WORDS[from],
      standardUncertainty: parts[from],
      share: total > 0 ? parts[from] ** 2 / total : 0,
    }))
    .filter((c) => c.standardUncertainty > 0)
    .toSorted((a, b) => b.standardUncertainty - a.standardUncertainty);
}
