import type { TestDefinition } from '../core/catalogue/types';
import { canonical } from '../formats/canonical';

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
