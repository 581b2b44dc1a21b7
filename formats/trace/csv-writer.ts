import type { Clock } from '../../core/signal/clock';
import type { Samples } from '../../core/signal/samples';
import { inert } from '../table';

/** A column as it is written: its samples in the unit of the file. */
export interface WrittenColumn {
  readonly name: string;
  readonly unit: string | null;
  readonly samples: Samples;
  readonly scale: number;
}

/**
 * Columns of one clock as a table, piece by piece: seconds, then each column with the digits that it was read
 * with. Blank where nothing was recorded.
 */
export function* writeTraceCsv(clock: Clock, columns: readonly WrittenColumn[]): Generator<string> {
  const quoted = (text: string): string => (/[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text);
  yield `t (s),${columns.map((c) => quoted(inert(c.unit ? `${c.name} (${c.unit})` : c.name))).join(',')}\r\n`;
  let piece: string[] = [];
  for (let i = 0; i < clock.count; i++) {
    piece.push(`${time(clock.at(i))},${columns.map((c) => cell(c, i)).join(',')}\r\n`);
    if (piece.length === 5000) {
      yield piece.join('');
      piece = [];
    }
  }
  yield piece.join('');
}

/** Up to a nanosecond, without digits that only the binary form brings. */
const time = (t: number): string => String(Number(t.toFixed(9)));

function cell({ samples, scale }: WrittenColumn, i: number): string {
  const value = samples.at(i);
  if (Number.isNaN(value)) return '';
  if (scale !== 1) return String(value * scale);
  return samples.wide ? String(value) : value.toFixed(samples.decimals);
}
