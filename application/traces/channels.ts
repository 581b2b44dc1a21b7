import { tr } from '../../core/locale/translate';
import { fail, ok, type Problem, type Result } from '../../core/foundation/result';
import { nearest } from '../../core/foundation/text';
import { type Clock, listedClock, rateClock } from '../../core/signal/clock';
import { withoutBlankRows } from '../../core/signal/blank-rows';
import { stepOf } from '../../core/signal/step';
import type { Channel } from '../../core/signal/types';
import { HEAD_BYTES } from '../../formats/trace/csv-reader';
import { type Dialect, TIME_UNITS, understand } from '../../formats/trace/dialect';
import { readMoment } from '../../formats/trace/moments';
import { readerFor, readTrace } from '../../formats/trace/read';
import { CsvReader } from '../../formats/trace/csv-reader';
import { type ReadColumn, TraceProblem } from '../../formats/trace/types';
import type { QuestionChannel, TraceQuestion } from '../../formats/trace-question';

/** Gives the bytes of a file that a question names, or throws with the reason. */
export type LoadFile = (path: string) => Uint8Array;

export interface AskedChannels {
  readonly channels: readonly Channel[];
  readonly notes: readonly string[];
}

interface Source {
  readonly values: Float64Array;
  readonly clock: Clock;
  readonly unit: string | null;
  /** The last digit that was written, in the column's unit. */
  readonly written: number;
}

/** The channels that a question names, from its file or its own columns. */
export function channelsOf(question: TraceQuestion, load: LoadFile): Result<AskedChannels> {
  const twice = question.channels.flatMap(({ column }, i): Problem[] =>
    question.channels.findIndex((c) => c.column === column) < i
      ? [{ path: `/channels/${i}/column`, message: tr`"${column}" is named twice.` }]
      : [],
  );
  const scales = question.channels.flatMap(({ perVolt }, i): Problem[] =>
    perVolt === 0 ? [{ path: `/channels/${i}/perVolt`, message: 'Must not be 0.' }] : [],
  );
  if (twice.length || scales.length) return fail([...twice, ...scales]);
  const sources =
    typeof question.data === 'string'
      ? fromFile(question, question.data, load)
      : fromColumns(question, question.data.columns);
  if (!sources.ok) return sources;
  const { find, names, notes } = sources.value;
  const problems: Problem[] = [];
  const channels = question.channels.flatMap((asked, i): Channel[] => {
    const source = find(asked.column);
    if (source) return [channelOf(asked, source)];
    problems.push(missing(`/channels/${i}/column`, asked.column, names));
    return [];
  });
  question.channels.forEach(({ of }, i) => {
    if (of !== undefined && !question.channels.some((c) => c.column === of))
      problems.push(
        missing(
          `/channels/${i}/of`,
          of,
          question.channels.map((c) => c.column),
        ),
      );
  });
  return problems.length ? fail(problems) : ok({ channels, notes });
}

function missing(path: string, wanted: string, names: readonly string[]): Problem {
  const meant = nearest(wanted, names);
  const hint = meant === null ? tr`There are: ${names.slice(0, 20).join(', ')}.` : tr`Did you mean "${meant}"?`;
  return { path, message: tr`There is no column "${wanted}". ${hint}` };
}

function channelOf(asked: QuestionChannel, source: Source): Channel {
  const factor = asked.perVolt ?? 1;
  const scaled = factor === 1 ? source.values : source.values.map((v) => v * factor);
  const { clock, values } = withoutBlankRows(source.clock, scaled) ?? { clock: source.clock, values: scaled };
  return {
    id: asked.column,
    name: asked.name ?? asked.column,
    unit: asked.unit ?? source.unit ?? 'V',
    role: asked.role ?? 'other',
    clock,
    values,
    step: stepOf(values, source.written * Math.abs(factor)),
    of: asked.of,
    limits: asked.limits,
  };
}

interface Sources {
  readonly find: (column: string) => Source | null;
  readonly names: readonly string[];
  readonly notes: readonly string[];
}

function fromColumns(
  { time }: TraceQuestion,
  columns: Readonly<Record<string, readonly (number | null)[]>>,
): Result<Sources> {
  const names = Object.keys(columns);
  if (!time) return fail([{ path: '/time', message: 'Columns need a time: a column of theirs, or a rate.' }]);
  const counts = new Set(Object.values(columns).map((c) => c.length));
  if (counts.size > 1)
    return fail([{ path: '/data/columns', message: tr`The columns are not equally long: ${[...counts].join(', ')}.` }]);
  const [count = 0] = counts;
  let clock: Clock;
  if ('rate_Hz' in time) clock = rateClock(time.rate_Hz, count);
  else {
    const listed = Object.hasOwn(columns, time.column) ? columns[time.column] : undefined;
    if (!listed) return fail([missing('/time/column', time.column, names)]);
    const gap = listed.findIndex((v) => v === null);
    if (gap >= 0) return fail([{ path: `/data/columns/${time.column}/${gap}`, message: 'The row has no time.' }]);
    clock = timesClock(
      Float64Array.from(listed, (v) => v ?? NaN),
      TIME_UNITS[time.unit ?? 's'],
    );
  }
  const find = (column: string): Source | null => {
    const listed = Object.hasOwn(columns, column) ? columns[column] : undefined;
    if (!listed) return null;
    const values = Float64Array.from(listed, (v) => v ?? NaN);
    return { values, clock, unit: null, written: lastDigit(values) };
  };
  return ok({ find, names: names.filter((n) => !('column' in time) || n !== time.column), notes: [] });
}

/** Times that are even but for rounding are a rate with jumps; others a list. */
function timesClock(times: Float64Array, unit_s: number): Clock {
  return listedClock(times.map((t) => t * unit_s));
}

/** The last decimal digit that all values have, up to six; 0: more than that. */
function lastDigit(values: Float64Array): number {
  const some = values.filter((v, i) => Number.isFinite(v) && i % Math.max(1, Math.floor(values.length / 5000)) === 0);
  for (let d = 0; d <= 6; d++) {
    const scale = 10 ** d;
    if (some.every((v) => Math.abs(v * scale - Math.round(v * scale)) < 1e-6)) return 1 / scale;
  }
  return 0;
}

function fromFile(question: TraceQuestion, path: string, load: LoadFile): Result<Sources> {
  let bytes: Uint8Array;
  try {
    bytes = load(path);
  } catch (error) {
    return fail([{ path: '/data', message: tr`${path} cannot be read: ${(error as Error).message}` }]);
  }
  try {
    const wishes = wishesOf(question, bytes);
    if (!wishes.ok) return wishes;
    const reading = readTrace(bytes, { dialect: wishes.value });
    const named = new Map<string, ReadColumn>();
    for (const c of reading.columns) if (!named.has(c.name)) named.set(c.name, c);
    const find = (column: string): Source | null => {
      const found = named.get(column) ?? [...named.values()].find((c) => sameName(c.name, column));
      if (!found) return null;
      const { samples, scale, clock, unit } = found;
      return {
        values: samples.values(scale),
        clock,
        unit,
        written: samples.decimals >= 15 ? 0 : scale * 10 ** -samples.decimals,
      };
    };
    return ok({ find, names: [...named.keys()], notes: reading.notes });
  } catch (error) {
    if (!(error instanceof TraceProblem)) throw error;
    return fail([{ path: '/data', message: `${path}${error.path}: ${error.message}` }]);
  }
}

const sameName = (a: string, b: string): boolean => bare(a) === bare(b);
/** Without a unit in brackets, blanks and case. */
const bare = (name: string): string =>
  name
    .replace(/\s*[([][^)\]]*[)\]]\s*$/, '')
    .trim()
    .toLowerCase();

/**
 * What the question says of the file beyond what the file says itself: its time, and which columns are asked
 * for.
 */
function wishesOf(question: TraceQuestion, bytes: Uint8Array): Result<Partial<Dialect>> {
  if (!(readerFor(bytes) instanceof CsvReader)) return ok({});
  const dialect = understand(bytes.subarray(0, HEAD_BYTES), bytes.length <= HEAD_BYTES);
  const at = (name: string): number => {
    const exact = dialect.columns.findIndex((c, i) => [c.name, c.header, tr`column ${i + 1}`].includes(name));
    return exact >= 0 ? exact : dialect.columns.findIndex((c) => sameName(c.name, name) || sameName(c.header, name));
  };
  const names = dialect.columns.map((c) => c.name);
  const lost = question.channels.flatMap(({ column }, i) =>
    at(column) < 0 ? [missing(`/channels/${i}/column`, column, names)] : [],
  );
  if (lost.length) return fail(lost);
  const asked = new Set(question.channels.map((c) => at(c.column)));
  const { time: wish } = question;
  let time = dialect.time;
  if (wish && 'rate_Hz' in wish) time = { kind: 'rate', rate_Hz: wish.rate_Hz, column: null };
  else if (wish) {
    const column = at(wish.column);
    if (column < 0) return fail([missing('/time/column', wish.column, names)]);
    const row = dialect.sample[dialect.firstDataLine - 1] ?? '';
    const isMoment = readMoment(row.split(dialect.delimiter)[column]?.replaceAll('"', '').trim() ?? '') !== null;
    if (!isMoment) time = { kind: 'number', column, unit: wish.unit ?? unitOf(time, column) };
    else time = time.kind === 'moment' && time.column === column ? time : { kind: 'moment', column, day: null };
  }
  const timeColumns = time.kind === 'unknown' ? [] : [time.column, time.kind === 'moment' ? time.day : null];
  return ok({
    time,
    columns: dialect.columns.map((c, i) => ({
      ...c,
      name: question.channels.find((q) => at(q.column) === i)?.column ?? c.name,
      kind: timeColumns.includes(i) ? 'time' : asked.has(i) ? 'value' : 'text',
    })),
  });
}

const unitOf = (time: Dialect['time'], column: number): keyof typeof TIME_UNITS =>
  time.kind === 'number' && time.column === column ? time.unit : 's';
