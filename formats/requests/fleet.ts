import type { FromSchema } from 'json-schema-to-ts';
import type { Engine } from '../../core/engine/layout';
import { type BodyOf, uuid, by } from './common';
import { currency } from './repair';

const depotName = { type: 'string', minLength: 1, maxLength: 60, pattern: '\\S' } as const;
const timeZone = { type: 'string', minLength: 1, maxLength: 60 } as const;

export const ADD_DEPOT = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'name', 'timeZone'],
  properties: { id: uuid, by, name: depotName, timeZone, currency },
} as const;

export type AddDepot = FromSchema<typeof ADD_DEPOT>;

/** Whatever is given is changed. */
export const CHANGE_DEPOT = {
  type: 'object',
  additionalProperties: false,
  required: ['by'],
  minProperties: 2,
  properties: { by, name: depotName, timeZone, currency, retired: { type: 'boolean' } },
} as const;

export type ChangeDepot = FromSchema<typeof CHANGE_DEPOT>;

const fleetNumber = { type: 'string', minLength: 1, maxLength: 30, pattern: '\\S' } as const;
const unitKind = { type: 'string', minLength: 1, maxLength: 60, pattern: '\\S' } as const;
const familyCode = { type: 'string', minLength: 1, maxLength: 30, pattern: '\\S' } as const;

/** Whatever is given is changed. */
export const CHANGE_UNIT = {
  type: 'object',
  additionalProperties: false,
  required: ['by'],
  minProperties: 2,
  properties: {
    by,
    fleetNumber,
    kind: unitKind,
    depotId: uuid,
    engineFamilyId: uuid,
    retired: { type: 'boolean' },
  },
} as const;

export type ChangeUnit = FromSchema<typeof CHANGE_UNIT>;

export const CHANGE_ENGINE_FAMILY = {
  type: 'object',
  additionalProperties: false,
  required: ['by'],
  minProperties: 2,
  properties: { by, code: familyCode, engine: { $ref: 'urn:mudflat:engine:1' }, retired: { type: 'boolean' } },
} as const;

export type ChangeEngineFamily = BodyOf<typeof CHANGE_ENGINE_FAMILY, { engine?: Engine }>;

/** A unit; its engine family can come with it, and both are taken or neither. */
export const ADD_UNIT = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'depotId', 'engineFamilyId', 'fleetNumber', 'kind'],
  properties: {
    id: uuid,
    depotId: uuid,
    engineFamilyId: uuid,
    by,
    fleetNumber,
    kind: unitKind,
    /** Under `engineFamilyId`, where it is a new one. */
    newFamily: {
      type: 'object',
      additionalProperties: false,
      required: ['code', 'engine'],
      properties: { code: familyCode, engine: { $ref: 'urn:mudflat:engine:1' } },
    },
  },
} as const;

export type AddUnit = BodyOf<typeof ADD_UNIT, { newFamily?: { code: string; engine: Engine } }>;

export const ADD_ENGINE_FAMILY = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'code', 'engine'],
  properties: {
    id: uuid,
    code: familyCode,
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
    currency,
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
