import { fail, type Result } from '../../core/foundation/result';
import type { Dialect, TimeSource } from '../../formats/trace/dialect';
import { checkQuestion, type TraceQuestion } from '../../formats/trace-question';
import { readJsonFile, validate } from '../../formats/validate';
import type { ColumnDraft } from './columns';

/** Larger is no document about a recording, unless the samples are inside. */
const LARGEST = 200e6;

/** A question document that came with a recording; what is wrong with it, with its place. */
export async function readQuestion(file: Blob): Promise<Result<TraceQuestion>> {
  if (file.size > LARGEST) return fail([{ path: '', message: 'It is larger than 200 MB.' }]);
  const json = readJsonFile(await file.text());
  return json.ok ? validate(checkQuestion, json.value) : json;
}

/**
 * The samples of a document that carries them, as the table that a logger would have written; `null`: they
 * lie in a file.
 */
export function tableOf({ data, time }: TraceQuestion, name: string): File | null {
  if (typeof data === 'string') return null;
  const columns = Object.entries(data.columns);
  const count = Math.max(...columns.map(([, values]) => values.length));
  const rate = time && 'rate_Hz' in time ? time.rate_Hz : null;
  const quoted = (text: string): string => `"${text.replaceAll('"', '""')}"`;
  const head = [...(rate === null ? [] : ['t']), ...columns.map(([column]) => column)].map(quoted).join(',');
  const lines = Array.from({ length: count }, (_, i) =>
    [...(rate === null ? [] : [String(i / rate)]), ...columns.map(([, values]) => String(values[i] ?? ''))].join(','),
  );
  return new File([[head, ...lines].join('\n'), '\n'], name.replace(/\.json$/i, '.csv'), { type: 'text/csv' });
}

/**
 * What the document says of the columns; those that it does not name are not taken. Columns that the table
 * lacks are told.
 */
export function draftsFrom(
  question: TraceQuestion,
  drafts: readonly ColumnDraft[],
): { readonly drafts: readonly ColumnDraft[]; readonly missing: readonly string[] } {
  const named = (column: string) => question.channels.find((c) => c.column === column);
  return {
    drafts: drafts.map((d): ColumnDraft => {
      const c = named(d.column);
      if (!c) return { ...d, isTaken: false };
      return {
        ...d,
        isTaken: true,
        name: c.name ?? d.name,
        unit: c.unit ?? d.unit,
        role: c.role ?? d.role,
        factor: c.perVolt === undefined ? '1' : String(c.perVolt),
        of: c.of ?? '',
        cylinder: c.cylinder === undefined ? '' : String(c.cylinder),
      };
    }),
    missing: question.channels.map((c) => c.column).filter((c) => !drafts.some((d) => d.column === c)),
  };
}

/** Where the document says that the times are; what was found in the table, if it says nothing. */
export function timeFrom({ time }: TraceQuestion, dialect: Dialect): TimeSource {
  if (!time) return dialect.time;
  if ('rate_Hz' in time) {
    // Samples of the document itself were given their times when the table was made.
    const isMade = dialect.columns[0]?.name === 't' && dialect.time.kind === 'number';
    return isMade ? dialect.time : { kind: 'rate', rate_Hz: time.rate_Hz, column: null };
  }
  const column = dialect.columns.findIndex((c) => c.name === time.column);
  return column < 0 ? dialect.time : { kind: 'number', column, unit: time.unit ?? 's' };
}
