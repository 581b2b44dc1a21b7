import type { FromSchema, JSONSchema } from 'json-schema-to-ts';

interface ObjectSchema {
  readonly required: readonly string[];
  readonly properties: object;
}
type FieldOf<S> = S extends JSONSchema ? FromSchema<S> : never;
type Fields<S extends ObjectSchema, Known> = Exclude<keyof S['properties'], keyof Known>;
type Required<S extends ObjectSchema> = S['required'][number];

/**
 * The type of a body as its schema says it. Fields whose schema is a document of its own (`$ref`), or is made
 * from data of the core, are typed by what core calls them: `Known`.
 */
export type BodyOf<S extends ObjectSchema, Known extends object> = {
  [F in Fields<S, Known> & Required<S>]: FieldOf<S['properties'][F]>;
} & {
  [F in Exclude<Fields<S, Known>, Required<S>>]?: FieldOf<S['properties'][F]>;
} & Known;

import { CONDITIONS } from '../../core/evidence/types';

/** In lower case, as the database gives it back: the same id is the same text. */
export const UUID_TEXT = '^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$';

export const uuid = { type: 'string', pattern: UUID_TEXT } as const;

export const by = { type: 'string', minLength: 1, maxLength: 80, pattern: '\\S' } as const;

export const moment = { type: 'string', format: 'date-time' } as const;

export const line = { type: 'string', minLength: 1, maxLength: 200, pattern: '\\S' } as const;

export const text = { type: 'string', minLength: 1, maxLength: 2000, pattern: '\\S' } as const;

export const note = { type: 'string', maxLength: 2000 } as const;

export const photos = { type: 'array', maxItems: 20, uniqueItems: true, items: uuid } as const;

export const position = {
  anyOf: [
    { type: 'integer', minimum: 1, maximum: 1000 },
    { type: 'string', minLength: 1, maxLength: 60, pattern: '\\S' },
  ],
} as const;

export const conditions = {
  type: 'array',
  maxItems: CONDITIONS.length,
  uniqueItems: true,
  items: { enum: CONDITIONS },
} as const;
