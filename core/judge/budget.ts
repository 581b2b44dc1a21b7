import { limitsAt, predict } from '../limits/at';
import { readEntry } from '../limits/entry';
import type { UncertaintyParts } from '../metrology/uncertainty';
import { entryToBase } from '../quantity/entry';
import { requireUnit } from '../quantity/units';
import { combine } from '../metrology/uncertainty';
import { measure } from './measure';
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
 * The uncertainty budget of one reading after the GUM (JCGM 100), largest first; every contribution is rectangular. Empty where there is
 * no number. The set must have passed `checkSet`.
 */
export function budgetOf(set: TestSet, position: Position): readonly Contribution[] {
  const reading = set.readings.find((r) => r.position === position);
  const asked = requireUnit(set.limits.unit, set.limits.quantity);
  if (!reading || !asked.ok) return [];
  const instrument = reading.instrument === undefined ? set.instrument : reading.instrument;
  const read = readEntry(reading.entry, set.limits, instrument?.clamp_mVperA ?? null);
  if (!read.ok || read.value.entry.kind !== 'number') return [];
  const { entry, at } = read.value;
  const { value, resolution } = entryToBase(entry, asked.value);
  const limits = limitsAt(set.limits, position);
  const slope = at ? (predict(limits, at.value)?.slope ?? 0) : 0;
  const { parts } = measure(value, resolution, 0, {
    limits,
    condition: set.condition,
    instrument,
    asked: asked.value,
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
