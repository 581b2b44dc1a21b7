import { currentLocale, type Locale } from './locale';
import { PSEUDO } from './pseudo';

/**
 * Dates for people, in the reader's order, the month by name where the order alone would not tell it from the
 * day.
 */

const MONTHS = new Map<string, Intl.DateTimeFormat>();

/** The short name of a month (1 to 12) in a language: "Nov". */
function monthName(month: number, language: string): string {
  const tag = language === PSEUDO ? 'en' : language;
  let format = MONTHS.get(tag);
  if (!format) MONTHS.set(tag, (format = new Intl.DateTimeFormat(tag, { month: 'short', timeZone: 'UTC' })));
  return format.format(Date.UTC(2026, month - 1, 15));
}

const two = (n: number): string => String(n).padStart(2, '0');

/** A day of the calendar: "23 Nov 2026", "Nov 23, 2026" or "2026-11-23". `month`: 1 to 12. */
export function dayShown(
  year: number,
  month: number,
  day: number,
  { dates, language }: Pick<Locale, 'dates' | 'language'> = currentLocale(),
): string {
  if (dates === 'ymd') return `${year}-${two(month)}-${two(day)}`;
  const name = monthName(month, language);
  return dates === 'mdy' ? `${name} ${day}, ${year}` : `${day} ${name} ${year}`;
}

/** An ISO 8601 day, "2026-11-23", as a person reads it; anything else stays as it is. */
export function isoDayShown(iso: string): string {
  const found = /^(\d{4})-(\d{2})-(\d{2})$/.exec(iso);
  const [year, month, day] = (found ?? []).slice(1).map(Number);
  if (year === undefined || month === undefined || day === undefined || month < 1 || month > 12) return iso;
  return dayShown(year, month, day);
}
