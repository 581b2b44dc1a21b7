import type { LibraryCircuit } from '../core/circuits/types';
import type { TestDefinition } from '../core/catalogue/types';
import type { Connector } from '../core/engine/connector';
import type { Engine } from '../core/engine/layout';
import { fail, type Result } from '../core/foundation/result';
import { problemsOfTests } from './catalogue';
import { CONNECTOR } from './requests/service-data';
import { schema } from './schemas';
import type { SpecificationEntry } from './specifications';
import { readJsonFile, validate } from './validate';

/**
 * What a workshop knows and can pass on: engine families, its own tests and circuits, limits, fitting values, connectors. No unit, no
 * person, no job.
 */
export interface StarterKit {
  readonly format: 'mudflat/starter-kit';
  readonly version: 1;
  readonly families: readonly { readonly code: string; readonly engine: Engine }[];
  readonly tests: readonly TestDefinition[];
  readonly circuits: readonly LibraryCircuit[];
  readonly limits: readonly SpecificationEntry[];
  readonly fittingValues: readonly {
    readonly family: string | null;
    readonly key: string;
    readonly value: string;
    readonly source: string;
  }[];
  readonly connectors: readonly {
    readonly family: string | null;
    readonly key: string;
    readonly body: Connector;
    readonly source: string;
  }[];
}

const list = (items: object) => ({ type: 'array', maxItems: 5000, items });
const textOf = (maxLength: number) => ({ type: 'string', minLength: 1, maxLength });

export const STARTER_KIT = {
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

const check = schema<StarterKit>(STARTER_KIT);

/** A starter kit from text. Fails with every problem and its path. */
export function readStarterKit(text: string): Result<StarterKit> {
  const json = readJsonFile(text);
  const kit = json.ok ? validate(check, json.value) : json;
  const problems = kit.ok ? problemsOfTests(kit.value.tests) : [];
  return problems.length ? fail(problems) : kit;
}
