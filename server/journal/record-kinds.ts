import type { PgTable } from 'drizzle-orm/pg-core';
import type { Action } from '../../application/policy';
import { WRITE_RECORD } from '../../formats/requests/repair';
import {
  circumstance,
  codeObservation,
  evidence,
  finding,
  intake,
  job,
  jobNote,
  repairRecord,
  photo,
  planChange,
  reading,
  testRun,
  trace,
  leadMap,
  traceNote,
} from '../db/schema';
import { NOTE_CALCULATION, OPEN_JOB } from '../../formats/requests/jobs';
import { RECORD_CODES } from '../../formats/requests/codes';
import { RECORD_CIRCUMSTANCE, RECORD_READING, START_RUN } from '../../formats/requests/runs';
import { NOTE_INTAKE } from '../../formats/requests/intake';
import { RECORD_EVIDENCE } from '../../formats/requests/evidence';
import { WRITE_FINDING } from '../../formats/requests/findings';
import { CHANGE_PLAN } from '../../formats/requests/plan';
import { KEEP_TRACE, NOTE_TRACE, WRITE_LEADS } from '../../formats/requests/traces';

/**
 * The journal of a job: every kind of row that is written into it. From here come the order and the tables of
 * a bundle, the words of the audit trail, and how a row that comes twice is told from another row under the
 * same id. A new kind is one entry here and a migration that gives its table the triggers; a test says what
 * is missing.
 */
export interface RecordKind {
  readonly table: PgTable;
  /** For people: "reading". */
  readonly words: string;
  /** How a row says to which job it belongs. */
  readonly belongs: 'is the job' | 'by job_id' | 'by run_id';
  /** Never changed once written; a job is closed and reopened, a run is judged. */
  readonly appendOnly: boolean;
  /** Columns that follow from others or from a clock: a row sent again may come with other ones. */
  readonly derived: readonly string[];
  /** Who may write it. */
  readonly action: Action;
  /** Schema of the body that writes it; `null` for bytes. */
  readonly body: object | null;
}

const kind = (
  table: PgTable,
  words: string,
  action: Action,
  body: object | null,
  more: Partial<RecordKind> = {},
): RecordKind => ({ table, words, belongs: 'by job_id', appendOnly: true, derived: [], action, body, ...more });

/** In the order in which a bundle brings them: what others refer to comes first. Keys are names of tables. */
export const RECORD_KINDS = {
  job: kind(job, 'job', 'job.open', OPEN_JOB, { belongs: 'is the job', appendOnly: false }),
  test_run: kind(testRun, 'test', 'run.start', START_RUN, {
    appendOnly: false,
    derived: ['specificationId', 'because', 'definition', 'decision', 'judgement'],
  }),
  circumstance: kind(circumstance, 'statement of what is true', 'run.state-circumstances', RECORD_CIRCUMSTANCE, {
    belongs: 'by run_id',
    derived: ['recordedAt'],
  }),
  reading: kind(reading, 'reading', 'run.record-reading', RECORD_READING, {
    belongs: 'by run_id',
    derived: ['takenAt', 'judged', 'coreVersion', 'specificationId', 'instrumentId', 'leadZero'],
  }),
  code_observation: kind(codeObservation, 'code', 'job.keep-codes', RECORD_CODES),
  job_note: kind(jobNote, 'note', 'job.note-calculation', NOTE_CALCULATION),
  intake: kind(intake, 'intake', 'job.change-intake', NOTE_INTAKE),
  evidence: kind(evidence, 'evidence', 'job.record-evidence', RECORD_EVIDENCE),
  finding: kind(finding, 'finding', 'job.write-finding', WRITE_FINDING),
  plan_change: kind(planChange, 'change of the plan', 'job.change-plan', CHANGE_PLAN),
  photo: kind(photo, 'photo', 'job.add-photo', null),
  lead_map: kind(leadMap, 'plan of leads', 'job.plan-leads', WRITE_LEADS),
  trace: kind(trace, 'recording', 'job.add-trace', KEEP_TRACE),
  trace_note: kind(traceNote, 'note of a recording', 'job.note-trace', NOTE_TRACE),
  job_record: kind(repairRecord, 'record of the repair', 'job.write-repair', WRITE_RECORD),
} as const satisfies Readonly<Record<string, RecordKind>>;

export type RecordKindName = keyof typeof RECORD_KINDS;
export const RECORD_KIND_NAMES = Object.keys(RECORD_KINDS) as readonly RecordKindName[];

/** A kind in words for people; the name itself where it is none of these. */
export const kindWords = (name: string): string =>
  Object.hasOwn(RECORD_KINDS, name) ? RECORD_KINDS[name as RecordKindName].words : name;
