import { tr } from '../core/locale/translate';
import type { Limits } from '../core/limits/types';
import { fail, ok, type Problem, type Result } from '../core/foundation/result';
import { checkEntry, type SpecificationEntry } from './specifications';
import { type DecimalSign, decimalSignOf, readTableDay, readTableNumber } from './table-values';
import { nearest } from '../core/foundation/text';
import { active, inert, readTable, writeTable } from './table';
import { schema } from './schemas';
import { validate } from './validate';

/** The shelf as a table: plain limits have a column each; what is no number stands as JSON in `more`. */
const NUMBERS = {
  lower: 'lower',
  upper: 'upper',
  watch_lower: 'watchLower',
  watch_upper: 'watchUpper',
  recheck_margin: 'recheckMargin',
  short_below: 'shortBelow',
  open_above: 'openAbove',
  steady_within: 'steadyWithin',
  reference_temperature_degc: 'referenceTemperature_degC',
  temperature_coefficient_perk: 'temperatureCoefficient_perK',
} as const;
const WHEN_TEXTS = { when_key: 'key', when_engine: 'engine', when_connection: 'connection' } as const;
const WHEN_NUMBERS = {
  when_system_voltage: 'systemVoltage_V',
  when_from_degc: 'fromTemperature_degC',
  when_to_degc: 'toTemperature_degC',
} as const;
const NEIGHBOURS = ['neighbours_max_ratio', 'neighbours_max_difference'] as const;
const MORE = ['byPosition', 'sequence', 'transfer', 'tolerance'] as const;

export const SPECIFICATION_COLUMNS = [
  'test',
  'scope',
  'of',
  'school',
  ...Object.keys(WHEN_TEXTS),
  ...Object.keys(WHEN_NUMBERS),
  'quantity',
  'unit',
  ...Object.keys(NUMBERS),
  'neighbours_max_ratio',
  'neighbours_max_difference',
  'material',
  'more',
  'source',
  'document',
  'page',
  'document_revision',
  'document_date',
  'status',
] as const;

export function writeSpecificationsCsv(entries: readonly SpecificationEntry[]): string {
  return writeTable(entries.map(rowOf), SPECIFICATION_COLUMNS);
}

function rowOf(e: SpecificationEntry): Record<string, unknown> {
  const { limits, when = {} } = e;
  const named = (columns: Readonly<Record<string, string>>, from: object) =>
    Object.fromEntries(
      Object.entries(columns).map(([column, field]) => [column, (from as Record<string, unknown>)[field] ?? '']),
    );
  const more = Object.fromEntries(MORE.filter((f) => limits[f] !== undefined).map((f) => [f, limits[f]]));
  return {
    test: e.test,
    scope: e.scope,
    of: inert(e.of ?? ''),
    school: inert(e.school ?? ''),
    ...named(WHEN_TEXTS, when),
    ...named(WHEN_NUMBERS, when),
    quantity: limits.quantity,
    unit: limits.unit,
    ...named(NUMBERS, limits),
    neighbours_max_ratio: limits.neighbours?.maxRatio ?? '',
    neighbours_max_difference: limits.neighbours?.maxDifference ?? '',
    material: limits.material ?? '',
    more: Object.keys(more).length ? JSON.stringify(more) : '',
    source: inert(e.source),
    document: inert(e.document ?? ''),
    page: inert(e.page ?? ''),
    document_revision: inert(e.documentRevision ?? ''),
    document_date: e.documentDate ?? '',
    status: e.status ?? 'draft',
  };
}

const MOST_ROWS = 50_000;
const MOST_PROBLEMS = 300;

/** Tests as a file may call them: by their id or by their name. */
export type NamedTest = Readonly<{ id: string; name: string }>;

/** Limits of a table, and the line of the file on which each begins. */
export interface ReadSpecifications {
  readonly entries: readonly SpecificationEntry[];
  readonly lines: readonly number[];
}

/**
 * Limits from a table. Fails with every problem; its path begins with the line: `/line 4/lower`. `tests`: of
 * the catalogue; without them a test is taken as it is written.
 */
export function readSpecificationsCsv(text: string, tests: readonly NamedTest[] = []): Result<ReadSpecifications> {
  const table = readTable(text, ['test', 'scope', 'quantity', 'unit', 'source'], MOST_ROWS, SPECIFICATION_COLUMNS);
  if (!table.ok) return table;
  const problems: Problem[] = [];
  const entries: SpecificationEntry[] = [];
  const lines: number[] = [];
  const columns = [...Object.keys(NUMBERS), ...Object.keys(WHEN_NUMBERS), ...NEIGHBOURS];
  const sign = decimalSignOf(table.value.flatMap(({ cells }) => columns.map((c) => cells[c] ?? '')));
  for (const { line, cells } of table.value) {
    // What was meant by a word that is not known is searched for: not for all of a file that is nothing of
    // the kind.
    if (problems.length > MOST_PROBLEMS) break;
    const entry = readRow(cells, sign, tests);
    const at = (p: Problem): Problem => ({ path: `/line ${line}${p.path}`, message: p.message });
    if (!entry.ok) problems.push(...entry.error.map(at));
    else {
      entries.push(entry.value);
      lines.push(line);
    }
  }
  return problems.length ? fail(problems) : ok({ entries, lines });
}

/** The id of a test that is written as its id or its name; what is neither says what was probably meant. */
function testIdOf(written: string | undefined, tests: readonly NamedTest[], problems: Problem[]): string | undefined {
  if (written === undefined || tests.length === 0 || tests.some((t) => t.id === written)) return written;
  const named = tests.find((t) => t.name.toLowerCase() === written.toLowerCase());
  if (named) return named.id;
  const meant = nearest(written, [...tests.map((t) => t.id), ...tests.map((t) => t.name)]);
  const hint = meant === null ? '' : tr` Did you mean "${meant}"?`;
  problems.push({ path: '/test', message: tr`There is no test "${written}".${hint}` });
  return written;
}

const checkShape = schema<SpecificationEntry>({ $ref: 'urn:mudflat:shelf:1#/$defs/entry' });

function readRow(
  cells: Readonly<Record<string, string>>,
  sign: DecimalSign,
  tests: readonly NamedTest[],
): Result<SpecificationEntry> {
  const problems: Problem[] = [];
  const text = (column: string): string | undefined => active(cells[column] ?? '') || undefined;
  const number = (column: string): number | undefined => {
    const typed = text(column);
    if (typed === undefined) return undefined;
    const value = readTableNumber(typed, sign);
    if (value.ok) return value.value;
    problems.push({ path: `/${column}`, message: value.error });
    return undefined;
  };
  const day = (column: string): string | undefined => {
    const typed = text(column);
    const value = typed === undefined ? null : readTableDay(typed);
    if (value?.ok === false) problems.push({ path: `/${column}`, message: value.error });
    return value?.ok ? value.value : undefined;
  };
  const numbers = (columns: Readonly<Record<string, string>>) =>
    pruned(Object.fromEntries(Object.entries(columns).map(([column, field]) => [field, number(column)])));
  const neighbours = pruned({
    maxRatio: number('neighbours_max_ratio'),
    maxDifference: number('neighbours_max_difference'),
  });
  const more = readMore(text('more'), problems);
  const limits = pruned({
    quantity: text('quantity'),
    unit: text('unit'),
    ...numbers(NUMBERS),
    material: text('material'),
    ...more,
    ...(Object.keys(neighbours).length ? { neighbours } : {}),
  });
  const when = {
    ...pruned(Object.fromEntries(Object.entries(WHEN_TEXTS).map(([column, field]) => [field, text(column)]))),
    ...numbers(WHEN_NUMBERS),
  };
  const entry = pruned({
    test: testIdOf(text('test'), tests, problems),
    scope: text('scope'),
    of: text('of'),
    school: text('school'),
    ...(Object.keys(when).length ? { when } : {}),
    limits: limits as unknown as Limits,
    source: text('source'),
    document: text('document'),
    page: text('page'),
    documentRevision: text('document_revision'),
    documentDate: day('document_date'),
    status: text('status'),
  });
  if (problems.length) return fail(problems);
  const valid = validate(checkShape, entry);
  if (!valid.ok) return valid;
  const wrong = checkEntry(valid.value);
  return wrong.length ? fail(wrong) : ok(valid.value);
}

function readMore(text: string | undefined, problems: Problem[]): Record<string, unknown> {
  if (text === undefined) return {};
  try {
    const read = JSON.parse(text) as unknown;
    if (
      read !== null &&
      typeof read === 'object' &&
      !Array.isArray(read) &&
      Object.keys(read).every((k) => (MORE as readonly string[]).includes(k))
    )
      return read as Record<string, unknown>;
  } catch {
    /* said below */
  }
  problems.push({ path: '/more', message: tr`This is JSON with ${MORE.join(', ')}.` });
  return {};
}

const pruned = <T extends object>(o: T): T =>
  Object.fromEntries(Object.entries(o).filter(([, v]) => v !== undefined)) as T;
