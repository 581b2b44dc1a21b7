import { limitsAt } from '../limits/at';
import { readEntry } from '../limits/entry';
import { entryToBase } from '../quantity/entry';
import { fromBase, requireUnit } from '../quantity/units';
import type { BaseValue, UnitValue } from '../quantity/values';
import { medianSorted } from '../numerics/median';
import { above, below } from './compare';
import type { JudgedReading, Limits, Position } from './types';

/**
 * What was probably meant: the same digits with another prefix, point or sign; or that the probes were
 * elsewhere.
 */
export interface Slip {
  /** In the unit of the limits. */
  readonly typed: number;
  readonly meant: number;
  /** How much less (or more) was meant: 1000, 0.001, … */
  readonly factor: number;
  /** `battery`: what was read is the battery where nearly nothing belongs; nothing else was meant. */
  readonly because: 'channel' | 'neighbours' | 'turned' | 'point' | 'battery';
}

const FACTORS = [1e-3, 1e3, 1e-6, 1e6] as const;
/** A decimal point that slipped is asked for where the volts are so many times what belongs there. */
const FAR = 4;
/** A vehicle's battery, resting, cranking or charging, of either system. Common practice, no source. */
const BATTERY_V = { least: 9, most: 30 } as const;
/** Where less than this belongs, a battery is none of it. */
const LITTLE_V = 1;
/**
 * As close to the good neighbours as this, the other prefix is likelier than the fault. Common practice, no
 * source.
 */
const LEVEL = 1.5;

/**
 * Whether an entry looks like a slip of the prefix: outside the limits as typed, but inside them, or level
 * with the good neighbours, a thousand or a million times off. Answers in the unit of the limits; `null`
 * where it does not look so, cannot be read, or a transfer function judges. A meter steps from ohm to kilohm
 * by itself: common practice, no source.
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
  // Of a pair both were typed: their difference has no prefix of its own.
  if (read.value.pair) return null;
  const typed = fromBase(entryToBase(read.value.entry, asked.value).value, asked.value);
  const { lower, upper } = limitsAt(limits, position);
  const outside = (v: number): boolean =>
    (upper !== undefined && above(v, upper)) || (lower !== undefined && below(v, lower));
  if (typed === 0 || (lower === undefined && upper === undefined) || !outside(typed)) return null;
  const special = otherSlip(limits, typed, fromBase(1 as BaseValue, asked.value), lower, upper, outside);
  if (special !== undefined) return special;
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

/**
 * Slips that are none of the prefix: a clamp or test leads turned around, a point of the volts, the battery
 * where nearly nothing belongs. `null`: nothing is to be asked; `undefined`: the prefix may be. `perBase`:
 * one volt in the unit of the limits.
 */
function otherSlip(
  { quantity }: Limits,
  typed: UnitValue,
  perBase: number,
  lower: number | undefined,
  upper: number | undefined,
  outside: (v: number) => boolean,
): Slip | null | undefined {
  if (quantity === 'ratio') return null;
  if (quantity !== 'voltage' && quantity !== 'current') return undefined;
  const turned = typed * -1;
  if (typed < 0 && lower !== undefined && lower >= 0 && upper !== undefined && !outside(turned))
    return { typed, meant: turned, factor: -1, because: 'turned' };
  if (quantity !== 'voltage' || upper === undefined) return undefined;
  const volts = typed / perBase;
  if (upper / perBase < LITTLE_V && volts >= BATTERY_V.least && volts <= BATTERY_V.most)
    return { typed, meant: typed, factor: 1, because: 'battery' };
  if (typed > FAR * upper && lower !== undefined && !outside(typed / 10))
    return { typed, meant: typed / 10, factor: 0.1, because: 'point' };
  return undefined;
}
