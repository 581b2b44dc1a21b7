import { CAUTIONS, bySystem, ohm, ohmTest, otherTest, seenTest, STATES, thumb, volt, voltTest } from './shared';
import type { TestDefinition } from './types';

const AREA = 'Injectors';
const RPM = { quantity: 'frequency', unit: 'rpm', tool: { kind: 'scan tool', mode: 'cut-out, change of speed' } } as const;
const CUT_OUT = {
  ...RPM, area: AREA, part: 'injector', people: 2, cautions: [CAUTIONS.injectorVoltage, CAUTIONS.highPressureFuel, CAUTIONS.running, CAUTIONS.roadTest], probe: 'From the scan tool; enter by how much the speed drops when that cylinder is cut.',
  cannotProve: 'Whether a dead cylinder is its injector, its wire or the cylinder itself: swap, and measure.', shared: 'fuel, air and the controller’s supply',
} as const;

/** Common practice throughout, no source. */
export const INJECTORS: readonly TestDefinition[] = [
  ohmTest({
    id: 'injector-resistance', name: 'Injectors, resistance (solenoid)', area: AREA, part: 'injector', minutes: 10, cautions: [CAUTIONS.injectorVoltage],
    purpose: 'Finds a coil that is open, shorted or unlike its neighbours.', probe: 'Across the two terminals of the injector, connector off.', states: [STATES.unplugged, STATES.cold],
    steps: ['Key off; wait until the module has let its voltage go.', 'Zero the leads.', 'Each injector across its terminals.'],
    proves: 'That the coil conducts as its neighbours do.', cannotProve: 'That the injector opens, seals or sprays.', shared: 'meter and leads',
    advice: [{ pattern: ['group'], say: 'All of one group: look at what it shares, driver and common wire, before the injectors.' }],
    rules: thumb(ohm({ lower: 0.2, upper: 10, shortBelow: 0.05, openAbove: 1e4, material: 'copper', neighbours: { maxRatio: 1.3 } })),
  }),
  ohmTest({
    id: 'injector-through-harness', name: 'Injectors, resistance through the harness', area: AREA, part: 'injector', minutes: 5, cautions: [CAUTIONS.injectorVoltage], connection: 'through-harness',
    purpose: 'Reads coil, wires and connectors together from the module’s connector: one place for the whole set.', probe: 'At the harness side of the module’s connector: the common pin and the driver pin of the cylinder.', states: [STATES.unplugged, STATES.cold],
    steps: ['Key off; wait until the module has let its voltage go.', 'Connector off the module, injectors plugged in.', 'Zero the leads; each driver pin against its common.'],
    proves: 'That coil, wires and connectors conduct as their neighbours do.', cannotProve: 'Whether what is too much is coil or wire: read the coil by itself.', shared: 'common wire, meter and leads',
    advice: [{ pattern: ['group'], say: 'All of one group: the common wire or the driver that it shares.' }, { verdict: ['high', 'open'], say: 'Read {suspects} at the injector itself: the difference is the harness.' }],
    rules: thumb(ohm({ lower: 0.2, upper: 11, shortBelow: 0.05, openAbove: 1e4, material: 'copper', neighbours: { maxRatio: 1.5 } })),
  }),
  ohmTest({
    id: 'injector-resistance-piezo', name: 'Injectors, resistance (piezo)', area: AREA, part: 'injector', minutes: 10, cautions: [CAUTIONS.injectorVoltage], states: [STATES.unplugged, STATES.moduleDischarged, STATES.rightRange],
    purpose: 'Reads the bleed resistor beside the stack: ohms or a few kilohms is a failed stack.', probe: 'Across the two terminals of the injector, connector off.',
    steps: ['Key off; wait until the driver has let its voltage go.', 'Highest range; wait until the stack has charged and the display stands.', 'Each injector across its terminals.'],
    proves: 'That stack and bleed resistor are neither shorted nor open.', cannotProve: 'That the stack moves, or that the injector seals.', shared: 'meter and leads',
    advice: [{ verdict: ['low', 'short'], say: 'Unplug {suspects} and read the part alone: what remains is the stack.' }],
    rules: thumb(ohm({ lower: 150e3, upper: 220e3, recheckMargin: 0.1, shortBelow: 5000, openAbove: 2e6, neighbours: { maxRatio: 1.2 } })),
  }),
  ohmTest({
    id: 'injector-insulation', name: 'Injectors, insulation to body', area: AREA, part: 'injector', minutes: 6, cautions: [CAUTIONS.injectorVoltage],
    purpose: 'Finds a coil or wire that touches the body.', probe: 'One terminal of the injector to bare engine metal, connector off. Overload is good.',
    steps: ['Connector off.', 'Each terminal to the body on the highest range.'], states: [STATES.unplugged, STATES.rightRange],
    proves: 'That nothing conducts to the body at the meter’s own small voltage.', cannotProve: 'That the insulation holds at working voltage.',
    advice: [{ verdict: ['low', 'short'], say: 'Unplug the part and read the wire alone: what remains is the wire.' }],
    rules: thumb(ohm({ lower: 1e6, shortBelow: 100 })),
  }),
  voltTest({
    id: 'injector-feed-voltage', name: 'Injectors, supply at the driver pins', area: AREA, part: 'supply', layout: 'cylinders', minutes: 6, states: [STATES.batteryCharged, STATES.pluggedIn], cautions: [CAUTIONS.injectorVoltage], condition: { key: 'on', engine: 'self-test' },
    purpose: 'Shows whether the boosted supply leaves the module for each injector.', probe: 'Back-probe the supply pin of each injector at the module with insulated probes, black on the ground that the maker names.', steps: ['Insulated probes on before the key is turned; hands clear.', 'Self-test running; read each supply pin.'],
    proves: 'That the upper driver conducts and the module feeds it.', cannotProve: 'That it reaches the injector: the wire comes after.', advice: [{ pattern: ['group'], say: 'A pair that shares a driver: that driver, before any wire.' }], rules: thumb(volt({ lower: 45, watchLower: 46, upper: 49.5 })),
  }),
  seenTest({
    id: 'injector-self-test', name: 'Injectors, electrical self-test', area: AREA, part: 'injector', minutes: 4, tool: { kind: 'scan tool', mode: 'self-test, key on, engine off' }, connection: 'plugged-in', condition: { key: 'on', engine: 'stopped' },
    states: [STATES.keyOn, STATES.batteryCharged], cautions: [CAUTIONS.injectorVoltage], purpose: 'The controller drives each injector in turn and says which circuit answers.', probe: 'From the scan tool; listen at each injector.',
    steps: ['Key on, engine stopped.', 'Run the self-test; p or f for each as the tool reports it.', 'No buzz at all is a fault of its own and comes first.'], shared: 'module, its supply and the common wire',
    proves: 'That the circuit of each injector answers electrically.', cannotProve: 'That the injector sprays, or that it works hot.', advice: [{ pattern: ['all'], say: 'Not one answers: module, its feed and ground, before any injector.' }, { pattern: ['group'], say: 'All of one bank: its driver and common wire first.' }],
  }),
  otherTest({
    ...CUT_OUT, id: 'cut-out-fault-present', name: 'Cut-out, with the fault present', minutes: 12, states: [STATES.faultPresent],
    purpose: 'A working cylinder makes it worse when cut; the dead one makes no difference.', steps: ['Bring the fault on: load, temperature, road.', 'Cut one cylinder at a time, same speed, same load.', 'Enter the drop in speed.'],
    proves: 'Which cylinder does no work while the fault is there.', advice: [{ verdict: ['low', 'odd'], say: 'Swap the injector of {suspects} with a neighbour, clear, and repeat.' }],
    rules: thumb({ quantity: 'frequency', unit: 'rpm', lower: 5, neighbours: { maxRatio: 2 } }),
  }),
  otherTest({
    ...CUT_OUT, id: 'cut-out-healthy', name: 'Cut-out, without the fault', minutes: 10, states: [],
    purpose: 'What each cylinder does when all is well: to be held against the same test with the fault.', steps: ['Engine warm, idle steady.', 'Cut one cylinder at a time.', 'Enter the drop in speed.'],
    proves: 'How much each cylinder works now.', advice: [{ pattern: ['good'], say: 'All work now. Repeat it while the fault is there: on the road, under load, with a second person.' }],
    rules: thumb({ quantity: 'frequency', unit: 'rpm', lower: 5, neighbours: { maxRatio: 2 } }),
  }),
  otherTest({
    id: 'injector-return-flow', name: 'Injectors, return flow', area: AREA, part: 'injector', quantity: 'volume', unit: 'mL', tool: { kind: 'measuring glass', mode: 'return flow in a stated time' }, minutes: 20, states: [],
    cautions: [CAUTIONS.highPressureFuel, CAUTIONS.injectorVoltage, CAUTIONS.running], purpose: 'An injector that leaks back starves the rail and its own cylinder.', probe: 'A glass at each return nipple, the return line closed off.',
    steps: ['Engine stopped and pressure gone before a return line is opened.', 'Same time and speed for all.', 'Read each glass at the same moment.'],
    proves: 'How much each injector lets back.', cannotProve: 'That its spray is good.', shared: 'rail and pump',
    advice: [{ verdict: ['high', 'odd'], say: 'Swap or blank {suspects} and see whether the rail recovers before it is replaced.' }], rules: thumb({ quantity: 'volume', unit: 'mL', neighbours: { maxRatio: 2 } }),
  }),
];

/** The module that makes tens of volts for the injectors. */
export const INJECTOR_MODULE: readonly TestDefinition[] = [
  voltTest({
    id: 'module-input', name: 'Injector module, feed and ground under load', area: 'Injector module', part: 'input', layout: 'pins', positions: ['feed', 'ground'], minutes: 5, states: [STATES.batteryCharged, STATES.keyOn, STATES.pluggedIn], cautions: [CAUTIONS.injectorVoltage],
    condition: { key: 'on', engine: 'self-test' }, purpose: 'The module is blamed for the battery unless its input is proven first.', probe: 'Back-probe at the module, black on the battery’s negative post.', probes: { feed: 'Red on the module’s feed pin, self-test running.', ground: 'Red on the module’s ground pin, self-test running.' },
    steps: ['Battery first.', 'Read both while the self-test or the running engine loads the module.'], proves: 'That the module is fed and grounded under its own load.', cannotProve: 'Anything about what it makes of it.',
    advice: [{ verdict: ['low', 'high'], say: 'Follow {suspects} back to the battery with the load on; the module waits.' }],
    rules: bySystem(volt({ lower: 11.5, upper: 15, byPosition: { ground: { lower: -0.1, upper: 0.2, watchUpper: 0.1 } } }), volt({ lower: 23, upper: 30, byPosition: { ground: { lower: -0.1, upper: 0.2, watchUpper: 0.1 } } })),
  }),
  voltTest({
    id: 'injector-module-supply', name: 'Injector module, boosted supply in every state', area: 'Injector module', part: 'module', minutes: 15, layout: 'states',
    positions: ['key on', 'self-test buzz', 'cranking', 'idle', 'raised idle (cold)'], states: [STATES.batteryCharged, STATES.pluggedIn, STATES.engineCold], cautions: [CAUTIONS.injectorVoltage, CAUTIONS.running],
    condition: { key: 'on', engine: 'each state in turn' }, tool: { kind: 'multimeter', mode: 'volts DC, lowest value' },
    purpose: 'The supply must hold in every state; raised idle with a cold engine is the hardest.', probe: 'At the module’s test point; the specification says where. Read the lowest value of each state.',
    steps: ['Battery and the module’s own feed and ground first.', 'Clean the cover before it is opened; moisture kills modules.', 'Each state in turn, lowest value.', 'After key off the voltage decays: a reading then means nothing here.'],
    proves: 'That the boost converter holds under each load it was read in.', cannotProve: 'Anything about a state that was not read: one good value at key-on proves little.',
    advice: [
      { pattern: ['incomplete'], say: 'The module stays a suspect until the hard states are read: cranking, and raised idle with the engine cold.' },
      { verdict: ['low'], say: 'Before the module is blamed: battery voltage at its feed and a clean ground, under the same load.' },
      { pattern: ['good'], say: 'The voltage holds in every state. If the engine still runs rough, go on to the injectors.' },
    ],
    rules: thumb(volt({ lower: 45, watchLower: 46 })),
  }),
  voltTest({
    id: 'module-decay', name: 'Injector module, decay after key off', area: 'Injector module', part: 'module', minutes: 4, layout: 'sweep', positions: ['at key off', '10 s', '30 s', '60 s'], states: [STATES.batteryCharged, STATES.pluggedIn], cautions: [CAUTIONS.injectorVoltage],
    condition: { key: 'off', engine: 'stopped' }, purpose: 'Shows that the voltage goes, and when it is safe to unplug.', probe: 'At the module’s test point, from the moment of key off.', steps: ['Key off and count.', 'Read at the stated seconds.', 'Do not touch the injector connectors before it is gone.'],
    proves: 'How fast the stored voltage goes on this module.', cannotProve: 'That the converter is good: that is read with the key on.',
    advice: [{ verdict: ['unsteady'], say: 'It should only fall: is the key off, and is something still asking for injection?' }],
    rules: thumb(volt({ sequence: { direction: 'falling' } })),
  }),
  seenTest({
    id: 'module-buzz', name: 'Injector module, buzz heard', area: 'Injector module', part: 'module', positions: ['buzz'], minutes: 1, condition: { key: 'on', engine: 'stopped' }, connection: 'plugged-in', states: [STATES.keyOn, STATES.batteryCharged], cautions: [CAUTIONS.injectorVoltage],
    purpose: 'No buzz at all is a fault of its own and comes first.', probe: 'Ear at the cover during the self-test; p where the injectors buzz.', steps: ['Key on, engine stopped.', 'Start the self-test and listen.'],
    proves: 'That the module tries to drive them.', cannotProve: 'That every injector answers.', advice: [{ verdict: ['failed'], say: 'No buzz: module feed, ground, fuse and the controller’s command before anything else.' }],
  }),
];
