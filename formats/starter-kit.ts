import type { ValidateFunction } from 'ajv';
import type { LibraryCircuit } from '../core/circuits/types';
import type { TestDefinition } from '../core/catalogue/types';
import type { Connector } from '../core/engine/connector';
import type { Engine } from '../core/engine/layout';
import { fail, type Result } from '../core/foundation/result';
import { problemsOfTests } from './catalogue';
import { check as compiled } from './compiled/starter-kit';
import { schema } from './schemas';
import { STARTER_KIT } from './starter-kit-schema';
import type { SpecificationEntry } from './specifications';
import { type Check, readJsonFile, validate } from './validate';

/**
 * What a workshop knows and can pass on: engine families, its own tests and circuits, limits, fitting values,
 * connectors. No unit, no person, no job.
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

const check: Check<StarterKit> = Object.assign(compiled as ValidateFunction<StarterKit>, {
  untilFirst: schema<StarterKit>(STARTER_KIT.$id).untilFirst,
});

/** A starter kit from text. Fails with every problem and its path. */
export function readStarterKit(text: string): Result<StarterKit> {
  const json = readJsonFile(text);
  const kit = json.ok ? validate(check, json.value) : json;
  const problems = kit.ok ? problemsOfTests(kit.value.tests) : [];
  return problems.length ? fail(problems) : kit;
}
