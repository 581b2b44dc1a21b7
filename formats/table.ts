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

const LONGEST_ROW_chars = 100_000;
/** More are of no list that somebody made, and each row would be looked through for all of them. */
const MOST_COLUMNS = 200;

/**
 * A table from CSV text: RFC 4180, header row required, names of columns in lower case. A byte-order mark,
 * semicolons or tabs instead of commas, a line that names them (`sep=;`), and quoted line breaks are
 * understood. Fails as a whole where there is no table, a needed column is missing, a cell stands under no
 * column, or, where `known` columns are given, another one is there: what is not read would be silently left
 * out.
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
  let records: { info: { lines: number }; record: string[] }[];
  // One kind of line end: the parser counts a quoted CRLF as two lines.
  const lines = text.replace(/\r\n?/g, '\n');
  const [mark = '', marked] = MARK.exec(lines) ?? [];
  try {
    records = parse(lines.slice(mark.length), {
      bom: true,
      delimiter: marked ?? delimiterOf(lines),
      info: true,
      skip_empty_lines: true,
      relax_column_count: true,
      trim: true,
      to: mostRows + 2,
      max_record_size: LONGEST_ROW_chars,
    }) as unknown as typeof records;
  } catch (error) {
    if ((error as { code?: unknown }).code === 'CSV_MAX_RECORD_SIZE')
      return fail([
        { path: '', message: tr`A row has more than ${LONGEST_ROW_chars} characters, or a quote is never closed.` },
      ]);
    return fail([{ path: '', message: tr`This is not a table: ${(error as Error).message}` }]);
  }
  const [first, ...rows] = records.map(({ info, record }) => ({
    line: info.lines - newlines(record) + (mark === '' ? 0 : 1),
    cells: record,
  }));
  if (!first || rows.length === 0) return fail([{ path: '', message: 'The file has a header at most and no rows.' }]);
  if (first.cells.length > MOST_COLUMNS)
    return fail([{ path: '', message: tr`The header row has more than ${MOST_COLUMNS} columns.` }]);
  const header = first.cells.map((h) => h.toLowerCase());
  const wrong = wrongColumns(header, needed, known);
  if (wrong.length) return fail(wrong);
  if (rows.length > mostRows) return fail([{ path: '', message: tr`The file has more than ${mostRows} rows.` }]);
  const stray = rows.flatMap(({ line, cells }) => strayCell(line, cells, header));
  if (stray.length) return fail(stray);
  return ok(
    rows.map(({ line, cells }) => ({ line, cells: Object.fromEntries(header.map((h, i) => [h, cells[i] ?? ''])) })),
  );
}

function wrongColumns(
  header: readonly string[],
  needed: readonly string[],
  known: readonly string[] | null,
): Problem[] {
  const named = header.filter((h) => h !== '');
  return [
    ...needed
      .filter((c) => !named.includes(c))
      .map((c) => ({ path: `/${c}`, message: tr`The header row has no column "${c}".` })),
    ...[...new Set(named.filter((h, i) => named.indexOf(h) !== i))].map((c) => ({
      path: `/${c}`,
      message: tr`The header row has two columns "${c}".`,
    })),
    ...(known ? strangeColumns([...new Set(named)], known) : []),
  ];
}

/**
 * The first cell of a row that no column is named for. Most often a comma before decimals parted a number in
 * two, and all behind it stands one column too far.
 */
function strayCell(line: number, cells: readonly string[], header: readonly string[]): Problem[] {
  const stray = cells.find((cell, i) => cell !== '' && !header[i]);
  if (stray === undefined) return [];
  const message = tr`"${stray}" stands under no column of the header. A comma, or what else parts the cells, needs quotes around its cell.`;
  return [{ path: `/line ${line}`, message }];
}

/** Columns that nobody reads, each with what was probably meant. */
function strangeColumns(columns: readonly string[], known: readonly string[]): Problem[] {
  return columns.flatMap((column) => {
    if (known.includes(column)) return [];
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

/** A first line by which a file tells spreadsheets what parts its cells: "sep=;". */
const MARK = /^\ufeff?"?sep=([,;\t])"?[,;\t ]*\n/i;

/** The delimiter that the header row uses most. */
function delimiterOf(text: string): string {
  const header = text.split('\n', 1)[0] ?? '';
  const count = (d: string): number => header.split(d).length;
  return [',', ';', '\t'].reduce((best, d) => (count(d) > count(best) ? d : best));
}

/** The parser counts lines at the end of a record; quoted line breaks come off to name its beginning. */
const newlines = (record: readonly string[]): number => record.join('').split('\n').length - 1;

/** A table as CSV after RFC 4180, header row first. A line break of any kind is quoted. */
export const writeTable = (rows: readonly object[], columns: readonly string[]): string =>
  stringify([...rows], { header: true, columns: [...columns], record_delimiter: '\r\n', quoted_match: /[\r\n]/ });

/**
 * Text that a spreadsheet would take for a formula gets an apostrophe before it, and so does what begins as
 * such a text would then, so that `active` gives back what it was.
 */
export const inert = (text: string): string => (/^'*[=+\-@\t\r\n]/.test(text) ? `'${text}` : text);
/** Undoes `inert`. */
export const active = (text: string): string => (/^'+[=+\-@\t\r\n]/.test(text) ? text.slice(1) : text);
