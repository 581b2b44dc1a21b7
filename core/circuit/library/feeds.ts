import type { LibraryCircuit } from './types';

/** The injector module's input side, as a model of every feed through fuse, relay and ground. Values: common practice, no source. */
export const MODULE_INPUT: LibraryCircuit = {
  id: 'module-input', name: 'Injector module, input side', purpose: 'Battery through fuse and relay to the module, and its ground back: below it the module is blamed for the battery.', revision: 1, reference: 'battery -', follows: 'systemVoltage',
  values: {
    battery: { value: 12.5, unit: 'V', spread: 0.02, what: 'charged battery' }, inner: { value: 0.01, unit: 'ohm', spread: 0.3, what: 'inner resistance of the battery' }, contact: { value: 0.005, unit: 'ohm', spread: 0.4, what: 'a good contact' },
    wire: { value: 0.01, unit: 'ohm', spread: 0.3, what: 'wire' }, load: { value: 0.8, unit: 'ohm', spread: 0.15, what: 'module while it works' },
  },
  elements: [
    { id: 'battery', kind: 'source', from: 'emf', to: 'battery -', value: 'battery', label: 'battery', symbol: 'battery' }, { id: 'inner', kind: 'resistor', from: 'emf', to: 'battery +', value: 'inner', label: 'battery’s inside', symbol: 'wire' },
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
    { test: 'feed-steps', position: 'behind the fuse', mode: 'voltage', red: 'fused', black: 'battery -', state: 'self-test' }, { test: 'feed-steps', position: 'behind the relay', mode: 'voltage', red: 'switched', black: 'battery -', state: 'self-test' },
    { test: 'battery-at-rest', position: 'battery', mode: 'voltage', red: 'battery +', black: 'battery -', state: 'off' }, { test: 'voltage-drop', position: 'feed', mode: 'voltage', red: 'battery +', black: 'feed pin', state: 'self-test' },
    { test: 'voltage-drop', position: 'ground', mode: 'voltage', red: 'ground pin', black: 'battery -', state: 'self-test' },
  ],
  drawing: { emf: { x: 0, y: 3 }, 'battery -': { x: 0, y: 6 }, 'battery +': { x: 0, y: 1 }, fused: { x: 1.8, y: 1 }, switched: { x: 3.6, y: 1 }, 'feed pin': { x: 5.4, y: 1 }, 'ground pin': { x: 5.4, y: 6 } },
};
