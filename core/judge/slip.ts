import { limitsAt } from '../limits/at';
import { readEntry } from '../limits/entry';
import { entryToBase } from '../quantity/entry';
import { fromBase, requireUnit } from '../quantity/units';
import { medianSorted } from '../numerics/median';
import { above, below } from './compare';
import type { JudgedReading, Limits, Position } from './types';

/** What was probably meant: the same digits with another prefix. */
export interface Slip {
  /** In the unit of the limits. */
  readonly typed: number;
  readonly meant: number;
  /** How much less (or more) was meant: 1000, 0.001, … */
  readonly factor: number;
  readonly because: 'channel' | 'neighbours';
}

const FACTORS = [1e-3, 1e3, 1e-6, 1e6] as const;
/**
 * As close to the good neighbours as this, the other prefix is likelier than the fault. Common practice, no
 * source.
 */
const LEVEL = 1.5;

/**
 * Whether an entry looks like a slip of the prefix: outside the limits as typed, but inside them, or level with the good
 * neighbours, a thousand or a million times off. Answers in the unit of the limits; `null` where it does not look so, cannot
 * be read, or a transfer function judges. A meter steps from ohm to kilohm by itself: common practice, no source.
 */
export function findSlip(
  entry: string,
  position: Position,
  limits: Limits,
  others: readonly JudgedReading[],
): Slip | null {
  const read = readEntry(entry, limits);
  const asked = requireUnit(limits.unit, limits.quantity);
  if (!read.ok || !asked.ok || read.value.entry.kind !== 'number' || limits.transfer) return null;
  const typed = fromBase(entryToBase(read.value.entry, asked.value).value, asked.value);
  const { lower, upper } = limitsAt(limits, position);
  const outside = (v: number): boolean =>
    (upper !== undefined && above(v, upper)) || (lower !== undefined && below(v, lower));
  if (typed === 0 || (lower === undefined && upper === undefined) || !outside(typed)) return null;
  const company = others
    .flatMap((r) => (r.severity === 'pass' && r.corrected !== null && r.position !== position ? [r.corrected] : []))
    .toSorted((a, b) => a - b);
  const middle = company.length >= 2 ? medianSorted(company) : null;
  for (const factor of FACTORS) {
    const meant = typed * factor;
    if (middle !== null && middle > 0 && Math.max(meant / middle, middle / meant) <= LEVEL)
      return { typed, meant, factor, because: 'neighbours' };
    if (lower !== undefined && upper !== undefined && !outside(meant))
      return { typed, meant, factor, because: 'channel' };
  }
  return null;
}
