import type { LibraryCircuit } from './types';

const RISEN = [0.5, 1.5, 5, 20, 100, 500, 5e3, 1e5] as const;

/** Battery, fuse, relay, feed, under-cover harness, plugs, engine ground. Values: common practice, no source. */
export const GLOW_RELAY: LibraryCircuit = {
  id: 'glow-relay', name: 'Glow plugs behind one relay', purpose: 'One relay feeds all plugs; each has its wire under the cover and returns through the engine.', revision: 2, area: 'Glow plugs', reference: 'battery -', follows: 'systemVoltage',
  values: {
    battery: { value: 12.5, unit: 'V', spread: 0.02, what: 'charged battery' }, inner: { value: 0.006, unit: 'ohm', spread: 0.3, what: 'inner resistance of the battery' }, contact: { value: 0.002, unit: 'ohm', spread: 0.5, what: 'a good contact' },
    feed: { value: 0.004, unit: 'ohm', spread: 0.3, what: 'feed cable' }, wire: { value: 0.06, unit: 'ohm', spread: 0.5, what: 'wire under the cover' }, plug: { value: 0.65, unit: 'ohm', spread: 0.15, what: 'plug, cold', shelf: { test: 'glow-plug-resistance' } },
    strap: { value: 0.002, unit: 'ohm', spread: 0.4, what: 'engine ground strap' }, none: { value: 1e9, unit: 'ohm', spread: 0, what: 'insulation' },
  },
  elements: [
    { id: 'battery', kind: 'source', from: 'emf', to: 'battery -', value: 'battery', label: 'battery', symbol: 'battery' }, { id: 'inner', kind: 'resistor', from: 'emf', to: 'battery +', value: 'inner', label: 'battery’s inside', symbol: 'wire' },
    { id: 'fuse', kind: 'resistor', from: 'battery +', to: 'fused', value: 'contact', label: 'fuse', symbol: 'fuse' }, { id: 'relay', kind: 'switch', from: 'fused', to: 'switched', value: 'contact', label: 'relay', closedIn: ['commanded'], symbol: 'relay' },
    { id: 'feed', kind: 'resistor', from: 'switched', to: 'bus', value: 'feed', label: 'feed cable', symbol: 'wire' }, { id: 'strap', kind: 'resistor', from: 'engine', to: 'battery -', value: 'strap', label: 'engine ground', symbol: 'ground' },
  ],
  perCylinder: [
    { id: 'connector {}', kind: 'resistor', from: 'bus', to: 'cover {}', value: 'contact', label: 'cover connector {}', symbol: 'wire' }, { id: 'wire {}', kind: 'resistor', from: 'cover {}', to: 'plug {}', value: 'wire', label: 'wire {}', symbol: 'wire' },
    { id: 'plug {}', kind: 'resistor', from: 'plug {}', to: 'engine', value: 'plug', label: 'plug {}', symbol: 'plug' }, { id: 'leak {}', kind: 'resistor', from: 'cover {}', to: 'engine', value: 'none', label: 'rub-through {}', symbol: 'leak' },
  ],
  suspects: [
    { element: 'plug {}', fault: 'open', prior: 30, is: 'part', name: 'plug', words: 'is open' }, { element: 'plug {}', fault: 'resistance', sizes: [1.6, 3.5, 10, 50, 200, 1e3, 5e3], prior: 25, is: 'part', name: 'plug', words: 'has risen' },
    { element: 'plug {}', fault: 'resistance', sizes: [0.08, 0.2], prior: 2, is: 'part', name: 'plug', words: 'is shorted' }, { element: 'plug {}', fault: 'series', sizes: [1, 30], prior: 4, intermittent: true, is: 'part', name: 'plug', words: 'comes and goes' },
    { element: 'wire {}', fault: 'open', prior: 5, is: 'path', name: 'plug', words: 'is open' },
    { element: 'wire {}', fault: 'series', sizes: RISEN, prior: 8, is: 'path', name: 'plug', words: 'has resistance' }, { element: 'wire {}', fault: 'series', sizes: [2, 50], prior: 3, intermittent: true, is: 'path', name: 'plug', words: 'comes and goes' },
    { element: 'connector {}', fault: 'series', sizes: RISEN, prior: 6, is: 'path', name: 'plug', words: 'has resistance at the cover connector' }, { element: 'leak {}', fault: 'resistance', sizes: [0.05, 0.5, 5], prior: 2, is: 'path', name: 'plug', words: 'rubs through to ground' },
    { element: 'fuse', fault: 'open', prior: 10, is: 'shared', name: 'fuse', words: 'is blown' }, { element: 'relay', fault: 'open', prior: 18, is: 'shared', name: 'relay or control unit', words: 'does not close' },
    { element: 'relay', fault: 'series', sizes: [0.05, 0.2, 1], prior: 5, is: 'shared', name: 'relay or control unit', words: 'has a burnt contact' }, { element: 'feed', fault: 'series', sizes: [0.05, 0.3, 2, 50], prior: 6, is: 'shared', name: 'feed cable', words: 'has resistance' },
    { element: 'feed', fault: 'open', prior: 4, is: 'shared', name: 'feed cable', words: 'is open' }, { element: 'strap', fault: 'series', sizes: [0.02, 0.1, 0.5], prior: 5, is: 'shared', name: 'engine ground', words: 'has resistance' },
    { element: 'inner', fault: 'series', sizes: [0.03, 0.1, 0.4], prior: 10, is: 'shared', name: 'battery', words: 'is weak' },
  ],
  probes: [
    { test: 'glow-plug-resistance', position: '{}', mode: 'resistance', red: 'plug {}', black: 'engine', state: 'off', opened: ['wire {}'] },
    { test: 'glow-plug-through-harness', position: '{}', mode: 'resistance', red: 'cover {}', black: 'engine', state: 'off', opened: ['connector {}'] },
    { test: 'harness-ring-out', position: '{}', mode: 'resistance', red: 'cover {}', black: 'plug {}', state: 'off', opened: ['connector {}', 'plug {}'] },
    { test: 'glow-plug-current', position: '{}', mode: 'current', element: 'wire {}', state: 'commanded' }, { test: 'glow-feed-voltage', position: '{}', mode: 'voltage', red: 'plug {}', black: 'battery -', state: 'commanded' },
    { test: 'glow-supply', position: 'behind the fuse', mode: 'voltage', red: 'fused', black: 'battery -', state: 'commanded' }, { test: 'glow-supply', position: 'relay or unit out', mode: 'voltage', red: 'switched', black: 'battery -', state: 'commanded' },
    { test: 'voltage-drop', position: 'ground', mode: 'voltage', red: 'engine', black: 'battery -', state: 'commanded' },
    { test: 'battery-at-rest', position: 'battery', mode: 'voltage', red: 'battery +', black: 'battery -', state: 'off' },
  ],
  drawing: {
    emf: { x: 0, y: 3 }, 'battery -': { x: 0, y: 6 }, 'battery +': { x: 0, y: 1 }, fused: { x: 1.4, y: 1 }, switched: { x: 2.8, y: 1 }, bus: { x: 4, y: 1 }, engine: { x: 4, y: 6 }, 'cover {}': { x: 4, y: 2.4, dx: 1.3 }, 'plug {}': { x: 4, y: 4.2, dx: 1.3 },
  },
};

/** Each plug behind an output of its own, whose current the unit measures in a thousandth of a thousandth beside it. Values: common practice, no source. */
export const GLOW_UNIT: LibraryCircuit = {
  id: 'glow-unit', name: 'Glow plugs, each switched by the control unit', purpose: 'The unit has an output for each plug and reports its current: what it reports against a clamp tells wire from unit.', revision: 1, area: 'Glow plugs', reference: 'battery -', follows: 'systemVoltage',
  values: {
    battery: { value: 12.5, unit: 'V', spread: 0.02, what: 'charged battery' }, inner: { value: 0.006, unit: 'ohm', spread: 0.3, what: 'inner resistance of the battery' }, contact: { value: 0.002, unit: 'ohm', spread: 0.5, what: 'a good contact' },
    feed: { value: 0.004, unit: 'ohm', spread: 0.3, what: 'feed cable' }, wire: { value: 0.08, unit: 'ohm', spread: 0.4, what: 'wire to the plug' }, plug: { value: 0.65, unit: 'ohm', spread: 0.15, what: 'plug, cold', shelf: { test: 'glow-plug-resistance' } },
    strap: { value: 0.002, unit: 'ohm', spread: 0.4, what: 'engine ground strap' }, none: { value: 1e9, unit: 'ohm', spread: 0, what: 'insulation' }, output: { value: 0.01, unit: 'ohm', spread: 0.05, what: 'output, switched on' }, mirror: { value: 1e4, unit: 'ohm', spread: 0.02, what: 'where the unit measures' },
  },
  elements: [
    { id: 'battery', kind: 'source', from: 'emf', to: 'battery -', value: 'battery', label: 'battery', symbol: 'battery' }, { id: 'inner', kind: 'resistor', from: 'emf', to: 'battery +', value: 'inner', label: 'battery’s inside', symbol: 'wire' },
    { id: 'fuse', kind: 'resistor', from: 'battery +', to: 'fused', value: 'contact', label: 'fuse', symbol: 'fuse' }, { id: 'feed', kind: 'resistor', from: 'fused', to: 'unit pin', value: 'feed', label: 'feed cable', symbol: 'wire' },
    { id: 'strap', kind: 'resistor', from: 'engine', to: 'battery -', value: 'strap', label: 'engine ground', symbol: 'ground' },
  ],
  perCylinder: [
    { id: 'output {}', kind: 'switch', from: 'unit pin', to: 'channel {}', value: 'contact', label: 'output {}', closedIn: ['commanded'], symbol: 'relay' }, { id: 'channel {}', kind: 'resistor', from: 'channel {}', to: 'out {}', value: 'output', label: 'output {}', symbol: 'wire' },
    { id: 'measures {}', kind: 'resistor', from: 'channel {}', to: 'out {}', value: 'mirror', label: 'what the unit measures {}', symbol: 'hidden' }, { id: 'wire {}', kind: 'resistor', from: 'out {}', to: 'plug {}', value: 'wire', label: 'wire {}', symbol: 'wire' },
    { id: 'plug {}', kind: 'resistor', from: 'plug {}', to: 'engine', value: 'plug', label: 'plug {}', symbol: 'plug' }, { id: 'leak {}', kind: 'resistor', from: 'out {}', to: 'engine', value: 'none', label: 'rub-through {}', symbol: 'leak' },
  ],
  suspects: [
    { element: 'plug {}', fault: 'open', prior: 30, is: 'part', name: 'plug', words: 'is open' }, { element: 'plug {}', fault: 'resistance', sizes: [1.6, 3.5, 10, 50, 200, 1e3, 5e3], prior: 25, is: 'part', name: 'plug', words: 'has risen' },
    { element: 'plug {}', fault: 'resistance', sizes: [0.08, 0.2], prior: 2, is: 'part', name: 'plug', words: 'is shorted' }, { element: 'plug {}', fault: 'series', sizes: [1, 30], prior: 4, intermittent: true, is: 'part', name: 'plug', words: 'comes and goes' },
    { element: 'wire {}', fault: 'open', prior: 7, is: 'path', name: 'plug', words: 'is open' }, { element: 'wire {}', fault: 'series', sizes: RISEN, prior: 10, is: 'path', name: 'plug', words: 'has resistance' }, { element: 'wire {}', fault: 'series', sizes: [2, 50], prior: 3, intermittent: true, is: 'path', name: 'plug', words: 'comes and goes' },
    { element: 'leak {}', fault: 'resistance', sizes: [0.05, 0.5, 5], prior: 2, is: 'path', name: 'plug', words: 'rubs through to ground' }, { element: 'output {}', fault: 'open', prior: 4, is: 'input', name: 'output', words: 'does not switch' }, { element: 'measures {}', fault: 'open', prior: 2, is: 'input', name: 'output', words: 'reports no current that flows' },
    { element: 'fuse', fault: 'open', prior: 10, is: 'shared', name: 'fuse', words: 'is blown' }, { element: 'feed', fault: 'series', sizes: [0.05, 0.3, 2, 50], prior: 6, is: 'shared', name: 'feed cable', words: 'has resistance' }, { element: 'feed', fault: 'open', prior: 4, is: 'shared', name: 'feed cable', words: 'is open' },
    { element: 'strap', fault: 'series', sizes: [0.02, 0.1, 0.5], prior: 5, is: 'shared', name: 'engine ground', words: 'has resistance' }, { element: 'inner', fault: 'series', sizes: [0.03, 0.1, 0.4], prior: 10, is: 'shared', name: 'battery', words: 'is weak' },
  ],
  probes: [
    { test: 'glow-current-feedback', position: '{}', mode: 'current', element: 'measures {}', scale: 1e6, state: 'commanded' }, { test: 'glow-plug-current', position: '{}', mode: 'current', element: 'wire {}', state: 'commanded' },
    { test: 'glow-plug-resistance', position: '{}', mode: 'resistance', red: 'plug {}', black: 'engine', state: 'off', opened: ['wire {}'] }, { test: 'glow-plug-through-harness', position: '{}', mode: 'resistance', red: 'out {}', black: 'engine', state: 'off', opened: ['channel {}', 'measures {}'] },
    { test: 'harness-ring-out', position: '{}', mode: 'resistance', red: 'out {}', black: 'plug {}', state: 'off', opened: ['channel {}', 'measures {}', 'plug {}'] }, { test: 'glow-feed-voltage', position: '{}', mode: 'voltage', red: 'plug {}', black: 'battery -', state: 'commanded' },
    { test: 'glow-supply', position: 'behind the fuse', mode: 'voltage', red: 'fused', black: 'battery -', state: 'commanded' }, { test: 'glow-supply', position: 'relay or unit in', mode: 'voltage', red: 'unit pin', black: 'battery -', state: 'commanded' },
    { test: 'voltage-drop', position: 'ground', mode: 'voltage', red: 'engine', black: 'battery -', state: 'commanded' }, { test: 'battery-at-rest', position: 'battery', mode: 'voltage', red: 'battery +', black: 'battery -', state: 'off' },
  ],
  drawing: { emf: { x: 0, y: 3 }, 'battery -': { x: 0, y: 6 }, 'battery +': { x: 0, y: 1 }, fused: { x: 1.6, y: 1 }, 'unit pin': { x: 3.6, y: 1 }, engine: { x: 3.6, y: 6 }, 'channel {}': { x: 3.6, y: 2, dx: 1.3 }, 'out {}': { x: 3.6, y: 3, dx: 1.3 }, 'plug {}': { x: 3.6, y: 4.4, dx: 1.3 } },
};
