import { type BodyOf, by, line, position, uuid } from './common';
import { ANSWERS, LEFT, type RepairRecord } from '../../core/repair/types';

/** Bodies of the HTTP API from finding to release, and what the job's screen is given of it. */

const optionalText = { type: 'string', maxLength: 2000 } as const;
const said = { type: 'string', minLength: 1, maxLength: 2000, pattern: '\\S' } as const;
export const money = { type: 'integer', minimum: 0, maximum: 1e11 } as const;
export const amount = { type: 'number', minimum: 0, maximum: 1e7 } as const;
export const currency = { type: 'string', pattern: '^[A-Z]{3}$' } as const;
export const life = {
  type: 'object',
  additionalProperties: false,
  required: ['shape', 'scale_h'],
  properties: {
    shape: { type: 'number', minimum: 0.2, maximum: 20 },
    scale_h: { type: 'number', exclusiveMinimum: 0, maximum: 1e7 },
  },
} as const;

const INPUTS = {
  type: 'object',
  additionalProperties: false,
  required: [
    'positions',
    'failed',
    'part',
    'access_min',
    'each_min',
    'labour',
    'age_h',
    'horizon_h',
    'life',
    'breakage',
    'breakageCost',
    'comeback',
  ],
  properties: {
    positions: { type: 'integer', minimum: 1, maximum: 24 },
    failed: { type: 'integer', minimum: 1, maximum: 24 },
    part: money,
    access_min: amount,
    each_min: amount,
    labour: money,
    age_h: amount,
    horizon_h: amount,
    life,
    breakage: { type: 'number', minimum: 0, maximum: 1 },
    breakageCost: money,
    comeback: money,
  },
} as const;

export const kind = (name: string, required: readonly string[], properties: object) => ({
  type: 'object',
  additionalProperties: false,
  required: ['kind', ...required],
  properties: { kind: { const: name }, ...properties },
});

const TICKED = {
  sequence: line,
  finding: uuid,
  value: { type: 'string', minLength: 1, maxLength: 60 },
  tool: { type: 'string', maxLength: 120 },
  note: optionalText,
  left: { enum: LEFT },
} as const;

export const REPAIR_RECORD = {
  type: 'object',
  discriminator: { propertyName: 'kind' },
  required: ['kind'],
  oneOf: [
    kind('decision', ['finding', 'school', 'inputs', 'currency', 'why'], {
      finding: uuid,
      school: { enum: ['one', 'set'] },
      inputs: { anyOf: [INPUTS, { type: 'null' }] },
      currency,
      why: optionalText,
    }),
    kind('quotation', ['finding', 'currency', 'lines', 'note'], {
      finding: uuid,
      currency,
      note: optionalText,
      lines: {
        type: 'array',
        minItems: 1,
        maxItems: 60,
        items: {
          type: 'object',
          additionalProperties: false,
          required: ['text', 'quantity', 'price'],
          properties: {
            text: line,
            quantity: { type: 'number', exclusiveMinimum: 0, maximum: 10000 },
            price: money,
            partNumber: { type: 'string', maxLength: 60 },
          },
        },
      },
    }),
    kind('answer', ['quotation', 'answer', 'said'], {
      quotation: uuid,
      answer: { enum: ANSWERS },
      until: { type: 'string', format: 'date' },
      said: optionalText,
    }),
    kind('step', ['sequence', 'step'], { ...TICKED, step: line, position }),
    kind('ticks', ['sequence', 'finding', 'ticks'], {
      ...TICKED,
      ticks: {
        type: 'array',
        minItems: 1,
        maxItems: 400,
        items: {
          type: 'object',
          additionalProperties: false,
          required: ['step'],
          properties: { step: line, position },
        },
      },
    }),
    kind('own-step', ['finding', 'say'], { finding: uuid, say: said }),
    kind('coding', ['part', 'position', 'code', 'how'], {
      part: line,
      position: { type: 'integer', minimum: 1, maximum: 24 },
      code: { type: 'string', minLength: 1, maxLength: 120 },
      old: { type: 'string', maxLength: 120 },
      how: { enum: ['typed', 'pasted', 'photo'] },
      because: { type: 'string', maxLength: 2000 },
    }),
    kind('coding-withdrawn', ['part', 'position', 'because'], {
      part: line,
      position: { type: 'integer', minimum: 1, maximum: 24 },
      because: said,
    }),
    kind('scan', ['outcome', 'said'], { outcome: { enum: ['clean', 'codes'] }, said: optionalText }),
    kind('release', ['said', 'waived'], {
      said,
      waived: {
        type: 'array',
        maxItems: 20,
        items: {
          type: 'object',
          additionalProperties: false,
          required: ['check', 'because'],
          properties: { check: line, because: said },
        },
      },
    }),
    kind('reopen', ['because'], { because: said }),
    kind('comeback', ['of'], { of: uuid }),
  ],
};

export const WRITE_RECORD = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by', 'record'],
  properties: { id: uuid, by, record: REPAIR_RECORD },
} as const;
export type WriteRecord = BodyOf<typeof WRITE_RECORD, { record: RepairRecord }>;
