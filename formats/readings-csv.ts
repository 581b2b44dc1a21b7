import { tr } from '../core/locale/translate';
import type { Limits, Position } from '../core/judge/types';
import { readEntry } from '../core/limits/entry';
import { findUnit } from '../core/quantity/units';
import { fail, ok, type Result } from '../core/foundation/result';
import { readTable, type TableRow } from './table';

/** Readings as CSV: RFC 4180, UTF-8, header row required. Column names are those of docs/formats. */
export const CSV_COLUMNS = [
  'unit',
  'job',
  'test',
  'position',
  'entry',
  'value',
  'unit_of_measure',
  'verdict',
  'limit_lower',
  'limit_upper',
  'limit_source',
  'condition',
  'instrument',
  'taken_at',
  'taken_by',
] as const;
export type CsvColumn = (typeof CSV_COLUMNS)[number];

/** A row that can be recorded. `line` is the line of the file on which it begins. */
export interface CsvRow {
  readonly line: number;
  readonly position: Position;
  readonly entry: string;
}
export interface CsvRead {
  readonly rows: readonly CsvRow[];
  /** Rows that cannot be read, by line. */
  readonly problems: readonly { readonly line: number; readonly message: string }[];
}

export interface CsvTarget {
  readonly test: string;
  readonly limits: Limits;
  /** All positions that the test has here. */
  readonly positions: readonly Position[];
  readonly clamp_mVperA?: number | undefined;
}

/** Positions by what a file calls them. */
interface Places {
  readonly places: ReadonlyMap<string, Position>;
}

const MOST_ROWS = 100_000;

/**
 * Reads a file for the bench it is imported into: `position` and `entry` are needed. A byte-order mark,
 * semicolons or tabs instead of commas, and quoted line breaks are understood. Fails as a whole only where
 * there is no table.
 */
export function readReadingsCsv(text: string, target: CsvTarget): Result<CsvRead> {
  const table = readTable(text, ['position', 'entry'], MOST_ROWS);
  return table.ok ? ok(readRows(table.value, target)) : table;
}

function readRows(table: readonly TableRow[], onto: CsvTarget): CsvRead {
  const target = { ...onto, places: new Map(onto.positions.map((p) => [String(p).toLowerCase(), p])) };
  const rows: CsvRow[] = [];
  const problems: { line: number; message: string }[] = [];
  const seen = new Map<Position, number>();
  for (const { line, cells } of table) {
    const read = readRow(cells, target);
    const first = read.ok ? seen.get(read.value.position) : undefined;
    if (!read.ok) problems.push({ line, message: read.error });
    else if (first !== undefined)
      problems.push({ line, message: tr`Position ${read.value.position} stands in line ${first} already.` });
    else {
      seen.set(read.value.position, line);
      rows.push({ line, ...read.value });
    }
  }
  return { rows, problems };
}

function readRow(
  record: Readonly<Record<string, string>>,
  target: CsvTarget & Places,
): Result<{ position: Position; entry: string }, string> {
  const { test = '', position: positionText = '', entry: typed = '', unit_of_measure: unit = '' } = record;
  if (test && test !== target.test) return fail(tr`This row is of the test "${test}", not of "${target.test}".`);
  const position = target.places.get(positionText.toLowerCase());
  if (position === undefined) return fail(tr`There is no position "${positionText}" here.`);
  if (unit && unit !== target.limits.unit && !findUnit(unit)) return fail(tr`"${unit}" is no unit known here.`);
  const plain = /^[+-]?[\d.,]+$/.test(typed);
  const entry = unit && unit !== target.limits.unit && plain ? `${typed} ${unit}` : typed;
  const read = readEntry(entry, target.limits, target.clamp_mVperA ?? null);
  if (!read.ok) return fail(read.error);
  if (read.value.entry.kind === 'nothing') return fail('The entry is empty.');
  return ok({ position, entry });
}
