import type { FromSchema } from 'json-schema-to-ts';
import type { Engine } from '../../core/engine/layout';
import { type BodyOf, uuid, by } from './common';

export const ADD_UNIT = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'depotId', 'engineFamilyId', 'fleetNumber', 'kind'],
  properties: {
    id: uuid,
    depotId: uuid,
    engineFamilyId: uuid,
    fleetNumber: { type: 'string', minLength: 1, maxLength: 30, pattern: '\\S' },
    kind: { type: 'string', minLength: 1, maxLength: 60, pattern: '\\S' },
  },
} as const;

export type AddUnit = FromSchema<typeof ADD_UNIT>;

export const ADD_ENGINE_FAMILY = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'code', 'engine'],
  properties: {
    id: uuid,
    code: { type: 'string', minLength: 1, maxLength: 30, pattern: '\\S' },
    engine: { $ref: 'urn:mudflat:engine:1' },
  },
} as const;

export type AddEngineFamily = BodyOf<typeof ADD_ENGINE_FAMILY, { engine: Engine }>;

export const CHOOSE_DEPOT = {
  type: 'object',
  additionalProperties: false,
  required: ['by'],
  properties: {
    by,
    decision: { enum: ['three-way', 'simple', 'guarded'] },
    currency: { type: 'string', pattern: '^[A-Z]{3}$' },
    /** Name and address of the workshop, a line each; empty: none. */
    letterhead: { type: 'string', maxLength: 400 },
    school: {
      type: 'object',
      additionalProperties: false,
      required: ['test', 'name'],
      properties: { test: { type: 'string', maxLength: 80 }, name: { type: ['string', 'null'], maxLength: 40 } },
    },
  },
} as const;

export type ChooseDepot = FromSchema<typeof CHOOSE_DEPOT>;

export const SET_PART = {
  type: 'object',
  additionalProperties: false,
  required: ['by', 'part', 'code'],
  properties: {
    by,
    part: { type: 'string', minLength: 1, maxLength: 60 },
    code: { type: ['string', 'null'], maxLength: 60 },
  },
} as const;

export type SetPart = FromSchema<typeof SET_PART>;
