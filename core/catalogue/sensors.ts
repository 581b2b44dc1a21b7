import { CAUTIONS, ohmTest, STATES, voltTest } from './shared';
import type { TestDefinition } from './types';

/** Common practice throughout, no source. */
export const SENSORS: readonly TestDefinition[] = [
  voltTest({
    id: 'sensor-reference', name: 'Three-wire sensor, reference', area: 'Sensors', part: 'reference', positions: ['reference'], minutes: 2, states: [STATES.keyOn, STATES.pluggedIn], cautions: [CAUTIONS.fiveVolts],
    purpose: 'Shows whether the controller’s 5 V reaches the sensor.', probe: 'Back-probe the reference wire, black on the battery’s negative post.',
    steps: ['Key on, sensor plugged in.', 'Back-probe, wait for a steady value.'], proves: 'That wire and supply deliver.', cannotProve: 'That the sensor is good.',
    advice: [{ verdict: ['low', 'short'], say: 'Unplug the sensors that share this reference, one after the other: if it recovers, the one just unplugged pulls it down.' }],
  }),
  voltTest({
    id: 'sensor-ground', name: 'Three-wire sensor, ground', area: 'Sensors', part: 'ground', positions: ['ground'], minutes: 2, states: [STATES.keyOn, STATES.pluggedIn], cautions: [CAUTIONS.fiveVolts],
    purpose: 'Finds a ground that lifts the signal with it, or that is open.', probe: 'Back-probe the ground wire, black on the battery’s negative post.',
    steps: ['Key on, sensor plugged in.', 'Move the probe a little: an open pin wanders.'], proves: 'That the ground is at battery negative with the sensor’s own small current.', cannotProve: 'That it carries more: load it with a test lamp.',
    advice: [{ verdict: ['high', 'unsteady'], say: 'Load the ground pin with a test lamp from battery positive: a volt lost is a poor ground.' }],
  }),
  ohmTest({
    id: 'position-sensor-primary', name: 'Position sensor, primary coil', area: 'Sensors', part: 'coil', positions: ['primary'], minutes: 3, probe: 'Across the two pins, connector off.',
    purpose: 'Finds an open or shorted coil, and one that will not settle.', steps: ['Connector off.', 'Wait: a value that does not settle is a fail even inside the limits.'],
    proves: 'That the coil is whole.', cannotProve: 'That the gap and the tip are right.', advice: [{ pattern: ['good'], say: 'Look at the tip for debris, and at the gap.' }],
  }),
  ohmTest({
    id: 'position-sensor-secondary', name: 'Position sensor, secondary coil', area: 'Sensors', part: 'coil', positions: ['secondary'], minutes: 3, probe: 'Across the two pins, connector off.',
    purpose: 'Finds an open or shorted coil, and one that will not settle.', steps: ['Connector off.', 'Wait: a value that does not settle is a fail even inside the limits.'],
    proves: 'That the coil is whole.', cannotProve: 'That the gap and the tip are right.', advice: [{ pattern: ['good'], say: 'Look at the tip for debris, and at the gap.' }],
  }),
  ohmTest({
    id: 'vane-actuator-coil', name: 'Vane actuator, coil', area: 'Sensors', part: 'coil', positions: ['coil'], minutes: 3, probe: 'Across the two pins of the solenoid, connector off.',
    purpose: 'Tells a dead coil from a stuck mechanism.', steps: ['Connector off.', 'Zero the leads, then across the coil.'], proves: 'That the coil is whole.', cannotProve: 'That the mechanism moves.',
    advice: [{ pattern: ['good'], say: 'Coil good: command it from the scan tool. Sent and nothing moves means the mechanism is stuck.' }],
  }),
  ohmTest({
    id: 'low-side-driver', name: 'Low-side driver, pin to ground', area: 'Controller', part: 'driver', positions: ['driver pin'], minutes: 5, connection: 'breakout', cautions: [],
    purpose: 'Tells a shorted or open driver. The value is an order of magnitude.', probe: 'Through the breakout harness, pin to the ground stud that the maker names; a painted bracket is no ground.', states: [STATES.unplugged],
    steps: ['Key off, breakout harness fitted.', 'Pin to ground, highest range first.'], proves: 'That the driver is neither shorted nor open.', cannotProve: 'That it switches.',
    advice: [{ verdict: ['short', 'open'], say: 'Read it again at another ground point before the controller is condemned.' }],
  }),
];
