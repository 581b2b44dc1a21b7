import type { LibraryCircuit } from './types';

/** Module, common wire, harness and solenoid per cylinder, as ohms see them. Values: common practice, no source. */
export const INJECTORS_COMMON: LibraryCircuit = {
  id: 'injectors-common', name: 'Solenoid injectors with a shared common', purpose: 'The module boosts a supply; one common goes to all injectors, a driver of its own switches each to ground.', revision: 1, reference: 'ground',
  values: {
    boost: { value: 48, unit: 'V', spread: 0.01, what: 'boosted supply' }, boostInner: { value: 0.1, unit: 'ohm', spread: 0.3, what: 'module’s output' }, wire: { value: 0.1, unit: 'ohm', spread: 0.3, what: 'wire under the cover' },
    coil: { value: 0.6, unit: 'ohm', spread: 0.06, what: 'solenoid' }, driver: { value: 0.05, unit: 'ohm', spread: 0.3, what: 'driver closed' }, none: { value: 1e9, unit: 'ohm', spread: 0, what: 'insulation' }, contact: { value: 0.002, unit: 'ohm', spread: 0.5, what: 'a good contact' },
  },
  elements: [
    { id: 'boost', kind: 'source', from: 'boost emf', to: 'ground', value: 'boost', label: 'module', symbol: 'module' }, { id: 'module', kind: 'resistor', from: 'boost emf', to: 'module pin', value: 'boostInner', label: 'module’s output', symbol: 'module' },
    { id: 'common', kind: 'resistor', from: 'module pin', to: 'common', value: 'wire', label: 'common wire', symbol: 'wire' }, { id: 'body', kind: 'resistor', from: 'body', to: 'ground', value: 'contact', label: 'engine ground', symbol: 'ground' },
  ],
  perCylinder: [
    { id: 'injector {}', kind: 'resistor', from: 'common', to: 'low {}', value: 'coil', label: 'injector {}', symbol: 'coil' }, { id: 'wire {}', kind: 'resistor', from: 'low {}', to: 'pin {}', value: 'wire', label: 'wire {}', symbol: 'wire' },
    { id: 'driver {}', kind: 'switch', from: 'pin {}', to: 'ground', value: 'driver', label: 'driver {}', closedIn: ['fired {}'], symbol: 'input' }, { id: 'to body {}', kind: 'resistor', from: 'low {}', to: 'body', value: 'none', label: 'insulation {}', symbol: 'leak' },
  ],
  suspects: [
    { element: 'injector {}', fault: 'open', prior: 12, is: 'part', name: 'injector', words: 'is open' }, { element: 'injector {}', fault: 'resistance', sizes: [1.2, 2.5, 8, 50, 1e3], prior: 12, is: 'part', name: 'injector', words: 'has risen' },
    { element: 'injector {}', fault: 'resistance', sizes: [0.1, 0.25], prior: 5, is: 'part', name: 'injector', words: 'is shorted' }, { element: 'injector {}', fault: 'series', sizes: [1, 30], prior: 3, intermittent: true, is: 'part', name: 'injector', words: 'comes and goes' }, { element: 'to body {}', fault: 'resistance', sizes: [1, 100, 1e4, 1e5], prior: 8, is: 'path', name: 'injector', words: 'leaks to the engine' },
    { element: 'wire {}', fault: 'open', prior: 8, is: 'path', name: 'injector', words: 'is open' }, { element: 'wire {}', fault: 'series', sizes: [0.5, 2, 10, 100, 1e4], prior: 12, is: 'path', name: 'injector', words: 'has resistance' },
    { element: 'wire {}', fault: 'series', sizes: [2, 50], prior: 6, intermittent: true, is: 'path', name: 'injector', words: 'comes and goes' }, { element: 'common', fault: 'series', sizes: [0.5, 5, 100], prior: 5, is: 'shared', name: 'common wire', words: 'has resistance' },
    { element: 'common', fault: 'open', prior: 5, is: 'shared', name: 'common wire', words: 'is open' },
  ],
  probes: [
    { test: 'injector-resistance', position: '{}', mode: 'resistance', red: 'common', black: 'low {}', state: 'off', opened: ['wire {}', 'common'] }, { test: 'injector-insulation', position: '{}', mode: 'resistance', red: 'low {}', black: 'body', state: 'off', opened: ['wire {}', 'common'] },
    { test: 'harness-ring-out', position: '{}', mode: 'resistance', red: 'low {}', black: 'pin {}', state: 'off', opened: ['injector {}'] },
  ],
  drawing: {
    'boost emf': { x: 0, y: 3 }, 'module pin': { x: 0, y: 1 }, common: { x: 2, y: 1 }, ground: { x: 0, y: 6 }, body: { x: 2, y: 5.2 }, 'low {}': { x: 2.6, y: 2.8, dx: 1.4 }, 'pin {}': { x: 2.6, y: 4.4, dx: 1.4 },
  },
};
