import type { ValidateFunction } from 'ajv';
import { tr } from '../core/locale/translate';
import { fail, type Problem, type Result } from '../core/foundation/result';
import type { CodeStatus } from '../core/codes/decode';
import { readTable, type TableRow } from './table';
import { check } from './compiled/scan';
import { validate } from './validate';

interface NamedValue {
  readonly name: string;
  readonly value: string;
}

/** `mudflat/scan` 1: what a scan tool has shown. */
export interface ScanDocument {
  readonly format: 'mudflat/scan';
  readonly version: 1;
  readonly taken?: string;
  readonly tool?: string;
  readonly codes?: readonly { readonly code: string; readonly status?: CodeStatus; readonly count?: number }[];
  readonly freezeFrame?: readonly NamedValue[];
  readonly live?: readonly NamedValue[];
  readonly commands?: readonly { readonly name: string; readonly state: 'on' | 'off' }[];
  readonly cutOut?: readonly {
    readonly cylinder: number;
    readonly change: 'worse' | 'none';
    readonly faultPresent?: boolean;
  }[];
  readonly selfTest?: readonly {
    readonly cylinder: number;
    readonly part?: string;
    readonly result: 'passed' | 'failed';
    readonly said?: string;
  }[];
}

const MOST_ROWS = 1000;
const COLUMNS = ['kind', 'name', 'value', 'more'] as const;

/** A file of a scan tool: JSON by the schema, or the same as a table of `kind, name, value, more`. */
export function readScan(text: string): Result<ScanDocument> {
  const bare = text.replace(/^\ufeff/, '').trim();
  if (!bare.startsWith('{')) return readScanTable(bare);
  let json: unknown;
  try {
    json = JSON.parse(bare);
  } catch (error) {
    return fail([{ path: '', message: tr`This is no JSON: ${(error as Error).message}` }]);
  }
  return validate(check as ValidateFunction<ScanDocument>, json);
}

/** A document as it grows, row by row. */
type Draft = { -readonly [K in 'codes' | 'freezeFrame' | 'live' | 'commands' | 'cutOut' | 'selfTest']: object[] };

/** How a row of each kind is read: `null` where its value is none of those that there are. */
const ROWS: Readonly<
  Record<
    string,
    {
      readonly into: keyof Draft;
      readonly says: string;
      /** Whether something may stand under `more`. */
      readonly hasMore?: true;
      readonly read: (r: Row) => object | null;
    }
  >
> = {
  code: {
    into: 'codes',
    hasMore: true,
    says: 'value: active, stored, intermittent or nothing; more: how often',
    read: ({ name, value, more }) =>
      ['active', 'stored', 'intermittent', ''].includes(value) && /^\d{0,3}$/.test(more)
        ? { code: name, ...(value ? { status: value } : {}), ...(more ? { count: Number(more) } : {}) }
        : null,
  },
  freeze: {
    into: 'freezeFrame',
    says: 'value: with its unit',
    read: ({ name, value }) => (value ? { name, value } : null),
  },
  live: { into: 'live', says: 'value: with its unit', read: ({ name, value }) => (value ? { name, value } : null) },
  command: {
    into: 'commands',
    says: 'value: on or off',
    read: ({ name, value }) => (value === 'on' || value === 'off' ? { name, state: value } : null),
  },
  'cut-out': {
    into: 'cutOut',
    says: 'name: the cylinder; value: worse or none',
    read: ({ name, value }) =>
      /^\d{1,2}$/.test(name) && (value === 'worse' || value === 'none')
        ? { cylinder: Number(name), change: value }
        : null,
  },
  'self-test': {
    into: 'selfTest',
    hasMore: true,
    says: 'name: the cylinder; value: passed or failed',
    read: ({ name, value, more }) =>
      /^\d{1,2}$/.test(name) && (value === 'passed' || value === 'failed')
        ? { cylinder: Number(name), result: value, ...(more ? { said: more } : {}) }
        : null,
  },
};
interface Row {
  readonly name: string;
  readonly value: string;
  readonly more: string;
}

function readScanTable(text: string): Result<ScanDocument> {
  const table = readTable(text, ['kind', 'name', 'value'], MOST_ROWS, COLUMNS);
  if (!table.ok) return table;
  const draft: Draft = { codes: [], freezeFrame: [], live: [], commands: [], cutOut: [], selfTest: [] };
  const problems = table.value.flatMap((row): Problem[] => takeRow(row, draft));
  if (problems.length) return fail(problems);
  const filled = Object.fromEntries(Object.entries(draft).filter(([, rows]) => rows.length));
  return validate(check as ValidateFunction<ScanDocument>, { format: 'mudflat/scan', version: 1, ...filled });
}

function takeRow({ line, cells }: TableRow, draft: Draft): Problem[] {
  const kind = (cells.kind ?? '').toLowerCase();
  const how = Object.hasOwn(ROWS, kind) ? ROWS[kind] : undefined;
  const at = (field: string, message: string): Problem[] => [{ path: `/line ${line}/${field}`, message }];
  if (!how) return at('kind', tr`"${kind}" is none of ${Object.keys(ROWS).join(', ')}.`);
  const name = cells.name ?? '';
  if (name === '') return at('name', 'Nothing stands there.');
  if (cells.more && !how.hasMore)
    return at('more', tr`Of a ${kind} nothing stands under "more". A comma inside a value needs quotes around it.`);
  const lower = (cells.value ?? '').toLowerCase();
  const value = how.into === 'live' || how.into === 'freezeFrame' ? (cells.value ?? '') : lower;
  const read = how.read({ name, value, more: cells.more ?? '' });
  if (!read) return at('value', tr`Of a ${kind}, ${how.says}.`);
  draft[how.into].push(read);
  return [];
}
