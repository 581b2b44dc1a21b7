import type { FromSchema } from 'json-schema-to-ts';
import { CODE_STATUSES } from '../../core/codes/decode';
import { uuid, by, line } from './common';

/** Codes read at one moment; none at all says that somebody looked. */
export const RECORD_CODES = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by', 'phase', 'status', 'codes'],
  properties: {
    id: uuid,
    by,
    phase: { enum: ['as-found', 'caused-by-testing', 'after-clearing', 'after-road-test'] },
    /** Of those that say nothing of their own. */
    status: { enum: CODE_STATUSES },
    /** In the order of the scan tool; each alone, or with what the scan tool says of it. */
    codes: {
      type: 'array',
      maxItems: 300,
      items: {
        anyOf: [
          { type: 'string', minLength: 1, maxLength: 40 },
          {
            type: 'object',
            additionalProperties: false,
            required: ['code'],
            properties: {
              code: { type: 'string', minLength: 1, maxLength: 40 },
              status: { enum: CODE_STATUSES },
              count: { type: 'integer', minimum: 0, maximum: 999 },
            },
          },
        ],
      },
    },
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

export const DESCRIBE_CODE = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by', 'code', 'text'],
  properties: { id: uuid, by, code: line, text: { type: 'string', maxLength: 500 } },
} as const;

export type DescribeCode = FromSchema<typeof DESCRIBE_CODE>;
