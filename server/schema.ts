import { sql } from 'drizzle-orm';
import { boolean, doublePrecision, index, integer, jsonb, pgTable, text, timestamp, uniqueIndex, uuid } from 'drizzle-orm/pg-core';
import type { Engine } from '../core/engine/layout';
import type { Condition, Judgement, JudgedReading, Limits } from '../core/judge/types';
import type { TestDefinition } from '../core/catalogue/types';
import type { Phase } from '../core/codes/phases';
import type { DecisionRule } from '../core/metrology/conformity';
import type { AccuracyRange } from '../core/metrology/instrument';
import type { Scope, When } from '../core/shelf/types';

/** Ids come from whoever makes the row (UUIDv7), so that the same submission sent twice is the same row. */
const id = () => uuid('id').primaryKey();
const at = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });
const created = () => at('created_at').notNull().default(sql`now()`);

/** What a depot has chosen: a school per test, and how it accepts. */
export interface DepotChoices {
  readonly schools: Readonly<Record<string, string>>;
  readonly decision: DecisionRule;
}

export const depot = pgTable('depot', {
  id: id(), name: text('name').notNull().unique(), timeZone: text('time_zone').notNull(), createdAt: created(),
  choices: jsonb('choices').$type<DepotChoices>().notNull().default({ schools: {}, decision: 'three-way' }),
});

export const person = pgTable('person', {
  id: id(), depotId: uuid('depot_id').notNull().references(() => depot.id), name: text('name').notNull(),
  role: text('role', { enum: ['technician', 'lead', 'viewer'] }).notNull(), createdAt: created(),
});

export const engineFamily = pgTable('engine_family', {
  id: id(), code: text('code').notNull().unique(), engine: jsonb('engine').$type<Engine>().notNull(), createdAt: created(),
});

export const unit = pgTable('unit', {
  id: id(), depotId: uuid('depot_id').notNull().references(() => depot.id),
  engineFamilyId: uuid('engine_family_id').notNull().references(() => engineFamily.id),
  fleetNumber: text('fleet_number').notNull().unique(), kind: text('kind').notNull(), createdAt: created(),
  /** Codes of the parts that are fitted, by kind of part. */
  parts: jsonb('parts').$type<Record<string, string>>().notNull().default({}),
});

/** A specification is never changed: a new revision is a new row of the same series. */
export const specification = pgTable('specification', {
  id: id(), seriesId: uuid('series_id').notNull(), revision: integer('revision').notNull(),
  test: text('test').notNull(), engineFamilyId: uuid('engine_family_id').references(() => engineFamily.id),
  limits: jsonb('limits').$type<Limits>().notNull(), source: text('source').notNull(),
  status: text('status', { enum: ['draft', 'approved', 'rule-of-thumb', 'withdrawn'] }).notNull(), createdAt: created(),
  scope: text('scope').$type<Scope>().notNull().default('general'), part: text('part'), depotId: uuid('depot_id').references(() => depot.id),
  applies: jsonb('applies').$type<When>().notNull().default({}), school: text('school'),
  document: text('document'), page: text('page'), documentRevision: text('document_revision'), documentDate: text('document_date'),
  recordedBy: text('recorded_by').notNull().default(''),
  /** Put here by a rule of thumb that a test of the catalogue carries. */
  ships: boolean('ships').notNull().default(false),
}, (t) => [uniqueIndex('specification_revision').on(t.seriesId, t.revision), index('specification_test').on(t.test)]);

export const instrument = pgTable('instrument', {
  id: id(), depotId: uuid('depot_id').notNull().references(() => depot.id), name: text('name').notNull(), kind: text('kind').notNull(),
  accuracy: jsonb('accuracy').$type<AccuracyRange[]>().notNull(), calibrationDue: text('calibration_due'), createdAt: created(),
  details: jsonb('details').$type<InstrumentDetails>().notNull().default({}),
  /** The row that says it better: what was read with this one keeps this one. */
  replacedBy: uuid('replaced_by'), retiredAt: at('retired_at'),
});

export interface InstrumentDetails {
  readonly clamp_mVperA?: number | undefined;
  readonly leadRepeatability_ohm?: number | undefined;
}

/** Leads and extensions with their measured zero, appended whenever one is measured; the newest of a name counts. */
export const lead = pgTable('lead', {
  id: id(), sequence: integer('sequence').notNull().generatedAlwaysAsIdentity(), depotId: uuid('depot_id').notNull().references(() => depot.id),
  name: text('name').notNull(), zero: text('zero'), measuredBy: text('measured_by').notNull(), createdAt: created(),
}, (t) => [index('lead_depot').on(t.depotId, t.sequence)]);

/** A workshop's own tests. A row is never changed: a new revision is a new row. `definition` null takes the test away. */
export const testDefinition = pgTable('test_definition', {
  id: id(), testId: text('test_id').notNull(), revision: integer('revision').notNull(),
  definition: jsonb('definition').$type<TestDefinition>(), recordedBy: text('recorded_by').notNull(), createdAt: created(),
}, (t) => [uniqueIndex('test_definition_revision').on(t.testId, t.revision)]);

export const job = pgTable('job', {
  id: id(), number: integer('number').notNull().generatedAlwaysAsIdentity(), unitId: uuid('unit_id').notNull().references(() => unit.id),
  complaint: text('complaint').notNull(), odometer_km: doublePrecision('odometer_km'), hours: doublePrecision('hours'),
  openedBy: text('opened_by').notNull(), createdAt: created(), closedAt: at('closed_at'),
}, (t) => [index('job_unit').on(t.unitId), index('job_open').on(t.closedAt)]);

export const testRun = pgTable('test_run', {
  id: id(), jobId: uuid('job_id').notNull().references(() => job.id), test: text('test').notNull(),
  specificationId: uuid('specification_id').notNull().references(() => specification.id),
  startedBy: text('started_by').notNull(), createdAt: created(),
  /** The latest judgement, derived from readings and circumstances: kept so that lists need not judge. */
  judgement: jsonb('judgement').$type<Judgement>(),
  /** The test as it was when the run began; absent in runs of before there were own tests. */
  definition: jsonb('definition').$type<TestDefinition>(),
  decision: text('decision').$type<DecisionRule>().notNull().default('three-way'),
  /** Why these limits. */
  because: text('because').notNull().default(''),
}, (t) => [index('test_run_job').on(t.jobId)]);

/** What is put into a job's record beside its readings: sums, changed limits. Append-only. */
export const jobNote = pgTable('job_note', {
  id: id(), sequence: integer('sequence').notNull().generatedAlwaysAsIdentity(), jobId: uuid('job_id').notNull().references(() => job.id),
  kind: text('kind', { enum: ['sum', 'limits'] }).notNull(), body: jsonb('body').$type<NoteBody>().notNull(), recordedBy: text('recorded_by').notNull(), createdAt: created(),
}, (t) => [index('job_note_job').on(t.jobId, t.sequence)]);

export interface NoteBody {
  readonly title: string;
  readonly lines: readonly string[];
}

/** What is true while readings are taken, appended whenever it changes; the newest row counts. */
export const circumstance = pgTable('circumstance', {
  id: id(), sequence: integer('sequence').notNull().generatedAlwaysAsIdentity(),
  runId: uuid('run_id').notNull().references(() => testRun.id), instrumentId: uuid('instrument_id').references(() => instrument.id),
  leadZero: text('lead_zero'), states: jsonb('states').$type<string[]>().notNull(), condition: jsonb('condition').$type<Condition>().notNull(),
  recordedBy: text('recorded_by').notNull(), recordedAt: at('recorded_at').notNull(), createdAt: created(),
}, (t) => [index('circumstance_run').on(t.runId, t.sequence)]);

/** Append-only, held so by a trigger. A correction is a new row that names the row it supersedes. */
export const reading = pgTable('reading', {
  id: id(), sequence: integer('sequence').notNull().generatedAlwaysAsIdentity(),
  runId: uuid('run_id').notNull().references(() => testRun.id), position: text('position').notNull(), isCylinder: boolean('is_cylinder').notNull(),
  entry: text('entry').notNull(), supersedes: uuid('supersedes'), why: text('why'),
  instrumentId: uuid('instrument_id').references(() => instrument.id), leadZero: text('lead_zero'),
  takenBy: text('taken_by').notNull(), takenAt: at('taken_at').notNull(), createdAt: created(),
  /** The server's verdict when it stored the reading, with what it was made from. */
  judged: jsonb('judged').$type<JudgedReading>().notNull(), coreVersion: text('core_version').notNull(),
  specificationId: uuid('specification_id').notNull().references(() => specification.id),
}, (t) => [
  index('reading_run').on(t.runId, t.sequence),
  // A position is read once, and each reading is superseded at most once: the history of a position is one line, whoever writes it.
  uniqueIndex('reading_superseded_once').on(t.supersedes),
  uniqueIndex('reading_first_once').on(t.runId, t.isCylinder, t.position).where(sql`supersedes is null`),
]);

/** Codes as they were read, or that none was there. Append-only; a slip is taken back by a row that names it. */
export const codeObservation = pgTable('code_observation', {
  id: id(), sequence: integer('sequence').notNull().generatedAlwaysAsIdentity(), jobId: uuid('job_id').notNull().references(() => job.id),
  /** `null`: somebody looked and there was none. */
  code: text('code'), phase: text('phase').$type<Phase>().notNull(), status: text('status', { enum: ['active', 'stored', 'intermittent', 'unknown'] }).notNull(),
  takesBack: uuid('takes_back'), recordedBy: text('recorded_by').notNull(), createdAt: created(),
}, (t) => [index('code_observation_job').on(t.jobId, t.sequence), uniqueIndex('code_observation_taken_back_once').on(t.takesBack)]);
