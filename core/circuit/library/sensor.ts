import type { LibraryCircuit } from './types';

/** One three-wire sensor and a neighbour on the same reference; the input pulls down. Values: common practice, no source. */
const sensor = (pull: 'down' | 'up'): LibraryCircuit => ({
  id: `sensor-pull-${pull}`, name: `Three-wire sensor, input pulled ${pull}`, purpose: 'The controller gives a reference to several sensors, reads the signal, and takes the ground back.', revision: 1, reference: 'battery -',
  values: {
    five: { value: 5, unit: 'V', spread: 0.01, what: 'reference' }, fiveInner: { value: 20, unit: 'ohm', spread: 0.2, what: 'what the reference can give' }, wire: { value: 0.3, unit: 'ohm', spread: 0.3, what: 'wire' },
    high: { value: 9000, unit: 'ohm', spread: 0.05, what: 'sensor, reference to signal' }, low: { value: 1000, unit: 'ohm', spread: 0.05, what: 'sensor, signal to ground' }, pull: { value: 1e5, unit: 'ohm', spread: 0.1, what: `pull-${pull} of the input` },
    other: { value: 5000, unit: 'ohm', spread: 0.1, what: 'the neighbour' }, none: { value: 1e9, unit: 'ohm', spread: 0, what: 'insulation' }, ground: { value: 0.05, unit: 'ohm', spread: 0.3, what: 'ground in the controller' },
  },
  elements: [
    { id: 'reference', kind: 'source', from: 'five emf', to: 'battery -', value: 'five', label: 'controller’s reference', symbol: 'module' }, { id: 'supply', kind: 'resistor', from: 'five emf', to: 'reference pin', value: 'fiveInner', label: 'controller’s supply', symbol: 'module' },
    { id: 'reference wire', kind: 'resistor', from: 'reference pin', to: 'reference at sensor', value: 'wire', label: 'reference wire', symbol: 'wire' }, { id: 'high side', kind: 'resistor', from: 'reference at sensor', to: 'signal at sensor', value: 'high', label: 'sensor, upper', symbol: 'plug' },
    { id: 'low side', kind: 'resistor', from: 'signal at sensor', to: 'ground at sensor', value: 'low', label: 'sensor, lower', symbol: 'plug' }, { id: 'signal wire', kind: 'resistor', from: 'signal at sensor', to: 'signal pin', value: 'wire', label: 'signal wire', symbol: 'wire' },
    { id: 'ground wire', kind: 'resistor', from: 'ground at sensor', to: 'ground pin', value: 'wire', label: 'ground wire', symbol: 'wire' }, { id: 'controller ground', kind: 'resistor', from: 'ground pin', to: 'battery -', value: 'ground', label: 'controller ground', symbol: 'ground' },
    { id: 'pull', kind: 'resistor', from: 'signal pin', to: pull === 'down' ? 'ground pin' : 'five emf', value: 'pull', label: `pull-${pull}`, symbol: 'input' }, { id: 'input', kind: 'resistor', from: 'signal pin', to: 'seen', value: 'wire', label: 'input', symbol: 'input' },
    { id: 'neighbour', kind: 'resistor', from: 'reference pin', to: 'ground pin', value: 'other', label: 'neighbour sensor', symbol: 'plug' }, { id: 'signal leak', kind: 'resistor', from: 'signal at sensor', to: 'battery -', value: 'none', label: 'rub-through', symbol: 'leak' },
    { id: 'jumper', kind: 'switch', from: 'reference at sensor', to: 'signal wire end', value: 'wire', label: 'jumper', closedIn: ['jumper'], symbol: 'relay' }, { id: 'jumper end', kind: 'switch', from: 'signal wire end', to: 'signal at sensor', value: 'wire', label: 'jumper', closedIn: ['jumper'], symbol: 'wire' },
  ],
  perCylinder: [],
  suspects: [
    { element: 'low side', fault: 'resistance', sizes: [1, 20], prior: 12, is: 'part', name: 'sensor', words: 'holds its signal down' }, { element: 'high side', fault: 'open', prior: 18, is: 'part', name: 'sensor', words: 'is open' }, { element: 'low side', fault: 'open', prior: 10, is: 'part', name: 'sensor', words: 'has lost its ground inside' },
    { element: 'high side', fault: 'resistance', sizes: [50, 1e3], prior: 6, is: 'part', name: 'sensor', words: 'pulls its signal up' }, { element: 'signal wire', fault: 'open', prior: 12, is: 'path', name: 'signal wire', words: 'is open' },
    { element: 'signal wire', fault: 'series', sizes: [1e3, 1e4, 1e5], prior: 8, is: 'path', name: 'signal wire', words: 'has resistance' }, { element: 'reference wire', fault: 'open', prior: 10, is: 'path', name: 'reference wire', words: 'is open' },
    { element: 'ground wire', fault: 'open', prior: 10, is: 'path', name: 'ground wire', words: 'is open' }, { element: 'ground wire', fault: 'series', sizes: [100, 1e3], prior: 8, is: 'path', name: 'ground wire', words: 'has resistance' }, { element: 'signal leak', fault: 'resistance', sizes: [1, 50], prior: 6, is: 'path', name: 'signal wire', words: 'rubs through to ground' },
    { element: 'neighbour', fault: 'resistance', sizes: [1, 10], prior: 5, is: 'shared', name: 'neighbour on the same reference', words: 'pulls the reference down' }, { element: 'supply', fault: 'open', prior: 3, is: 'input', name: 'controller’s reference', words: 'is gone' }, { element: 'input', fault: 'open', prior: 3, is: 'input', name: 'controller’s input', words: 'does not see its pin' },
  ],
  probes: [
    { test: 'sensor-reference', position: 'reference', mode: 'voltage', red: 'reference at sensor', black: 'battery -', state: 'key on' }, { test: 'sensor-ground', position: 'ground', mode: 'voltage', red: 'ground at sensor', black: 'battery -', state: 'key on' },
    { test: 'sensor-signal-rest', position: 'gauge or difference type', mode: 'voltage', red: 'signal at sensor', black: 'battery -', state: 'key on' },
    { test: 'sensor-unplugged', position: pull === 'down' ? 'pull-down input' : 'pull-up input', mode: 'voltage', red: 'signal at sensor', black: 'battery -', state: 'key on', opened: ['high side', 'low side'] },
    ...(pull === 'down' ? [{ test: 'sensor-bypass', position: 'reference to signal', mode: 'voltage' as const, red: 'seen', black: 'battery -', state: 'jumper', opened: ['high side', 'low side'] }] : []), { test: 'sensor-meter-scan', position: 'meter less scan tool', mode: 'voltage', red: 'signal at sensor', black: 'seen', state: 'key on' },
  ],
  drawing: {
    'five emf': { x: 0, y: 1 }, 'reference pin': { x: 2, y: 1 }, 'reference at sensor': { x: 5, y: 1 }, 'signal at sensor': { x: 5, y: 3 }, 'ground at sensor': { x: 5, y: 5 }, 'signal pin': { x: 2, y: 3 }, 'ground pin': { x: 2, y: 5 }, 'battery -': { x: 0, y: 6.4 }, seen: { x: 0.4, y: 3 }, 'signal wire end': { x: 6.4, y: 2 },
  },
});
export const SENSOR_PULL_DOWN = sensor('down');
export const SENSOR_PULL_UP = sensor('up');
