import { by, line, uuid } from './common';
import { type Connector, MOST_PINS } from '../../core/engine/connector';
import type { CodingRule } from '../../core/repair/coding';
import type { Costs } from '../../core/repair/suggest';
import { money, amount, currency } from './repair';

/** A fitting value as the service information has it. */
export interface FittingValue {
  readonly value: string;
}

export type ServiceBody = FittingValue | CodingRule | Costs | Connector;

const COSTS = {
  type: 'object',
  additionalProperties: false,
  required: [
    'part',
    'access_min',
    'each_min',
    'labour',
    'breakage',
    'breakageCost',
    'comeback',
    'horizon_h',
    'shape',
    'scale_h',
    'currency',
  ],
  properties: {
    part: money,
    access_min: amount,
    each_min: amount,
    labour: money,
    breakage: { type: 'number', minimum: 0, maximum: 1 },
    breakageCost: money,
    comeback: money,
    horizon_h: amount,
    shape: { type: 'number', minimum: 0.2, maximum: 20 },
    scale_h: { type: 'number', exclusiveMinimum: 0, maximum: 1e7 },
    currency,
  },
} as const;

const CODING = {
  type: 'object',
  additionalProperties: false,
  required: ['alphabet', 'lengths', 'check', 'groups'],
  properties: {
    alphabet: { type: 'string', minLength: 2, maxLength: 80 },
    lengths: { type: 'array', maxItems: 8, items: { type: 'integer', minimum: 1, maximum: 120 } },
    check: { enum: ['none', 'mod-10', 'mod-alphabet'] },
    groups: { type: 'integer', minimum: 0, maximum: 20 },
  },
} as const;

const short = { type: 'string', maxLength: 80 } as const;
export const CONNECTOR = {
  type: 'object',
  additionalProperties: false,
  required: ['name', 'place', 'seenFrom', 'rows', 'pins'],
  properties: {
    name: { type: 'string', minLength: 1, maxLength: 80, pattern: '\\S' },
    place: short,
    seenFrom: { enum: ['wire side', 'mating side'] },
    rows: { type: 'array', maxItems: 20, items: { type: 'integer', minimum: 1, maximum: MOST_PINS } },
    pins: {
      type: 'array',
      maxItems: MOST_PINS,
      items: {
        type: 'object',
        additionalProperties: false,
        required: ['pin', 'signal', 'colour', 'to', 'cylinder'],
        properties: {
          pin: { type: 'string', minLength: 1, maxLength: 10, pattern: '\\S' },
          signal: short,
          colour: short,
          to: short,
          cylinder: { type: ['integer', 'null'], minimum: 1, maximum: 16 },
        },
      },
    },
  },
} as const;

const data = (name: string, body: object) => ({
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by', 'family', 'kind', 'key', 'body', 'source'],
  properties: {
    id: uuid,
    by,
    family: { type: ['string', 'null'], maxLength: 40 },
    kind: { const: name },
    key: line,
    source: line,
    body,
  },
});

export const KEEP_SERVICE_DATA = {
  type: 'object',
  discriminator: { propertyName: 'kind' },
  required: ['kind', 'id', 'by'],
  properties: { id: uuid, by },
  oneOf: [
    data('fitting', {
      type: 'object',
      additionalProperties: false,
      required: ['value'],
      properties: { value: { type: 'string', minLength: 1, maxLength: 60 } },
    }),
    data('coding', CODING),
    data('costs', COSTS),
    data('connector', CONNECTOR),
  ],
};

export interface KeepServiceData {
  id: string;
  by: string;
  family: string | null;
  kind: 'fitting' | 'coding' | 'costs' | 'connector';
  key: string;
  body: ServiceBody;
  source: string;
}
