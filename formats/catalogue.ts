import { checkDefinition } from '../core/catalogue/check';
import type { TestDefinition } from '../core/catalogue/types';
import { fail, ok, type Result } from '../core/result';
import { canonical } from '../core/shelf/clash';
import { readJson, schema, validate } from './validate';

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

/** Tests from text, each checked by schema and by what they say. Fails with every problem and its path; nothing is taken in part. */
export function readCatalogue(text: string): Result<readonly TestDefinition[]> {
  const json = readJson(text);
  if (!json.ok) return json;
  const valid = validate<CatalogueDocument>(schema('urn:mudflat:catalogue:1'), json.value);
  if (!valid.ok) return valid;
  const { tests } = valid.value;
  const problems = tests.flatMap((t, i) => [
    ...checkDefinition(t, `/tests/${i}`),
    ...(tests.findIndex((other) => other.id === t.id) === i
      ? []
      : [{ path: `/tests/${i}/id`, message: `The file has the test "${t.id}" twice.` }]),
  ]);
  return problems.length ? fail(problems) : ok(tests);
}

/** What a file would do to the catalogue, test by test. */
export interface CataloguePlan {
  readonly rows: readonly {
    readonly id: string;
    readonly name: string;
    readonly action: 'new' | 'changed' | 'unchanged';
  }[];
  readonly stored: number;
}

export function planCatalogue(
  incoming: readonly TestDefinition[],
  there: readonly TestDefinition[],
): CataloguePlan['rows'] {
  const byId = new Map(there.map((t) => [t.id, t]));
  return incoming.map(({ id, name }, i) => {
    const known = byId.get(id);
    return { id, name, action: !known ? 'new' : canonical(known) === canonical(incoming[i]) ? 'unchanged' : 'changed' };
  });
}
