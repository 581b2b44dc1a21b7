import { tr } from '../core/locale/translate';
import { fail, ok, type Problem, type Result } from '../core/foundation/result';
import type { AccuracyRange } from '../core/metrology/instrument';
import { QUANTITIES, type Quantity } from '../core/quantity/units';
import { decimalSignOf, readTableDay, readTableNumber } from './table-values';
import { active, inert, readTable, type TableRow, writeTable } from './table';

/**
 * An instrument as a list says it: its depot by name. How it is reached by cable or network stands in no
 * list.
 */
export interface InstrumentEntry {
  /** Of its first row. */
  readonly line: number;
  readonly depot: string;
  readonly name: string;
  readonly kind: string;
  readonly calibrationDue: string | null;
  readonly clamp_mVperA: number | null;
  readonly leadRepeatability_ohm: number | null;
  readonly accuracy: readonly AccuracyRange[];
}

const TEXTS = ['depot', 'name', 'kind'] as const;
const OF_INSTRUMENT = ['kind', 'calibration_due', 'clamp_mv_per_a', 'lead_repeatability_ohm'] as const;
const RANGE_NUMBERS = ['up_to', 'percent_of_reading', 'counts', 'resolution'] as const;
/**
 * A row for each range of its accuracy, `up_to` and `resolution` in the base unit of the quantity; one where
 * there is none.
 */
export const INSTRUMENT_COLUMNS = ['depot', 'name', ...OF_INSTRUMENT, 'quantity', ...RANGE_NUMBERS] as const;
type Column = (typeof INSTRUMENT_COLUMNS)[number];
const MOST_ROWS = 5000;
const MOST_RANGES = 100;
const LONGEST = { depot: 60, name: 100, kind: 60 } as const;

export const instrumentKey = (e: Pick<InstrumentEntry, 'depot' | 'name'>): string =>
  JSON.stringify([e.depot.toLowerCase(), e.name]);

/** Instruments of a table. Fails with every problem; its path begins with the line: `/line 4/up_to`. */
export function readInstrumentsCsv(text: string): Result<readonly InstrumentEntry[]> {
  const table = readTable(text, TEXTS, MOST_ROWS, INSTRUMENT_COLUMNS);
  if (!table.ok) return table;
  const problems: Problem[] = [];
  const numbers = ['clamp_mv_per_a', 'lead_repeatability_ohm', ...RANGE_NUMBERS];
  const sign = decimalSignOf(table.value.flatMap(({ cells }) => numbers.map((c) => cells[c] ?? '')));
  const found = new Map<string, { first: TableRow; entry: InstrumentEntry; accuracy: AccuracyRange[] }>();
  for (const row of table.value) {
    const cellOf = (column: Column): string => active(row.cells[column] ?? '').trim();
    const wrong = (column: Column, message: string): void => {
      problems.push({ path: `/line ${row.line}/${column}`, message });
    };
    const number = (column: Column, least: number, isAbove: boolean): number | null => {
      if (cellOf(column) === '') return null;
      const read = readTableNumber(cellOf(column), sign);
      if (!read.ok) wrong(column, read.error);
      else if (isAbove ? read.value > least : read.value >= least) return read.value;
      else wrong(column, isAbove ? tr`More than ${least}.` : tr`At least ${least}.`);
      return null;
    };
    for (const column of TEXTS) {
      // Of a second row of the same instrument the kind may be left out.
      if (cellOf(column) === '' && (column !== 'kind' || !found.has(instrumentKey(named(cellOf)))))
        wrong(column, 'Nothing stands here.');
      else if (cellOf(column).length > LONGEST[column]) wrong(column, tr`At most ${LONGEST[column]} characters.`);
    }
    const range = rangeOf(cellOf, number, wrong);
    const before = found.get(instrumentKey(named(cellOf)));
    if (before) {
      for (const column of OF_INSTRUMENT)
        if (cellOf(column) !== '' && cellOf(column) !== active(before.first.cells[column] ?? '').trim())
          wrong(column, tr`Line ${before.first.line} says something else of this instrument.`);
      if (range && before.accuracy.some((a) => a.quantity === range.quantity && a.upTo === range.upTo))
        wrong('up_to', tr`This range stands there already.`);
      else if (range && before.accuracy.length >= MOST_RANGES) wrong('quantity', tr`At most ${MOST_RANGES} ranges.`);
      else if (range) before.accuracy.push(range);
      continue;
    }
    const due = cellOf('calibration_due') === '' ? null : readTableDay(cellOf('calibration_due'));
    if (due?.ok === false) wrong('calibration_due', due.error);
    const accuracy = range ? [range] : [];
    const entry = {
      ...named(cellOf),
      line: row.line,
      kind: cellOf('kind'),
      calibrationDue: due?.ok ? due.value : null,
      clamp_mVperA: number('clamp_mv_per_a', 0, true),
      leadRepeatability_ohm: number('lead_repeatability_ohm', 0, false),
      accuracy,
    };
    found.set(instrumentKey(entry), { first: row, entry, accuracy });
  }
  return problems.length ? fail(problems) : ok([...found.values()].map((f) => f.entry));
}

const named = (cellOf: (column: Column) => string): { depot: string; name: string } => ({
  depot: cellOf('depot'),
  name: cellOf('name'),
});

/** The range of a row; `null`: there is none, or what is wrong with it was said. */
function rangeOf(
  cellOf: (column: Column) => string,
  number: (column: Column, least: number, isAbove: boolean) => number | null,
  wrong: (column: Column, message: string) => void,
): AccuracyRange | null {
  const written = cellOf('quantity');
  if (written === '') {
    const stray = RANGE_NUMBERS.find((c) => cellOf(c) !== '');
    if (stray) wrong('quantity', 'Of which quantity is this range?');
    return null;
  }
  const quantity = QUANTITIES.find((q) => q === written.toLowerCase());
  if (!quantity || quantity === 'observation') {
    wrong('quantity', tr`There is no quantity "${written}". There are: ${MEASURED.join(', ')}.`);
    return null;
  }
  for (const column of RANGE_NUMBERS) if (cellOf(column) === '') wrong(column, 'Nothing stands here.');
  const [upTo, percentOfReading, counts, resolution] = [
    number('up_to', 0, true),
    number('percent_of_reading', 0, false),
    number('counts', 0, false),
    number('resolution', 0, true),
  ];
  if (percentOfReading !== null && percentOfReading > 100) wrong('percent_of_reading', tr`At most ${100}.`);
  return upTo === null || percentOfReading === null || counts === null || resolution === null
    ? null
    : { quantity, upTo, percentOfReading, counts, resolution };
}
const MEASURED: readonly Quantity[] = QUANTITIES.filter((q) => q !== 'observation');

export const writeInstrumentsCsv = (instruments: readonly Omit<InstrumentEntry, 'line'>[]): string =>
  writeTable(
    instruments.flatMap((i) => {
      const own = {
        depot: inert(i.depot),
        name: inert(i.name),
        kind: inert(i.kind),
        calibration_due: i.calibrationDue ?? '',
        clamp_mv_per_a: i.clamp_mVperA ?? '',
        lead_repeatability_ohm: i.leadRepeatability_ohm ?? '',
      };
      const ranges = i.accuracy.map((a) => ({
        quantity: a.quantity,
        up_to: a.upTo,
        percent_of_reading: a.percentOfReading,
        counts: a.counts,
        resolution: a.resolution,
      }));
      return ranges.length ? ranges.map((r) => ({ ...own, ...r })) : [own];
    }),
    INSTRUMENT_COLUMNS,
  );
