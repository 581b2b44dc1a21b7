import { tr } from '../core/locale/translate';
import { checkDefinition } from '../core/catalogue/check';
import type { TestDefinition } from '../core/catalogue/types';
import { fail, ok, type Problem, type Result } from '../core/foundation/result';
import { schema } from './schemas';
import { readJsonFile, validate } from './validate';

/** `mudflat/catalogue` as it stands in a file. */
export interface CatalogueDocument {
  readonly format: 'mudflat/catalogue';
  readonly version: 1;
  readonly tests: readonly TestDefinition[];
}

export const writeCatalogue = (tests: readonly TestDefinition[]): CatalogueDocument => ({
  format: 'mudflat/catalogue',
  version: 1,
  tests,
});

/**
 * Tests from text, each checked by schema and by what they say. Fails with every problem and its path;
 * nothing is taken in part.
 */
export function readCatalogue(text: string): Result<readonly TestDefinition[]> {
  const json = readJsonFile(text);
  if (!json.ok) return json;
  const valid = validate<CatalogueDocument>(schema('urn:mudflat:catalogue:1'), json.value);
  if (!valid.ok) return valid;
  const { tests } = valid.value;
  const problems = problemsOfTests(tests);
  return problems.length ? fail(problems) : ok(tests);
}

/** All that is wrong with the tests of a file beyond their schema. */
export function problemsOfTests(tests: readonly TestDefinition[]): Problem[] {
  const seen = new Set<string>();
  return tests.flatMap((t, i) => {
    const isSecond = seen.has(t.id);
    seen.add(t.id);
    return [
      ...checkDefinition(t, `/tests/${i}`),
      ...(isSecond ? [{ path: `/tests/${i}/id`, message: tr`The file has the test "${t.id}" twice.` }] : []),
    ];
  });
}
