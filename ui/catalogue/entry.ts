import type { TestDefinition } from '../../core/catalogue/types';

export interface CatalogueEntry {
  readonly test: TestDefinition;
  /** Made or changed by the workshop. */
  readonly own: boolean;
}
