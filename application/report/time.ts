import { dayShown } from '../../core/locale/dates';

/** What a clock of a zone shows. Making one costs a hundred times what asking it does: each is made once. */
const CLOCKS = new Map<string, Intl.DateTimeFormat>();

function clockOf(timeZone: string): Intl.DateTimeFormat {
  let clock = CLOCKS.get(timeZone);
  if (!clock) {
    clock = new Intl.DateTimeFormat('en-US', {
      timeZone,
      hourCycle: 'h23',
      year: 'numeric',
      month: 'numeric',
      day: 'numeric',
      hour: '2-digit',
      minute: '2-digit',
    });
    CLOCKS.set(timeZone, clock);
  }
  return clock;
}

interface LocalTime {
  readonly year: number;
  readonly month: number;
  readonly day: number;
  /** The time of day: "14:05". */
  readonly clock: string;
}

function localTime(iso: string, timeZone: string): LocalTime {
  const parts: Partial<Record<Intl.DateTimeFormatPartTypes, string>> = {};
  for (const { type, value } of clockOf(timeZone).formatToParts(new Date(iso))) parts[type] = value;
  const { year, month, day, hour = '', minute = '' } = parts;
  return { year: Number(year), month: Number(month), day: Number(day), clock: `${hour}:${minute}` };
}

/**
 * The time of day of a stored moment in the depot's zone: "14:05". `iso`: ISO 8601 with its offset;
 * `timeZone`: a name of the IANA database. Throws RangeError for a moment or a zone that is none.
 */
export const shownClock = (iso: string, timeZone: string): string => localTime(iso, timeZone).clock;

/**
 * A stored moment in the depot's zone, the day in the reader's order: "23 Nov 2026, 14:05". Errors as of
 * `shownClock`.
 */
export function shownTime(iso: string, timeZone: string): string {
  const { year, month, day, clock } = localTime(iso, timeZone);
  return `${dayShown(year, month, day)}, ${clock}`;
}
