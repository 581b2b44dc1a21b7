import type { LibraryCircuit, LibraryElement, Probe, SuspectKind } from './types';

/** Injectors as ohms see them, and the module that boosts their supply. Values: common practice, no source. */
const VALUES = {
  boost: { value: 48, unit: 'V', spread: 0.01, what: 'boosted supply' }, boostInner: { value: 0.04, unit: 'ohm', spread: 0.3, what: 'module’s output' }, wire: { value: 0.1, unit: 'ohm', spread: 0.3, what: 'wire under the cover' },
  coil: { value: 0.6, unit: 'ohm', spread: 0.06, what: 'solenoid', shelf: { test: 'injector-resistance' } }, driver: { value: 0.05, unit: 'ohm', spread: 0.3, what: 'driver closed' }, none: { value: 1e9, unit: 'ohm', spread: 0, what: 'insulation' }, contact: { value: 0.002, unit: 'ohm', spread: 0.5, what: 'a good contact' },
  buzz: { value: 12, unit: 'ohm', spread: 0.1, what: 'mean load in the self-test' }, turning: { value: 8, unit: 'ohm', spread: 0.1, what: 'mean load while cranking or idling' }, raised: { value: 3.5, unit: 'ohm', spread: 0.1, what: 'mean load at raised idle, cold' },
} as const satisfies LibraryCircuit['values'];

/** The module, and what it feeds on the mean in each state of the engine. */
const MODULE: readonly LibraryElement[] = [
  { id: 'boost', kind: 'source', from: 'boost emf', to: 'ground', value: 'boost', label: 'module', symbol: 'module' }, { id: 'module', kind: 'resistor', from: 'boost emf', to: 'module pin', value: 'boostInner', label: 'module’s output', symbol: 'module' },
  { id: 'buzzing', kind: 'switch', from: 'module pin', to: 'ground', value: 'buzz', label: 'self-test', closedIn: ['buzz'], symbol: 'hidden' }, { id: 'turning', kind: 'switch', from: 'module pin', to: 'ground', value: 'turning', label: 'cranking, idle', closedIn: ['turning'], symbol: 'hidden' },
  { id: 'raised', kind: 'switch', from: 'module pin', to: 'ground', value: 'raised', label: 'raised idle', closedIn: ['raised'], symbol: 'hidden' }, { id: 'body', kind: 'resistor', from: 'body', to: 'ground', value: 'contact', label: 'engine ground', symbol: 'hidden' },
];
const MODULE_SUSPECTS: readonly SuspectKind[] = [
  { element: 'module', fault: 'series', sizes: [0.3, 0.6, 1.5, 4], prior: 30, is: 'shared', name: 'module', words: 'sags under load' }, { element: 'module', fault: 'open', prior: 10, is: 'shared', name: 'module', words: 'gives no voltage' },
];
const MODULE_PROBES: readonly Probe[] = ([['key on', 'off'], ['self-test buzz', 'buzz'], ['cranking', 'turning'], ['idle', 'turning'], ['raised idle (cold)', 'raised']] as const)
  .map(([position, state]) => ({ test: 'injector-module-supply', position, mode: 'voltage', red: 'module pin', black: 'ground', state }));

/** What fails in a solenoid, its wire and its insulation; the wire to it is `path`. */
const COIL_SUSPECTS: readonly SuspectKind[] = [
  { element: 'injector {}', fault: 'open', prior: 12, is: 'part', name: 'injector', words: 'is open' }, { element: 'injector {}', fault: 'resistance', sizes: [1.2, 2.5, 8, 50, 1e3], prior: 12, is: 'part', name: 'injector', words: 'has risen' },
  { element: 'injector {}', fault: 'resistance', sizes: [0.1, 0.25], prior: 5, is: 'part', name: 'injector', words: 'is shorted' }, { element: 'injector {}', fault: 'series', sizes: [1, 30], prior: 3, intermittent: true, when: ['hot', 'load'], is: 'part', name: 'injector', words: 'comes and goes' },
  { element: 'to body {}', fault: 'resistance', sizes: [1, 100, 1e4, 1e5], prior: 8, is: 'path', name: 'injector', words: 'leaks to the engine' }, { element: 'wire {}', fault: 'open', prior: 8, is: 'path', name: 'injector', words: 'is open' },
  { element: 'wire {}', fault: 'series', sizes: [0.5, 2, 10, 100, 1e4], prior: 12, is: 'path', name: 'injector', words: 'has resistance' }, { element: 'wire {}', fault: 'series', sizes: [2, 50], prior: 6, intermittent: true, is: 'path', name: 'injector', words: 'comes and goes' },
];
const coilProbes = (common: string, commonElement: string): Probe[] => [
  { test: 'injector-through-harness', position: '{}', mode: 'resistance', red: 'module pin', black: 'pin {}', state: 'off', opened: ['module'] },
  { test: 'injector-resistance', position: '{}', mode: 'resistance', red: common, black: 'low {}', state: 'off', opened: ['wire {}', commonElement] }, { test: 'injector-insulation', position: '{}', mode: 'resistance', red: 'low {}', black: 'body', state: 'off', opened: ['wire {}', 'injector {}'] },
  { test: 'harness-ring-out', position: '{}', mode: 'resistance', red: 'low {}', black: 'pin {}', state: 'off', opened: ['injector {}'] },
];
const coil = (common: string): LibraryElement[] => [
  { id: 'injector {}', kind: 'resistor', from: common, to: 'low {}', value: 'coil', label: 'injector {}', symbol: 'coil' }, { id: 'wire {}', kind: 'resistor', from: 'low {}', to: 'pin {}', value: 'wire', label: 'wire {}', symbol: 'wire' },
  { id: 'driver {}', kind: 'switch', from: 'pin {}', to: 'ground', value: 'driver', label: 'driver {}', closedIn: ['fired {}'], symbol: 'input' }, { id: 'to body {}', kind: 'resistor', from: 'low {}', to: 'body', value: 'none', label: 'insulation {}', symbol: 'leak' },
];

export const INJECTORS_COMMON: LibraryCircuit = {
  id: 'injectors-common', name: 'Solenoid injectors, one common per bank', purpose: 'The module boosts a supply; a common goes to the injectors of each bank, a driver of its own switches each to ground.', revision: 2, area: 'Injectors', reference: 'ground', values: VALUES,
  elements: [...MODULE, { id: 'common {bank}', kind: 'resistor', from: 'module pin', to: 'common {bank}', value: 'wire', label: 'common wire {bank}', symbol: 'wire' }],
  perCylinder: coil('common {bank}'),
  suspects: [...COIL_SUSPECTS, { element: 'common {bank}', fault: 'series', sizes: [0.5, 5, 100], prior: 8, is: 'shared', name: 'common wire {bank}', words: 'has resistance' }, { element: 'common {bank}', fault: 'open', prior: 8, is: 'shared', name: 'common wire {bank}', words: 'is open' }, ...MODULE_SUSPECTS],
  probes: [...coilProbes('common {bank}', 'common {bank}'), ...MODULE_PROBES],
  drawing: { 'boost emf': { x: 0, y: 3 }, 'module pin': { x: 0, y: 0.6 }, 'common {bank}': { x: 2, y: 0.6, dy: 0.6 }, ground: { x: 0, y: 6 }, body: { x: 2, y: 6 }, 'low {}': { x: 2.6, y: 2.9, dx: 1.4 }, 'pin {}': { x: 2.6, y: 4.4, dx: 1.4 } },
};

/** Two injectors share the switch to the boosted supply; each has its own to ground. */
export const INJECTORS_PAIRED: LibraryCircuit = {
  id: 'injectors-paired', name: 'Solenoid injectors, drivers in pairs', purpose: 'Two injectors that never fire together share the driver that feeds them: a dead pair is that driver or its wire.', revision: 1, area: 'Injectors', reference: 'ground', values: VALUES,
  elements: [...MODULE,
    { id: 'upper driver {pair}', kind: 'resistor', from: 'module pin', to: 'pair pin {pair}', value: 'driver', label: 'upper driver {pair}', symbol: 'input' }, { id: 'pair wire {pair}', kind: 'resistor', from: 'pair pin {pair}', to: 'pair {pair}', value: 'wire', label: 'wire of pair {pair}', symbol: 'wire' }],
  perCylinder: coil('pair {pair}'),
  suspects: [...COIL_SUSPECTS, { element: 'pair wire {pair}', fault: 'series', sizes: [0.5, 5, 100], prior: 8, is: 'shared', name: 'wire of pair {pair}', words: 'has resistance' }, { element: 'pair wire {pair}', fault: 'open', prior: 6, is: 'shared', name: 'wire of pair {pair}', words: 'is open' },
    { element: 'upper driver {pair}', fault: 'open', prior: 8, is: 'input', name: 'upper driver {pair}', words: 'does not conduct' }, ...MODULE_SUSPECTS],
  // The pair's pin is where the connector comes off: what the module has before it is not in the ohms.
  probes: [...coilProbes('pair {pair}', 'pair wire {pair}').map((p) => (p.test === 'injector-through-harness' ? { ...p, red: 'pair pin {pair}', opened: ['upper driver {pair}'] } : p)),
    { test: 'injector-feed-voltage', position: '{}', mode: 'voltage', red: 'pair pin {pair}', black: 'ground', state: 'buzz' }, ...MODULE_PROBES],
  drawing: { 'boost emf': { x: 0, y: 3 }, 'module pin': { x: 0, y: 0.2 }, 'pair pin {pair}': { x: 1.8, y: 0.2, dy: 0.62 }, 'pair {pair}': { x: 2.6, y: 0.2, dy: 0.62 }, ground: { x: 0, y: 6.4 }, body: { x: 2, y: 6.4 }, 'low {}': { x: 2.8, y: 3.4, dx: 1.4 }, 'pin {}': { x: 2.8, y: 4.8, dx: 1.4 } },
};

/** Piezo stacks with a bleed resistor beside each; two wires to each. */
export const INJECTORS_PIEZO: LibraryCircuit = {
  id: 'injectors-piezo', name: 'Piezo injectors', purpose: 'Each stack has two wires of its own and a bleed resistor: ohms read the resistor, and anything much below it is a failed stack.', revision: 1, area: 'Injectors', reference: 'ground',
  values: { boost: { value: 140, unit: 'V', spread: 0.02, what: 'driver’s supply' }, inner: { value: 0.5, unit: 'ohm', spread: 0.3, what: 'driver’s output' }, wire: VALUES.wire, bleed: { value: 185e3, unit: 'ohm', spread: 0.06, what: 'bleed resistor', shelf: { test: 'injector-resistance-piezo' } }, none: VALUES.none, driver: VALUES.driver, contact: VALUES.contact },
  elements: [
    { id: 'boost', kind: 'source', from: 'boost emf', to: 'ground', value: 'boost', label: 'controller', symbol: 'module' }, { id: 'supply', kind: 'resistor', from: 'boost emf', to: 'module pin', value: 'inner', label: 'driver’s supply', symbol: 'module' },
    { id: 'body', kind: 'resistor', from: 'body', to: 'ground', value: 'contact', label: 'engine ground', symbol: 'hidden' },
  ],
  perCylinder: [
    { id: 'high wire {}', kind: 'resistor', from: 'module pin', to: 'high {}', value: 'wire', label: 'upper wire {}', symbol: 'wire' }, { id: 'injector {}', kind: 'resistor', from: 'high {}', to: 'low {}', value: 'bleed', label: 'injector {}', symbol: 'coil' },
    { id: 'wire {}', kind: 'resistor', from: 'low {}', to: 'pin {}', value: 'wire', label: 'lower wire {}', symbol: 'wire' }, { id: 'driver {}', kind: 'switch', from: 'pin {}', to: 'ground', value: 'driver', label: 'driver {}', closedIn: ['fired {}'], symbol: 'input' },
    { id: 'to body {}', kind: 'resistor', from: 'low {}', to: 'body', value: 'none', label: 'insulation {}', symbol: 'leak' },
  ],
  suspects: [
    { element: 'injector {}', fault: 'resistance', sizes: [5, 200, 3e3, 3e4], prior: 25, is: 'part', name: 'injector', words: 'has a failed stack' }, { element: 'injector {}', fault: 'open', prior: 8, is: 'part', name: 'injector', words: 'is open' },
    { element: 'wire {}', fault: 'open', prior: 10, is: 'path', name: 'injector', words: 'is open' }, { element: 'wire {}', fault: 'series', sizes: [5, 100, 1e4, 3e5], prior: 8, is: 'path', name: 'injector', words: 'has resistance' }, { element: 'high wire {}', fault: 'open', prior: 8, is: 'path', name: 'injector', words: 'is open' },
    { element: 'high wire {}', fault: 'series', sizes: [5, 100, 1e4, 3e5], prior: 6, is: 'path', name: 'injector', words: 'has resistance' }, { element: 'to body {}', fault: 'resistance', sizes: [10, 1e3, 5e4, 5e5], prior: 10, is: 'path', name: 'injector', words: 'leaks to the engine' },
  ],
  probes: [
    { test: 'injector-resistance-piezo', position: '{}', mode: 'resistance', red: 'high {}', black: 'low {}', state: 'off', opened: ['wire {}', 'high wire {}'] }, { test: 'injector-insulation', position: '{}', mode: 'resistance', red: 'low {}', black: 'body', state: 'off', opened: ['wire {}', 'injector {}'] },
    { test: 'harness-ring-out', position: '{}', mode: 'resistance', red: 'low {}', black: 'pin {}', state: 'off', opened: ['injector {}'] }, { test: 'harness-ring-out-upper', position: '{}', mode: 'resistance', red: 'module pin', black: 'high {}', state: 'off', opened: ['injector {}'] },
  ],
  drawing: { 'boost emf': { x: 0, y: 3 }, 'module pin': { x: 0, y: 0.6 }, ground: { x: 0, y: 6.4 }, body: { x: 2, y: 6.4 }, 'high {}': { x: 2.6, y: 2, dx: 1.4 }, 'low {}': { x: 2.6, y: 3.6, dx: 1.4 }, 'pin {}': { x: 2.6, y: 4.8, dx: 1.4 } },
};
