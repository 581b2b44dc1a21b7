import { fixed, significant } from '../locale/numbers';
import { tr } from '../locale/translate';
import type { Channel } from './types';

/** A length of time as a person says it. */
export function span(seconds: number): string {
  if (seconds < 1e-3) return tr`${round(seconds * 1e6)} µs`;
  if (seconds < 1) return tr`${round(seconds * 1e3)} ms`;
  if (seconds < 120) return `${round(seconds)} s`;
  const minutes = Math.round(seconds / 60);
  if (minutes < 60) return tr`${minutes} min`;
  return tr`${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')} min`;
}

/** A moment of a recording: h:mm:ss.mmm, hours only where there are some. */
export function moment(seconds: number): string {
  const sign = seconds < 0 ? '-' : '';
  const ms = Math.round(Math.abs(seconds) * 1000);
  const [h, m, s] = [Math.floor(ms / 3_600_000), Math.floor(ms / 60_000) % 60, (ms % 60_000) / 1000];
  const tail = `${String(m).padStart(2, '0')}:${fixed(s, 3).padStart(6, '0')}`;
  return h ? `${sign}${h}:${tail}` : `${sign}${tail}`;
}

/** A value in the digits that the channel's step, or three figures, ask for. */
export function say(value: number, { step }: Pick<Channel, 'step'>): string {
  if (!Number.isFinite(value)) return '?';
  const digits = step > 0 ? Math.min(6, Math.max(0, Math.ceil(-Math.log10(step) - 1e-9))) : null;
  const plain = digits === null ? Number(value.toPrecision(3)) : Number(value.toFixed(Math.min(digits, 4)));
  // No minus before a nought.
  const shown = plain === 0 ? 0 : value;
  return digits === null ? significant(shown, 3) : fixed(shown, Math.min(digits, 4));
}

const round = (value: number): string => significant(value, 2 + Number(value >= 100));
