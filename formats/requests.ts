import type { FromSchema } from 'json-schema-to-ts';
import { CONDITIONS } from '../core/evidence/types';
import type { Engine } from '../core/engine/layout';
import type { LibraryCircuit } from '../core/circuits/types';
import type { TestDefinition } from '../core/catalogue/types';
import type { InstrumentDocument } from './instrument';
import type { ShelfEntry } from './specifications';

/** Bodies of the HTTP API. Schemas are checked on the server; the types serve both sides. */

/** In lower case, as the database gives it back: the same id is the same text. */
const UUID_TEXT = '^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$';
const uuid = { type: 'string', pattern: UUID_TEXT } as const;
const by = { type: 'string', minLength: 1, maxLength: 80, pattern: '\\S' } as const;
const moment = { type: 'string', format: 'date-time' } as const;

export const OPEN_JOB = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'unitId', 'complaint', 'by'],
  properties: {
    id: uuid,
    unitId: uuid,
    by,
    complaint: { type: 'string', minLength: 1, maxLength: 2000, pattern: '\\S' },
    odometer_km: { type: 'number', minimum: 0, maximum: 1e7 },
    hours: { type: 'number', minimum: 0, maximum: 1e6 },
    conditions: { type: 'array', maxItems: CONDITIONS.length, uniqueItems: true, items: { enum: CONDITIONS } },
  },
} as const;
export type OpenJob = FromSchema<typeof OPEN_JOB>;

export const ADD_UNIT = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'depotId', 'engineFamilyId', 'fleetNumber', 'kind'],
  properties: {
    id: uuid,
    depotId: uuid,
    engineFamilyId: uuid,
    fleetNumber: { type: 'string', minLength: 1, maxLength: 30, pattern: '\\S' },
    kind: { type: 'string', minLength: 1, maxLength: 60, pattern: '\\S' },
  },
} as const;
export type AddUnit = FromSchema<typeof ADD_UNIT>;

export const ADD_ENGINE_FAMILY = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'code', 'engine'],
  properties: {
    id: uuid,
    code: { type: 'string', minLength: 1, maxLength: 30, pattern: '\\S' },
    engine: { $ref: 'urn:mudflat:engine:1' },
  },
} as const;
export interface AddEngineFamily {
  id: string;
  code: string;
  engine: Engine;
}

/** Puts limits on the shelf. What they are for tells whether they are a new series or the next revision of one that is there. */
export const SHELVE = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by', 'entry'],
  properties: {
    id: uuid,
    by,
    entry: { $ref: 'urn:mudflat:shelf:1#/$defs/entry' },
    onRevision: {
      type: ['integer', 'null'],
      minimum: 0,
      description: 'The revision that the person saw; another one since is a conflict. Default: whatever is there.',
    },
    withdraw: { type: 'boolean' },
  },
} as const;
export interface Shelve {
  id: string;
  by: string;
  entry: ShelfEntry;
  onRevision?: number | null;
  withdraw?: boolean;
}

export const ADD_INSTRUMENT = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'depotId', 'name', 'instrument', 'by'],
  properties: {
    id: uuid,
    depotId: uuid,
    name: { type: 'string', minLength: 1, maxLength: 100, pattern: '\\S' },
    by,
    instrument: { $ref: 'urn:mudflat:instrument:1' },
    calibrationDue: { type: ['string', 'null'], format: 'date' },
    replaces: { type: ['string', 'null'], pattern: UUID_TEXT },
  },
} as const;
export interface AddInstrument {
  id: string;
  depotId: string;
  name: string;
  by: string;
  instrument: InstrumentDocument;
  calibrationDue?: string | null;
  replaces?: string | null;
}

export const RETIRE_INSTRUMENT = {
  type: 'object',
  additionalProperties: false,
  required: ['by'],
  properties: { by },
} as const;
export type RetireInstrument = FromSchema<typeof RETIRE_INSTRUMENT>;

/** Leads or an extension, measured; without a zero they are taken off the list. */
export const MEASURE_LEAD = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'depotId', 'name', 'by'],
  properties: {
    id: uuid,
    depotId: uuid,
    by,
    name: { type: 'string', minLength: 1, maxLength: 60, pattern: '\\S' },
    zero: { type: ['string', 'null'], maxLength: 40 },
  },
} as const;
export type MeasureLead = FromSchema<typeof MEASURE_LEAD>;

/** Codes read at one moment; none at all says that somebody looked. */
export const RECORD_CODES = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by', 'phase', 'status', 'codes'],
  properties: {
    id: uuid,
    by,
    phase: { enum: ['as-found', 'caused-by-testing', 'after-clearing', 'after-road-test'] },
    status: { enum: ['active', 'stored', 'intermittent', 'unknown'] },
    codes: { type: 'array', maxItems: 300, items: { type: 'string', minLength: 1, maxLength: 40 } },
    /** What the controller kept with them: "engine speed", "812 rpm". */
    freezeFrame: {
      type: 'array',
      maxItems: 60,
      items: {
        type: 'object',
        additionalProperties: false,
        required: ['name', 'value'],
        properties: {
          name: { type: 'string', minLength: 1, maxLength: 80, pattern: '\\S' },
          value: { type: 'string', minLength: 1, maxLength: 80, pattern: '\\S' },
        },
      },
    },
  },
} as const;
export type FreezeFrame = readonly { readonly name: string; readonly value: string }[];
export type RecordCodes = FromSchema<typeof RECORD_CODES>;

export const TAKE_BACK_CODE = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by', 'observation'],
  properties: { id: uuid, by, observation: uuid },
} as const;
export type TakeBackCode = FromSchema<typeof TAKE_BACK_CODE>;

/** A workshop's own test: new, or the next revision of one; `test` null takes it away. */
export const KEEP_TEST = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'testId', 'by', 'test'],
  properties: {
    id: uuid,
    by,
    testId: { type: 'string', minLength: 1, maxLength: 80 },
    test: { anyOf: [{ $ref: 'urn:mudflat:catalogue:1#/$defs/test' }, { type: 'null' }] },
  },
} as const;
export interface KeepTest {
  id: string;
  by: string;
  testId: string;
  test: TestDefinition | null;
}

/** A workshop's own circuit: new, or the next revision of one; `circuit` null takes it away. */
export const KEEP_CIRCUIT = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'circuitId', 'by', 'circuit'],
  properties: {
    id: uuid,
    by,
    circuitId: { type: 'string', minLength: 1, maxLength: 60 },
    circuit: { anyOf: [{ $ref: 'urn:mudflat:circuits:1#/$defs/circuit' }, { type: 'null' }] },
  },
} as const;
export interface KeepCircuit {
  id: string;
  by: string;
  circuitId: string;
  circuit: LibraryCircuit | null;
}

export const CHOOSE_DEPOT = {
  type: 'object',
  additionalProperties: false,
  required: ['by'],
  properties: {
    by,
    decision: { enum: ['three-way', 'simple', 'guarded'] },
    currency: { type: 'string', pattern: '^[A-Z]{3}$' },
    school: {
      type: 'object',
      additionalProperties: false,
      required: ['test', 'name'],
      properties: { test: { type: 'string', maxLength: 80 }, name: { type: ['string', 'null'], maxLength: 40 } },
    },
  },
} as const;
export type ChooseDepot = FromSchema<typeof CHOOSE_DEPOT>;

export const SET_PART = {
  type: 'object',
  additionalProperties: false,
  required: ['by', 'part', 'code'],
  properties: {
    by,
    part: { type: 'string', minLength: 1, maxLength: 60 },
    code: { type: ['string', 'null'], maxLength: 60 },
  },
} as const;
export type SetPart = FromSchema<typeof SET_PART>;

export const APPLY_LIMITS = {
  type: 'object',
  additionalProperties: false,
  required: ['by', 'runs'],
  properties: { by, runs: { type: 'array', maxItems: 2000, items: uuid } },
} as const;
export type ApplyLimits = FromSchema<typeof APPLY_LIMITS>;

export const NOTE_SUM = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by', 'sum', 'inputs'],
  properties: {
    id: uuid,
    by,
    sum: { type: 'string', maxLength: 60 },
    inputs: { type: 'object', additionalProperties: { type: 'string', maxLength: 200 } },
  },
} as const;
export interface NoteSum {
  id: string;
  by: string;
  sum: string;
  inputs: Record<string, string>;
}

export const START_RUN = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'jobId', 'test', 'by'],
  properties: { id: uuid, jobId: uuid, test: { type: 'string', minLength: 1, maxLength: 100 }, by },
} as const;
export type StartRun = FromSchema<typeof START_RUN>;

/** Judges a run again by this version of the core. */
export const JUDGE_AGAIN = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by'],
  properties: { id: uuid, by },
} as const;
export type JudgeAgain = FromSchema<typeof JUDGE_AGAIN>;

export const RECORD_READING = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'position', 'entry', 'by', 'takenAt'],
  properties: {
    id: uuid,
    by,
    takenAt: moment,
    position: {
      anyOf: [
        { type: 'integer', minimum: 1, maximum: 1000 },
        { type: 'string', minLength: 1, maxLength: 60 },
      ],
    },
    entry: { type: 'string', minLength: 1, maxLength: 200, pattern: '\\S' },
    supersedes: { type: ['string', 'null'], pattern: UUID_TEXT },
    why: { type: ['string', 'null'], maxLength: 500 },
  },
} as const;
export type RecordReading = FromSchema<typeof RECORD_READING>;

export const RECORD_CIRCUMSTANCE = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'states', 'condition', 'by', 'recordedAt'],
  properties: {
    id: uuid,
    by,
    recordedAt: moment,
    instrumentId: { type: ['string', 'null'], pattern: UUID_TEXT },
    leadZero: { type: ['string', 'null'], maxLength: 40 },
    states: { type: 'array', maxItems: 50, uniqueItems: true, items: { type: 'string', maxLength: 60 } },
    condition: {
      type: 'object',
      additionalProperties: false,
      properties: {
        partTemperature_degC: { type: 'number', minimum: -60, maximum: 400 },
        note: { type: 'string', maxLength: 1000 },
      },
    },
  },
} as const;
export type RecordCircumstance = FromSchema<typeof RECORD_CIRCUMSTANCE>;
