import type { LAYOUTS } from '../../core/catalogue/types';
import type { Quantity } from '../../core/quantity/units';

/** What the positions of a test are, for people. */
export const LAYOUT_WORDS: Readonly<Record<(typeof LAYOUTS)[number], string>> = {
  cylinders: 'every cylinder',
  pins: 'pins',
  pairs: 'pairs of conductors',
  states: 'engine states',
  change: 'before and after',
  sweep: 'a sweep, in order',
  places: 'places',
  single: 'one place',
};

export const quantityWords = (quantity: Quantity): string => (quantity === 'observation' ? 'pass or fail' : quantity);
