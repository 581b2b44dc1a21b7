import { fixed, withMark } from '../locale/numbers';

/**
 * Printing numbers for people, with the reader's decimal mark. Files and programs get full precision instead.
 */
import { tr } from '../locale/translate';

const STEPS: readonly (readonly [number, string])[] = [
  [1e9, 'G'],
  [1e6, 'M'],
  [1e3, 'k'],
  [1, ''],
  [1e-3, 'm'],
  [1e-6, 'µ'],
];

/**
 * Decimals that show one step of a value's digits: 0.1 needs one; 6 at most, as for 0. NaN for NaN and below
 * 0.
 */
export const decimalsOf = (step: number): number => Math.min(6, Math.max(0, -Math.floor(Math.log10(step) + 1e-9)));

/**
 * A number rounded to the place of `step` (a resolution or an uncertainty, same unit), with an SI prefix from
 * kilo up: `printValue(4500, 100)` is "4.5 k". Small values keep their unit ("0.4", not "400 m"): that is how
 * the trade says them. Non-finite input prints as "–".
 */
export function printValue(value: number, step: number): string {
  if (!Number.isFinite(value)) return '–';
  const size = Math.max(Math.abs(value), Math.abs(step));
  const [scale, prefix] = STEPS.find(([s]) => s >= 1 && size >= s) ?? [1, ''];
  const decimals = step > 0 ? decimalsOf(step / scale) : 3;
  const text = (value / scale).toFixed(decimals);
  const clean = Number(text) === 0 ? text.replace('-', '') : text;
  return prefix ? `${withMark(clean)} ${prefix}` : withMark(clean);
}

/**
 * "0.4 ± 0.1", "1.2 k ± 0.4 k": value and half width in one unit, both rounded to `step` (0 or more) and with
 * the prefix of the value. A value that is not finite prints as "–".
 */
export function printPlusMinus(value: number, plusMinus: number, step: number): string {
  const text = printValue(value, step);
  const prefix = / ([GMk])$/.exec(text)?.[1] ?? '';
  const scale = STEPS.find(([, p]) => p === prefix)?.[0] ?? 1;
  const decimals = (/[.,](\d+)/.exec(text)?.[1] ?? '').length;
  return `${text} ± ${fixed(plusMinus / scale, decimals)}${prefix && ` ${prefix}`}`;
}

/** Value with its unit: "201 Ω", "4.5 kΩ". */
export function printQuantity(value: number, step: number, unitShown: string): string {
  const text = printValue(value, step);
  return /[GMk]$/.test(text) ? `${text}${unitShown}` : `${text} ${unitShown}`;
}

/** A number as a limit is written: shortest form, up to six significant digits, prefixed from kilo up. */
export function printLimit(value: number, unitShown: string): string {
  const [scale, prefix] = STEPS.find(([s]) => s >= 1 && Math.abs(value) >= s) ?? [1, ''];
  const digits = Number((value / scale).toPrecision(6));
  const text = Number.isInteger(digits) && scale === 1 && Math.abs(digits) < 10 ? digits.toFixed(1) : String(digits);
  return `${withMark(text)} ${prefix}${unitShown}`;
}

/** Joins as people list things: "1", "1 and 2", "1, 2 and 3". */
export function joinAnd(items: readonly (string | number)[]): string {
  const texts = items.map(String);
  if (texts.length < 2) return texts.join('');
  return tr`${texts.slice(0, -1).join(', ')} and ${texts.at(-1)}`;
}
