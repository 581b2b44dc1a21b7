import type { FromSchema } from 'json-schema-to-ts';
import { BAUDS, DIALECTS, type MeterLink } from '../../core/instrument/link';
import type { InstrumentDocument } from '../instrument';
import { type BodyOf, UUID_TEXT, uuid, by } from './common';

export const ADD_INSTRUMENT = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'depotId', 'name', 'instrument', 'by'],
  properties: {
    id: uuid,
    depotId: uuid,
    name: { type: 'string', minLength: 1, maxLength: 100, pattern: '\\S' },
    by,
    instrument: { $ref: 'urn:mudflat:instrument:1' },
    calibrationDue: { type: ['string', 'null'], format: 'date' },
    replaces: { type: ['string', 'null'], pattern: UUID_TEXT },
    link: {
      oneOf: [
        { type: 'null' },
        {
          type: 'object',
          additionalProperties: false,
          required: ['kind', 'host', 'port'],
          properties: {
            kind: { const: 'network' },
            host: { type: 'string', minLength: 1, maxLength: 253 },
            port: { type: 'integer', minimum: 1, maximum: 65_535 },
          },
        },
        {
          type: 'object',
          additionalProperties: false,
          required: ['kind', 'baud', 'speaks'],
          properties: {
            kind: { const: 'serial' },
            baud: { enum: BAUDS },
            speaks: { enum: DIALECTS },
            pattern: { type: 'string', maxLength: 200 },
          },
        },
      ],
    },
  },
} as const;

export type AddInstrument = BodyOf<
  typeof ADD_INSTRUMENT,
  { instrument: InstrumentDocument; link?: MeterLink | null | undefined }
>;

export const RETIRE_INSTRUMENT = {
  type: 'object',
  additionalProperties: false,
  required: ['by'],
  properties: { by },
} as const;

export type RetireInstrument = FromSchema<typeof RETIRE_INSTRUMENT>;

/** Leads or an extension, measured; without a zero they are taken off the list. */
export const MEASURE_TEST_LEADS = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'depotId', 'name', 'by'],
  properties: {
    id: uuid,
    depotId: uuid,
    by,
    name: { type: 'string', minLength: 1, maxLength: 60, pattern: '\\S' },
    zero: { type: ['string', 'null'], maxLength: 40 },
  },
} as const;

export type MeasureTestLeads = FromSchema<typeof MEASURE_TEST_LEADS>;
