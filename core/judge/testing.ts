import { enteredValue, unitValue } from '../quantity/values';
import { type JudgedReading, SEVERITY } from './types';

type Branded = 'value' | 'corrected' | 'standardUncertainty' | 'resolution' | 'wander';

/** A judged reading in plain numbers, for tests that judge nothing themselves. */
export interface PlainReading extends Partial<Omit<JudgedReading, Branded>> {
  readonly value?: number | null;
  readonly corrected?: number | null;
  readonly standardUncertainty?: number | null;
  readonly resolution?: number | null;
  readonly wander?: { readonly low: number; readonly high: number | null } | null;
}

/** A reading of 0.6 ohm at cylinder 1, inside its limits, but for what is given. */
export function judgedReading(plain: PlainReading = {}): JudgedReading {
  const { value = 0.6, corrected = 0.6, standardUncertainty = 0.05, resolution = 0.1, wander = null, ...rest } = plain;
  const inUnit = (n: number | null) => (n === null ? null : unitValue(n));
  const verdict = rest.verdict ?? 'within';
  return {
    position: 1,
    entry: '0.6',
    unit: 'ohm',
    probabilityWithin: null,
    reasons: [],
    limits: null,
    severity: SEVERITY[verdict],
    ...rest,
    verdict,
    value: value === null ? null : enteredValue(value),
    corrected: inUnit(corrected),
    standardUncertainty: inUnit(standardUncertainty),
    resolution: inUnit(resolution),
    wander: wander && { low: unitValue(wander.low), high: inUnit(wander.high) },
  };
}
