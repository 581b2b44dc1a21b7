import { tr } from '../core/locale/translate';
import { SEQUENCES } from '../core/repair/sequences';
import { readValue } from '../core/repair/values';
import { nearest } from '../core/foundation/text';
import { fail, ok, type Problem, type Result } from '../core/foundation/result';
import { active, inert, readTable, writeTable } from './table';

/** A fitting value of a list. `family`: code; `null` for any engine. */
export interface FittingEntry {
  readonly line: number;
  readonly family: string | null;
  /** "glow-plugs/torque" */
  readonly key: string;
  readonly value: string;
  readonly source: string;
}

export const FITTING_COLUMNS = ['family', 'sequence', 'step', 'value', 'source'] as const;
const MOST_ROWS = 5000;
const LONGEST_chars = 200;

/** Fitting values of a table. Fails with every problem; its path begins with the line: `/line 4/value`. */
export function readFittingValuesCsv(text: string): Result<readonly FittingEntry[]> {
  const table = readTable(text, ['sequence', 'step', 'value', 'source'], MOST_ROWS, FITTING_COLUMNS);
  if (!table.ok) return table;
  const problems: Problem[] = [];
  const entries = table.value.flatMap(({ line, cells }): FittingEntry[] => {
    const cell = (column: (typeof FITTING_COLUMNS)[number]): string => active(cells[column] ?? '').trim();
    const wrong = (column: string, message: string): FittingEntry[] => {
      problems.push({ path: `/line ${line}/${column}`, message });
      return [];
    };
    const [wanted, stepId] = [cell('sequence'), cell('step')];
    const sequence = SEQUENCES.find((s) => s.id === wanted || s.name.toLowerCase() === wanted.toLowerCase());
    if (!sequence)
      return wrong(
        'sequence',
        unknown(
          'sequence',
          wanted,
          SEQUENCES.map((s) => s.id),
        ),
      );
    const valued = sequence.steps.filter((s) => s.value !== undefined);
    const step = valued.find((s) => s.id === stepId);
    if (!step?.value)
      return wrong(
        'step',
        unknown(
          'step with a value',
          stepId,
          valued.map((s) => s.id),
        ),
      );
    const value = readValue(cell('value'), step.value.quantity);
    if (!value.ok) return wrong('value', value.error);
    for (const column of ['value', 'source'] as const)
      if (cell(column).length > LONGEST_chars) return wrong(column, tr`At most ${LONGEST_chars} characters.`);
    if (!cell('source')) return wrong('source', 'Where is it from? Document and page, or who says so.');
    return [
      {
        line,
        family: cell('family') || null,
        key: `${sequence.id}/${step.id}`,
        value: cell('value'),
        source: cell('source'),
      },
    ];
  });
  return problems.length ? fail(problems) : ok(entries);
}

function unknown(what: string, word: string, known: readonly string[]): string {
  const meant = nearest(word, known);
  return tr`There is no ${what} "${word}". ${meant === null ? tr`There are: ${known.join(', ')}.` : tr`Did you mean "${meant}"?`}`;
}

export const writeFittingValuesCsv = (values: readonly Omit<FittingEntry, 'line'>[]): string =>
  writeTable(
    values.map(({ family, key, value, source }) => {
      const [sequence = '', step = ''] = key.split('/');
      return { family: inert(family ?? ''), sequence, step, value: inert(value), source: inert(source) };
    }),
    FITTING_COLUMNS,
  );
