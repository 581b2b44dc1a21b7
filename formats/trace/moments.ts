/** A moment as a cell of a table states it. */
export interface ReadMoment {
  /** Seconds: since 1970-01-01 where the cell has a day, else since midnight. */
  readonly seconds: number;
  /** Digits after the point. */
  readonly decimals: number;
  readonly hasDay: boolean;
}

const CLOCK = /^(?:(\d{1,3}):)?(\d{1,2}):(\d{1,2})(?:[.,:](\d{1,9}))?\s*([AaPp][Mm])?$/;
const DAY_FIRST = /^(\d{1,2})[./](\d{1,2})[./](\d{4})$/;
const YEAR_FIRST = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})$/;

/** A day: `2026-11-29`, `29.11.2026`, `29/11/2026`, as seconds since 1970-01-01; `null`: it is none. */
export function readDay(text: string): number | null {
  const year = YEAR_FIRST.exec(text);
  const day = DAY_FIRST.exec(text);
  const parts = year ? [year[1], year[2], year[3]] : day ? [day[3], day[2], day[1]] : null;
  if (!parts) return null;
  const [y = 0, m = 0, d = 0] = parts.map(Number);
  const ms = Date.UTC(y, m - 1, d);
  const back = new Date(ms);
  return back.getUTCMonth() === m - 1 && back.getUTCDate() === d ? ms / 1000 : null;
}

/** A time of day or an elapsed time: `8:30:00.25`, `08:30:00`, `30:12.5` (minutes and seconds). */
export function readClock(text: string): ReadMoment | null {
  const found = CLOCK.exec(text);
  if (!found) return null;
  const [, h, m = '0', s = '0', fraction = '', half] = found;
  const [minutes, rest] = [Number(m), Number(s)];
  if (rest >= 60 || minutes >= 60) return null;
  let hours = Number(h ?? 0);
  if (half && (hours > 12 || hours === 0)) return null;
  if (half) hours = (hours % 12) + (half.toLowerCase() === 'pm' ? 12 : 0);
  const seconds = hours * 3600 + minutes * 60 + rest + (fraction ? Number(`0.${fraction}`) : 0);
  return { seconds, decimals: fraction.length, hasDay: false };
}

/**
 * Day and time of day in one cell, as `2026-11-29T08:30:00.25Z` or `29.11.2026 08:30:00,25`. Zones other than
 * Z are ignored.
 */
export function readDateTime(text: string): ReadMoment | null {
  const cut = /^(\S+?)[T ]+(\d{1,2}:\S+(?:\s*[AaPp][Mm])?)$/.exec(text.trim());
  if (!cut) return null;
  const day = readDay(cut[1] ?? '');
  const clock = readClock((cut[2] ?? '').replace(/(?:Z|[+-]\d{2}:?\d{2})$/, ''));
  return day === null || !clock ? null : { ...clock, seconds: day + clock.seconds, hasDay: true };
}

export const readMoment = (text: string): ReadMoment | null => readDateTime(text) ?? readClock(text);
