import { inOrder } from '../../core/catalogue/positions';
import { CSV_COLUMNS, type CsvColumn } from '../../formats/readings-csv';
import { inert, writeTable } from '../../formats/table';
import { currentReadings } from '../judging/corrections';
import type { RunView } from '../views';
import { seenWords } from './facts';

/** The readings of a run that count, in numbering order. `value` is the corrected one, at full precision. */
export function writeReadingsCsv(view: RunView): string {
  const { limits, source } = view.specification;
  const judged = new Map(view.judgement.readings.map((r) => [r.position, r]));
  const { circumstance: c } = view;
  const zeroWords = (zero: string | null): string =>
    limits.quantity === 'resistance' ? (zero === null ? 'leads not zeroed' : `leads ${zero} ohm`) : '';
  const meter = (id: string | null): string => {
    const used = id ?? c.instrumentId;
    return [
      view.instruments.find((i) => i.id === used)?.name,
      zeroWords(used === c.instrumentId ? c.leadZero : (c.zeros[used ?? ''] ?? null)),
    ]
      .filter(Boolean)
      .join(', ');
  };
  const rows = inOrder(view.definition, currentReadings(view.readings)).map((r): Record<CsvColumn, unknown> => ({
    unit: inert(view.unit.fleetNumber),
    job: view.job.number,
    test: view.test,
    position: r.position,
    entry: r.entry,
    value: judged.get(r.position)?.corrected ?? '',
    unit_of_measure: limits.unit,
    verdict: judged.get(r.position)?.verdict ?? '',
    limit_lower: (judged.get(r.position)?.limits ?? limits).lower ?? '',
    limit_upper: (judged.get(r.position)?.limits ?? limits).upper ?? '',
    limit_source: inert(source),
    condition: inert(conditionWords(view)),
    instrument: inert(meter(r.instrumentId)),
    taken_at: r.takenAt,
    taken_by: inert(r.takenBy),
  }));
  return writeTable(rows, CSV_COLUMNS);
}

function conditionWords(view: RunView): string {
  const { definition: test } = view;
  const { states, condition } = view.circumstance;
  const temperature = condition.partTemperature_degC === undefined ? [] : [`${condition.partTemperature_degC} degC`];
  return [
    ...test.states.filter((s) => states.includes(s.id)).map((s) => s.label),
    ...temperature,
    ...seenWords(condition),
  ].join(', ');
}
