import { CONNECTOR } from './requests/service-data';

const list = (items: object) => ({ type: 'array', maxItems: 5000, items });
const textOf = (maxLength: number) => ({ type: 'string', minLength: 1, maxLength });

/** Compiled before (`compiled/`): it holds most others, and to compile it takes 0.2 s or more. */
export const STARTER_KIT = {
  $id: 'urn:mudflat:starter-kit:1',
  type: 'object',
  additionalProperties: false,
  required: ['format', 'version', 'families', 'tests', 'circuits', 'limits', 'fittingValues', 'connectors'],
  properties: {
    format: { const: 'mudflat/starter-kit' },
    version: { const: 1 },
    families: list({
      type: 'object',
      additionalProperties: false,
      required: ['code', 'engine'],
      properties: { code: textOf(40), engine: { $ref: 'urn:mudflat:engine:1' } },
    }),
    tests: list({ $ref: 'urn:mudflat:catalogue:1#/$defs/test' }),
    circuits: list({ $ref: 'urn:mudflat:circuits:1#/$defs/circuit' }),
    limits: list({ $ref: 'urn:mudflat:shelf:1#/$defs/entry' }),
    fittingValues: list({
      type: 'object',
      additionalProperties: false,
      required: ['family', 'key', 'value', 'source'],
      properties: {
        family: { type: ['string', 'null'] },
        key: textOf(120),
        value: textOf(200),
        source: textOf(200),
      },
    }),
    connectors: list({
      type: 'object',
      additionalProperties: false,
      required: ['family', 'key', 'body', 'source'],
      properties: { family: { type: ['string', 'null'] }, key: textOf(120), body: CONNECTOR, source: textOf(200) },
    }),
  },
} as const;
