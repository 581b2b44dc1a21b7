import type { FromSchema } from 'json-schema-to-ts';
import { CONDITIONS } from '../../core/evidence/types';
import { type BodyOf, uuid, by } from './common';

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

export const NOTE_CALCULATION = {
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

export type NoteCalculation = BodyOf<typeof NOTE_CALCULATION, { inputs: Record<string, string> }>;
