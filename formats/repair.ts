import type { CodingRule } from '../core/repair/coding';
import type { OneOrSetInputs } from '../core/repair/one-or-set';
import type { BeforeAfter } from '../core/repair/proof';
import type { Costs, LifeFrom } from '../core/repair/suggest';
import { ANSWERS, type ProofCheck, type Recorded, type RepairRecord } from '../core/repair/types';

/** Bodies of the HTTP API from finding to release, and what the job's screen is given of it. */

const uuid = { type: 'string', pattern: '^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$' } as const;
const by = { type: 'string', minLength: 1, maxLength: 80, pattern: '\\S' } as const;
const line = { type: 'string', minLength: 1, maxLength: 200, pattern: '\\S' } as const;
const text = { type: 'string', maxLength: 2000 } as const;
const said = { type: 'string', minLength: 1, maxLength: 2000, pattern: '\\S' } as const;
const money = { type: 'integer', minimum: 0, maximum: 1e11 } as const;
const amount = { type: 'number', minimum: 0, maximum: 1e7 } as const;
const currency = { type: 'string', pattern: '^[A-Z]{3}$' } as const;
const position = {
  anyOf: [
    { type: 'integer', minimum: 1, maximum: 1000 },
    { type: 'string', minLength: 1, maxLength: 60, pattern: '\\S' },
  ],
} as const;
const life = {
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

const kind = (name: string, required: readonly string[], properties: object) => ({
  type: 'object',
  additionalProperties: false,
  required: ['kind', ...required],
  properties: { kind: { const: name }, ...properties },
});

export const REPAIR_RECORD = {
  type: 'object',
  discriminator: { propertyName: 'kind' },
  required: ['kind'],
  oneOf: [
    kind('decision', ['finding', 'school', 'inputs', 'currency', 'why'], {
      finding: uuid,
      school: { enum: ['one', 'set'] },
      inputs: INPUTS,
      currency,
      why: text,
    }),
    kind('quotation', ['finding', 'currency', 'lines', 'note'], {
      finding: uuid,
      currency,
      note: text,
      lines: {
        type: 'array',
        minItems: 1,
        maxItems: 60,
        items: {
          type: 'object',
          additionalProperties: false,
          required: ['text', 'quantity', 'price'],
          properties: { text: line, quantity: { type: 'number', exclusiveMinimum: 0, maximum: 10000 }, price: money },
        },
      },
    }),
    kind('answer', ['quotation', 'answer', 'said'], {
      quotation: uuid,
      answer: { enum: ANSWERS },
      until: { type: 'string', format: 'date' },
      said: text,
    }),
    kind('step', ['sequence', 'step'], {
      sequence: line,
      step: line,
      position,
      value: { type: 'string', minLength: 1, maxLength: 60 },
      tool: { type: 'string', maxLength: 120 },
      note: text,
    }),
    kind('coding', ['part', 'position', 'code', 'how'], {
      part: line,
      position: { type: 'integer', minimum: 1, maximum: 24 },
      code: { type: 'string', minLength: 1, maxLength: 120 },
      old: { type: 'string', maxLength: 120 },
      how: { enum: ['typed', 'pasted', 'photo'] },
    }),
    kind('scan', ['outcome', 'said'], { outcome: { enum: ['clean', 'codes'] }, said: text }),
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
};
export interface WriteRecord {
  id: string;
  by: string;
  record: RepairRecord;
}

/** A fitting value as the service information has it. */
export interface FittingValue {
  readonly value: string;
}
export type ServiceBody = FittingValue | CodingRule | Costs;

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
  ],
};
export interface KeepServiceData {
  id: string;
  by: string;
  family: string | null;
  kind: 'fitting' | 'coding' | 'costs';
  key: string;
  body: ServiceBody;
  source: string;
}

/** Service data that holds for an engine. */
export interface ServiceLine {
  readonly kind: KeepServiceData['kind'];
  readonly key: string;
  readonly body: ServiceBody;
  readonly source: string;
  readonly family: string | null;
}

/** From finding to release, as the job's screen needs it. */
export interface RepairView {
  readonly records: readonly Recorded[];
  readonly checks: readonly ProofCheck[];
  readonly pairs: readonly BeforeAfter[];
  readonly service: readonly ServiceLine[];
  /** What the arithmetic would begin with, for each part that was found bad. */
  readonly decisions: readonly {
    readonly finding: string;
    readonly name: string;
    readonly inputs: OneOrSetInputs;
    readonly currency: string;
    readonly life: LifeFrom;
    readonly costsFrom: string;
  }[];
  /** What the depot reckons in, ISO 4217. */
  readonly currency: string;
  /** Trim codes as they were before this job, by position. */
  readonly oldCodes: Readonly<Record<string, string>>;
  /** Jobs that came back for the same. */
  readonly comebacks: readonly { readonly id: string; readonly number: number }[];
  /** This one came back from. */
  readonly comebackOf: { readonly id: string; readonly number: number } | null;
}
