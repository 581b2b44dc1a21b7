/**
 * Compiles into formats/compiled/ the schemas that a page checks itself, since a browser that may not
 * evaluate strings cannot compile one, and those that take a server too long.
 *
 *   npm run schemas
 */
import { writeFileSync } from 'node:fs';
import { Ajv2020 } from 'ajv/dist/2020.js';
import standaloneCode from 'ajv/dist/standalone/index.js';
import addFormats from 'ajv-formats';
import { transformSync } from 'esbuild';
import { SETTINGS } from '../formats/schemas';

const DECLARED = `import type { ValidateFunction } from 'ajv';\n\nexport const check: ValidateFunction;\n`;
const FOLDER = 'formats/compiled';

/** By the name of its file: what `schema()` is asked for elsewhere. */
export const COMPILED = {
  limits: 'urn:mudflat:limits:1',
  circuit: 'urn:mudflat:circuits:1#/$defs/circuit',
  'trace-question': 'urn:mudflat:trace-question:1',
  'trace-findings': 'urn:mudflat:trace-findings:1',
  scan: 'urn:mudflat:scan:1',
  'starter-kit': 'urn:mudflat:starter-kit:1',
} as const;

export const fileOf = (name: string): string => `${FOLDER}/${name}.js`;

/** The source of a check. */
export function compiledCheck(id: string): string {
  const ajv = new Ajv2020({ ...SETTINGS, code: { source: true, esm: true } });
  (addFormats as unknown as { default: (a: Ajv2020) => void }).default(ajv);
  const write = (standaloneCode as unknown as { default: (a: Ajv2020, refs: object) => string }).default;
  const { code } = transformSync(write(ajv, { check: id }), { minify: true, format: 'esm', target: 'es2022' });
  return `/* oxlint-disable */\n// Written by scripts/schemas.ts.\n${code}`;
}

if (process.argv[1]?.endsWith('scripts/schemas.ts'))
  for (const [name, id] of Object.entries(COMPILED)) {
    writeFileSync(fileOf(name), compiledCheck(id));
    writeFileSync(`${FOLDER}/${name}.d.ts`, DECLARED);
  }
