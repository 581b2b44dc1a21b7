import { tz } from '@date-fns/tz';
import { format } from 'date-fns';
import { dayShown } from '../../core/locale/dates';

const inZone = (iso: string, timeZone: string, pattern: string): string =>
  format(new Date(iso), pattern, { in: tz(timeZone) });

/** The time of day of a stored moment in the depot's zone: "14:05". */
export const shownClock = (iso: string, timeZone: string): string => inZone(iso, timeZone, 'HH:mm');

/** A stored moment in the depot's zone, the day in the reader's order: "23 Nov 2026, 14:05". */
export function shownTime(iso: string, timeZone: string): string {
  const [year = 0, month = 1, day = 1] = inZone(iso, timeZone, 'y M d').split(' ').map(Number);
  return `${dayShown(year, month, day)}, ${shownClock(iso, timeZone)}`;
}
