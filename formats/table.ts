import { tr } from '../core/locale/translate';
import { parse } from 'csv-parse/sync';
import { stringify } from 'csv-stringify/sync';
import { nearest } from '../core/foundation/text';
import { fail, ok, type Problem, type Result } from '../core/foundation/result';

/** A row of a table with the line of the file on which it begins. */
export interface TableRow {
  readonly line: number;
  readonly cells: Readonly<Record<string, string>>;
}

/**
 * A table from CSV text: RFC 4180, header row required, names of columns in lower case. A byte-order mark,
 * semicolons or tabs instead of commas, and quoted line breaks are understood. Fails as a whole only where
 * there is no table, a needed column is missing, or, where `known` columns are given, another one is there: a column
 * that is not read would be silently left out.
 */
export function readTable(
  text: string,
  needed: readonly string[],
  mostRows: number,
  known: readonly string[] | null = null,
): Result<readonly TableRow[]> {
  const strange = text.indexOf('\0');
  if (strange >= 0) {
    const line = text.slice(0, strange).split('\n').length;
    return fail([{ path: `/line ${line}`, message: 'There is a NUL character: this is no text, or it was damaged.' }]);
  }
  let records: { info: { lines: number }; record: Record<string, string> }[];
  try {
    // One kind of line end: the parser counts a quoted CRLF as two lines.
    records = parse(text.replace(/\r\n?/g, '\n'), {
      bom: true,
      columns: (header: string[]) => header.map((h) => h.trim().toLowerCase()),
      delimiter: delimiterOf(text),
      info: true,
      skip_empty_lines: true,
      relax_column_count: true,
      trim: true,
      to: mostRows + 1,
    }) as unknown as typeof records;
  } catch (error) {
    return fail([{ path: '', message: tr`This is not a table: ${(error as Error).message}` }]);
  }
  const header = records[0]?.record ?? {};
  const missing: Problem[] = needed
    .filter((c) => !(c in header))
    .map((c) => ({ path: `/${c}`, message: tr`The header row has no column "${c}".` }));
  if (records.length === 0) return fail([{ path: '', message: 'The file has a header at most and no rows.' }]);
  const wrong = [...missing, ...(known ? strangeColumns(Object.keys(header), known) : [])];
  if (wrong.length) return fail(wrong);
  if (records.length > mostRows) return fail([{ path: '', message: tr`The file has more than ${mostRows} rows.` }]);
  return ok(records.map(({ info, record }) => ({ line: info.lines - newlines(record), cells: record })));
}

/** Columns that nobody reads, each with what was probably meant. */
function strangeColumns(columns: readonly string[], known: readonly string[]): Problem[] {
  return columns.flatMap((column) => {
    if (column === '' || known.includes(column)) return [];
    const bare = column
      .replace(/[([].*?[)\]]/g, '')
      .trim()
      .replace(/[\s-]+/g, '_');
    const meant = known.includes(bare) ? bare : nearest(bare, known);
    const hint = meant === null ? tr`There are: ${known.join(', ')}.` : tr`Did you mean "${meant}"?`;
    const unit =
      meant === bare && known.includes('unit') && bare !== column ? ' The unit has a column of its own.' : '';
    return [{ path: `/${column}`, message: tr`The column "${column}" is not known. ${hint}${unit}` }];
  });
}

/** The delimiter that the header row uses most. */
function delimiterOf(text: string): string {
  const header = text.split(/\r?\n/, 1)[0] ?? '';
  const count = (d: string): number => header.split(d).length;
  return [',', ';', '\t'].reduce((best, d) => (count(d) > count(best) ? d : best));
}

/** The parser counts lines at the end of a record; quoted line breaks come off to name its beginning. */
const newlines = (record: Record<string, string>): number => Object.values(record).join('').split('\n').length - 1;

/** A table as CSV after RFC 4180, header row first. A line break of any kind is quoted. */
export const writeTable = (rows: readonly object[], columns: readonly string[]): string =>
  stringify([...rows], { header: true, columns: [...columns], record_delimiter: '\r\n', quoted_match: /[\r\n]/ });

/**
 * Text that a spreadsheet would take for a formula gets an apostrophe before it, and so does what begins as such a text
 * would then, so that `active` gives back what it was.
 */
export const inert = (text: string): string => (/^'*[=+\-@\t\r\n]/.test(text) ? `'${text}` : text);
/** Undoes `inert`. */
export const active = (text: string): string => (/^'+[=+\-@\t\r\n]/.test(text) ? text.slice(1) : text);
