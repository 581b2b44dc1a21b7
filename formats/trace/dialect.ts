import { tr } from '../../core/locale/translate';
import { readDay, readMoment } from './moments';
import { MOST_COLUMNS, TraceProblem } from './types';

export type TimeUnit = 's' | 'ms' | 'us' | 'min' | 'h';
export const TIME_UNITS: Readonly<Record<TimeUnit, number>> = { s: 1, ms: 1e-3, us: 1e-6, min: 60, h: 3600 };

/** Where the time of a row comes from. */
export type TimeSource =
  | { readonly kind: 'number'; readonly column: number; readonly unit: TimeUnit }
  /** A time of day or a date and time; `day`: the column of the day where it has one of its own. */
  | { readonly kind: 'moment'; readonly column: number; readonly day: number | null }
  | { readonly kind: 'rate'; readonly rate_Hz: number; readonly column: number | null }
  /** Nothing tells when: a person must say the rate. */
  | { readonly kind: 'unknown' };

export interface DialectColumn {
  readonly name: string;
  /** The heading as it stands in the file. */
  readonly header: string;
  readonly unit: string | null;
  readonly kind: 'value' | 'time' | 'text';
}

/** What a table was understood to be. A person may correct all of it. */
export interface Dialect {
  readonly encoding: 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252';
  readonly delimiter: ',' | ';' | '\t' | '|' | ' ';
  readonly decimal: '.' | ',';
  /** Lines from 1; 0: there is none. */
  readonly headerLine: number;
  readonly unitsLine: number;
  readonly firstDataLine: number;
  readonly columns: readonly DialectColumn[];
  readonly time: TimeSource;
  /** The first lines as they are, for the person who checks. */
  readonly sample: readonly string[];
}

const DELIMITERS = ['\t', ';', ',', '|', ' '] as const;
const LOOKED_AT = 50;
/** Cells that say that there is no value. */
export const NOTHING =
  /^(?:|-{1,3}|\.{2,}|n\/?a|nan|null|none|ol|0l|-ol|overload|over|err(?:or)?|-?inf(?:inity)?|-?∞|x+|\?+)$/i;

/** Understands the first bytes of a table. Throws `TraceProblem` where it is none. */
export function understand(head: Uint8Array, isWhole: boolean): Dialect {
  const { encoding, text } = decoded(head);
  if (text.includes('\0'))
    throw new TraceProblem('/line 1', () => tr`There are NUL characters: this is no text, or it was damaged.`);
  const lines = text.split(/\r\n|\n|\r/);
  if (!isWhole && lines.length > 1) lines.pop();
  if (lines.every((l) => l.trim() === '')) throw new TraceProblem('', () => tr`The file is empty.`);
  const marked = /^sep=(.)$/.exec(lines[0] ?? '')?.[1];
  const shape = bestShape(lines, marked);
  if (!shape)
    throw new TraceProblem(
      '',
      () => tr`No table was found: no line consists of numbers between commas, semicolons, tabs, bars or blanks.`,
    );
  const { delimiter, decimal, first } = shape;
  const cells = (i: number): string[] => split(lines[i] ?? '', delimiter);
  const { headerAt, unitsAt } = headings(lines, shape);
  const names = headerAt < 0 ? [] : cells(headerAt);
  // A slower device may have its first value far below: its column is blank at the end of the lines until
  // then.
  const named = names.findLastIndex((n) => n !== '') + 1;
  const width = named > shape.width && cells(first).length >= named ? named : shape.width;
  if (width > MOST_COLUMNS)
    throw new TraceProblem(
      `/line ${first + 1}`,
      () =>
        tr`There are ${width} columns; ${MOST_COLUMNS} is the most. A log of a few wires has fewer: leave the others out.`,
    );
  const units = unitsAt < 0 ? [] : cells(unitsAt);
  const rows = lines
    .slice(first, first + LOOKED_AT)
    .map((l) => split(l, delimiter))
    .filter((r) => r.length > 1 || r[0] !== '');
  const columns = Array.from({ length: width }, (_, c) => column(c, names[c], units[c], rows, decimal));
  const time = timeSource(columns, rows, decimal, lines.slice(0, first));
  return {
    encoding,
    delimiter,
    decimal,
    headerLine: headerAt + 1,
    unitsLine: unitsAt + 1,
    firstDataLine: first + 1,
    columns: columns.map((c, i) => (isTimeColumn(time, i) ? { ...c, kind: 'time' } : c)),
    time,
    sample: lines.slice(0, LOOKED_AT).map((l) => l.slice(0, 400)),
  };
}

const isTimeColumn = (time: TimeSource, i: number): boolean =>
  time.kind !== 'unknown' && (time.column === i || (time.kind === 'moment' && time.day === i));

function decoded(head: Uint8Array): { readonly encoding: Dialect['encoding']; readonly text: string } {
  const [a, b] = [head[0], head[1]];
  const as = (encoding: Dialect['encoding']): { encoding: Dialect['encoding']; text: string } => ({
    encoding,
    text: new TextDecoder(encoding).decode(head),
  });
  if (a === 0xff && b === 0xfe) return as('utf-16le');
  if (a === 0xfe && b === 0xff) return as('utf-16be');
  try {
    // The last character may be cut in the middle.
    const text = new TextDecoder('utf-8', { fatal: true }).decode(head, { stream: true });
    return { encoding: 'utf-8', text };
  } catch {
    return as('windows-1252');
  }
}

interface TableShape {
  readonly delimiter: Dialect['delimiter'];
  readonly decimal: '.' | ',';
  /** Index of the first line of data. */
  readonly first: number;
  readonly width: number;
}

/** Cells of a line; quotes come off. A line with a blank as delimiter is split at any number of blanks. */
export function split(line: string, delimiter: string): string[] {
  if (delimiter === ' ') return line.trim().split(/\s+/);
  if (!line.includes('"')) return line.split(delimiter).map((c) => c.trim());
  const out: string[] = [];
  let cell = '';
  let isQuoted = false;
  for (let i = 0; i < line.length; i++) {
    const ch = line.charAt(i);
    if (ch === '"') {
      if (isQuoted && line.charAt(i + 1) === '"') {
        cell += '"';
        i++;
      } else isQuoted = !isQuoted;
    } else if (ch === delimiter && !isQuoted) {
      out.push(cell.trim());
      cell = '';
    } else cell += ch;
  }
  out.push(cell.trim());
  return out;
}

const NUMBER = {
  '.': /^[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d{1,3})?$/,
  ',': /^[+-]?(?:\d+,?\d*|,\d+)(?:[eE][+-]?\d{1,3})?$/,
};

const isValue = (cell: string, decimal: '.' | ','): boolean => NUMBER[decimal].test(cell) || NOTHING.test(cell);

/**
 * How a line looks: its width, and whether it holds numbers and nothing that is neither number, moment nor
 * nothing.
 */
function rowLooks(
  line: string,
  delimiter: string,
  decimal: '.' | ',',
): { width: number; isRow: boolean; numbers: number } {
  const cells = split(line, delimiter);
  // A delimiter at the end of each line makes no column.
  if (cells.length > 1 && cells[cells.length - 1] === '') cells.pop();
  const numbers = cells.filter((c) => NUMBER[decimal].test(c)).length;
  const texts = cells.filter((c) => !isValue(c, decimal) && readMoment(c) === null && readDay(c) === null);
  const isRow = numbers > 0 && texts.length <= Math.min(2, cells.length / 2) && texts.every((c) => c.length < 24);
  return { width: cells.length, isRow, numbers };
}

/** Delimiter and decimal sign under which most lines are rows of one width, with the most numbers. */
function bestShape(lines: readonly string[], marked: string | undefined): TableShape | null {
  let best: (TableShape & { score: number }) | null = null;
  for (const delimiter of DELIMITERS) {
    if (marked !== undefined && marked !== delimiter) continue;
    for (const decimal of ['.', ','] as const) {
      if (delimiter === decimal) continue;
      const looks = lines.slice(0, 400).map((l) => rowLooks(l, delimiter, decimal));
      const widths = new Map<number, number>();
      for (const l of looks) if (l.isRow) widths.set(l.width, (widths.get(l.width) ?? 0) + l.numbers);
      const [width, score] = [...widths].reduce((a, b) => (b[1] > a[1] ? b : a), [0, 0]);
      const first = looks.findIndex((l, i) => l.isRow && l.width === width && !isLonely(looks, i, width));
      if (first >= 0 && (!best || score > best.score)) best = { delimiter, decimal, first, width, score };
    }
  }
  return best;
}

/** A line of numbers in the preamble is none of the table: the next line does not go on with it. */
function isLonely(looks: readonly { width: number; isRow: boolean }[], i: number, width: number): boolean {
  const next = looks.slice(i + 1).find((l) => l.width > 1 || l.isRow);
  return next !== undefined && (!next.isRow || next.width !== width);
}

const UNIT_CELL =
  /^[([]?\s*(?:[µumk]?[VAsΩ]|[mkM]?ohm|ms|us|sec(?:onds?)?|min|h|[kMmh]?Pa|bar|mbar|psi|°?\s?[CF]|deg ?[CF]|%|rpm|1\/min|[kM]?Hz|km\/h|mph|g\/s|kg\/h|mg|Volts?|Amps?|date|time|hh:mm:ss\S*|-|)\s*[)\]]?$/i;

/** Lines above the data that name the columns and their units. */
function headings(lines: readonly string[], shape: TableShape): { headerAt: number; unitsAt: number } {
  const wide = (i: number): boolean => {
    const cells = split(lines[i] ?? '', shape.delimiter);
    return cells.length >= shape.width - 1 && cells.length <= shape.width + 1 && cells.some((c) => /\p{L}/u.test(c));
  };
  const above: number[] = [];
  for (let i = shape.first - 1; i >= 0 && above.length < 2; i--) {
    if ((lines[i] ?? '').trim() === '') continue;
    if (!wide(i)) break;
    above.push(i);
  }
  const [near = -1, far = -1] = above;
  const isUnits = near >= 0 && split(lines[near] ?? '', shape.delimiter).every((c) => UNIT_CELL.test(c));
  return isUnits && far >= 0 ? { headerAt: far, unitsAt: near } : { headerAt: near, unitsAt: -1 };
}

function column(
  index: number,
  header: string | undefined,
  unitCell: string | undefined,
  rows: readonly (readonly string[])[],
  decimal: '.' | ',',
): DialectColumn {
  const bracketed = /^(.*?)\s*[([]([^()[\]]*)[)\]]\s*$/.exec(header ?? '');
  const slashed = /^(.*\S)\s*\/\s*(\S{1,5})$/.exec(header ?? '');
  const inHeader = bracketed ?? (slashed && UNIT_CELL.test(slashed[2] ?? '') ? slashed : null);
  const unit = (unitCell ?? '').replace(/^[([]|[)\]]$/g, '').trim() || (inHeader?.[2]?.trim() ?? '');
  const name = (unitCell ? header : (inHeader?.[1] ?? header))?.trim() ?? '';
  const cells = rows.map((r) => r[index] ?? '').filter((c) => c !== '');
  const isText = cells.length > 0 && cells.filter((c) => !isValue(c, decimal)).length > cells.length / 2;
  return {
    name: name || tr`column ${index + 1}`,
    header: header ?? '',
    unit: unit || null,
    kind: isText ? 'text' : 'value',
  };
}

const TIME_NAME =
  /^(?:t|time|zeit|uhrzeit|timestamp|time ?stamp|elapsed.*|rel.*time|date.?time|datum|date|clock|seconds?|sec|x|x.?axis|time.*)$/i;
const COUNT_NAME = /^(?:#|no\.?|nr\.?|n|index|sample.*|record.*|point.*|scan.*number)$/i;
const RATE_LINE = /(?:rate|frequency|freq\.?|abtastrate)\D{0,12}?([\d.,]+)\s*(k?hz|1\/s|samples?\/s|s\/s)/i;
const INTERVAL_LINE = /(?:interval|period|step|increment)\D{0,12}?([\d.,]+(?:e[+-]?\d+)?)\s*(ms|us|µs|s|sec|seconds)?/i;

function timeSource(
  columns: readonly DialectColumn[],
  rows: readonly (readonly string[])[],
  decimal: '.' | ',',
  preamble: readonly string[],
): TimeSource {
  const cells = (c: number): string[] => rows.map((r) => r[c] ?? '').filter((x) => x !== '');
  const all = (c: number, is: (x: string) => boolean): boolean => cells(c).length > 0 && cells(c).every(is);
  const at = (is: (c: DialectColumn, i: number) => boolean): number => columns.findIndex(is);
  const isMoment = (x: string): boolean => readMoment(x) !== null;
  // Where a few cells are none, such as a damaged row or what stands below the table, reading says so at
  // their line.
  const most = (c: number): boolean => cells(c).filter(isMoment).length > cells(c).length / 2;
  const moment = [at((_, i) => all(i, isMoment)), at((_, i) => most(i))].find((i) => i >= 0) ?? -1;
  if (moment >= 0) {
    const day = at((_, i) => i !== moment && all(i, (x) => readDay(x) !== null));
    return { kind: 'moment', column: moment, day: day < 0 ? null : day };
  }
  const number = (x: string): number => Number(decimal === ',' ? x.replace(',', '.') : x);
  const rises = (i: number): boolean => {
    const values = cells(i).map(number);
    const steps = values.slice(1).map((v, k) => v - (values[k] ?? NaN));
    return values.length > 1 && steps.filter((d) => d > 0).length >= Math.max(1, 0.8 * steps.length);
  };
  const named = at((c, i) => TIME_NAME.test(c.name) && rises(i));
  const counted = at((c, i) => COUNT_NAME.test(c.name) && rises(i));
  const rate = statedRate(preamble, decimal);
  if (named >= 0) return { kind: 'number', column: named, unit: timeUnit(columns[named] as DialectColumn) };
  if (rate !== null) return { kind: 'rate', rate_Hz: rate, column: counted < 0 ? null : counted };
  const nameless = columns.every((c) => c.name.startsWith('column ')) && columns.length > 1 && rises(0) ? 0 : -1;
  if (nameless >= 0) return { kind: 'number', column: nameless, unit: timeUnit(columns[nameless] as DialectColumn) };
  return { kind: 'unknown' };
}

function timeUnit({ name, unit }: DialectColumn): TimeUnit {
  const said = (unit ?? /[_ ](s|ms|us|µs|min|h|sec|seconds|milliseconds)$/i.exec(name)?.[1] ?? 's').toLowerCase();
  if (/^(?:ms|msec|milli.*)$/.test(said)) return 'ms';
  if (/^(?:us|µs|micro.*)$/.test(said)) return 'us';
  if (/^min/.test(said)) return 'min';
  return /^(?:h|hours?)$/.test(said) ? 'h' : 's';
}

function statedRate(preamble: readonly string[], decimal: '.' | ','): number | null {
  const number = (text: string): number =>
    Number(decimal === ',' ? text.replace(/\./g, '').replace(',', '.') : text.replace(/,/g, ''));
  for (const line of preamble) {
    const rate = RATE_LINE.exec(line);
    if (rate) {
      const value = number(rate[1] ?? '') * (/^k/i.test(rate[2] ?? '') ? 1000 : 1);
      if (value > 0) return value;
    }
    const interval = INTERVAL_LINE.exec(line);
    if (interval) {
      const unit = (interval[2] ?? 's').toLowerCase();
      const value = number(interval[1] ?? '') * (unit === 'ms' ? 1e-3 : unit === 'us' || unit === 'µs' ? 1e-6 : 1);
      if (value > 0) return 1 / value;
    }
  }
  return null;
}
