import { significant } from '../locale/numbers';
import type { Entry } from '../quantity/entry';
import { baseUnit, type Quantity, type ScaledUnit, toBase } from '../quantity/units';
import type { EnteredValue } from '../quantity/values';

/**
 * What a workshop's meters can show at all, in the base unit of the quantity: beyond it something else was
 * typed. A quantity that is not here has no bounds. Common practice, no source.
 */
const BOUNDS: Partial<
  Readonly<Record<Quantity, { readonly least: number; readonly most: number; readonly why: string }>>
> = {
  // Relative to the leads a good contact may read a little below zero.
  resistance: {
    least: -0.3,
    most: 1e12,
    why: 'Ohms are not negative: turn the test leads, zero them, or look for a voltage in the circuit',
  },
  voltage: { least: -1000, most: 1000, why: 'No hand-held meter shows that: look at the digits and the range' },
  current: { least: -5000, most: 5000, why: 'No clamp shows that: look at the digits and the prefix' },
  ratio: { least: -1000, most: 1000, why: 'That is no percentage of anything: look at the digits' },
  time: { least: 0, most: 1e7, why: 'Time does not run backwards: look at the digits' },
  frequency: { least: 0, most: 1e9, why: 'Nothing turns or beats less than never: look at the digits' },
};

/** A sentence where an entry is beyond what any meter shows of this quantity; `null` where it may be. */
export function beyondBounds(entry: Entry, quantity: Quantity, asked: ScaledUnit): string | null {
  const bounds = BOUNDS[quantity];
  if (!bounds) return null;
  const numbers: readonly EnteredValue[] =
    entry.kind === 'number' || entry.kind === 'beyond'
      ? [entry.value]
      : entry.kind === 'wander'
        ? [entry.low, ...(entry.high === null ? [] : [entry.high])]
        : [];
  const unit = 'unit' in entry && entry.unit ? entry.unit : asked;
  const out = numbers.map((v) => toBase(v, unit)).find((v) => v < bounds.least || v > bounds.most);
  return out === undefined ? null : `${bounds.why} (${significant(out, 4)} ${baseUnit(quantity).symbol}).`;
}
