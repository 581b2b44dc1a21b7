import { type BodyOf, by, uuid, line, text, note, position } from './common';
import { CONFIDENCES } from '../../core/evidence/finding';
import type { FindingBody } from '../../core/evidence/finding';

const refs = {
  type: 'array',
  maxItems: 300,
  items: {
    type: 'object',
    additionalProperties: false,
    required: ['kind', 'id', 'label'],
    properties: { kind: { enum: ['run', 'evidence'] }, id: uuid, label: { type: 'string', maxLength: 600 } },
  },
} as const;

const ruledOut = {
  type: 'array',
  maxItems: 100,
  items: {
    type: 'object',
    additionalProperties: false,
    required: ['what', 'by'],
    properties: { what: line, by: { type: 'string', maxLength: 2000 } },
  },
} as const;

export const WRITE_FINDING = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by', 'finding'],
  properties: {
    id: uuid,
    by,
    supersedes: { anyOf: [uuid, { type: 'null' }] },
    finding: {
      type: 'object',
      required: ['kind'],
      discriminator: { propertyName: 'kind' },
      oneOf: [
        {
          type: 'object',
          additionalProperties: false,
          required: [
            'kind',
            'what',
            'name',
            'positions',
            'confidence',
            'text',
            'supports',
            'against',
            'ruledOut',
            'advice',
          ],
          properties: {
            kind: { const: 'found' },
            what: { enum: ['part', 'path', 'shared', 'input', 'mechanics'] },
            name: line,
            positions: { type: 'array', maxItems: 100, items: position },
            confidence: { enum: CONFIDENCES },
            text,
            supports: refs,
            against: refs,
            ruledOut,
            advice: note,
          },
        },
        {
          type: 'object',
          additionalProperties: false,
          required: ['kind', 'text', 'ruledOut', 'ifReturns'],
          properties: { kind: { const: 'not-found' }, text, ruledOut, ifReturns: text },
        },
      ],
    },
  },
} as const;

export type WriteFinding = BodyOf<typeof WRITE_FINDING, { finding: FindingBody }>;
