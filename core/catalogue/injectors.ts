import { CAUTIONS, ohmTest, STATES, voltTest } from './shared';
import type { TestDefinition } from './types';

/** Common practice throughout, no source. */
export const INJECTORS: readonly TestDefinition[] = [
  ohmTest({
    id: 'harness-ring-out', name: 'Under-cover harness, end to end', area: 'Harness', part: 'conductor', positions: 'cylinders', minutes: 8, connection: 'end-to-end',
    purpose: 'Rings out each conductor with an ohmmeter: a beeper sounds at several ohms.', cautions: [CAUTIONS.injectorVoltage, CAUTIONS.noPiercing],
    probe: 'One probe on the cover’s connector pin, one on the terminal at the part.', states: [STATES.unplugged],
    steps: ['Both ends off.', 'Zero the leads.', 'Each conductor end to end; move the loom while watching the display.'],
    proves: 'That each conductor is whole while it lies as it lies.', cannotProve: 'That it is whole under load, or not in touch with its neighbour or ground.',
    advice: [{ verdict: ['unsteady'], say: 'It breaks while moved: look for rubbing, a pinched wire, a pin pushed back.' }],
  }),
  ohmTest({
    id: 'injector-resistance', name: 'Injectors, resistance (solenoid)', area: 'Injectors', part: 'injector', positions: 'cylinders', minutes: 10, cautions: [CAUTIONS.injectorVoltage],
    purpose: 'Finds a coil that is open, shorted or unlike its neighbours.', probe: 'Across the two terminals of the injector, connector off.', states: [STATES.unplugged, STATES.cold],
    steps: ['Key off; wait until the module has let its voltage go.', 'Zero the leads.', 'Each injector across its terminals.'],
    proves: 'That the coil conducts as its neighbours do.', cannotProve: 'That the injector opens, seals or sprays.',
    advice: [{ pattern: ['group'], say: 'All of one group: look at what it shares, driver and common wire, before the injectors.' }],
  }),
  ohmTest({
    id: 'injector-insulation', name: 'Injectors, insulation to body', area: 'Injectors', part: 'injector', positions: 'cylinders', minutes: 6, cautions: [CAUTIONS.injectorVoltage],
    purpose: 'Finds a coil or wire that touches the body.', probe: 'One terminal of the injector to bare engine metal, connector off. Overload is good.',
    steps: ['Connector off.', 'Each terminal to the body on the highest range.'], states: [STATES.unplugged],
    proves: 'That nothing conducts to the body at the meter’s own small voltage.', cannotProve: 'That the insulation holds at working voltage.',
    advice: [{ verdict: ['low', 'short'], say: 'Unplug the part and read the wire alone: what remains is the wire.' }],
  }),
  voltTest({
    id: 'injector-module-supply', name: 'Injector module, boosted supply in every state', area: 'Injector module', part: 'module', minutes: 15, engine: 'each state in turn',
    positions: ['key on', 'self-test buzz', 'cranking', 'idle', 'raised idle (cold)'], states: [STATES.batteryCharged, STATES.pluggedIn], cautions: [CAUTIONS.injectorVoltage, CAUTIONS.running],
    purpose: 'The supply must hold in every state; raised idle with a cold engine is the hardest.', probe: 'At the module’s test point; the specification says where. Read the lowest value of each state.',
    steps: ['Battery and the module’s own feed and ground first.', 'Each state in turn, lowest value.', 'After key off the voltage decays: a reading then means nothing.'],
    proves: 'That the boost converter holds under each load it was read in.', cannotProve: 'Anything about a state that was not read: one good value at key-on proves little.',
    advice: [
      { pattern: ['incomplete'], say: 'The module stays a suspect until the hard states are read: cranking, and raised idle with the engine cold.' },
      { verdict: ['low'], say: 'Before the module is blamed: battery voltage at its feed and a clean ground, under the same load.' },
      { pattern: ['good'], say: 'The voltage holds in every state. If the engine still runs rough, go on to the injectors.' },
    ],
  }),
];
