import { tz } from '@date-fns/tz';
import { format } from 'date-fns';

/** A stored moment in the depot's zone: "23 Nov 2026, 14:05". */
export const shownTime = (iso: string, timeZone: string): string =>
  format(new Date(iso), 'd MMM yyyy, HH:mm', { in: tz(timeZone) });
