import type { ErrorObject, ValidateFunction } from 'ajv';
import { Ajv2020 } from 'ajv/dist/2020.js';
import addFormats from 'ajv-formats';
import bundle from '../docs/formats/bundle.schema.json';
import catalogue from '../docs/formats/catalogue.schema.json';
import circuit from '../docs/formats/circuit.schema.json';
import circuits from '../docs/formats/circuits.schema.json';
import engine from '../docs/formats/engine.schema.json';
import evidence from '../docs/formats/evidence.schema.json';
import instrument from '../docs/formats/instrument.schema.json';
import limits from '../docs/formats/limits.schema.json';
import scan from '../docs/formats/scan.schema.json';
import shelf from '../docs/formats/shelf.schema.json';
import testSet from '../docs/formats/test-set.schema.json';
import traceFindings from '../docs/formats/trace-findings.schema.json';
import traceQuestion from '../docs/formats/trace-question.schema.json';
import { STARTER_KIT } from './starter-kit-schema';
import type { Check } from './validate';

/**
 * Schemas, compiled when something is first checked by them: a server that starts compiles none. A page of
 * the application must not compile anything: what it checks itself was compiled before, `compiled/`.
 */
export const SETTINGS = {
  allErrors: true,
  allowUnionTypes: true,
  discriminator: true,
  strictRequired: false,
  schemas: [
    limits,
    engine,
    instrument,
    testSet,
    catalogue,
    shelf,
    circuit,
    circuits,
    evidence,
    bundle,
    scan,
    traceQuestion,
    traceFindings,
    STARTER_KIT,
  ],
};

// Making the code shorter takes a third of the time that compiling takes, and saves none when it runs.
function compiler(settings: object): Ajv2020 {
  const ajv = new Ajv2020({ ...SETTINGS, ...settings, code: { optimize: false } });
  (addFormats as unknown as { default: (a: Ajv2020) => void }).default(ajv);
  return ajv;
}
const ofAll = compiler({});
let ofFirst: Ajv2020 | null = null;

/**
 * The check of a schema: one of `docs/formats/` by its id, or one given in code. It throws at its first use
 * where there is none.
 */
export function schema<T>(idOrSchema: string | object): Check<T> {
  const untilFirst = compiledLate<T>(() => (ofFirst ??= compiler({ allErrors: false })), idOrSchema);
  return Object.assign(
    compiledLate<T>(() => ofAll, idOrSchema),
    { untilFirst },
  );
}

function compiledLate<T>(compilerOf: () => Ajv2020, idOrSchema: string | object): Check<T> {
  let compiled: ValidateFunction<T> | null = null;
  const check: Check<T> = Object.assign(
    (document: unknown): document is T => {
      compiled ??= compile<T>(compilerOf(), idOrSchema);
      const isSound = compiled(document);
      check.errors = compiled.errors ?? null;
      return isSound;
    },
    { errors: null as readonly ErrorObject[] | null, schema: typeof idOrSchema === 'string' ? undefined : idOrSchema },
  );
  return check;
}

function compile<T>(ajv: Ajv2020, idOrSchema: string | object): ValidateFunction<T> {
  if (typeof idOrSchema !== 'string') return ajv.compile<T>(idOrSchema);
  const found = ajv.getSchema<T>(idOrSchema);
  if (!found) throw new Error(`no schema ${idOrSchema}`);
  return found as ValidateFunction<T>;
}
