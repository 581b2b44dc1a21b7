import type { LibraryCircuit } from '../../core/circuits/types';
import type { TestDefinition } from '../../core/catalogue/types';
import { type BodyOf, uuid, by } from './common';

/** A workshop's own test: new, or the next revision of one; `test` null takes it away. */
export const KEEP_TEST = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'testId', 'by', 'test'],
  properties: {
    id: uuid,
    by,
    testId: { type: 'string', minLength: 1, maxLength: 80 },
    test: { anyOf: [{ $ref: 'urn:mudflat:catalogue:1#/$defs/test' }, { type: 'null' }] },
  },
} as const;

export type KeepTest = BodyOf<typeof KEEP_TEST, { test: TestDefinition | null }>;

/** A workshop's own circuit: new, or the next revision of one; `circuit` null takes it away. */
export const KEEP_CIRCUIT = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'circuitId', 'by', 'circuit'],
  properties: {
    id: uuid,
    by,
    circuitId: { type: 'string', minLength: 1, maxLength: 60 },
    circuit: { anyOf: [{ $ref: 'urn:mudflat:circuits:1#/$defs/circuit' }, { type: 'null' }] },
  },
} as const;

export type KeepCircuit = BodyOf<typeof KEEP_CIRCUIT, { circuit: LibraryCircuit | null }>;
