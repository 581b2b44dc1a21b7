import { parse } from 'csv-parse/sync';
import { stringify } from 'csv-stringify/sync';
import { findTest } from '../core/catalogue/catalogue';
import { inOrder } from '../core/catalogue/positions';
import type { Limits, Position } from '../core/judge/types';
import { parseEntry } from '../core/quantity/entry';
import { findUnit } from '../core/quantity/units';
import { fail, ok, type Problem, type Result } from '../core/result';
import { currentReadings, type RunView } from './views';

/** Readings as CSV: RFC 4180, UTF-8, header row required. Column names are those of docs/formats. */
export const CSV_COLUMNS = [
  'unit', 'job', 'test', 'position', 'entry', 'value', 'unit_of_measure', 'verdict', 'limit_lower', 'limit_upper', 'limit_source',
  'condition', 'instrument', 'taken_at', 'taken_by',
] as const;
type Column = (typeof CSV_COLUMNS)[number];

/** The readings of a run that count, in numbering order. `value` is the corrected one, at full precision. */
export function writeReadingsCsv(view: RunView): string {
  const { limits, source } = view.specification;
  const judged = new Map(view.judgement.readings.map((r) => [r.position, r]));
  const meter = view.instruments.find((i) => i.id === view.circumstance.instrumentId);
  const rows = inOrder(view.test, currentReadings(view.readings)).map((r): Record<Column, unknown> => ({
    unit: inert(view.unit.fleetNumber), job: view.job.number, test: view.test, position: r.position, entry: r.entry,
    value: judged.get(r.position)?.corrected ?? '', unit_of_measure: limits.unit, verdict: judged.get(r.position)?.verdict ?? '',
    limit_lower: limits.lower ?? '', limit_upper: limits.upper ?? '', limit_source: inert(source), condition: inert(conditionWords(view)),
    instrument: inert([meter?.name, view.circumstance.leadZero === null ? 'leads not zeroed' : `leads ${view.circumstance.leadZero} ohm`].filter(Boolean).join(', ')),
    taken_at: r.takenAt, taken_by: inert(r.takenBy),
  }));
  return stringify(rows, { header: true, columns: [...CSV_COLUMNS], record_delimiter: '\r\n' });
}

/** Text that a spreadsheet would take for a formula gets an apostrophe before it. Entries stay verbatim: none can begin so but a number. */
const inert = (text: string): string => (/^[=+\-@\t]/.test(text) ? `'${text}` : text);

function conditionWords(view: RunView): string {
  const test = findTest(view.test);
  const { states, condition } = view.circumstance;
  const temperature = condition.partTemperature_degC === undefined ? [] : [`${condition.partTemperature_degC} degC`];
  return [...(test?.states ?? []).filter((s) => states.includes(s.id)).map((s) => s.label), ...temperature].join(', ');
}

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
}

/** Positions by what a file calls them. */
interface Places {
  readonly places: ReadonlyMap<string, Position>;
}

const MOST_ROWS = 100_000;

/**
 * Reads a file for the bench it is imported into: `position` and `entry` are needed. A byte-order mark, semicolons
 * or tabs instead of commas, and quoted line breaks are understood. Fails as a whole only where there is no table.
 */
export function readReadingsCsv(text: string, target: CsvTarget): Result<CsvRead> {
  let records: { info: { lines: number }; record: Record<string, string> }[];
  try {
    // One kind of line end: the parser counts a quoted CRLF as two lines.
    records = parse(text.replace(/\r\n?/g, '\n'), {
      bom: true, columns: (header: string[]) => header.map((h) => h.trim().toLowerCase()), delimiter: delimiterOf(text), info: true,
      skip_empty_lines: true, relax_column_count: true, trim: true, to: MOST_ROWS + 1,
    }) as unknown as typeof records;
  } catch (error) {
    return fail([{ path: '', message: `This is not a table: ${(error as Error).message}` }]);
  }
  const header = records[0]?.record ?? {};
  const missing: Problem[] = ['position', 'entry'].filter((c) => !(c in header)).map((c) => ({ path: `/${c}`, message: `The header row has no column "${c}".` }));
  if (records.length === 0) return fail([{ path: '', message: 'The file has a header at most and no rows.' }]);
  if (missing.length) return fail(missing);
  if (records.length > MOST_ROWS) return fail([{ path: '', message: `The file has more than ${MOST_ROWS} rows.` }]);
  return ok(readRows(records, target));
}

/** The delimiter that the header row uses most. */
function delimiterOf(text: string): string {
  const header = text.split(/\r?\n/, 1)[0] ?? '';
  const count = (d: string): number => header.split(d).length;
  return [',', ';', '\t'].reduce((best, d) => (count(d) > count(best) ? d : best));
}

function readRows(records: readonly { info: { lines: number }; record: Record<string, string> }[], onto: CsvTarget): CsvRead {
  const target = { ...onto, places: new Map(onto.positions.map((p) => [String(p).toLowerCase(), p])) };
  const rows: CsvRow[] = [];
  const problems: { line: number; message: string }[] = [];
  const seen = new Map<Position, number>();
  for (const { info, record } of records) {
    const line = info.lines - newlines(record);
    const read = readRow(record, target);
    const first = read.ok ? seen.get(read.value.position) : undefined;
    if (!read.ok) problems.push({ line, message: read.error });
    else if (first !== undefined) problems.push({ line, message: `Position ${read.value.position} stands in line ${first} already.` });
    else {
      seen.set(read.value.position, line);
      rows.push({ line, ...read.value });
    }
  }
  return { rows, problems };
}

/** The parser counts lines at the end of a record; quoted line breaks come off to name its beginning. */
const newlines = (record: Record<string, string>): number => Object.values(record).join('').split('\n').length - 1;

function readRow(record: Record<string, string>, target: CsvTarget & Places): Result<{ position: Position; entry: string }, string> {
  const { test = '', position: positionText = '', entry: typed = '', unit_of_measure: unit = '' } = record;
  if (test && test !== target.test) return fail(`This row is of the test "${test}", not of "${target.test}".`);
  const position = target.places.get(positionText.toLowerCase());
  if (position === undefined) return fail(`There is no position "${positionText}" here.`);
  if (unit && unit !== target.limits.unit && !findUnit(unit)) return fail(`"${unit}" is no unit known here.`);
  const plain = /^[+-]?[\d.,]+$/.test(typed);
  const entry = unit && unit !== target.limits.unit && plain ? `${typed} ${unit}` : typed;
  const parsed = parseEntry(entry, target.limits.quantity);
  if (!parsed.ok) return fail(parsed.error);
  if (parsed.value.kind === 'nothing') return fail('The entry is empty.');
  return ok({ position, entry });
}
