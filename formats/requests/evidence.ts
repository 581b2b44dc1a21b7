import type { FromSchema } from 'json-schema-to-ts';
import type { EvidenceField } from '../../core/evidence/kinds/definition';
import { EVIDENCE_KINDS } from '../../core/evidence/kinds/kinds';
import type { Evidence } from '../../core/evidence/types';
import { type BodyOf, by, conditions, line, note, photos, position, text, uuid } from './common';

/** Each kind of evidence as a schema: its fields say what it is. */
export const EVIDENCE_BODY = {
  type: 'object',
  required: ['kind'],
  discriminator: { propertyName: 'kind' },
  oneOf: Object.values(EVIDENCE_KINDS).map(({ kind, fields }) => ({
    type: 'object',
    additionalProperties: false,
    required: ['kind', ...fields.flatMap((f) => (f.optional ? [] : [f.field]))],
    properties: {
      kind: { const: kind },
      note,
      photos,
      ...Object.fromEntries(fields.map((f) => [f.field, schemaOf(f)])),
    },
  })),
};

function schemaOf(f: EvidenceField): object {
  switch (f.kind) {
    case 'text':
    case 'part':
      return line;
    case 'long':
      return text;
    case 'position':
      return position;
    case 'cylinder':
      return { type: 'integer', minimum: 1, maximum: 1000 };
    case 'choice':
      return { enum: (f.options ?? []).map(([value]) => value) };
    case 'yes-no':
      return { type: 'boolean' };
    case 'conditions':
      return conditions;
  }
}

export const RECORD_EVIDENCE = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by', 'evidence'],
  properties: { id: uuid, by, evidence: EVIDENCE_BODY },
} as const;
export type RecordEvidence = BodyOf<typeof RECORD_EVIDENCE, { evidence: Evidence }>;

export const TAKE_BACK = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by', 'evidence'],
  properties: { id: uuid, by, evidence: uuid },
} as const;
export type TakeBack = FromSchema<typeof TAKE_BACK>;
