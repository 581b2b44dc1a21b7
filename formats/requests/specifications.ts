import type { FromSchema } from 'json-schema-to-ts';
import type { SpecificationEntry } from '../specifications';
import { type BodyOf, uuid, by } from './common';

/**
 * Puts limits on the shelf. What they are for tells whether they are a new series or the next revision of one
 * that is there.
 */
export const RECORD_SPECIFICATION = {
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

export type RecordSpecification = BodyOf<typeof RECORD_SPECIFICATION, { entry: SpecificationEntry }>;

export const APPLY_LIMITS = {
  type: 'object',
  additionalProperties: false,
  required: ['by', 'runs'],
  properties: { by, runs: { type: 'array', maxItems: 2000, items: uuid } },
} as const;

export type ApplyLimits = FromSchema<typeof APPLY_LIMITS>;
