import { type BodyOf, by, uuid, line } from './common';
import type { PlanChange } from '../../core/plan/types';

const test = { type: 'string', minLength: 1, maxLength: 80 } as const;

export const CHANGE_PLAN = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by', 'change'],
  properties: {
    id: uuid,
    by,
    change: {
      type: 'object',
      required: ['kind'],
      discriminator: { propertyName: 'kind' },
      oneOf: [
        {
          type: 'object',
          additionalProperties: false,
          required: ['kind', 'test'],
          properties: { kind: { const: 'add' }, test },
        },
        {
          type: 'object',
          additionalProperties: false,
          required: ['kind', 'test', 'because'],
          properties: { kind: { const: 'skip' }, test, because: line },
        },
        {
          type: 'object',
          additionalProperties: false,
          required: ['kind', 'test'],
          properties: { kind: { const: 'unskip' }, test },
        },
        {
          type: 'object',
          additionalProperties: false,
          required: ['kind', 'test', 'before'],
          properties: { kind: { const: 'move' }, test, before: { anyOf: [test, { type: 'null' }] } },
        },
      ],
    },
  },
} as const;

export type ChangePlan = BodyOf<typeof CHANGE_PLAN, { change: PlanChange }>;
