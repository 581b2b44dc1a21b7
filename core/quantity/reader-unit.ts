import { currentLocale } from '../locale/locale';
import { fixed, significant } from '../locale/numbers';
import { decimalsOf } from './print';
import { findUnit, type Quantity } from './units';

/**
 * The unit that a reader wants to see instead of the one that a value is in. Values, limits and entries are
 * kept in theirs; only what is shown is converted. Temperatures stay in °C: limits and coefficients of parts
 * are given so in either system.
 */
export interface ReaderUnit {
  /** As it is typed behind a number, and as it is shown: "psi". */
  readonly symbol: string;
  /** Another one than the value is in. */
  readonly isOther: boolean;
  /** A value, or a difference, in the unit that was asked about, in this one. */
  readonly of: (value: number) => number;
}

/** What readers of a system read, and which units are of the other one. None of these has another zero. */
const SYSTEMS: Readonly<Record<'metric' | 'imperial', Readonly<Partial<Record<Quantity, string>>>>> = {
  metric: { pressure: 'kPa', torque: 'Nm' },
  imperial: { pressure: 'psi', torque: 'lbf ft' },
};
const IMPERIAL = new Set(['psi', 'inHg', 'lbf ft']);

/** The reader's unit for values in this one ("kPa", "Nm"); one that is not known is shown as it is. */
export function readerUnit(symbol: string): ReaderUnit {
  const { units } = currentLocale();
  const from = findUnit(symbol);
  const isOwn = !from || units === 'given' || IMPERIAL.has(from.unit.symbol) === (units === 'imperial');
  const wanted = isOwn ? undefined : SYSTEMS[units][from.unit.quantity];
  const to = wanted === undefined ? undefined : findUnit(wanted);
  if (!from || wanted === undefined || !to) return { symbol: shownUnit(symbol), isOther: false, of: (v) => v };
  const factor = (from.scale * from.unit.factor) / (to.scale * to.unit.factor);
  return { symbol: shownUnit(wanted), isOther: true, of: (v) => v * factor };
}

/** A unit as people write it, prefix included: "Ω", "kΩ", "V". */
export function shownUnit(symbol: string): string {
  const found = findUnit(symbol);
  if (!found) return symbol;
  return found.scale === 1 ? found.unit.shown : `${symbol.trim().charAt(0)}${found.unit.shown}`;
}

/** Digits of a value that was converted and has no step of its own: as many as a limit is given with. */
const DIGITS = 4;

/**
 * A value in a reader's unit without the unit: "50.8". `step`: one step of its digits in the unit that it
 * came in, 0 where nobody knows. A value that is not finite is "–".
 */
export function inReaderUnit(value: number, step: number, unit: ReaderUnit): string {
  const [shown, size] = [unit.of(value), Math.abs(unit.of(step))];
  return size === 0 ? significant(shown, DIGITS) : fixed(shown, decimalsOf(size));
}
