import type { FromSchema } from 'json-schema-to-ts';
import type { Engine } from '../core/engine/layout';
import type { Limits } from '../core/judge/types';
import type { InstrumentDocument } from './instrument';

/** Bodies of the HTTP API. Schemas are checked on the server; the types serve both sides. */

/** In lower case, as the database gives it back: the same id is the same text. */
const UUID_TEXT = '^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$';
const uuid = { type: 'string', pattern: UUID_TEXT } as const;
const by = { type: 'string', minLength: 1, maxLength: 80, pattern: '\\S' } as const;
const moment = { type: 'string', format: 'date-time' } as const;

export const OPEN_JOB = {
  type: 'object', additionalProperties: false, required: ['id', 'unitId', 'complaint', 'by'],
  properties: {
    id: uuid, unitId: uuid, by, complaint: { type: 'string', minLength: 1, maxLength: 2000, pattern: '\\S' },
    odometer_km: { type: 'number', minimum: 0, maximum: 1e7 }, hours: { type: 'number', minimum: 0, maximum: 1e6 },
  },
} as const;
export type OpenJob = FromSchema<typeof OPEN_JOB>;

export const ADD_UNIT = {
  type: 'object', additionalProperties: false, required: ['id', 'depotId', 'engineFamilyId', 'fleetNumber', 'kind'],
  properties: {
    id: uuid, depotId: uuid, engineFamilyId: uuid,
    fleetNumber: { type: 'string', minLength: 1, maxLength: 30, pattern: '\\S' }, kind: { type: 'string', minLength: 1, maxLength: 60, pattern: '\\S' },
  },
} as const;
export type AddUnit = FromSchema<typeof ADD_UNIT>;

export const ADD_ENGINE_FAMILY = {
  type: 'object', additionalProperties: false, required: ['id', 'code', 'engine'],
  properties: {
    id: uuid, code: { type: 'string', minLength: 1, maxLength: 30, pattern: '\\S' },
    engine: { $ref: 'urn:mudflat:engine:1' },
  },
} as const;
export interface AddEngineFamily { id: string; code: string; engine: Engine }

export const ADD_SPECIFICATION = {
  type: 'object', additionalProperties: false, required: ['id', 'seriesId', 'revision', 'test', 'limits', 'source', 'status'],
  properties: {
    id: uuid, seriesId: uuid, revision: { type: 'integer', minimum: 1 }, test: { type: 'string', minLength: 1, maxLength: 100 },
    engineFamilyId: { type: ['string', 'null'], pattern: UUID_TEXT }, limits: { $ref: 'urn:mudflat:limits:1' },
    source: { type: 'string', minLength: 1, maxLength: 500, pattern: '\\S' }, status: { enum: ['draft', 'approved', 'rule-of-thumb'] },
  },
} as const;
export interface AddSpecification {
  id: string; seriesId: string; revision: number; test: string; engineFamilyId?: string | null; limits: Limits;
  source: string; status: 'draft' | 'approved' | 'rule-of-thumb';
}

export const ADD_INSTRUMENT = {
  type: 'object', additionalProperties: false, required: ['id', 'depotId', 'name', 'instrument'],
  properties: {
    id: uuid, depotId: uuid, name: { type: 'string', minLength: 1, maxLength: 100, pattern: '\\S' },
    instrument: { $ref: 'urn:mudflat:instrument:1' }, calibrationDue: { type: ['string', 'null'], format: 'date' },
  },
} as const;
export interface AddInstrument {
  id: string; depotId: string; name: string; instrument: InstrumentDocument; calibrationDue?: string | null;
}

export const START_RUN = {
  type: 'object', additionalProperties: false, required: ['id', 'jobId', 'test', 'by'],
  properties: { id: uuid, jobId: uuid, test: { type: 'string', minLength: 1, maxLength: 100 }, by },
} as const;
export type StartRun = FromSchema<typeof START_RUN>;

export const RECORD_READING = {
  type: 'object', additionalProperties: false, required: ['id', 'position', 'entry', 'by', 'takenAt'],
  properties: {
    id: uuid, by, takenAt: moment,
    position: { anyOf: [{ type: 'integer', minimum: 1, maximum: 1000 }, { type: 'string', minLength: 1, maxLength: 60 }] },
    entry: { type: 'string', minLength: 1, maxLength: 200, pattern: '\\S' },
    supersedes: { type: ['string', 'null'], pattern: UUID_TEXT }, why: { type: ['string', 'null'], maxLength: 500 },
  },
} as const;
export type RecordReading = FromSchema<typeof RECORD_READING>;

export const RECORD_CIRCUMSTANCE = {
  type: 'object', additionalProperties: false, required: ['id', 'states', 'condition', 'by', 'recordedAt'],
  properties: {
    id: uuid, by, recordedAt: moment, instrumentId: { type: ['string', 'null'], pattern: UUID_TEXT },
    leadZero: { type: ['string', 'null'], maxLength: 40 },
    states: { type: 'array', maxItems: 50, uniqueItems: true, items: { type: 'string', maxLength: 60 } },
    condition: {
      type: 'object', additionalProperties: false,
      properties: { partTemperature_degC: { type: 'number', minimum: -60, maximum: 400 }, note: { type: 'string', maxLength: 1000 } },
    },
  },
} as const;
export type RecordCircumstance = FromSchema<typeof RECORD_CIRCUMSTANCE>;
