import type { FromSchema } from 'json-schema-to-ts';
import { CONDITIONS } from '../core/evidence/types';
import { CONFIDENCES } from '../core/evidence/finding';
import type { Evidence } from '../core/evidence/types';
import type { FindingBody } from '../core/evidence/finding';
import type { PlanChange } from '../core/plan/types';
import { ROLES } from '../core/foundation/vocabulary';

/** Bodies of the HTTP API that concern people and what stands in a job beside readings. */

const uuid = { type: 'string', pattern: '^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$' } as const;
const by = { type: 'string', minLength: 1, maxLength: 80, pattern: '\\S' } as const;
const line = { type: 'string', minLength: 1, maxLength: 200, pattern: '\\S' } as const;
const text = { type: 'string', minLength: 1, maxLength: 2000, pattern: '\\S' } as const;
const note = { type: 'string', maxLength: 2000 } as const;
const photos = { type: 'array', maxItems: 20, uniqueItems: true, items: uuid } as const;
const position = {
  anyOf: [
    { type: 'integer', minimum: 1, maximum: 1000 },
    { type: 'string', minLength: 1, maxLength: 60, pattern: '\\S' },
  ],
} as const;
const conditions = {
  type: 'array',
  maxItems: CONDITIONS.length,
  uniqueItems: true,
  items: { enum: CONDITIONS },
} as const;

/** Digits or anything else; length is what counts. */
const pin = { type: 'string', minLength: 6, maxLength: 100 } as const;

export const SIGN_IN = {
  type: 'object',
  additionalProperties: false,
  required: ['name', 'pin'],
  properties: { name: by, pin: { type: 'string', minLength: 1, maxLength: 100 } },
} as const;
export type SignIn = FromSchema<typeof SIGN_IN>;

export const SWITCH_PERSON = {
  type: 'object',
  additionalProperties: false,
  required: ['name'],
  properties: { name: by },
} as const;
export type SwitchPerson = FromSchema<typeof SWITCH_PERSON>;

export const ADD_PERSON = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'name', 'role', 'depotId', 'pin'],
  properties: {
    id: uuid,
    name: { type: 'string', minLength: 2, maxLength: 60, pattern: '^[^\\s\\p{C}](.*[^\\s\\p{C}])?$' },
    role: { enum: ROLES },
    depotId: { anyOf: [uuid, { type: 'null' }] },
    pin,
    by,
  },
} as const;
export interface AddPerson {
  id: string;
  name: string;
  role: (typeof ROLES)[number];
  depotId: string | null;
  pin: string;
  by?: string;
}

/** Whatever is given is changed. A new PIN ends the person's sessions and a lockout. */
export const CHANGE_PERSON = {
  type: 'object',
  additionalProperties: false,
  required: ['by'],
  minProperties: 2,
  properties: {
    by,
    role: { enum: ROLES },
    depotId: { anyOf: [uuid, { type: 'null' }] },
    pin,
    retired: { type: 'boolean' },
  },
} as const;
export interface ChangePerson {
  by: string;
  role?: (typeof ROLES)[number];
  depotId?: string | null;
  pin?: string;
  retired?: boolean;
}

const INTAKE_BODY = {
  type: 'object',
  additionalProperties: false,
  required: ['conditions', 'replaced', 'signs', 'photos'],
  properties: {
    conditions,
    when: note,
    photos,
    replaced: {
      type: 'array',
      maxItems: 40,
      items: {
        type: 'object',
        additionalProperties: false,
        required: ['what', 'by'],
        properties: {
          what: line,
          by: { type: 'string', maxLength: 200 },
          helped: { enum: ['yes', 'no', 'for a while', 'not known'] },
        },
      },
    },
    signs: { type: 'array', maxItems: 40, items: line },
  },
} as const;
export type Intake = FromSchema<typeof INTAKE_BODY>;
export const NOTE_INTAKE = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by', 'intake'],
  properties: { id: uuid, by, intake: INTAKE_BODY },
} as const;
export type NoteIntake = FromSchema<typeof NOTE_INTAKE>;

export const EMPTY_INTAKE: Intake = { conditions: [], replaced: [], signs: [], photos: [] };

const kind = <K extends string, P extends Record<string, unknown>>(
  name: K,
  required: readonly string[],
  properties: P,
) => ({
  type: 'object',
  additionalProperties: false,
  required: ['kind', ...required],
  properties: { kind: { const: name }, note, photos, ...properties },
});

export const EVIDENCE_BODY = {
  type: 'object',
  required: ['kind'],
  discriminator: { propertyName: 'kind' },
  oneOf: [
    kind('swap', ['part', 'from', 'to', 'outcome'], {
      part: line,
      from: position,
      to: position,
      outcome: { enum: ['followed', 'stayed', 'gone'] },
    }),
    kind('cut-out', ['position', 'faultPresent', 'change'], {
      position: { type: 'integer', minimum: 1, maximum: 1000 },
      faultPresent: { type: 'boolean' },
      change: { enum: ['worse', 'none'] },
    }),
    kind('wiggle', ['where', 'outcome'], { where: line, position, outcome: { enum: ['broke', 'held'] } }),
    kind('visual', ['where', 'damaged', 'seen'], { where: line, position, damaged: { type: 'boolean' }, seen: text }),
    kind('new-part', ['part', 'outcome', 'changed'], {
      part: line,
      position,
      outcome: { enum: ['cured', 'no change', 'other fault'] },
      changed: text,
    }),
    kind('drive', ['conditions', 'outcome', 'seen'], {
      conditions,
      outcome: { enum: ['showed', 'did not show'] },
      seen: text,
    }),
    kind('repair', ['where', 'path', 'part', 'done'], {
      where: line,
      path: { type: 'boolean' },
      part: line,
      position,
      done: text,
    }),
  ],
} as const;
export const RECORD_EVIDENCE = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by', 'evidence'],
  properties: { id: uuid, by, evidence: EVIDENCE_BODY },
} as const;
export interface RecordEvidence {
  id: string;
  by: string;
  evidence: Evidence;
}
export const TAKE_BACK = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by', 'evidence'],
  properties: { id: uuid, by, evidence: uuid },
} as const;
export type TakeBack = FromSchema<typeof TAKE_BACK>;

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
export interface WriteFinding {
  id: string;
  by: string;
  supersedes?: string | null;
  finding: FindingBody;
}

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
export interface ChangePlan {
  id: string;
  by: string;
  change: PlanChange;
}

export const DESCRIBE_CODE = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by', 'code', 'text'],
  properties: { id: uuid, by, code: line, text: { type: 'string', maxLength: 500 } },
} as const;
export type DescribeCode = FromSchema<typeof DESCRIBE_CODE>;

/** A state that a test asks for and that cannot be had, signed off by a lead. */
export const OVERRIDE_STATE = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by', 'state', 'because'],
  properties: { id: uuid, by, state: { type: 'string', minLength: 1, maxLength: 60 }, because: text },
} as const;
export type OverrideState = FromSchema<typeof OVERRIDE_STATE>;
