import { grouped } from '../../core/locale/numbers';
import { tr } from '../../core/locale/translate';
import { rateClock } from '../../core/signal/clock';
import { Samples } from '../../core/signal/samples';
import { clockFromTimes } from './clock-from-times';
import { type Dialect, NOTHING, TIME_UNITS, understand } from './dialect';
import { readDay, readMoment } from './moments';
import {
  MOST_SAMPLES,
  placeIn,
  quoted,
  type ReadColumn,
  type ReadRecording,
  TraceProblem,
  type TraceReader,
} from './types';

/** So much of a file is looked at before it is read. */
export const HEAD_BYTES = 65_536;
/** A line that is longer is none of a table. */
const LONGEST_LINE = 262_144;
const DAY_s = 86_400;

const [LF, CR, SPACE, QUOTE, PLUS, MINUS, ZERO, NINE] = [10, 13, 32, 34, 43, 45, 48, 57];

/** What may be said about a file that it does not say itself, or says wrongly. */
export interface CsvWishes {
  readonly dialect?: Partial<Dialect> | undefined;
}

/**
 * Reads a table in pieces of any size. Numbers are read from the bytes themselves; what is no plain number is
 * looked at as text. Throws `TraceProblem` with line and column where a cell is no number, at the first line
 * that follows it: what stands after the last row is a footer and is left out.
 */
export class CsvReader implements TraceReader {
  private dialect: Dialect | null = null;
  private rest: Uint8Array = new Uint8Array(0);
  private line = 1;
  private columns: (Samples | null)[] = [];
  private times: Samples | null = null;
  private moments: MomentColumn | null = null;
  private broken: TraceProblem | null = null;
  private rows = 0;
  private short = 0;
  /** Rows with more cells than there are columns, and the line of the first. */
  private long = 0;
  private firstLong = 0;
  private decoder: TextDecoder | null = null;

  constructor(private readonly wishes: CsvWishes = {}) {}

  push(chunk: Uint8Array): void {
    const bytes = this.rest.length ? joined(this.rest, this.narrow(chunk)) : this.narrow(chunk);
    if (!this.dialect) {
      if (bytes.length < HEAD_BYTES) {
        this.rest = bytes.slice();
        return;
      }
      this.begin(bytes, false);
    }
    this.rest = this.readLines(bytes, false);
  }

  end(): ReadRecording {
    if (!this.dialect) this.begin(this.rest, true);
    this.readLines(this.rest, true);
    this.rest = new Uint8Array(0);
    if (this.rows === 0) throw this.broken ?? new TraceProblem('', () => tr`There is no row of numbers in it.`);
    return this.recording(this.dialect as unknown as Dialect);
  }

  /** Bytes of UTF-16 as those of UTF-8: the loop below knows single bytes only. */
  private narrow(chunk: Uint8Array): Uint8Array {
    if (!this.decoder && !this.dialect && this.rest.length === 0) {
      const [a, b] = [chunk[0], chunk[1]];
      if (a === 0xff && b === 0xfe) this.decoder = new TextDecoder('utf-16le');
      if (a === 0xfe && b === 0xff) this.decoder = new TextDecoder('utf-16be');
    }
    return this.decoder ? new TextEncoder().encode(this.decoder.decode(chunk, { stream: true })) : chunk;
  }

  private begin(bytes: Uint8Array, isWhole: boolean): void {
    const head = bytes.subarray(0, HEAD_BYTES);
    const dialect = { ...understand(head, isWhole && bytes.length <= HEAD_BYTES), ...this.wishes.dialect };
    this.dialect = dialect;
    const { time } = dialect;
    this.columns = dialect.columns.map((c) => (c.kind === 'value' ? new Samples() : null));
    if (time.kind === 'number') this.times = new Samples();
    if (time.kind === 'moment') this.moments = new MomentColumn();
  }

  /** Reads all whole lines; returns what is left of the last. */
  private readLines(bytes: Uint8Array, isLast: boolean): Uint8Array {
    const d = this.dialect as Dialect;
    let start = 0;
    if (this.line === 1 && bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) start = 3;
    while (start < bytes.length) {
      const end = lineEnd(bytes, start);
      if (end < 0 && !isLast) {
        if (bytes.length - start > LONGEST_LINE)
          throw this.problem(0, () => tr`The line does not end: this is no table.`);
        return bytes.slice(start);
      }
      const stop = end < 0 ? bytes.length : end;
      // A CR as the last byte may be half of a CRLF.
      if (!isLast && end === bytes.length - 1 && bytes[end] === CR) return bytes.slice(start);
      if (this.line >= d.firstDataLine) this.readLine(bytes, start, stop, d);
      this.line++;
      start = stop + (bytes[stop] === CR && bytes[stop + 1] === LF ? 2 : 1);
    }
    return new Uint8Array(0);
  }

  private readLine(bytes: Uint8Array, start: number, stop: number, d: Dialect): void {
    if (isBlank(bytes, start, stop)) return;
    try {
      this.readCells(bytes, start, stop, d);
    } catch (error) {
      if (!(error instanceof TraceProblem)) throw error;
      this.undoRow();
      this.broken ??= error;
      return;
    }
    // A row after the one that broke: it was no footer.
    if (this.broken) throw this.broken;
    this.rows++;
    if (this.rows * Math.max(1, this.columns.length) > MOST_SAMPLES)
      throw new TraceProblem(
        `/line ${this.line}`,
        () => tr`There are more than ${grouped(MOST_SAMPLES)} samples: cut the file into parts.`,
      );
  }

  private readCells(bytes: Uint8Array, start: number, stop: number, d: Dialect): void {
    const delimiter = d.delimiter.charCodeAt(0);
    const point = d.decimal.charCodeAt(0);
    const isBlankDelimited = delimiter === SPACE;
    const width = this.columns.length;
    const timeColumn = d.time.kind === 'number' ? d.time.column : -1;
    let i = start;
    for (let c = 0; c < width; c++) {
      while (i < stop && bytes[i] === SPACE) i++;
      const target = c === timeColumn ? this.times : (this.columns[c] ?? null);
      if (i > stop) {
        // The line has fewer cells.
        if (target && target === this.times) throw this.problem(c + 1, () => tr`The row has no time.`);
        target?.addMissing();
        if (target) this.short++;
        continue;
      }
      const from = i;
      let isNegative = false;
      if (bytes[i] === MINUS || bytes[i] === PLUS) isNegative = bytes[i++] === MINUS;
      let mantissa = 0;
      let digits = 0;
      let decimals = 0;
      let ch = bytes[i] ?? 0;
      while (ch >= ZERO && ch <= NINE) {
        mantissa = mantissa * 10 + ch - ZERO;
        digits++;
        ch = bytes[++i] ?? 0;
      }
      if (ch === point && i < stop) {
        ch = bytes[++i] ?? 0;
        while (ch >= ZERO && ch <= NINE) {
          mantissa = mantissa * 10 + ch - ZERO;
          decimals++;
          ch = bytes[++i] ?? 0;
        }
        digits += decimals;
      }
      if (!isBlankDelimited) while (i < stop && bytes[i] === SPACE) i++;
      const isPlain = digits > 0 && digits < 16 && (i === stop || bytes[i] === delimiter) && i <= stop;
      if (isPlain) target?.add(isNegative ? -mantissa : mantissa, decimals);
      else {
        i = cellEnd(bytes, from, stop, delimiter);
        this.readText(bytes, from, i, c, target, d);
      }
      i++;
    }
    this.moments?.endRow();
    if (!hasMore(bytes, i, stop, delimiter)) return;
    this.long++;
    this.firstLong ||= this.line;
  }

  /** A cell that is no plain number. */
  private readText(bytes: Uint8Array, from: number, to: number, c: number, target: Samples | null, d: Dialect): void {
    if (d.time.kind === 'moment' && (c === d.time.column || c === d.time.day)) {
      this.moments?.read(bytes, from, to, c === d.time.day, (words) => this.problem(c + 1, words));
      return;
    }
    if (!target) return;
    const text = new TextDecoder(d.encoding === 'windows-1252' ? 'windows-1252' : 'utf-8')
      .decode(bytes.subarray(from, to))
      .replace(/^\s*"?\s*|\s*"?\s*$/g, '');
    if (NOTHING.test(text)) {
      if (target === this.times) throw this.problem(c + 1, () => tr`The row has no time.`);
      target.addMissing();
      return;
    }
    const written = plain(text, d.decimal);
    const number = /^[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d{1,3})?$/.test(written) ? Number(written) : NaN;
    if (!Number.isFinite(number)) throw this.problem(c + 1, () => tr`${quoted(text.slice(0, 40))} is no number.`);
    const decimals = decimalsOf(written);
    const mantissa = Math.round(number * 10 ** decimals);
    if (Number.isSafeInteger(mantissa) && mantissa / 10 ** decimals === number) target.add(mantissa, decimals);
    else target.add(number * 10 ** 15, 15);
  }

  /** Takes back what a row that broke has left in the columns before the place. */
  private undoRow(): void {
    for (const s of [...this.columns, this.times]) if (s && s.count > this.rows) s.drop();
    this.moments?.drop(this.rows);
  }

  private problem(column: number, words: () => string): TraceProblem {
    return new TraceProblem(column ? `/line ${this.line}/column ${column}` : `/line ${this.line}`, words);
  }

  private recording(d: Dialect): ReadRecording {
    const notes: string[] = [];
    if (this.broken) notes.push(tr`What stands after the last row was left out: ${placeIn(this.broken.path)}.`);
    if (this.short) notes.push(tr`${this.short} cells are missing at the ends of lines; they are gaps.`);
    const { clock, began_s } = this.clock(d, notes);
    if (this.long)
      notes.push(
        tr`Rows with more cells than the table has columns: ${this.long}, the first in line ${this.firstLong}. What stands there was left out. Where a value holds the sign that parts the cells, all behind it stand one column too far.`,
      );
    const columns = d.columns.flatMap((c, i): ReadColumn[] => {
      const samples = this.columns[i];
      return samples ? [{ name: c.name, unit: c.unit, samples, scale: 1, clock }] : [];
    });
    if (!columns.length) throw new TraceProblem('', () => tr`There is no column of values beside the time.`);
    return { kind: 'csv', columns, codes: [], began_s, notes };
  }

  private clock(
    d: Dialect,
    notes: string[],
  ): { clock: ReadRecording['columns'][number]['clock']; began_s: number | null } {
    const { time } = d;
    switch (time.kind) {
      case 'rate':
        return { clock: rateClock(time.rate_Hz, this.rows), began_s: null };
      case 'unknown':
        notes.push('Nothing tells when the samples were taken: one a second was assumed. State the rate.');
        return { clock: rateClock(1, this.rows), began_s: null };
      case 'number': {
        const times = this.times as Samples;
        const unit_s = TIME_UNITS[time.unit];
        // Seconds since 1970 count from the first row; other times as they stand.
        const first = times.at(0);
        const isEpoch = first * unit_s > 3e8;
        return { clock: clockFromTimes(times, unit_s, isEpoch ? first : 0), began_s: isEpoch ? first * unit_s : null };
      }
      case 'moment': {
        const moments = this.moments as MomentColumn;
        return { clock: clockFromTimes(moments.samples, 1, 0), began_s: moments.hasDay ? moments.zero : null };
      }
    }
  }
}

/** Times of day, or dates and times, as seconds after the first. */
class MomentColumn {
  readonly samples = new Samples();
  zero = NaN;
  hasDay = false;
  private prefix = new Uint8Array(0);
  private prefixSeconds = 0;
  private clock: { seconds: number; decimals: number } | null = null;
  private day: number | null = null;
  private before = -Infinity;
  private midnights = 0;

  read(
    bytes: Uint8Array,
    from: number,
    to: number,
    isDay: boolean,
    problem: (words: () => string) => TraceProblem,
  ): void {
    if (!isDay && this.quick(bytes, from, to)) return;
    const text = new TextDecoder().decode(bytes.subarray(from, to)).replace(/^\s*"?|"?\s*$/g, '');
    if (isDay) {
      const day = readDay(text);
      if (day === null) throw problem(() => tr`${quoted(text.slice(0, 40))} is no day.`);
      this.day = day;
      return;
    }
    const moment = readMoment(text);
    if (!moment)
      throw problem(() => (text === '' ? tr`The row has no time.` : tr`${quoted(text.slice(0, 40))} is no time.`));
    this.clock = moment;
    this.hasDay ||= moment.hasDay;
    this.remember(bytes, from, to, moment.seconds);
  }

  endRow(): void {
    if (!this.clock) return;
    if (this.day !== null) this.hasDay = true;
    let seconds = this.clock.seconds + (this.day ?? 0);
    if (!this.hasDay) {
      // A time of day that falls by nearly a day has passed midnight.
      seconds += this.midnights * DAY_s;
      if (seconds < this.before - DAY_s / 2) {
        this.midnights++;
        seconds += DAY_s;
      }
    }
    this.before = seconds;
    if (Number.isNaN(this.zero)) this.zero = seconds;
    const decimals = Math.min(6, this.clock.decimals);
    this.samples.add(Math.round((seconds - this.zero) * 10 ** decimals), decimals);
    this.clock = null;
  }

  drop(rows: number): void {
    this.clock = null;
    if (this.samples.count > rows) this.samples.drop();
  }

  /** Most rows differ from the one before in their seconds only: `08:30:12.34` after `08:30:12.33`. */
  private quick(bytes: Uint8Array, from: number, to: number): boolean {
    const { prefix } = this;
    if (!prefix.length || to - from <= prefix.length) return false;
    for (let i = 0; i < prefix.length; i++) if (bytes[from + i] !== prefix[i]) return false;
    let i = from + prefix.length;
    let seconds = 0;
    let digits = 0;
    let decimals = -1;
    for (; i < to; i++) {
      const ch = bytes[i] ?? 0;
      if (ch >= ZERO && ch <= NINE) {
        seconds = seconds * 10 + ch - ZERO;
        digits++;
        if (decimals >= 0) decimals++;
      } else if ((ch === 46 || ch === 44) && decimals < 0 && digits === 2) decimals = 0;
      else return false;
    }
    if (digits < 2 || digits > 11) return false;
    const fraction = Math.max(0, decimals);
    const value = seconds / 10 ** fraction;
    if (value >= 60) return false;
    this.clock = { seconds: this.prefixSeconds + value, decimals: fraction };
    return true;
  }

  private remember(bytes: Uint8Array, from: number, to: number, seconds: number): void {
    let colon = -1;
    let colons = 0;
    for (let i = from; i < to; i++)
      if (bytes[i] === 58) {
        colon = i;
        colons++;
      }
    // A third colon stands before a fraction; letters at the end are a half of the day.
    if (colon < 0 || colons > 2 || (bytes[to - 1] ?? 0) > NINE) {
      this.prefix = new Uint8Array(0);
      return;
    }
    this.prefix = bytes.slice(from, colon + 1);
    this.prefixSeconds = Math.floor(seconds / 60 + 1e-9) * 60;
  }
}

/** With a point and without separators of thousands: `1,001.5` and `1.001,5` are 1001.5. */
function plain(text: string, decimal: '.' | ','): string {
  const separators =
    decimal === '.' ? /^[+-]?\d{1,3}(?:[, ']\d{3})+(?:\.\d+)?$/ : /^[+-]?\d{1,3}(?:[. ']\d{3})+(?:,\d+)?$/;
  const bare = separators.test(text) ? text.replace(decimal === '.' ? /[, ']/g : /[. ']/g, '') : text;
  return decimal === ',' ? bare.replace(',', '.') : bare;
}

function decimalsOf(text: string): number {
  const [mantissa = '', exponent = '0'] = text.toLowerCase().split('e');
  return Math.min(15, Math.max(0, (mantissa.split('.')[1] ?? '').length - Number(exponent)));
}

function lineEnd(bytes: Uint8Array, from: number): number {
  for (let i = from; i < bytes.length; i++) {
    const ch = bytes[i];
    if (ch === LF || ch === CR) return i;
  }
  return -1;
}

/** The end of a cell: the next delimiter outside of quotes, or the end of the line. */
function cellEnd(bytes: Uint8Array, from: number, stop: number, delimiter: number): number {
  let isQuoted = false;
  for (let i = from; i < stop; i++) {
    if (bytes[i] === QUOTE) isQuoted = !isQuoted;
    else if (bytes[i] === delimiter && !isQuoted) return i;
  }
  return stop;
}

/** Whether anything but blanks and empty cells is left of a line. */
function hasMore(bytes: Uint8Array, from: number, stop: number, delimiter: number): boolean {
  for (let i = from; i < stop; i++) if ((bytes[i] ?? 0) > SPACE && bytes[i] !== delimiter) return true;
  return false;
}

function isBlank(bytes: Uint8Array, from: number, to: number): boolean {
  for (let i = from; i < to; i++) if ((bytes[i] ?? 0) > SPACE) return false;
  return true;
}

function joined(a: Uint8Array, b: Uint8Array): Uint8Array {
  const out = new Uint8Array(a.length + b.length);
  out.set(a);
  out.set(b, a.length);
  return out;
}
