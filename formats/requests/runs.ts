import type { FromSchema } from 'json-schema-to-ts';
import { COMMAND_SEEN, ENGINE_SEEN } from '../../core/foundation/vocabulary';
import { UUID_TEXT, uuid, by, moment, text } from './common';

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
        engineSeen: { enum: ENGINE_SEEN },
        commandSeen: { enum: COMMAND_SEEN },
        note: { type: 'string', maxLength: 1000 },
      },
    },
  },
} as const;

export type RecordCircumstance = FromSchema<typeof RECORD_CIRCUMSTANCE>;

/** A state that a test asks for and that cannot be had, signed off by a lead. */
export const OVERRIDE_STATE = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by', 'state', 'because'],
  properties: { id: uuid, by, state: { type: 'string', minLength: 1, maxLength: 60 }, because: text },
} as const;

export type OverrideState = FromSchema<typeof OVERRIDE_STATE>;
