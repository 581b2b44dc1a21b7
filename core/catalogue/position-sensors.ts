import { bySystem, CAUTIONS, ohm, ohmTest, otherTest, seenTest, STATES, thumb, volt, voltTest } from './shared';
import type { TestDefinition } from './types';

const AREA = 'Position sensors';
const coil = (which: 'primary' | 'secondary', limits: Parameters<typeof ohm>[0]): TestDefinition => ohmTest({
  id: `position-sensor-${which}`, name: `Position sensor, ${which} coil`, area: AREA, part: 'coil', positions: [which], minutes: 3, probe: 'Across the two pins, connector off.',
  purpose: 'Finds an open or shorted coil, and one that will not settle.', steps: ['Connector off.', 'Wait: a value that does not settle is a fail even inside the limits.'],
  proves: 'That the coil is whole.', cannotProve: 'That the gap and the tip are right.', advice: [{ pattern: ['good'], say: 'Look at the tip for debris, and at the gap.' }, { verdict: ['unsteady'], say: 'It does not settle: that is a fail even inside the limits.' }], rules: thumb(ohm(limits)),
});

/** Speed and timing sensors, sweeps of position sensors. Common practice, no source. */
export const POSITION_SENSORS: readonly TestDefinition[] = [
  coil('primary', { lower: 75, upper: 150, openAbove: 1e5, shortBelow: 5, steadyWithin: 2, material: 'copper' }),
  coil('secondary', { lower: 600, upper: 1800, openAbove: 1e5, shortBelow: 20, steadyWithin: 20, material: 'copper' }),
  ohmTest({
    id: 'position-sensor-through-harness', name: 'Position sensor, coil through the harness', area: AREA, part: 'coil and wires', positions: ['at the controller'], minutes: 4, connection: 'through-harness', probe: 'Across the two pins of the controller’s connector, controller unplugged, sensor plugged in.',
    purpose: 'The coil as the controller sees it: wires and connectors are in the reading.', steps: ['Key off, controller unplugged.', 'Across its two pins; move the cable while watching.'], proves: 'That coil, wires and connectors conduct.', cannotProve: 'Which of them is at fault: read the coil by itself.',
    advice: [{ verdict: ['unsteady'], say: 'It breaks while moved: the cable, not the coil.' }], rules: thumb(ohm({ lower: 600, upper: 1810, openAbove: 1e5, shortBelow: 20, steadyWithin: 20, material: 'copper' })),
  }),
  voltTest({
    id: 'hall-supply', name: 'Hall sensor, supply and switching', area: AREA, part: 'sensor', layout: 'pins', positions: ['supply', 'ground', 'signal off the tooth', 'signal at the tooth'], minutes: 6, people: 2, states: [STATES.keyOn, STATES.pluggedIn], cautions: [CAUTIONS.fiveVolts, CAUTIONS.crankOnly],
    purpose: 'A Hall type has a supply and switches; its coil resistance does not exist.', probe: 'Back-probe each pin; a second person bars the engine by hand.', steps: ['Supply and ground first.', 'Key out and battery isolated while barring; key on to read.', 'The signal must switch between about 0 and 5 V.'],
    proves: 'That it is fed and switches.', cannotProve: 'That it switches at speed, or without noise.', advice: [{ verdict: ['low', 'high'], say: 'Supply and ground good and no switching: gap and tip, then the sensor.' }],
    rules: thumb(volt({ lower: 4.75, upper: 5.25, byPosition: { ground: { lower: -0.1, upper: 0.1 }, 'signal off the tooth': { lower: 4.5, upper: 5.25 }, 'signal at the tooth': { lower: -0.1, upper: 0.5 } } })),
  }),
  otherTest({
    id: 'position-sensor-gap', name: 'Position sensor, gap', area: AREA, part: 'gap', quantity: 'length', unit: 'mm', tool: { kind: 'feeler gauge', mode: 'not magnetic' }, positions: ['gap'], minutes: 6, connection: 'at-part', condition: { key: 'off', engine: 'stopped' }, states: [STATES.keyOff], cautions: [CAUTIONS.crankOnly],
    purpose: 'A gap too wide loses the signal at low speed.', probe: 'Feeler of brass between tip and tooth.', steps: ['Key out, battery isolated, bar a tooth before the tip.', 'Feeler between tip and tooth.'], proves: 'That the gap is as specified.', cannotProve: 'That the sensor works.',
    advice: [{ verdict: ['high', 'low'], say: 'Seat and bracket first: is something under the flange?' }], rules: [],
  }),
  seenTest({
    id: 'position-sensor-tip', name: 'Position sensor, tip and cable', area: AREA, part: 'sensor', layout: 'places', positions: ['tip', 'cable', 'oil in the cable', 'seat'], minutes: 5,
    purpose: 'Debris on the tip, oil through the cable or a trapped wire make faults that set no code.', probe: 'Take it out, look, wipe.', steps: ['Tip: metal debris.', 'Cable: trapped, rubbed.', 'Oil creeping out of the connector.', 'Seat clean, seal whole.'],
    proves: 'What can be seen.', cannotProve: 'That it works hot.', advice: [{ verdict: ['failed'], say: 'Wipe or mend {suspects}, then read the coil again: it may have been all.' }],
  }),
  voltTest({
    id: 'position-sweep', name: 'Position sensor, sweep from stop to stop', area: AREA, part: 'track', layout: 'sweep', positions: ['0 %', '20 %', '40 %', '60 %', '80 %', '100 %'], minutes: 4, states: [STATES.keyOn, STATES.pluggedIn], cautions: [CAUTIONS.fiveVolts],
    purpose: 'Smooth and rising with no jump, and the end values where they belong.', probe: 'Back-probe the signal; move slowly by hand.', steps: ['From stop to stop, slowly.', 'Read at each mark; watch for jumps between them and enter low~high where there is one.'],
    proves: 'That the track is whole where it was read.', cannotProve: 'That it is whole between the marks, unless it was watched.', advice: [{ verdict: ['unsteady'], say: 'The track has a worn place at {suspects}: it is felt there as a hesitation.' }],
    rules: thumb(volt({ lower: 0.3, upper: 4.9, steadyWithin: 0.05, sequence: { direction: 'rising', maxStep: 1.2 }, byPosition: { '0 %': { lower: 0.3, upper: 0.8 }, '100 %': { lower: 4.2, upper: 4.9 } } })),
  }),
  voltTest({
    id: 'position-signal-noise', name: 'Position signal, noise spikes', area: AREA, part: 'signal', positions: ['spikes'], minutes: 6, states: [STATES.pluggedIn], cautions: [CAUTIONS.running], condition: { key: 'on', engine: 'running' }, tool: { kind: 'multimeter', mode: 'peak hold, or a recorder' },
    purpose: 'Spikes on a position signal can be counted as edges.', probe: 'On the signal at the controller, black on its ground.', steps: ['Engine running, loads on one after the other.', 'Enter the highest spike.'], proves: 'How much noise stands on the signal here.', cannotProve: 'Where it comes from.',
    advice: [{ verdict: ['high', 'watch'], say: 'Screen and ground of this cable, then what runs beside it: alternator, injector wires.' }], rules: thumb(volt({ upper: 1, watchUpper: 0.5 })),
  }),
];

/** Vane control, valves, actuators. */
export const ACTUATORS: readonly TestDefinition[] = [
  ohmTest({
    id: 'vane-actuator-coil', name: 'Vane actuator, coil', area: 'Actuators', part: 'coil', positions: ['coil'], minutes: 3, probe: 'Across the two pins of the solenoid, connector off.', cautions: [CAUTIONS.hotExhaust],
    purpose: 'Tells a dead coil from a stuck mechanism.', steps: ['Connector off.', 'Zero the leads, then across the coil.'], proves: 'That the coil is whole.', cannotProve: 'That the mechanism moves.',
    advice: [{ pattern: ['good'], say: 'Coil good: command it from the scan tool. Sent and nothing moves means the mechanism is stuck.' }], rules: thumb(ohm({ lower: 3.4, upper: 5, shortBelow: 0.5, openAbove: 1e4, material: 'copper' })),
  }),
  voltTest({
    id: 'actuator-feed', name: 'Actuator, feed and driver', area: 'Actuators', part: 'actuator', layout: 'places', positions: ['feed', 'driver pin at rest', 'driver pin commanded'], minutes: 4, states: [STATES.keyOn, STATES.pluggedIn], cautions: [CAUTIONS.running],
    purpose: 'A low-side driver pulls its pin down when it is commanded: shows feed, coil, wire and driver at once.', probe: 'Back-probe at the actuator, plugged in, black on the battery’s negative post.', steps: ['Feed first.', 'Driver pin without the command: battery voltage through the coil.', 'With the command: near 0 V.'],
    proves: 'That it is fed, that the coil conducts, and that the driver pulls down.', cannotProve: 'That the mechanism moves.', advice: [{ verdict: ['low'], say: 'No voltage at the driver pin without the command: feed, coil or a driver that is stuck on.' }, { verdict: ['high'], say: 'Commanded and not pulled down: wire to the controller, driver, or no command.' }],
    rules: bySystem(volt({ lower: 11.5, upper: 15, byPosition: { 'driver pin commanded': { lower: -0.1, upper: 1.5 } } }), volt({ lower: 23, upper: 30, byPosition: { 'driver pin commanded': { lower: -0.1, upper: 1.5 } } })),
  }),
  otherTest({
    id: 'actuator-position', name: 'Actuator, reported less commanded position', area: 'Actuators', part: 'actuator', quantity: 'ratio', unit: '%', tool: { kind: 'scan tool', mode: 'command stepped, position read back' }, layout: 'sweep', positions: ['0 %', '25 %', '50 %', '75 %', '100 %'], minutes: 5,
    condition: { key: 'on', engine: 'stopped' }, states: [STATES.keyOn, STATES.pluggedIn], cautions: [CAUTIONS.running, CAUTIONS.hotExhaust], probe: 'Step the command on the scan tool; enter reported less commanded, with its sign.',
    purpose: 'Sensor good, coil good, command sent and nothing moves: the mechanism is stuck.', steps: ['Fingers clear of linkage and vanes.', 'Each step, wait until it stands.', 'Once upwards; note whether it sticks on the way back.'], proves: 'That command, coil, mechanism and sensor go together.', cannotProve: 'Which of them does not, where they do not: coil and sweep tell.',
    advice: [{ verdict: ['high', 'low'], say: 'Off at {suspects}: move it by hand with the key off. Stiff is soot or a bent linkage, free is coil, wire or sensor.' }], rules: thumb({ quantity: 'ratio', unit: '%', lower: -5, upper: 5, watchLower: -3, watchUpper: 3 }),
  }),
];
