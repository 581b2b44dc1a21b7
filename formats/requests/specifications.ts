import type { FromSchema } from 'json-schema-to-ts';
import type { ShelfEntry } from '../specifications';
import { type BodyOf, uuid, by } from './common';

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

export type Shelve = BodyOf<typeof SHELVE, { entry: ShelfEntry }>;

export const APPLY_LIMITS = {
  type: 'object',
  additionalProperties: false,
  required: ['by', 'runs'],
  properties: { by, runs: { type: 'array', maxItems: 2000, items: uuid } },
} as const;

export type ApplyLimits = FromSchema<typeof APPLY_LIMITS>;
