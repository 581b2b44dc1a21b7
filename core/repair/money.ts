import { grouped, withMark } from '../locale/numbers';

/** Money in integer minor units of a currency (cents, fils). */

const DIGITS = new Map<string, number>();

/**
 * Decimal places of a currency after ISO 4217, as the platform's Intl knows them: EUR 2, JPY 0, TND 3; 2 for
 * one that is unknown or misspelt.
 */
export function minorDigits(currency: string): number {
  const known = DIGITS.get(currency);
  if (known !== undefined) return known;
  const digits = digitsOf(currency);
  DIGITS.set(currency, digits);
  return digits;
}

function digitsOf(currency: string): number {
  try {
    return new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions().maximumFractionDigits ?? 2;
  } catch {
    return 2;
  }
}

/**
 * Minor units (cents) from an amount as a person types it, rounded to the nearest, a half up. A currency
 * that nobody knows has two decimals. NaN for NaN.
 */
export const toMinor = (amount: number, currency: string): number => Math.round(amount * 10 ** minorDigits(currency));

/** The amount as a person types it: "25.50". */
export const fromMinor = (minor: number, currency: string): string => {
  const digits = minorDigits(currency);
  return (minor / 10 ** digits).toFixed(digits);
};

/** "1,234.50 EUR"; "1 234,50 EUR" for whoever reads a comma. */
export const moneyWords = (minor: number, currency: string): string => {
  const [whole = '', parts] = fromMinor(minor, currency).split('.');
  const sign = whole.startsWith('-') ? '-' : '';
  const size = grouped(Math.abs(Number(whole)));
  return `${sign}${size}${parts === undefined ? '' : withMark(`.${parts}`)} ${currency}`;
};
