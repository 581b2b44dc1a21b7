import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { CATALOGUE } from '../core/catalogue/catalogue';
import { CIRCUITS } from '../core/circuits/library';
import { check as circuit } from '../formats/compiled/circuit';
import { check as limits } from '../formats/compiled/limits';
import { check as scan } from '../formats/compiled/scan';
import { check as kit } from '../formats/compiled/starter-kit';
import { check as findings } from '../formats/compiled/trace-findings';
import { check as question } from '../formats/compiled/trace-question';
import { schema } from '../formats/schemas';
import type { Check } from '../formats/validate';
import { COMPILED, compiledCheck, fileOf } from './schemas';

test.each(Object.entries(COMPILED))('%s is as its schema says: npm run schemas', (name, id) =>
  expect(readFileSync(fileOf(name), 'utf8')).toBe(compiledCheck(id)),
);

const QUESTION = {
  format: 'mudflat/trace-question',
  version: 1,
  data: { kind: 'table', columns: [{ name: 'a', unit: 'V', values: [1, 2] }] },
  ask: [{ kind: 'search' }],
};
const KIT = {
  format: 'mudflat/starter-kit',
  version: 1,
  families: [{ code: 'L4-20', engine: { layout: 'inline', cylinders: 4, firingOrder: [1, 3, 4, 2] } }],
  tests: CATALOGUE.slice(0, 2),
  circuits: CIRCUITS.slice(0, 1),
  limits: [],
  fittingValues: [{ family: null, key: 'glow-plugs/torque', value: '17 Nm', source: 'sheet' }],
  connectors: [],
};
const CHECKS: readonly [keyof typeof COMPILED, Check<unknown>, readonly unknown[]][] = [
  ['circuit', circuit, CIRCUITS],
  ['limits', limits, CATALOGUE.flatMap((t) => t.rules.map((d) => d.limits))],
  ['scan', scan, [{ format: 'mudflat/scan', version: 1, takenAt: '2026-11-29T08:30:00Z' }]],
  ['starter-kit', kit, [KIT]],
  ['trace-question', question, [QUESTION]],
  ['trace-findings', findings, [{ format: 'mudflat/trace-findings', version: 1, findings: [] }]],
];

/** The document with one thing in it another, or gone, or one more. */
function changed(document: unknown, path: readonly number[], value: unknown): unknown {
  if (path.length === 0 || document === null || typeof document !== 'object') return value;
  const entries: [string, unknown][] = Object.entries(document);
  const [at = 0, ...rest] = path;
  const [key, inner] = entries[at % (entries.length + 1)] ?? ['more', undefined];
  const others = entries.filter(([name]) => name !== key);
  const isGone = value === undefined && rest.length === 0;
  const made = Object.fromEntries(isGone ? others : [...others, [key, changed(inner, rest, value)]]);
  return Array.isArray(document) ? Object.values(made) : made;
}

test.each(CHECKS)('%s, compiled before or when it is asked for: the same errors', (name, check, documents) => {
  const asked = schema(COMPILED[name]);
  const said = (c: Check<unknown>, d: unknown): unknown => [
    c(d),
    c.errors?.map((e) => [e.keyword, e.instancePath, e.params]) ?? null,
  ];
  for (const d of documents) expect(said(check, d)).toEqual(said(asked, d));
  fc.assert(
    fc.property(
      fc.constantFrom(...documents),
      fc.array(fc.nat(20), { maxLength: 5 }),
      fc.oneof(fc.constant(undefined), fc.jsonValue({ maxDepth: 1 })),
      (document, path, value) => {
        const d = changed(document, path, value);
        expect(said(check, d)).toEqual(said(asked, d));
      },
    ),
    { numRuns: 300 },
  );
});
