import { currentLocale } from './locale';

/**
 * Numbers for people, with the reader's decimal mark. Files and programs get a point: they do not come here.
 */

/** The mark in a number as JavaScript writes it: "0.4" is "0,4" for whoever reads a comma. */
export const withMark = (text: string): string => (currentLocale().decimal === 'comma' ? text.replace('.', ',') : text);

/** To so many decimals (0 to 100); a value that is not finite is "–". */
export const fixed = (value: number, decimals: number): string =>
  Number.isFinite(value) ? withMark(value.toFixed(decimals)) : '–';

/** Shortest form of at most so many significant digits (1 to 100): 0.40 to two is "0.4". Not finite: "–". */
export const significant = (value: number, digits: number): string =>
  Number.isFinite(value) ? withMark(String(Number(value.toPrecision(digits)))) : '–';

/**
 * A whole number with its thousands apart: by commas where the decimal mark is a point, else by narrow
 * spaces.
 */
export const grouped = (value: number): string =>
  value
    .toLocaleString('en', { maximumFractionDigits: 0 })
    .replaceAll(',', currentLocale().decimal === 'comma' ? '\u202f' : ',');

/**
 * What somebody typed, its numbers with the reader's mark; where a number has more than one mark, as it was
 * typed.
 */
export const entryShown = (entry: string): string =>
  /\d[.,]\d+[.,]\d/.test(entry)
    ? entry
    : entry.replace(/(?<=\d)[.,](?=\d)/g, currentLocale().decimal === 'comma' ? ',' : '.');
