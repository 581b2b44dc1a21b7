import type { FromSchema } from 'json-schema-to-ts';
import { by } from './common';
import { LOCALE } from './locale';
import { currency } from './repair';

const name = { type: 'string', minLength: 1, maxLength: 60, pattern: '\\S' } as const;
const timeZone = { type: 'string', minLength: 1, maxLength: 60 } as const;
const address = { type: 'string', maxLength: 400 } as const;

/** The first lead, the workshop and its depots. `code`: what the command has printed. */
export const SET_UP = {
  type: 'object',
  additionalProperties: false,
  required: ['code', 'lead', 'workshop', 'depots'],
  properties: {
    code: { type: 'string', minLength: 1, maxLength: 40 },
    locale: LOCALE,
    workshop: name,
    lead: {
      type: 'object',
      additionalProperties: false,
      required: ['name', 'password'],
      properties: {
        name: { type: 'string', minLength: 2, maxLength: 60, pattern: '^[^\\s\\p{C}](.*[^\\s\\p{C}])?$' },
        password: { type: 'string', minLength: 10, maxLength: 100 },
      },
    },
    depots: {
      type: 'array',
      minItems: 1,
      maxItems: 50,
      items: {
        type: 'object',
        additionalProperties: false,
        required: ['name', 'timeZone', 'currency'],
        properties: { name, timeZone, currency, address },
      },
    },
  },
} as const;
export type SetUp = FromSchema<typeof SET_UP>;

export const CHANGE_WORKSHOP = {
  type: 'object',
  additionalProperties: false,
  required: ['by', 'name'],
  properties: { by, name, locale: LOCALE },
} as const;
export type ChangeWorkshop = FromSchema<typeof CHANGE_WORKSHOP>;
