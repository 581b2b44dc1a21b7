import { tr } from '../locale/translate';
import { fail, ok, type Result } from '../foundation/result';
import { baseUnit, findUnit, PREFIXES, type Quantity, type ScaledUnit, spanToBase, toBase } from './units';
import { type BaseValue, enteredValue, type EnteredValue } from './values';

/**
 * Reading what a person types or a meter sends.
 *
 *   number    [+-] digits, decimal point or comma; SI prefix and unit after it, both optional: `97.8k`,
 *             `12,4 V`
 *   RKM code  a letter in place of the point, IEC 60062:2016 clause 4: `4k7`, `0R6`, `R47`, `1M5`,
 *             `2L2` (milliohm)
 *   overload  `OL`, `0L`, `O.L`, `open`, `∞`: the meter shows that it is beyond its range
 *   never     of a time, `never` or `never glowed`: it did not come about
 *   wander    `low~high`: the display does not settle; the high side may be an overload
 *   beyond    `>20M`: more than
 *   nothing   an empty entry, or a dash: not measured
 *   seen      for an observation, `pass` or `fail`, a note after it: `fail oil in the connector`
 *
 * The digits that were typed tell the resolution: `0.60` says more than `0.6`.
 */
export interface NumberEntry {
  readonly kind: 'number';
  /** As typed, prefix applied, in `unit` (or, where none was typed, in the unit the bench asks for). */
  readonly value: EnteredValue;
  /** One step of the last typed digit, in the same unit. */
  readonly resolution: EnteredValue;
  /** The unit without prefix, `null` where neither unit nor prefix was typed. */
  readonly unit: ScaledUnit | null;
}
export interface WanderEntry {
  readonly kind: 'wander';
  readonly low: EnteredValue;
  /** `null` where the high side is an overload: the contact breaks. */
  readonly high: EnteredValue | null;
  readonly resolution: EnteredValue;
  readonly unit: ScaledUnit | null;
}
export interface BeyondEntry {
  readonly kind: 'beyond';
  readonly value: EnteredValue;
  readonly resolution: EnteredValue;
  readonly unit: ScaledUnit | null;
}
export type Entry =
  | NumberEntry
  | WanderEntry
  | BeyondEntry
  | { readonly kind: 'seen'; readonly good: boolean; readonly note: string }
  | { readonly kind: 'overload' }
  | { readonly kind: 'nothing' };

const MAX_LENGTH = 40;
/** Beyond what anybody measures in any unit; conversions of it stay finite. */
const LARGEST = 1e300;
const OVERLOAD = /^(?:[o0]\.?l\.?|open|overload|over|∞|inf|infinity)$/i;
/** Of a time: it did not come about. */
const NEVER = /^(?:never|none|did not)(?: glow(?:ed|s)?)?$/i;
const NOTHING = /^(?:[-–—]|)$/;
const SEEN = /^(?:(pass(?:ed)?|p|ok|good)|(?:fail(?:ed)?|f|bad))(?:[\s:,]+(.*))?$/i;
const NUMBER = /^([+-]?)(\d+(?:[.,]\d*)?|[.,]\d+)\s*(\S.*)?$/;
const RKM = /^([+-]?)(\d*)([pnuµμmkKMGTRLVA])(\d+)\s*(\S.*)?$/;

export const ENTRY_HELP = 'Type a number such as 0.6, 4k5 or 97.8 k, a wander such as 0.4~0.9, >20M, or OL';

/**
 * Reads one entry for a quantity. The failure is a sentence that says what can be read.
 * Never throws; every number in the result is finite.
 */
export function parseEntry(text: string, quantity: Quantity): Result<Entry, string> {
  const typed = text
    .normalize('NFC')
    .trim()
    .replace(/\u2212/g, '-');
  if (NOTHING.test(typed)) return ok({ kind: 'nothing' });
  if (quantity === 'observation') return parseSeen(typed);
  if (typed.length > MAX_LENGTH) return fail(tr`An entry has at most ${MAX_LENGTH} characters.`);
  if (quantity === 'time' && NEVER.test(typed)) return ok({ kind: 'overload' });
  if (OVERLOAD.test(withoutUnit(typed))) return ok({ kind: 'overload' });
  if (typed.includes('~')) return parseWander(typed, quantity);
  if (typed.startsWith('>')) {
    const value = parseNumber(typed.slice(1).trim(), quantity);
    return value.ok ? ok({ ...value.value, kind: 'beyond' }) : value;
  }
  return parseNumber(typed, quantity);
}

function parseSeen(typed: string): Result<Entry, string> {
  const found = SEEN.exec(typed);
  if (!found)
    return fail(
      tr`"${typed.slice(0, MAX_LENGTH)}" cannot be read. This test has no number: type p for pass or f for fail, and a note after it if you like.`,
    );
  return ok({ kind: 'seen', good: found[1] !== undefined, note: (found[2] ?? '').trim() });
}

/** Meters send the range's unit with the overload: `OL MΩ`, `OL kohm`. */
function withoutUnit(typed: string): string {
  const parts = /^(\S+)\s+(\S+)$/.exec(typed);
  return parts && findUnit(parts[2] as string) ? (parts[1] as string) : typed;
}

function parseWander(typed: string, quantity: Quantity): Result<Entry, string> {
  const sides = typed.split('~').map((s) => s.trim());
  const [left = '', right = ''] = sides;
  if (sides.length !== 2 || !left || !right) return fail('A wander has two sides: low~high, such as 0.4~0.9.');
  const high = OVERLOAD.test(right) ? null : parseNumber(right, quantity);
  if (high && !high.ok) return high;
  const low = parseNumber(left, quantity);
  if (!low.ok) return low;
  const unit = low.value.unit ?? high?.value.unit ?? null;
  // `0.4~0.9 k` means that both sides are in kilohm: a unit at the end serves both, a bare prefix alike.
  const lowScaled = !low.value.unit && high?.value.unit ? inheritScale(left, right, quantity) : low;
  if (!lowScaled.ok) return lowScaled;
  if (low.value.unit && high && !high.value.unit) {
    return fail(tr`"${typed}" has a unit on one side only; put it at the end or on both sides.`);
  }
  const highBase = high ? baseOf(high.value) : Number.POSITIVE_INFINITY;
  if (baseOf(lowScaled.value) > highBase) return fail(tr`"${typed}" wanders from high to low: type low~high.`);
  return ok({
    kind: 'wander',
    low: lowScaled.value.value,
    high: high ? high.value.value : null,
    unit,
    resolution: enteredValue(Math.max(lowScaled.value.resolution, high ? high.value.resolution : 0)),
  });
}

const baseOf = (e: NumberEntry): number => (e.unit ? toBase(e.value, e.unit) : e.value);

function inheritScale(left: string, right: string, quantity: Quantity): Result<NumberEntry, string> {
  const suffix = /[^\d.,+-].*$/.exec(right)?.[0] ?? '';
  return parseNumber(/\d[^\d.,]\d/.test(right) ? left : `${left} ${suffix}`, quantity);
}

function parseNumber(typed: string, quantity: Quantity): Result<NumberEntry, string> {
  const plain = NUMBER.exec(typed);
  if (plain) {
    const suffix = parseSuffix(plain[3] ?? '', quantity);
    if (suffix.ok) return build(plain[1] as string, plain[2] as string, suffix.value);
    if (!RKM.test(typed)) return suffix;
  }
  const rkm = RKM.exec(typed);
  return rkm ? parseRkm(rkm, quantity) : fail(tr`"${typed}" cannot be read. ${ENTRY_HELP}.`);
}

interface Suffix {
  readonly scale: number;
  readonly unit: ScaledUnit | null;
}

/** What stands after the digits: nothing, a prefix, a unit, or both. */
function parseSuffix(suffix: string, quantity: Quantity): Result<Suffix, string> {
  const text = suffix.trim();
  if (!text) return ok({ scale: 1, unit: null });
  const base = baseScaled(quantity);
  if (text === 'R' && quantity === 'resistance') return ok({ scale: 1, unit: base });
  const named = findUnit(text);
  const prefix = Object.hasOwn(PREFIXES, text) && base.unit.prefixable ? PREFIXES[text] : undefined;
  // A lone letter can be a prefix or a unit (`m`, `K`): the prefix wins unless the quantity is measured in
  // that unit.
  if (prefix !== undefined && named?.unit.quantity !== quantity) return ok({ scale: prefix, unit: base });
  if (!/^[\p{L}%°℃Ω]/u.test(text)) return fail(tr`"${text}" cannot stand after a number. ${ENTRY_HELP}.`);
  if (!named) return fail(tr`"${text}" is no unit or prefix known here. ${ENTRY_HELP}.`);
  if (named.unit.quantity !== quantity) {
    return fail(tr`This test reads ${quantity}; "${text}" is a unit of ${named.unit.quantity}.`);
  }
  return ok({ scale: named.scale, unit: { unit: named.unit, scale: 1 } });
}

const baseScaled = (quantity: Quantity): ScaledUnit => ({ unit: baseUnit(quantity), scale: 1 });

const RKM_LETTERS: Readonly<Record<string, number>> = { ...PREFIXES, R: 1, L: 1e-3, V: 1, A: 1 };
const RKM_ONLY_FOR: Readonly<Record<string, Quantity>> = {
  R: 'resistance',
  L: 'resistance',
  V: 'voltage',
  A: 'current',
};

function parseRkm(match: RegExpExecArray, quantity: Quantity): Result<NumberEntry, string> {
  const [typed, sign = '', whole = '', letter = '', fraction = '', unitText] = match;
  const only = RKM_ONLY_FOR[letter];
  if (only && only !== quantity) return fail(tr`This test reads ${quantity}; "${typed}" is written as ${only}.`);
  const base = baseScaled(quantity);
  if (!base.unit.prefixable) return fail(tr`"${typed}" cannot be read. ${ENTRY_HELP}.`);
  if (unitText) {
    const named = findUnit(unitText);
    if (!named || named.scale !== 1 || named.unit !== base.unit) {
      return fail(tr`"${unitText}" cannot stand after "${typed.slice(0, -unitText.length).trim()}". ${ENTRY_HELP}.`);
    }
  }
  return build(sign, `${whole || '0'}.${fraction}`, { scale: RKM_LETTERS[letter] ?? 1, unit: base });
}

function build(sign: string, digits: string, suffix: Suffix): Result<NumberEntry, string> {
  const text = digits.replace(',', '.');
  const decimals = (text.split('.')[1] ?? '').length;
  const exponent = Math.round(Math.log10(suffix.scale)) - decimals;
  // Parsed as one decimal literal, so that 97.8k is the double nearest to 97800 and not 97.8 * 1000.
  const value = Number(`${sign}${text.replace('.', '')}e${exponent}`);
  if (!(Math.abs(value) <= LARGEST)) return fail(tr`"${digits}" is too large to be a reading.`);
  return ok({
    kind: 'number',
    value: enteredValue(value),
    resolution: enteredValue(Number(`1e${exponent}`)),
    unit: suffix.unit,
  });
}

/** An entry's value and resolution in the base unit of the quantity, where the bench asks in `asked`. */
export function entryToBase(
  entry: { value: EnteredValue; resolution: EnteredValue; unit: ScaledUnit | null },
  asked: ScaledUnit,
): { value: BaseValue; resolution: BaseValue } {
  const unit = entry.unit ?? asked;
  return { value: toBase(entry.value, unit), resolution: spanToBase(entry.resolution, unit) };
}
