import type { LibraryElement } from './types';

/** The battery with its inner resistance; the circuit gives the values `battery` and `inner`. */
export const BATTERY: readonly LibraryElement[] = [
  {
    id: 'battery',
    kind: 'source',
    from: 'emf',
    to: 'battery -',
    value: 'battery',
    label: 'battery',
    symbol: 'battery',
  },
  {
    id: 'inner',
    kind: 'resistor',
    from: 'emf',
    to: 'battery +',
    value: 'inner',
    label: 'battery’s inside',
    symbol: 'wire',
  },
];
