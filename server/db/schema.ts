import type { Locale } from '../../core/locale/locale';
import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  customType,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import type { Engine } from '../../core/engine/layout';
import type { MeterLink } from '../../core/instrument/link';
import type { Condition, Judgement, JudgedReading, Limits } from '../../core/judge/types';
import type { LibraryCircuit } from '../../core/circuits/types';
import type { TestDefinition } from '../../core/catalogue/types';
import type { Phase } from '../../core/codes/phases';
import type { DecisionRule } from '../../core/metrology/conformity';
import type { AccuracyRange } from '../../core/metrology/instrument';
import type { Scope, When } from '../../core/specifications/types';
import type { Evidence } from '../../core/evidence/types';
import type { FindingBody } from '../../core/evidence/finding';
import type { JobProgress } from '../../core/job/progress';
import type { PlanChange } from '../../core/plan/types';
import type { RepairRecord } from '../../core/repair/types';
import { ROLES } from '../../core/foundation/vocabulary';
import { readStoredJudgement, readStoredReading } from '../../application/judging/stored-judgement';
import type { NoteBody } from '../../application/report/written-note';
import type { JobView } from '../../application/views';
import type { FreezeFrame } from '../../formats/requests/codes';
import type { Intake } from '../../formats/requests/intake';
import type { ServiceBody } from '../../formats/requests/service-data';
import type { LeadMap } from '../../core/signal/lead-map';
import type { TraceHead, TraceNoteBody } from '../../formats/requests/traces';

/** Verdicts are read as they were stored, by whichever version of the core. */
const storedJudgement = customType<{ data: Judgement; driverData: unknown }>({
  dataType: () => 'jsonb',
  toDriver: (value) => JSON.stringify(value),
  fromDriver: readStoredJudgement,
});
const storedReading = customType<{ data: JudgedReading; driverData: unknown }>({
  dataType: () => 'jsonb',
  toDriver: (value) => JSON.stringify(value),
  fromDriver: readStoredReading,
});

/** Ids come from whoever makes the row (UUIDv7), so that the same submission sent twice is the same row. */
const id = () => uuid('id').primaryKey();
const at = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });
const created = () =>
  at('created_at')
    .notNull()
    .default(sql`now()`);

/** What a depot has chosen: a school per test, how it accepts, and what it reckons in. */
export interface DepotChoices {
  readonly schools: Readonly<Record<string, string>>;
  readonly decision: DecisionRule;
  /** ISO 4217; absent: not chosen. */
  readonly currency?: string;
  /** Name and address at the head of letters, a line each; absent: none. */
  readonly letterhead?: string;
}

const bytes = customType<{ data: Buffer; driverData: Buffer }>({ dataType: () => 'bytea' });

/** What this installation is: one row. */
export const installation = pgTable('installation', {
  id: integer('id').primaryKey().default(1),
  /** The demo, with invented data; or a workshop's own. They are never mixed. */
  kind: text('kind', { enum: ['demo', 'own'] }).notNull(),
  name: text('name').notNull().default(''),
  /** Hash of the code that the first lead is asked for; `null` once it was used. */
  setupCode: text('setup_code'),
  logo: bytes('logo'),
  logoType: text('logo_type'),
  /** How whoever has not chosen is addressed; `null`: in English with a decimal point. */
  locale: jsonb('locale').$type<Locale>(),
  createdAt: created(),
});

/** Written by whoever asks whether the database takes anything: one row. */
export const heartbeat = pgTable('heartbeat', { id: integer('id').primaryKey(), beatAt: at('beat_at').notNull() });

export const depot = pgTable('depot', {
  id: id(),
  name: text('name').notNull().unique(),
  timeZone: text('time_zone').notNull(),
  createdAt: created(),
  retiredAt: at('retired_at'),
  choices: jsonb('choices').$type<DepotChoices>().notNull().default({ schools: {}, decision: 'three-way' }),
});

/**
 * Whoever signs in. Columns from `email` on are what the sign-in library keeps of a person; the address is
 * not a real one.
 */
export const person = pgTable('person', {
  id: id(),
  /** `null`: works for every depot. */
  depotId: uuid('depot_id').references(() => depot.id),
  name: text('name').notNull(),
  role: text('role', { enum: ROLES }).notNull().default('viewer'),
  createdAt: created(),
  /** May not sign in any more; what they did keeps their name. */
  retiredAt: at('retired_at'),
  email: text('email').unique(),
  emailVerified: boolean('email_verified').notNull().default(false),
  image: text('image'),
  updatedAt: at('updated_at')
    .notNull()
    .default(sql`now()`),
  username: text('username').unique(),
  displayUsername: text('display_username'),
  /** How they want to be addressed; `null`: as the workshop has chosen. */
  locale: jsonb('locale').$type<Locale>(),
});

/** Of a person on a device. A device can hold several; one of them is at the bench. */
export const session = pgTable(
  'session',
  {
    id: id(),
    userId: uuid('user_id')
      .notNull()
      .references(() => person.id, { onDelete: 'cascade' }),
    token: text('token').notNull().unique(),
    expiresAt: at('expires_at').notNull(),
    ipAddress: text('ip_address'),
    userAgent: text('user_agent'),
    createdAt: created(),
    updatedAt: at('updated_at')
      .notNull()
      .default(sql`now()`),
  },
  (t) => [index('session_person').on(t.userId)],
);

/** The hashed PIN or password of a person. */
export const account = pgTable(
  'account',
  {
    id: id(),
    userId: uuid('user_id')
      .notNull()
      .references(() => person.id, { onDelete: 'cascade' }),
    accountId: text('account_id').notNull(),
    providerId: text('provider_id').notNull(),
    password: text('password'),
    accessToken: text('access_token'),
    refreshToken: text('refresh_token'),
    idToken: text('id_token'),
    scope: text('scope'),
    accessTokenExpiresAt: at('access_token_expires_at'),
    refreshTokenExpiresAt: at('refresh_token_expires_at'),
    createdAt: created(),
    updatedAt: at('updated_at')
      .notNull()
      .default(sql`now()`),
  },
  (t) => [uniqueIndex('account_person').on(t.userId, t.providerId)],
);

export const verification = pgTable('verification', {
  id: id(),
  identifier: text('identifier').notNull(),
  value: text('value').notNull(),
  expiresAt: at('expires_at').notNull(),
  createdAt: created(),
  updatedAt: at('updated_at')
    .notNull()
    .default(sql`now()`),
});

/** Wrong tries at signing in, counted by the rate limiter. */
export const signInAttempt = pgTable('sign_in_attempt', {
  key: text('key').primaryKey(),
  points: integer('points').notNull().default(0),
  expire: bigint('expire', { mode: 'number' }),
});

export const engineFamily = pgTable('engine_family', {
  id: id(),
  code: text('code').notNull().unique(),
  engine: jsonb('engine').$type<Engine>().notNull(),
  createdAt: created(),
  retiredAt: at('retired_at'),
});

export const fleetUnit = pgTable('unit', {
  id: id(),
  depotId: uuid('depot_id')
    .notNull()
    .references(() => depot.id),
  engineFamilyId: uuid('engine_family_id')
    .notNull()
    .references(() => engineFamily.id),
  fleetNumber: text('fleet_number').notNull().unique(),
  /** The number without case, blanks and what nobody sees: two units that look alike are one. */
  numberKey: text('number_key').unique(),
  kind: text('kind').notNull(),
  createdAt: created(),
  /** Gone: no new jobs, and its history stays. */
  retiredAt: at('retired_at'),
  /** Codes of the parts that are fitted, by kind of part. */
  parts: jsonb('parts').$type<Record<string, string>>().notNull().default({}),
});

/** All words by which a unit is found, held by triggers. */
export const unitWords = pgTable('unit_words', {
  unitId: uuid('unit_id')
    .primaryKey()
    .references(() => fleetUnit.id, { onDelete: 'cascade' }),
  words: text('words').notNull(),
});

/** A specification is never changed: a new revision is a new row of the same series. */
export const specification = pgTable(
  'specification',
  {
    id: id(),
    seriesId: uuid('series_id').notNull(),
    revision: integer('revision').notNull(),
    test: text('test').notNull(),
    engineFamilyId: uuid('engine_family_id').references(() => engineFamily.id),
    limits: jsonb('limits').$type<Limits>().notNull(),
    source: text('source').notNull(),
    status: text('status', { enum: ['draft', 'approved', 'rule-of-thumb', 'withdrawn'] }).notNull(),
    createdAt: created(),
    scope: text('scope').$type<Scope>().notNull().default('general'),
    part: text('part'),
    depotId: uuid('depot_id').references(() => depot.id),
    applies: jsonb('applies').$type<When>().notNull().default({}),
    school: text('school'),
    document: text('document'),
    page: text('page'),
    documentRevision: text('document_revision'),
    documentDate: text('document_date'),
    recordedBy: text('recorded_by').notNull().default(''),
    /** Put here by a rule of thumb that a test of the catalogue carries. */
    ships: boolean('ships').notNull().default(false),
    /** Came with a job from elsewhere: judges that job's readings and nothing here. */
    origin: text('origin'),
  },
  (t) => [uniqueIndex('specification_revision').on(t.seriesId, t.revision), index('specification_test').on(t.test)],
);

export const instrument = pgTable('instrument', {
  id: id(),
  depotId: uuid('depot_id')
    .notNull()
    .references(() => depot.id),
  name: text('name').notNull(),
  kind: text('kind').notNull(),
  accuracy: jsonb('accuracy').$type<AccuracyRange[]>().notNull(),
  calibrationDue: text('calibration_due'),
  createdAt: created(),
  details: jsonb('details').$type<InstrumentDetails>().notNull().default({}),
  /** The row that says it better: what was read with this one keeps this one. */
  replacedBy: uuid('replaced_by'),
  retiredAt: at('retired_at'),
});

export interface InstrumentDetails {
  readonly clamp_mVperA?: number | undefined;
  readonly leadRepeatability_ohm?: number | undefined;
  readonly link?: MeterLink | undefined;
}

/**
 * Leads and extensions with their measured zero, appended whenever one is measured; the newest of a name
 * counts.
 */
export const testLead = pgTable(
  'lead',
  {
    id: id(),
    sequence: integer('sequence').notNull().generatedAlwaysAsIdentity(),
    depotId: uuid('depot_id')
      .notNull()
      .references(() => depot.id),
    name: text('name').notNull(),
    zero: text('zero'),
    measuredBy: text('measured_by').notNull(),
    createdAt: created(),
  },
  (t) => [index('lead_depot').on(t.depotId, t.sequence)],
);

/**
 * A workshop's own tests. A row is never changed: a new revision is a new row. `definition` null takes the
 * test away.
 */
export const testDefinition = pgTable(
  'test_definition',
  {
    id: id(),
    testId: text('test_id').notNull(),
    revision: integer('revision').notNull(),
    definition: jsonb('definition').$type<TestDefinition>(),
    recordedBy: text('recorded_by').notNull(),
    createdAt: created(),
  },
  (t) => [uniqueIndex('test_definition_revision').on(t.testId, t.revision)],
);

/**
 * A workshop's own circuits: copies of those that ship, or new ones. A row is never changed; `definition`
 * null takes it away.
 */
export const circuitDefinition = pgTable(
  'circuit_definition',
  {
    id: id(),
    circuitId: text('circuit_id').notNull(),
    revision: integer('revision').notNull(),
    definition: jsonb('definition').$type<LibraryCircuit>(),
    recordedBy: text('recorded_by').notNull(),
    createdAt: created(),
  },
  (t) => [uniqueIndex('circuit_definition_revision').on(t.circuitId, t.revision)],
);

export const job = pgTable(
  'job',
  {
    id: id(),
    number: integer('number').notNull().generatedAlwaysAsIdentity(),
    unitId: uuid('unit_id')
      .notNull()
      .references(() => fleetUnit.id),
    complaint: text('complaint').notNull(),
    odometer_km: doublePrecision('odometer_km'),
    hours: doublePrecision('hours'),
    openedBy: text('opened_by').notNull(),
    createdAt: created(),
    closedAt: at('closed_at'),
    /** Of a job that came from another installation: its number there, where that was taken here. */
    numberThere: integer('number_there'),
  },
  (t) => [index('job_unit').on(t.unitId), index('job_open').on(t.closedAt)],
);

export const testRun = pgTable(
  'test_run',
  {
    id: id(),
    jobId: uuid('job_id')
      .notNull()
      .references(() => job.id),
    test: text('test').notNull(),
    specificationId: uuid('specification_id')
      .notNull()
      .references(() => specification.id),
    startedBy: text('started_by').notNull(),
    createdAt: created(),
    /** The latest judgement, derived from readings and circumstances: kept so that lists need not judge. */
    judgement: storedJudgement('judgement'),
    /** The test as it was when the run began; absent in runs of before there were own tests. */
    definition: jsonb('definition').$type<TestDefinition>(),
    decision: text('decision').$type<DecisionRule>().notNull().default('three-way'),
    /** Why these limits. */
    because: text('because').notNull().default(''),
  },
  (t) => [index('test_run_job').on(t.jobId)],
);

/** What is put into a job's record beside its readings: sums, changed limits. Append-only. */
export const jobNote = pgTable(
  'job_note',
  {
    id: id(),
    sequence: integer('sequence').notNull().generatedAlwaysAsIdentity(),
    jobId: uuid('job_id')
      .notNull()
      .references(() => job.id),
    kind: text('kind', { enum: ['sum', 'limits', 'override', 'judged-again'] }).notNull(),
    body: jsonb('body').$type<NoteBody>().notNull(),
    recordedBy: text('recorded_by').notNull(),
    createdAt: created(),
  },
  (t) => [index('job_note_job').on(t.jobId, t.sequence)],
);

/** What is true while readings are taken, appended whenever it changes; the newest row counts. */
export const circumstance = pgTable(
  'circumstance',
  {
    id: id(),
    sequence: integer('sequence').notNull().generatedAlwaysAsIdentity(),
    runId: uuid('run_id')
      .notNull()
      .references(() => testRun.id),
    instrumentId: uuid('instrument_id').references(() => instrument.id),
    leadZero: text('lead_zero'),
    states: jsonb('states').$type<string[]>().notNull(),
    condition: jsonb('condition').$type<Condition>().notNull(),
    recordedBy: text('recorded_by').notNull(),
    recordedAt: at('recorded_at').notNull(),
    createdAt: created(),
  },
  (t) => [index('circumstance_run').on(t.runId, t.sequence)],
);

/** Append-only, held so by a trigger. A correction is a new row that names the row it supersedes. */
export const reading = pgTable(
  'reading',
  {
    id: id(),
    sequence: integer('sequence').notNull().generatedAlwaysAsIdentity(),
    runId: uuid('run_id')
      .notNull()
      .references(() => testRun.id),
    position: text('position').notNull(),
    isCylinder: boolean('is_cylinder').notNull(),
    entry: text('entry').notNull(),
    supersedes: uuid('supersedes'),
    why: text('why'),
    instrumentId: uuid('instrument_id').references(() => instrument.id),
    leadZero: text('lead_zero'),
    takenBy: text('taken_by').notNull(),
    takenAt: at('taken_at').notNull(),
    createdAt: created(),
    /** The server's verdict when it stored the reading, with what it was made from. */
    judged: storedReading('judged').notNull(),
    coreVersion: text('core_version').notNull(),
    specificationId: uuid('specification_id')
      .notNull()
      .references(() => specification.id),
  },
  (t) => [
    index('reading_run').on(t.runId, t.sequence),
    // A position is read once, and each reading is superseded at most once: the history of a position is one
    // line, whoever writes it.
    uniqueIndex('reading_superseded_once').on(t.supersedes),
    uniqueIndex('reading_first_once')
      .on(t.runId, t.isCylinder, t.position)
      .where(sql`supersedes is null`),
  ],
);

/**
 * Codes as they were read, or that none was there. Append-only; a slip is taken back by a row that names it.
 */
export const codeObservation = pgTable(
  'code_observation',
  {
    id: id(),
    sequence: integer('sequence').notNull().generatedAlwaysAsIdentity(),
    jobId: uuid('job_id')
      .notNull()
      .references(() => job.id),
    /** `null`: somebody looked and there was none. */
    code: text('code'),
    phase: text('phase').$type<Phase>().notNull(),
    status: text('status', { enum: ['active', 'stored', 'intermittent', 'unknown'] }).notNull(),
    takesBack: uuid('takes_back'),
    recordedBy: text('recorded_by').notNull(),
    createdAt: created(),
    /** What the controller kept with the code. */
    freezeFrame: jsonb('freeze_frame').$type<FreezeFrame>().notNull().default([]),
  },
  (t) => [
    index('code_observation_job').on(t.jobId, t.sequence),
    uniqueIndex('code_observation_taken_back_once').on(t.takesBack),
  ],
);

const jobId = () =>
  uuid('job_id')
    .notNull()
    .references(() => job.id);
const sequence = () => integer('sequence').notNull().generatedAlwaysAsIdentity();
const recordedBy = () => text('recorded_by').notNull();

/** What a depot knows of a code that its maker defined. Appended; the newest counts. */
export const codeDescription = pgTable(
  'code_description',
  {
    id: id(),
    sequence: sequence(),
    depotId: uuid('depot_id')
      .notNull()
      .references(() => depot.id),
    code: text('code').notNull(),
    text: text('text').notNull(),
    recordedBy: recordedBy(),
    createdAt: created(),
  },
  (t) => [index('code_description_code').on(t.depotId, t.code, t.sequence)],
);

/** What was asked and seen when the unit came in. Appended; the newest counts. */
export const intake = pgTable(
  'intake',
  {
    id: id(),
    sequence: sequence(),
    jobId: jobId(),
    body: jsonb('body').$type<Intake>().notNull(),
    recordedBy: recordedBy(),
    createdAt: created(),
  },
  (t) => [index('intake_job').on(t.jobId, t.sequence)],
);

/** Evidence that is no meter reading. A slip is taken back by a row that names it. */
export const evidence = pgTable(
  'evidence',
  {
    id: id(),
    sequence: sequence(),
    jobId: jobId(),
    body: jsonb('body').$type<Evidence>().notNull(),
    takesBack: uuid('takes_back'),
    recordedBy: recordedBy(),
    createdAt: created(),
  },
  (t) => [index('evidence_job').on(t.jobId, t.sequence), uniqueIndex('evidence_taken_back_once').on(t.takesBack)],
);

/** What was found, or that it was not. A later one of the same matter supersedes it. */
export const finding = pgTable(
  'finding',
  {
    id: id(),
    sequence: sequence(),
    jobId: jobId(),
    body: jsonb('body').$type<FindingBody>().notNull(),
    supersedes: uuid('supersedes'),
    recordedBy: recordedBy(),
    createdAt: created(),
  },
  (t) => [index('finding_job').on(t.jobId, t.sequence), uniqueIndex('finding_superseded_once').on(t.supersedes)],
);

/** What a technician changed in a job's plan: order, left out, added. */
export const planChange = pgTable(
  'plan_change',
  {
    id: id(),
    sequence: sequence(),
    jobId: jobId(),
    body: jsonb('body').$type<PlanChange>().notNull(),
    recordedBy: recordedBy(),
    createdAt: created(),
  },
  (t) => [index('plan_change_job').on(t.jobId, t.sequence)],
);

/** What is written between finding and release. Append-only; of what is said twice the newest counts. */
export const repairRecord = pgTable(
  'job_record',
  {
    id: id(),
    sequence: sequence(),
    jobId: jobId(),
    body: jsonb('body').$type<RepairRecord>().notNull(),
    recordedBy: recordedBy(),
    createdAt: created(),
  },
  (t) => [index('job_record_job').on(t.jobId, t.sequence)],
);

/**
 * A workshop's own service data: fitting values, how codes look, what parts cost. Appended; the newest of a
 * kind, key and engine family counts.
 */
export const serviceData = pgTable(
  'service_data',
  {
    id: id(),
    sequence: sequence(),
    engineFamilyId: uuid('engine_family_id').references(() => engineFamily.id),
    kind: text('kind', { enum: ['fitting', 'coding', 'costs', 'connector'] }).notNull(),
    key: text('key').notNull(),
    body: jsonb('body').$type<ServiceBody>().notNull(),
    source: text('source').notNull(),
    recordedBy: recordedBy(),
    createdAt: created(),
  },
  (t) => [index('service_data_key').on(t.kind, t.key, t.sequence)],
);

/** A photo of a job; its bytes lie apart, so that lists stay small. */
export const photo = pgTable(
  'photo',
  {
    id: id(),
    sequence: sequence(),
    jobId: jobId(),
    /** The reading whose display it shows; `null`: a photo of anything else. */
    readingId: uuid('reading_id').references(() => reading.id),
    name: text('name').notNull(),
    sha256: text('sha256').notNull(),
    size: integer('size').notNull(),
    width: integer('width').notNull(),
    height: integer('height').notNull(),
    recordedBy: recordedBy(),
    createdAt: created(),
  },
  (t) => [index('photo_job').on(t.jobId, t.sequence), index('photo_reading').on(t.readingId)],
);
export const photoContent = pgTable('photo_content', {
  id: uuid('id')
    .primaryKey()
    .references(() => photo.id),
  full: bytes('full_size').notNull(),
  small: bytes('small_size').notNull(),
});

/**
 * A recording of a job. Its samples lie apart, in blocks; `head` says all else, with the hash of every block.
 */
export const trace = pgTable(
  'trace',
  {
    id: id(),
    sequence: sequence(),
    jobId: jobId(),
    name: text('name').notNull(),
    head: jsonb('head').$type<TraceHead>().notNull(),
    recordedBy: recordedBy(),
    createdAt: created(),
  },
  (t) => [index('trace_job').on(t.jobId, t.sequence)],
);
/** Samples of one stream, encoded and deflated, with the lowest and highest of every 64. */
export const traceBlock = pgTable(
  'trace_block',
  {
    traceId: uuid('trace_id')
      .notNull()
      .references(() => trace.id),
    stream: integer('stream').notNull(),
    number: integer('number').notNull(),
    content: bytes('content').notNull(),
    pyramid: bytes('pyramid').notNull(),
  },
  (t) => [primaryKey({ columns: [t.traceId, t.stream, t.number] })],
);
/** A mark in a recording, or what was decided about a finding. */
export const traceNote = pgTable(
  'trace_note',
  {
    id: id(),
    sequence: sequence(),
    jobId: jobId(),
    traceId: uuid('trace_id')
      .notNull()
      .references(() => trace.id),
    body: jsonb('body').$type<TraceNoteBody>().notNull(),
    recordedBy: recordedBy(),
    createdAt: created(),
  },
  (t) => [index('trace_note_trace').on(t.traceId, t.sequence)],
);

/** Which lead of a recorder goes to which pin, as planned before recording. */
export const leadMap = pgTable(
  'lead_map',
  {
    id: id(),
    sequence: sequence(),
    jobId: jobId(),
    body: jsonb('body').$type<LeadMap>().notNull(),
    recordedBy: recordedBy(),
    createdAt: created(),
  },
  (t) => [index('lead_map_job').on(t.jobId, t.sequence)],
);

/**
 * The trail of a job: one row per row that was written into it, each hashed with the one before. Written by
 * triggers, so that nothing goes past it.
 */
export const jobEvent = pgTable(
  'job_event',
  {
    jobId: jobId(),
    number: integer('number').notNull(),
    kind: text('kind').notNull(),
    rowId: uuid('row_id').notNull(),
    recordedBy: recordedBy(),
    at: at('at').notNull(),
    content: text('content').notNull(),
    previous: text('previous').notNull(),
    hash: text('hash').notNull(),
  },
  (t) => [primaryKey({ columns: [t.jobId, t.number] }), index('job_event_row').on(t.rowId)],
);

/** Where the trail of a job ends: a trail that was cut off at its end is found by it. */
export const jobHead = pgTable('job_head', {
  jobId: uuid('job_id')
    .primaryKey()
    .references(() => job.id),
  number: integer('number').notNull(),
  hash: text('hash').notNull(),
});

/**
 * What follows from a job as it stands, kept so that it is not weighed at every look
 * (`server/jobs/standing.ts`). Not a part of the record: it can be emptied at any time.
 */
export const jobStanding = pgTable(
  'job_standing',
  {
    jobId: uuid('job_id')
      .notNull()
      .references(() => job.id),
    /** In whose words, as `localeKey` writes it: what is concluded is sentences. */
    locale: text('locale').notNull().default('en/point/given/dmy'),
    /** What it was concluded from. */
    key: text('key').notNull(),
    until: at('until').notNull(),
    progress: jsonb('progress').$type<JobProgress>().notNull(),
    conclusions: jsonb('conclusions').$type<Pick<JobView, 'known' | 'circuits' | 'plan' | 'proposals'>>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.jobId, t.locale] })],
);
