import { v5 } from 'uuid';
import { positionsOf } from '../../core/catalogue/positions';
import { ok, type Result } from '../../core/foundation/result';
import type { ProblemDetails } from '../../formats/problem';
import { type CsvRead, readReadingsCsv } from '../../formats/readings-csv';
import type { Db } from '../db/connection';
import { recordReadings } from './record-reading';
import { notFound, refuse } from '../db/refusal';
import { limitsOf, loadRun, type RunRecord } from './run-view';
import { currentReadings } from '../../application/judging/corrections';
import type { RecordReading } from '../../formats/requests/runs';

/** What a file would do to a run, row by row. */
export interface CsvPlan {
  readonly rows: readonly (CsvRead['rows'][number] & {
    readonly action: 'new' | 'correction' | 'unchanged';
    readonly was: string | null;
  })[];
  readonly problems: CsvRead['problems'];
  readonly stored: number;
}

/** Reads the file against the run; nothing is stored. */
export async function planCsv(db: Db, runId: string, text: string): Promise<Result<CsvPlan, ProblemDetails>> {
  const record = await loadRun(db, runId);
  return record ? planFor(record, text) : notFound('test run');
}

function planFor(record: RunRecord, text: string): Result<CsvPlan, ProblemDetails> {
  const { definition } = record;
  const clamp = record.instruments.find((i) => i.id === record.circumstance.instrumentId)?.clamp_mVperA;
  const read = readReadingsCsv(text, {
    test: record.run.test,
    limits: limitsOf(record.specification, record.definition),
    positions: positionsOf(definition, record.unit.engine),
    clamp_mVperA: clamp,
  });
  if (!read.ok) return refuse('This file cannot be read.', read.error);
  const now = new Map(currentReadings(record.readings).map((r) => [r.position, r]));
  const rows = read.value.rows.map((row) => {
    const was = now.get(row.position)?.entry ?? null;
    return {
      ...row,
      was,
      action: was === null ? ('new' as const) : was === row.entry ? ('unchanged' as const) : ('correction' as const),
    };
  });
  return ok({ rows, problems: read.value.problems, stored: 0 });
}

/**
 * Stores the rows that can be read, all in one transaction; rows that say what is there already change
 * nothing. `batch` is an id made by the caller: sending the same batch again stores nothing twice.
 */
export async function storeCsv(
  db: Db,
  runId: string,
  text: string,
  batch: string,
  by: string,
): Promise<Result<CsvPlan, ProblemDetails>> {
  const record = await loadRun(db, runId);
  if (!record) return notFound('test run');
  const plan = planFor(record, text);
  if (!plan.ok) return plan;
  const now = new Map(currentReadings(record.readings).map((r) => [r.position, r.id]));
  const takenAt = new Date().toISOString();
  const bodies = plan.value.rows
    .filter((r) => r.action !== 'unchanged')
    .map((row): RecordReading => ({
      id: v5(`${runId}/${row.line}`, batch),
      position: row.position,
      entry: row.entry,
      by,
      takenAt,
      supersedes: now.get(row.position) ?? null,
      why: row.action === 'correction' ? 'from a file' : null,
    }));
  if (bodies.length) {
    const stored = await recordReadings(db, runId, bodies);
    if (!stored.ok) return stored;
  }
  return ok({ ...plan.value, stored: bodies.length });
}
