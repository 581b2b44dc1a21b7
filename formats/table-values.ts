import { tr } from '../core/locale/translate';
import { fail, ok, type Result } from '../core/foundation/result';

/** Which sign a file puts before the decimals, where its numbers tell. */
export type DecimalSign = ',' | '.' | null;

const BLANKS = /[\s\u00a0\u202f'’](?=\d{3}(?!\d))/g;
/** A number of which only one reading is possible, and the sign that it shows. */
const POINT = /^[+-]?(?:\d{1,3}(?:,\d{3})+\.\d+|\d*\.(?:\d{1,2}|\d{4,})|0?\.\d+)$/;
const COMMA = /^[+-]?(?:\d{1,3}(?:\.\d{3})+,\d+|\d*,(?:\d{1,2}|\d{4,})|0?,\d+)$/;

/** What the numbers of a file agree on; `null` where they do not say, or contradict each other. */
export function decimalSignOf(numbers: Iterable<string>): DecimalSign {
  let [points, commas] = [0, 0];
  for (const raw of numbers) {
    const typed = raw.trim().replace(BLANKS, '');
    if (POINT.test(typed)) points += 1;
    if (COMMA.test(typed)) commas += 1;
  }
  if (points > 0 === commas > 0) return null;
  return points ? '.' : ',';
}

/**
 * A number as a spreadsheet writes it: blanks, apostrophes, points or commas between thousands, point or
 * comma before the decimals. What can be read in two ways is refused, unless the other numbers of the file
 * decide it.
 */
export function readTableNumber(raw: string, sign: DecimalSign): Result<number, string> {
  const typed = raw
    .trim()
    .replace(/\u2212/g, '-')
    .replace(BLANKS, '');
  const none = fail(tr`"${raw}" is no number.`);
  const value = (text: string): Result<number, string> => {
    const n = text === '' ? NaN : Number(text);
    return Number.isFinite(n) ? ok(n) : none;
  };
  const [points, commas] = [count(typed, '.'), count(typed, ',')];
  if (points && commas) {
    const decimals = typed.lastIndexOf('.') > typed.lastIndexOf(',') ? '.' : ',';
    const groups = decimals === '.' ? ',' : '.';
    const isGrouped = new RegExp(`^[+-]?\\d{1,3}(?:\\${groups}\\d{3})+\\${decimals}\\d*$`).test(typed);
    return isGrouped ? value(typed.replaceAll(groups, '').replace(decimals, '.')) : none;
  }
  if (!points && !commas) return value(typed);
  const used = points ? '.' : ',';
  const grouped = new RegExp(`^[+-]?[1-9]\\d{0,2}(?:\\${used}\\d{3})+$`).test(typed);
  if (count(typed, used) > 1) return grouped ? value(typed.replaceAll(used, '')) : none;
  if (!grouped || sign === used) return value(typed.replace(used, '.'));
  if (sign !== null) return value(typed.replaceAll(used, ''));
  // A point stands before decimals in most files of this kind; a comma says it as often as not.
  if (used === '.') return value(typed);
  const plain = typed.replace(',', '');
  return fail(tr`"${raw}" can be read in two ways. Write ${plain} or ${typed.replace(',', '.')}.`);
}

const count = (text: string, sign: string): number => text.split(sign).length - 1;

/** A day as `2026-11-29`, `29.11.2026` or `29/11/2026`, as ISO 8601. */
export function readTableDay(raw: string): Result<string, string> {
  const typed = raw.trim();
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(typed);
  if (iso) return dayOf(Number(iso[1]), Number(iso[2]), Number(iso[3]), raw);
  const dotted = /^(\d{1,2})\.\s?(\d{1,2})\.\s?(\d{4})$/.exec(typed);
  if (dotted) return dayOf(Number(dotted[3]), Number(dotted[2]), Number(dotted[1]), raw);
  const slashed = /^(\d{1,2})\/(\d{1,2})\/(\d{4})$/.exec(typed);
  if (!slashed) return fail(tr`"${raw}" is no day. Write it as 2026-11-29 or 29.11.2026.`);
  const [first, second, year] = [Number(slashed[1]), Number(slashed[2]), Number(slashed[3])];
  // Which of the two is the day is written one way here and the other way there.
  if (first <= 12 && second <= 12 && first !== second)
    return fail(tr`"${raw}" can be read in two ways. Write it as ${year}-MM-DD.`);
  return first > 12 ? dayOf(year, second, first, raw) : dayOf(year, first, second, raw);
}

function dayOf(year: number, month: number, day: number, raw: string): Result<string, string> {
  const text = [String(year), String(month).padStart(2, '0'), String(day).padStart(2, '0')].join('-');
  const parsed = new Date(`${text}T00:00:00Z`);
  const isThere = !Number.isNaN(parsed.getTime()) && parsed.toISOString().startsWith(text);
  return isThere ? ok(text) : fail(tr`There is no day "${raw}".`);
}

/** Yes or no; an empty cell is what `otherwise` says. */
export function readTableYes(raw: string, otherwise: boolean): Result<boolean, string> {
  const typed = raw.trim().toLowerCase();
  if (typed === '') return ok(otherwise);
  return typed === 'yes' || typed === 'no' ? ok(typed === 'yes') : fail(tr`"${raw}" is neither yes nor no.`);
}

export const tableYes = (value: boolean): string => (value ? 'yes' : 'no');

/** What a cell names: the one that is written so, else the only one that differs in capitals. */
export function namedInTable<T>(all: readonly T[], nameOf: (one: T) => string, typed: string): T | undefined {
  const exact = all.find((one) => nameOf(one) === typed);
  if (exact !== undefined) return exact;
  const alike = all.filter((one) => nameOf(one).toLowerCase() === typed.toLowerCase());
  return alike.length === 1 ? alike[0] : undefined;
}
