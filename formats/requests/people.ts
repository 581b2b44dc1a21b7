import { by, uuid } from './common';
import type { FromSchema } from 'json-schema-to-ts';
import { ROLES } from '../../core/foundation/vocabulary';

/** Digits or anything else; length is what counts. */
const pin = { type: 'string', minLength: 6, maxLength: 100 } as const;

export const SIGN_IN = {
  type: 'object',
  additionalProperties: false,
  required: ['name', 'pin'],
  properties: { name: by, pin: { type: 'string', minLength: 1, maxLength: 100 } },
} as const;

export type SignIn = FromSchema<typeof SIGN_IN>;

export const SWITCH_PERSON = {
  type: 'object',
  additionalProperties: false,
  required: ['name'],
  properties: { name: by, pin: { type: 'string', minLength: 1, maxLength: 100, description: 'Of whoever may more.' } },
} as const;

export type SwitchPerson = FromSchema<typeof SWITCH_PERSON>;

export const ADD_PERSON = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'name', 'role', 'depotId', 'pin'],
  properties: {
    id: uuid,
    name: { type: 'string', minLength: 2, maxLength: 60, pattern: '^[^\\s\\p{C}](.*[^\\s\\p{C}])?$' },
    role: { enum: ROLES },
    depotId: { anyOf: [uuid, { type: 'null' }] },
    pin,
    by,
  },
} as const;

export type AddPerson = FromSchema<typeof ADD_PERSON>;

/** Whatever is given is changed. A new PIN ends the person's sessions and a lockout. */
export const CHANGE_PERSON = {
  type: 'object',
  additionalProperties: false,
  required: ['by'],
  minProperties: 2,
  properties: {
    by,
    role: { enum: ROLES },
    depotId: { anyOf: [uuid, { type: 'null' }] },
    pin,
    retired: { type: 'boolean' },
    /** Ends the person's sessions on every device. */
    signOut: { const: true },
  },
} as const;

export type ChangePerson = FromSchema<typeof CHANGE_PERSON>;
