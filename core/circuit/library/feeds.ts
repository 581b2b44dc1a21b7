import type { LibraryCircuit } from './types';

/** What hangs on the battery through switches, fuses, relays and grounds. Values: common practice, no source. */
const VALUES = {
  battery: { value: 12.5, unit: 'V', spread: 0.02, what: 'charged battery' }, inner: { value: 0.01, unit: 'ohm', spread: 0.3, what: 'inner resistance of the battery' }, contact: { value: 0.005, unit: 'ohm', spread: 0.4, what: 'a good contact' }, wire: { value: 0.01, unit: 'ohm', spread: 0.3, what: 'wire' },
} as const satisfies LibraryCircuit['values'];
const BATTERY: LibraryCircuit['elements'] = [
  { id: 'battery', kind: 'source', from: 'emf', to: 'battery -', value: 'battery', label: 'battery', symbol: 'battery' }, { id: 'inner', kind: 'resistor', from: 'emf', to: 'battery +', value: 'inner', label: 'battery’s inside', symbol: 'wire' },
];
const AT_REST = { test: 'battery-at-rest', position: 'battery', mode: 'voltage', red: 'battery +', black: 'battery -', state: 'off' } as const;

/** The injector module's input side. */
export const MODULE_INPUT: LibraryCircuit = {
  id: 'module-input', name: 'Injector module, input side', purpose: 'Battery through fuse and relay to the module, and its ground back: below it the module is blamed for the battery.', revision: 2, area: 'Injector module', reference: 'battery -', follows: 'systemVoltage',
  values: { ...VALUES, load: { value: 0.8, unit: 'ohm', spread: 0.15, what: 'module while it works' } },
  elements: [...BATTERY,
    { id: 'fuse', kind: 'resistor', from: 'battery +', to: 'fused', value: 'contact', label: 'fuse', symbol: 'fuse' }, { id: 'relay', kind: 'switch', from: 'fused', to: 'switched', value: 'contact', label: 'relay', closedIn: ['self-test'], symbol: 'relay' },
    { id: 'feed', kind: 'resistor', from: 'switched', to: 'feed pin', value: 'wire', label: 'feed wire', symbol: 'wire' }, { id: 'module', kind: 'resistor', from: 'feed pin', to: 'ground pin', value: 'load', label: 'module', symbol: 'module' },
    { id: 'ground', kind: 'resistor', from: 'ground pin', to: 'battery -', value: 'wire', label: 'ground wire', symbol: 'ground' },
  ],
  perCylinder: [],
  suspects: [
    { element: 'fuse', fault: 'open', prior: 10, is: 'shared', name: 'fuse', words: 'is blown' }, { element: 'relay', fault: 'open', prior: 12, is: 'shared', name: 'relay', words: 'does not close' }, { element: 'relay', fault: 'series', sizes: [0.1, 0.4, 2], prior: 8, is: 'shared', name: 'relay', words: 'has a burnt contact' },
    { element: 'feed', fault: 'series', sizes: [0.1, 0.4, 2], prior: 8, is: 'path', name: 'feed', words: 'has resistance' }, { element: 'feed', fault: 'open', prior: 4, is: 'path', name: 'feed', words: 'is open' }, { element: 'ground', fault: 'series', sizes: [0.05, 0.3, 2], prior: 14, is: 'path', name: 'ground', words: 'has resistance' },
    { element: 'inner', fault: 'series', sizes: [0.1, 0.4], prior: 12, is: 'shared', name: 'battery', words: 'is weak' }, { element: 'module', fault: 'open', prior: 12, is: 'part', name: 'module', words: 'draws nothing' },
  ],
  probes: [
    { test: 'module-input', position: 'feed', mode: 'voltage', red: 'feed pin', black: 'battery -', state: 'self-test' }, { test: 'module-input', position: 'ground', mode: 'voltage', red: 'ground pin', black: 'battery -', state: 'self-test' },
    { test: 'feed-steps', position: 'behind the fuse', mode: 'voltage', red: 'fused', black: 'battery -', state: 'self-test' }, { test: 'feed-steps', position: 'behind the relay', mode: 'voltage', red: 'switched', black: 'battery -', state: 'self-test' }, AT_REST,
    { test: 'voltage-drop', position: 'feed', mode: 'voltage', red: 'battery +', black: 'feed pin', state: 'self-test' }, { test: 'voltage-drop', position: 'ground', mode: 'voltage', red: 'ground pin', black: 'battery -', state: 'self-test' },
  ],
  drawing: { emf: { x: 0, y: 3 }, 'battery -': { x: 0, y: 6 }, 'battery +': { x: 0, y: 1 }, fused: { x: 1.8, y: 1 }, switched: { x: 3.6, y: 1 }, 'feed pin': { x: 5.4, y: 1 }, 'ground pin': { x: 5.4, y: 6 } },
};

/** Master switch, main fuse, main relay, and the grounds of an engine controller. */
export const CONTROLLER_FEEDS: LibraryCircuit = {
  id: 'controller-feeds', name: 'Controller feeds and grounds', purpose: 'Battery through master switch, main fuse and main relay to the controller, and its ground back.', revision: 1, area: 'Controller', reference: 'battery -', follows: 'systemVoltage',
  values: { ...VALUES, load: { value: 3, unit: 'ohm', spread: 0.15, what: 'controller and what it feeds' } },
  elements: [...BATTERY,
    { id: 'master switch', kind: 'switch', from: 'battery +', to: 'switched battery', value: 'contact', label: 'master switch', closedIn: ['key on'], symbol: 'relay' }, { id: 'main fuse', kind: 'resistor', from: 'switched battery', to: 'fused', value: 'contact', label: 'main fuse', symbol: 'fuse' },
    { id: 'relay wire', kind: 'resistor', from: 'fused', to: 'relay in', value: 'wire', label: 'wire to the relay', symbol: 'wire' }, { id: 'main relay', kind: 'switch', from: 'relay in', to: 'relay out', value: 'contact', label: 'main relay', closedIn: ['key on'], symbol: 'relay' },
    { id: 'feed wire', kind: 'resistor', from: 'relay out', to: 'feed pin', value: 'wire', label: 'feed wire', symbol: 'wire' }, { id: 'controller', kind: 'resistor', from: 'feed pin', to: 'ground pin', value: 'load', label: 'controller', symbol: 'module' }, { id: 'ground wire', kind: 'resistor', from: 'ground pin', to: 'battery -', value: 'wire', label: 'controller ground', symbol: 'ground' },
  ],
  perCylinder: [],
  suspects: [
    { element: 'master switch', fault: 'open', prior: 6, is: 'shared', name: 'master switch', words: 'does not close' }, { element: 'master switch', fault: 'series', sizes: [0.3, 1, 5], prior: 8, is: 'shared', name: 'master switch', words: 'has a burnt contact' }, { element: 'main fuse', fault: 'open', prior: 12, is: 'shared', name: 'main fuse', words: 'is blown' },
    { element: 'main relay', fault: 'open', prior: 15, is: 'shared', name: 'main relay', words: 'does not close' }, { element: 'main relay', fault: 'series', sizes: [0.3, 1, 5], prior: 10, is: 'shared', name: 'main relay', words: 'has a burnt contact' }, { element: 'relay wire', fault: 'open', prior: 4, is: 'path', name: 'wire to the relay', words: 'is open' },
    { element: 'feed wire', fault: 'series', sizes: [0.3, 1, 5], prior: 8, is: 'path', name: 'feed wire', words: 'has resistance' }, { element: 'feed wire', fault: 'open', prior: 5, is: 'path', name: 'feed wire', words: 'is open' }, { element: 'ground wire', fault: 'series', sizes: [0.3, 1, 5], prior: 15, is: 'path', name: 'controller ground', words: 'has resistance' },
    { element: 'ground wire', fault: 'open', prior: 4, is: 'path', name: 'controller ground', words: 'is open' }, { element: 'inner', fault: 'series', sizes: [0.4, 1.5], prior: 10, is: 'shared', name: 'battery', words: 'is weak' }, { element: 'controller', fault: 'open', prior: 4, is: 'part', name: 'controller', words: 'draws nothing' },
  ],
  probes: [
    { test: 'controller-pins', position: 'switched battery', mode: 'voltage', red: 'feed pin', black: 'battery -', state: 'key on' }, { test: 'controller-pins', position: 'ground', mode: 'voltage', red: 'ground pin', black: 'battery -', state: 'key on' },
    ...([['behind the master switch', 'switched battery'], ['behind the main fuse', 'fused'], ['relay in', 'relay in'], ['relay out', 'relay out']] as const).map(([position, red]) => ({ test: 'controller-feed-steps', position, mode: 'voltage' as const, red, black: 'battery -', state: 'key on' })),
    { test: 'voltage-drop', position: 'feed', mode: 'voltage', red: 'battery +', black: 'feed pin', state: 'key on' }, { test: 'voltage-drop', position: 'ground', mode: 'voltage', red: 'ground pin', black: 'battery -', state: 'key on' }, AT_REST,
  ],
  drawing: { emf: { x: 0, y: 3 }, 'battery -': { x: 0, y: 6 }, 'battery +': { x: 0, y: 1 }, 'switched battery': { x: 1.7, y: 1 }, fused: { x: 3.2, y: 1 }, 'relay in': { x: 4.6, y: 1 }, 'relay out': { x: 6.2, y: 1 }, 'feed pin': { x: 7.8, y: 1 }, 'ground pin': { x: 7.8, y: 6 } },
};

/** Battery, cables, solenoid, starter, ground: hundreds of amperes, thousandths of an ohm. */
export const STARTER: LibraryCircuit = {
  id: 'starter', name: 'Starter and battery cables', purpose: 'The largest current of the vehicle: a few thousandths of an ohm in cable or clamp are a slow starter.', revision: 1, area: 'Energy first', reference: 'battery -', follows: 'systemVoltage',
  values: { battery: { value: 12.6, unit: 'V', spread: 0.01, what: 'charged battery' }, inner: { value: 0.004, unit: 'ohm', spread: 0.15, what: 'inner resistance of the battery' }, cable: { value: 0.0004, unit: 'ohm', spread: 0.2, what: 'cable with its clamps' }, contacts: { value: 0.0003, unit: 'ohm', spread: 0.3, what: 'solenoid contacts' }, motor: { value: 0.025, unit: 'ohm', spread: 0.12, what: 'starter while it turns' } },
  elements: [...BATTERY,
    { id: 'positive cable', kind: 'resistor', from: 'battery +', to: 'battery stud', value: 'cable', label: 'positive cable', symbol: 'wire' }, { id: 'solenoid', kind: 'switch', from: 'battery stud', to: 'motor stud', value: 'contacts', label: 'solenoid', closedIn: ['cranking'], symbol: 'relay' },
    { id: 'starter', kind: 'resistor', from: 'motor stud', to: 'body', value: 'motor', label: 'starter', symbol: 'coil' }, { id: 'negative cable', kind: 'resistor', from: 'body', to: 'battery -', value: 'cable', label: 'negative cable', symbol: 'ground' },
  ],
  perCylinder: [],
  suspects: [
    { element: 'inner', fault: 'series', sizes: [0.006, 0.02, 0.1], prior: 30, is: 'shared', name: 'battery', words: 'is weak' }, { element: 'positive cable', fault: 'series', sizes: [0.004, 0.015, 0.1], prior: 15, is: 'path', name: 'positive cable', words: 'has resistance' }, { element: 'negative cable', fault: 'series', sizes: [0.004, 0.015, 0.1], prior: 20, is: 'path', name: 'negative cable', words: 'has resistance' },
    { element: 'solenoid', fault: 'series', sizes: [0.004, 0.02, 0.1], prior: 12, is: 'part', name: 'solenoid', words: 'has burnt contacts' }, { element: 'solenoid', fault: 'open', prior: 10, is: 'part', name: 'solenoid', words: 'does not close' }, { element: 'starter', fault: 'resistance', sizes: [0.006, 0.012], prior: 12, is: 'part', name: 'starter', words: 'drags' },
    { element: 'starter', fault: 'open', prior: 10, is: 'part', name: 'starter', words: 'takes no current' },
  ],
  probes: [
    AT_REST, { test: 'battery-cranking', position: 'cranking', mode: 'voltage', red: 'battery +', black: 'battery -', state: 'cranking' },
    { test: 'starter-drops', position: 'positive cable', mode: 'voltage', red: 'battery +', black: 'battery stud', state: 'cranking' }, { test: 'starter-drops', position: 'solenoid contacts', mode: 'voltage', red: 'battery stud', black: 'motor stud', state: 'cranking' }, { test: 'starter-drops', position: 'negative cable', mode: 'voltage', red: 'body', black: 'battery -', state: 'cranking' },
  ],
  drawing: { emf: { x: 0, y: 3 }, 'battery -': { x: 0, y: 6 }, 'battery +': { x: 0, y: 1 }, 'battery stud': { x: 2.6, y: 1 }, 'motor stud': { x: 4.8, y: 1 }, body: { x: 4.8, y: 6 } },
};

/** A solenoid that is fed always and switched to ground by the controller. */
export const ACTUATOR_LOW_SIDE: LibraryCircuit = {
  id: 'actuator-low-side', name: 'Actuator, switched to ground', purpose: 'Feed through fuse and relay, a coil, and a driver in the controller that pulls its pin down.', revision: 1, area: 'Actuators', reference: 'battery -', follows: 'systemVoltage',
  values: { ...VALUES, wire: { value: 0.1, unit: 'ohm', spread: 0.3, what: 'wire' }, coil: { value: 4.2, unit: 'ohm', spread: 0.08, what: 'coil', shelf: { test: 'vane-actuator-coil' } }, driver: { value: 0.15, unit: 'ohm', spread: 0.2, what: 'driver, switched on' }, inside: { value: 73e3, unit: 'ohm', spread: 0.07, what: 'what the controller has from pin to ground', shelf: { test: 'low-side-driver' } } },
  elements: [...BATTERY,
    { id: 'fuse', kind: 'resistor', from: 'battery +', to: 'fused', value: 'contact', label: 'fuse', symbol: 'fuse' }, { id: 'relay', kind: 'switch', from: 'fused', to: 'switched', value: 'contact', label: 'relay', closedIn: ['key on', 'commanded'], symbol: 'relay' }, { id: 'feed wire', kind: 'resistor', from: 'switched', to: 'feed', value: 'wire', label: 'feed wire', symbol: 'wire' },
    { id: 'coil', kind: 'resistor', from: 'feed', to: 'low', value: 'coil', label: 'actuator', symbol: 'coil' }, { id: 'driver wire', kind: 'resistor', from: 'low', to: 'driver pin', value: 'wire', label: 'driver wire', symbol: 'wire' }, { id: 'driver', kind: 'switch', from: 'driver pin', to: 'battery -', value: 'driver', label: 'driver', closedIn: ['commanded'], symbol: 'input' },
    { id: 'inside', kind: 'resistor', from: 'driver pin', to: 'battery -', value: 'inside', label: 'driver', symbol: 'hidden' },
  ],
  perCylinder: [],
  suspects: [
    { element: 'fuse', fault: 'open', prior: 10, is: 'shared', name: 'fuse', words: 'is blown' }, { element: 'relay', fault: 'open', prior: 10, is: 'shared', name: 'relay', words: 'does not close' }, { element: 'feed wire', fault: 'open', prior: 8, is: 'path', name: 'feed wire', words: 'is open' }, { element: 'feed wire', fault: 'series', sizes: [1, 5, 50], prior: 6, is: 'path', name: 'feed wire', words: 'has resistance' },
    { element: 'coil', fault: 'open', prior: 15, is: 'part', name: 'actuator', words: 'is open' }, { element: 'coil', fault: 'resistance', sizes: [0.3, 1.5], prior: 8, is: 'part', name: 'actuator', words: 'has shorted turns' }, { element: 'coil', fault: 'resistance', sizes: [10, 100, 3e3], prior: 6, is: 'part', name: 'actuator', words: 'has risen' },
    { element: 'driver wire', fault: 'open', prior: 10, is: 'path', name: 'driver wire', words: 'is open' }, { element: 'driver wire', fault: 'series', sizes: [1, 5, 50], prior: 6, is: 'path', name: 'driver wire', words: 'has resistance' }, { element: 'driver', fault: 'open', prior: 5, is: 'input', name: 'driver', words: 'does not pull down' },
    { element: 'inside', fault: 'resistance', sizes: [0.3, 10], prior: 4, is: 'input', name: 'driver', words: 'is stuck on' },
  ],
  probes: [
    { test: 'actuator-feed', position: 'feed', mode: 'voltage', red: 'feed', black: 'battery -', state: 'key on' }, { test: 'actuator-feed', position: 'driver pin at rest', mode: 'voltage', red: 'low', black: 'battery -', state: 'key on' }, { test: 'actuator-feed', position: 'driver pin commanded', mode: 'voltage', red: 'low', black: 'battery -', state: 'commanded' },
    { test: 'vane-actuator-coil', position: 'coil', mode: 'resistance', red: 'feed', black: 'low', state: 'off', opened: ['feed wire', 'driver wire'] }, { test: 'low-side-driver', position: 'driver pin', mode: 'resistance', red: 'driver pin', black: 'battery -', state: 'off', opened: ['driver wire'] },
    { test: 'harness-pins', position: 'pin 1', mode: 'resistance', red: 'switched', black: 'feed', state: 'off', opened: ['coil'] }, { test: 'harness-pins', position: 'pin 2', mode: 'resistance', red: 'low', black: 'driver pin', state: 'off', opened: ['coil', 'inside'] },
    { test: 'feed-steps', position: 'behind the fuse', mode: 'voltage', red: 'fused', black: 'battery -', state: 'key on' }, { test: 'feed-steps', position: 'behind the relay', mode: 'voltage', red: 'switched', black: 'battery -', state: 'key on' },
  ],
  drawing: { emf: { x: 0, y: 3 }, 'battery -': { x: 0, y: 6 }, 'battery +': { x: 0, y: 1 }, fused: { x: 1.8, y: 1 }, switched: { x: 3.4, y: 1 }, feed: { x: 5.2, y: 1 }, low: { x: 5.2, y: 3.2 }, 'driver pin': { x: 5.2, y: 6 } },
};
