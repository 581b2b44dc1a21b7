import { by, uuid, line, note, photos, conditions } from './common';
import type { FromSchema } from 'json-schema-to-ts';

const INTAKE_BODY = {
  type: 'object',
  additionalProperties: false,
  required: ['conditions', 'replaced', 'signs', 'photos'],
  properties: {
    conditions,
    when: note,
    photos,
    replaced: {
      type: 'array',
      maxItems: 40,
      items: {
        type: 'object',
        additionalProperties: false,
        required: ['what', 'by'],
        properties: {
          what: line,
          by: { type: 'string', maxLength: 200 },
          helped: { enum: ['yes', 'no', 'for a while', 'not known'] },
        },
      },
    },
    shown: {
      type: 'object',
      additionalProperties: false,
      required: ['times', 'hours'],
      description: 'Of a fault that comes and goes: how often it showed itself, in how many hours of running.',
      properties: {
        times: { type: 'integer', minimum: 1, maximum: 10_000 },
        hours: { type: 'number', minimum: 0.05, maximum: 10_000 },
      },
    },
    signs: { type: 'array', maxItems: 40, items: line },
  },
} as const;

export type Intake = FromSchema<typeof INTAKE_BODY>;

export const NOTE_INTAKE = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by', 'intake'],
  properties: { id: uuid, by, intake: INTAKE_BODY },
} as const;

export type NoteIntake = FromSchema<typeof NOTE_INTAKE>;

export const EMPTY_INTAKE: Intake = { conditions: [], replaced: [], signs: [], photos: [] };
