import type { LibraryCircuit, LibraryElement, Probe, SuspectKind } from './types';

/** What every sensor of the controller's 5 V has: reference, ground back, values of good parts. Values: common practice, no source. */
const VALUES = {
  five: { value: 5, unit: 'V', spread: 0.006, what: 'reference' }, fiveInner: { value: 20, unit: 'ohm', spread: 0.2, what: 'what the reference can give' }, wire: { value: 0.3, unit: 'ohm', spread: 0.3, what: 'wire' },
  none: { value: 1e9, unit: 'ohm', spread: 0, what: 'insulation' }, ground: { value: 0.05, unit: 'ohm', spread: 0.3, what: 'ground in the controller' },
} as const satisfies LibraryCircuit['values'];
const FIVE: readonly LibraryElement[] = [
  { id: 'reference', kind: 'source', from: 'five emf', to: 'battery -', value: 'five', label: 'reference', symbol: 'module' }, { id: 'supply', kind: 'resistor', from: 'five emf', to: 'reference pin', value: 'fiveInner', label: 'controller’s supply', symbol: 'module' },
  { id: 'reference wire', kind: 'resistor', from: 'reference pin', to: 'reference at sensor', value: 'wire', label: 'reference wire', symbol: 'wire' }, { id: 'ground wire', kind: 'resistor', from: 'ground at sensor', to: 'ground pin', value: 'wire', label: 'ground wire', symbol: 'wire' },
  { id: 'controller ground', kind: 'resistor', from: 'ground pin', to: 'battery -', value: 'ground', label: 'controller ground', symbol: 'ground' }, { id: 'signal wire', kind: 'resistor', from: 'signal at sensor', to: 'signal pin', value: 'wire', label: 'signal wire', symbol: 'wire' },
  { id: 'signal leak', kind: 'resistor', from: 'signal at sensor', to: 'battery -', value: 'none', label: 'rub-through', symbol: 'leak' }, { id: 'reference leak', kind: 'resistor', from: 'reference at sensor', to: 'battery -', value: 'none', label: 'rub-through', symbol: 'leak' },
];
const WIRE_SUSPECTS: readonly SuspectKind[] = [
  { element: 'signal wire', fault: 'open', prior: 12, is: 'path', name: 'signal wire', words: 'is open' }, { element: 'reference wire', fault: 'open', prior: 10, is: 'path', name: 'reference wire', words: 'is open' }, { element: 'ground wire', fault: 'open', prior: 10, is: 'path', name: 'ground wire', words: 'is open' },
  { element: 'reference leak', fault: 'resistance', sizes: [1, 15], prior: 3, is: 'path', name: 'reference wire', words: 'rubs through to ground' }, { element: 'signal leak', fault: 'resistance', sizes: [1, 50], prior: 6, is: 'path', name: 'signal wire', words: 'rubs through to ground' }, { element: 'supply', fault: 'open', prior: 3, is: 'input', name: 'controller’s reference', words: 'is gone' },
];
/** Rings out what lies between sensor and controller, both unplugged. */
const wires = (unplugged: readonly string[]): Probe[] => ([['reference', 'reference at sensor', 'reference pin'], ['signal', 'signal at sensor', 'signal pin'], ['ground', 'ground at sensor', 'ground pin']] as const)
  .map(([position, red, black]) => ({ test: 'sensor-wires', position, mode: 'resistance', red, black, state: 'off', opened: [...unplugged, 'supply', 'controller ground', 'pull'] }));

const UNPLUGGED = ['high side', 'low side', 'inside'];

/** One three-wire sensor and a neighbour on the same reference; what the controller's converter sees is read on the scan tool. */
const sensor = (pull: 'down' | 'up'): LibraryCircuit => ({
  id: `sensor-pull-${pull}`, name: `Three-wire sensor, input pulled ${pull}`, purpose: 'The controller gives a reference to several sensors, reads the signal, and takes the ground back.', revision: 2, area: 'Sensors', reference: 'battery -',
  values: {
    ...VALUES, high: { value: 9000, unit: 'ohm', spread: 0.05, what: 'sensor, reference to signal' }, low: { value: 1000, unit: 'ohm', spread: 0.05, what: 'sensor, signal to ground' }, pull: { value: 1e5, unit: 'ohm', spread: 0.1, what: `pull-${pull} of the input` }, other: { value: 5000, unit: 'ohm', spread: 0.1, what: 'the neighbour' },
    converter: { value: 1e6, unit: 'ohm', spread: 0.1, what: 'what holds an open converter down' },
  },
  elements: [...FIVE,
    { id: 'high side', kind: 'resistor', from: 'reference at sensor', to: 'signal at sensor', value: 'high', label: 'sensor, upper', symbol: 'plug' }, { id: 'low side', kind: 'resistor', from: 'signal at sensor', to: 'ground at sensor', value: 'low', label: 'sensor, lower', symbol: 'plug' },
    { id: 'inside', kind: 'resistor', from: 'reference at sensor', to: 'ground at sensor', value: 'none', label: 'sensor', symbol: 'hidden' }, { id: 'pull', kind: 'resistor', from: 'signal pin', to: pull === 'down' ? 'ground pin' : 'five emf', value: 'pull', label: `pull-${pull}`, symbol: 'input', aside: pull === 'down' ? -0.9 : -1.6 }, { id: 'input', kind: 'resistor', from: 'signal pin', to: 'seen', value: 'wire', label: 'input', symbol: 'input' },
    { id: 'converter', kind: 'resistor', from: 'seen', to: 'ground pin', value: 'converter', label: 'converter', symbol: 'hidden' }, { id: 'neighbour', kind: 'resistor', from: 'reference pin', to: 'ground pin', value: 'other', label: 'neighbour', symbol: 'plug', aside: 1.2 },
    { id: 'jumper', kind: 'switch', from: 'reference at sensor', to: 'signal at sensor', value: 'wire', label: 'jumper', closedIn: ['jumper'], symbol: 'relay', aside: 1.3 },
  ],
  perCylinder: [],
  suspects: [...WIRE_SUSPECTS,
    { element: 'low side', fault: 'resistance', sizes: [1, 20], prior: 12, is: 'part', name: 'sensor', words: 'holds its signal down' }, { element: 'high side', fault: 'open', prior: 18, is: 'part', name: 'sensor', words: 'is open' }, { element: 'low side', fault: 'open', prior: 10, is: 'part', name: 'sensor', words: 'has lost its ground inside' },
    { element: 'high side', fault: 'resistance', sizes: [50, 1e3], prior: 6, is: 'part', name: 'sensor', words: 'pulls its signal up' }, { element: 'signal wire', fault: 'series', sizes: [1e4, 1e5, 1e6], prior: 8, is: 'path', name: 'signal wire', words: 'has resistance' },
    { element: 'ground wire', fault: 'series', sizes: [100, 1e3], prior: 8, is: 'path', name: 'ground wire', words: 'has resistance' }, { element: 'inside', fault: 'resistance', sizes: [1, 10], prior: 3, is: 'part', name: 'sensor', words: 'pulls its reference down' }, { element: 'neighbour', fault: 'resistance', sizes: [1, 10], prior: 9, is: 'shared', name: 'neighbour on the same reference', words: 'pulls the reference down' },
    { element: 'input', fault: 'open', prior: 3, is: 'input', name: 'controller’s input', words: 'does not see its pin' },
  ],
  probes: [
    { test: 'sensor-reference', position: 'reference', mode: 'voltage', red: 'reference at sensor', black: 'battery -', state: 'key on' }, { test: 'sensor-reference-alone', position: 'neighbours unplugged', mode: 'voltage', red: 'reference at sensor', black: 'battery -', state: 'key on', opened: ['neighbour'] }, { test: 'sensor-reference-alone', position: 'this one unplugged', mode: 'voltage', red: 'reference at sensor', black: 'battery -', state: 'key on', opened: UNPLUGGED },
    { test: 'sensor-ground', position: 'ground', mode: 'voltage', red: 'ground at sensor', black: 'battery -', state: 'key on' }, { test: 'sensor-signal-rest', position: 'gauge or difference type', mode: 'voltage', red: 'signal at sensor', black: 'battery -', state: 'key on' },
    { test: 'sensor-unplugged', position: pull === 'down' ? 'pull-down input' : 'pull-up input', mode: 'voltage', red: 'signal at sensor', black: 'battery -', state: 'key on', opened: UNPLUGGED },
    { test: 'sensor-bypass', position: 'reference to signal', mode: 'voltage', red: 'seen', black: 'battery -', state: 'jumper', opened: UNPLUGGED },
    { test: 'sensor-meter-scan', position: 'meter less scan tool', mode: 'voltage', red: 'signal at sensor', black: 'seen', state: 'key on' }, { test: 'controller-pins', position: '5 V reference', mode: 'voltage', red: 'reference pin', black: 'battery -', state: 'key on' },
    ...wires([...UNPLUGGED, 'neighbour', 'converter']),
  ],
  drawing: {
    'five emf': { x: 0, y: 1 }, 'reference pin': { x: 2, y: 1 }, 'reference at sensor': { x: 5, y: 1 }, 'signal at sensor': { x: 5, y: 3 }, 'ground at sensor': { x: 5, y: 5 }, 'signal pin': { x: 2, y: 3 }, 'ground pin': { x: 2, y: 5 }, 'battery -': { x: 0, y: 6.4 }, seen: { x: 2, y: 4 }, 
  },
});
export const SENSOR_PULL_DOWN = sensor('down');
export const SENSOR_PULL_UP = sensor('up');

/** A coil that a toothed wheel passes; the controller holds both ends about its middle. */
export const SENSOR_COIL: LibraryCircuit = {
  id: 'sensor-coil', name: 'Two-wire coil sensor', purpose: 'A coil between two wires: its ohms at the sensor and through the harness tell coil from cable.', revision: 1, area: 'Position sensors', reference: 'battery -',
  values: { ...VALUES, coil: { value: 1100, unit: 'ohm', spread: 0.12, what: 'coil', shelf: { test: 'position-sensor-secondary' } }, bias: { value: 1e4, unit: 'ohm', spread: 0.05, what: 'bias in the controller' } },
  elements: [
    { id: 'reference', kind: 'source', from: 'five emf', to: 'battery -', value: 'five', label: 'controller', symbol: 'module' }, { id: 'upper bias', kind: 'resistor', from: 'five emf', to: 'pin 1', value: 'bias', label: 'bias', symbol: 'input' }, { id: 'lower bias', kind: 'resistor', from: 'pin 2', to: 'battery -', value: 'bias', label: 'bias', symbol: 'input' },
    { id: 'wire 1', kind: 'resistor', from: 'pin 1', to: 'coil 1', value: 'wire', label: 'upper wire', symbol: 'wire' }, { id: 'coil', kind: 'resistor', from: 'coil 1', to: 'coil 2', value: 'coil', label: 'coil', symbol: 'coil' }, { id: 'wire 2', kind: 'resistor', from: 'coil 2', to: 'pin 2', value: 'wire', label: 'lower wire', symbol: 'wire' },
    { id: 'leak 1', kind: 'resistor', from: 'coil 1', to: 'battery -', value: 'none', label: 'rub-through', symbol: 'leak' },
  ],
  perCylinder: [],
  suspects: [
    { element: 'coil', fault: 'open', prior: 25, is: 'part', name: 'sensor', words: 'is open' }, { element: 'coil', fault: 'resistance', sizes: [5, 100, 350], prior: 12, is: 'part', name: 'sensor', words: 'has shorted turns' }, { element: 'coil', fault: 'resistance', sizes: [3e3, 3e4], prior: 6, is: 'part', name: 'sensor', words: 'has risen' },
    { element: 'coil', fault: 'series', sizes: [500, 1e5], prior: 10, intermittent: true, when: ['hot'], is: 'part', name: 'sensor', words: 'comes and goes' }, { element: 'wire 1', fault: 'open', prior: 10, is: 'path', name: 'upper wire', words: 'is open' }, { element: 'wire 2', fault: 'open', prior: 10, is: 'path', name: 'lower wire', words: 'is open' },
    { element: 'wire 1', fault: 'series', sizes: [500, 5e3, 1e5], prior: 5, is: 'path', name: 'upper wire', words: 'has resistance' }, { element: 'wire 2', fault: 'series', sizes: [500, 5e3, 1e5], prior: 5, is: 'path', name: 'lower wire', words: 'has resistance' }, { element: 'leak 1', fault: 'resistance', sizes: [1, 100, 1e4], prior: 8, is: 'path', name: 'upper wire', words: 'rubs through to ground' },
  ],
  probes: [
    { test: 'position-sensor-through-harness', position: 'at the controller', mode: 'resistance', red: 'pin 1', black: 'pin 2', state: 'off', opened: ['upper bias', 'lower bias'] }, { test: 'position-sensor-secondary', position: 'secondary', mode: 'resistance', red: 'coil 1', black: 'coil 2', state: 'off', opened: ['wire 1', 'wire 2'] },
    { test: 'harness-pins', position: 'pin 1', mode: 'resistance', red: 'pin 1', black: 'coil 1', state: 'off', opened: ['coil', 'upper bias'] }, { test: 'harness-pins', position: 'pin 2', mode: 'resistance', red: 'pin 2', black: 'coil 2', state: 'off', opened: ['coil', 'lower bias'] },
    { test: 'harness-insulation', position: '1 to ground', mode: 'resistance', red: 'coil 1', black: 'battery -', state: 'off', opened: ['coil', 'upper bias'] },
  ],
  drawing: { 'five emf': { x: 0, y: 1 }, 'pin 1': { x: 2, y: 1 }, 'coil 1': { x: 5, y: 1 }, 'coil 2': { x: 5, y: 4.4 }, 'pin 2': { x: 2, y: 4.4 }, 'battery -': { x: 0, y: 5.6 } },
};

/** Supply, ground, and a signal that the sensor pulls down at each tooth. */
export const SENSOR_HALL: LibraryCircuit = {
  id: 'sensor-hall', name: 'Hall sensor', purpose: 'The controller feeds it and pulls its signal up; a transistor in the sensor pulls it down at each tooth.', revision: 1, area: 'Position sensors', reference: 'battery -',
  values: { ...VALUES, takes: { value: 700, unit: 'ohm', spread: 0.1, what: 'what the sensor takes' }, transistor: { value: 60, unit: 'ohm', spread: 0.2, what: 'transistor, at the tooth' }, pull: { value: 4700, unit: 'ohm', spread: 0.05, what: 'pull-up of the input' } },
  elements: [...FIVE,
    { id: 'takes', kind: 'resistor', from: 'reference at sensor', to: 'ground at sensor', value: 'takes', label: 'sensor', symbol: 'plug', aside: 0 }, { id: 'transistor', kind: 'switch', from: 'signal at sensor', to: 'ground at sensor', value: 'transistor', label: 'sensor’s switch', closedIn: ['tooth'], symbol: 'relay' },
    { id: 'stuck', kind: 'resistor', from: 'signal at sensor', to: 'ground at sensor', value: 'none', label: 'sensor’s switch', symbol: 'hidden' }, { id: 'pull', kind: 'resistor', from: 'signal pin', to: 'five emf', value: 'pull', label: 'pull-up', symbol: 'input', aside: -1.6 },
  ],
  perCylinder: [],
  suspects: [...WIRE_SUSPECTS,
    { element: 'transistor', fault: 'open', prior: 20, is: 'part', name: 'sensor', words: 'does not switch' }, { element: 'stuck', fault: 'resistance', sizes: [20, 200], prior: 10, is: 'part', name: 'sensor', words: 'holds its signal down' }, { element: 'takes', fault: 'resistance', sizes: [2, 20], prior: 6, is: 'part', name: 'sensor', words: 'pulls its supply down' },
    { element: 'ground wire', fault: 'series', sizes: [200, 2e3], prior: 6, is: 'path', name: 'ground wire', words: 'has resistance' }, { element: 'pull', fault: 'open', prior: 3, is: 'input', name: 'controller’s input', words: 'does not pull up' },
  ],
  probes: [
    { test: 'hall-supply', position: 'supply', mode: 'voltage', red: 'reference at sensor', black: 'battery -', state: 'key on' }, { test: 'hall-supply', position: 'ground', mode: 'voltage', red: 'ground at sensor', black: 'battery -', state: 'key on' },
    { test: 'hall-supply', position: 'signal off the tooth', mode: 'voltage', red: 'signal at sensor', black: 'battery -', state: 'key on' }, { test: 'hall-supply', position: 'signal at the tooth', mode: 'voltage', red: 'signal at sensor', black: 'battery -', state: 'tooth' },
    { test: 'sensor-unplugged', position: 'pull-up input', mode: 'voltage', red: 'signal at sensor', black: 'battery -', state: 'key on', opened: ['takes', 'stuck'] }, { test: 'controller-pins', position: '5 V reference', mode: 'voltage', red: 'reference pin', black: 'battery -', state: 'key on' },
    { test: 'sensor-reference-alone', position: 'this one unplugged', mode: 'voltage', red: 'reference at sensor', black: 'battery -', state: 'key on', opened: ['takes', 'stuck'] }, ...wires(['takes', 'stuck']),
  ],
  drawing: { 'five emf': { x: 0, y: 1 }, 'reference pin': { x: 2, y: 1 }, 'reference at sensor': { x: 5.6, y: 1 }, 'signal at sensor': { x: 4, y: 3 }, 'ground at sensor': { x: 4, y: 5 }, 'signal pin': { x: 2, y: 3 }, 'ground pin': { x: 2, y: 5 }, 'battery -': { x: 0, y: 6.4 } },
};
