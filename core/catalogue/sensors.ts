import { CAUTIONS, ohm, ohmTest, STATES, thumb, volt, voltTest } from './shared';
import type { TestDefinition } from './types';

const AREA = 'Sensors';
const FIVE = [CAUTIONS.fiveVolts];
const LIVE = [STATES.keyOn, STATES.pluggedIn];
const SCAN_AND_METER = { kind: 'multimeter', mode: 'volts DC, beside the scan tool' } as const;

/** Three-wire sensors: pressure, difference, position. Common practice, no source. */
export const SENSORS: readonly TestDefinition[] = [
  voltTest({
    id: 'sensor-reference', name: 'Three-wire sensor, reference', area: AREA, part: 'reference', positions: ['reference'], minutes: 2, states: LIVE, cautions: FIVE,
    purpose: 'Shows whether the controller’s 5 V reaches the sensor.', probe: 'Back-probe the reference wire, black on the battery’s negative post.',
    steps: ['Key on, sensor plugged in.', 'Back-probe, wait for a steady value.'], proves: 'That wire and supply deliver.', cannotProve: 'That the sensor is good.',
    advice: [{ verdict: ['low', 'short'], say: 'Unplug the sensors that share this reference, one after the other: if it recovers, the one just unplugged pulls it down.' }],
    rules: thumb(volt({ lower: 4.75, upper: 5.25, watchLower: 4.9, watchUpper: 5.1, steadyWithin: 0.05 })),
  }),
  voltTest({
    id: 'sensor-reference-alone', name: 'Three-wire sensor, reference while sensors are unplugged', area: AREA, part: 'reference', layout: 'places', positions: ['this one unplugged', 'neighbours unplugged'], minutes: 5, states: LIVE, cautions: FIVE,
    purpose: 'A shorted sensor takes down all that share its reference; it recovers when that one is unplugged.', probe: 'Back-probe the reference wire here, black on the battery’s negative post; unplug this sensor, then its neighbours one after the other.',
    steps: ['Find out from the diagram which sensors share this reference.', 'Unplug this one and read; plug it in, then unplug the others one after the other.', 'Plugging and unplugging with the key on sets codes: they are yours.'], proves: 'Which sensor pulls the reference down, if one does.', cannotProve: 'Why that one does.',
    advice: [{ verdict: ['within'], say: 'It recovered: the one that was unplugged last pulls it down.' }, { verdict: ['low', 'short'], say: 'It stays down with all unplugged: wire to ground, or the controller’s supply.' }],
    rules: thumb(volt({ lower: 4.75, upper: 5.25, watchLower: 4.9, watchUpper: 5.1, steadyWithin: 0.05 })),
  }),
  ohmTest({
    id: 'sensor-wires', name: 'Three-wire sensor, its wires end to end', area: AREA, part: 'wire', layout: 'pins', positions: ['reference', 'signal', 'ground'], minutes: 8, connection: 'end-to-end', cautions: FIVE, states: [STATES.unplugged],
    purpose: 'Rings out the three wires between sensor and controller.', probe: 'One probe at the sensor’s connector, one at the controller’s, both unplugged.', steps: ['Both ends off, key off.', 'Zero the leads.', 'Each wire; move the loom while watching.'],
    proves: 'That the wires are whole while they lie as they lie.', cannotProve: 'That they touch nothing: read them to ground.', advice: [{ verdict: ['open', 'high'], say: 'Half way along {suspects}: connector, splice, then the loom.' }], rules: thumb(ohm({ upper: 2, watchUpper: 1, openAbove: 1e4, steadyWithin: 0.1 })),
  }),
  voltTest({
    id: 'sensor-ground', name: 'Three-wire sensor, ground', area: AREA, part: 'ground', positions: ['ground'], minutes: 2, states: LIVE, cautions: FIVE,
    purpose: 'Finds a ground that lifts the signal with it, or that is open.', probe: 'Back-probe the ground wire, black on the battery’s negative post.',
    steps: ['Key on, sensor plugged in.', 'Move the probe a little: an open pin wanders.'], proves: 'That the ground is at battery negative with the sensor’s own small current.', cannotProve: 'That it carries more: load it with a test lamp.',
    advice: [{ verdict: ['high', 'unsteady'], say: 'Load the ground pin with a test lamp from battery positive: a volt lost is a poor ground.' }],
    rules: thumb(volt({ lower: -0.1, upper: 0.1, watchUpper: 0.05, steadyWithin: 0.02 })),
  }),
  voltTest({
    id: 'sensor-ground-load', name: 'Three-wire sensor, ground under load', area: AREA, part: 'ground', positions: ['lamp to ground pin'], minutes: 3, states: [STATES.keyOn, STATES.unplugged, STATES.batteryCharged], cautions: FIVE, connection: 'unplugged',
    purpose: 'A ground that is good for a sensor’s small current may fail under a lamp’s.', probe: 'Test lamp from battery positive to the ground pin, meter across the lamp: what the lamp gets.',
    steps: ['Sensor unplugged.', 'Only the ground pin, never reference or signal.', 'Read what stands across the lamp; nearly battery voltage is good.'], proves: 'That the ground carries a lamp’s current.', cannotProve: 'Which contact is at fault where it does not.',
    advice: [{ verdict: ['low'], say: 'A volt or so lost is a poor ground: follow the ground wire to the controller and to its splice.' }],
    rules: [{ when: { systemVoltage_V: 12 }, limits: volt({ lower: 11.5, watchLower: 12 }) }, { when: { systemVoltage_V: 24 }, limits: volt({ lower: 23, watchLower: 24 }) }],
  }),
  voltTest({
    id: 'sensor-signal-rest', name: 'Three-wire sensor, signal at rest', area: AREA, part: 'signal', layout: 'places', positions: ['gauge or difference type', 'absolute type'], minutes: 2, states: LIVE, cautions: FIVE,
    purpose: 'A signal at rest tells a stuck or shorted sensor before anything is moved.', probe: 'Back-probe the signal wire; black on the sensor’s ground pin. Read the one that is fitted.',
    steps: ['Key on, engine stopped, no pressure.', 'Gauge and difference types rest near 0.5 V, absolute types near 1 V or more at sea level.'], proves: 'That the sensor sends something plausible at rest.', cannotProve: 'That it moves.',
    advice: [{ verdict: ['low'], say: 'Near 0 V: unplug it. A pull-up input goes to 5 V, then the wire is good and the sensor or its reference is not.' }, { verdict: ['high'], say: 'Near 5 V: is the ground open? Read the ground first.' }],
    rules: thumb(volt({ lower: 0.3, upper: 0.7, byPosition: { 'absolute type': { lower: 0.8, upper: 2.2 } } })),
  }),
  voltTest({
    id: 'sensor-signal-moves', name: 'Three-wire sensor, signal under stimulus', area: AREA, part: 'signal', layout: 'change', positions: ['before', 'with stimulus'], minutes: 4, states: LIVE, cautions: [...FIVE, CAUTIONS.running, CAUTIONS.hotExhaust],
    purpose: 'A signal that does not move with the pressure is a failed sensor, once pipe and port are clear.', probe: 'Back-probe the signal wire; throttle, hand pump or the other port moves it.',
    steps: ['Pipe and port clear.', 'Read before.', 'Open the throttle or apply pressure, within the sensor’s range; read again.'], proves: 'That the signal moves with the stimulus.', cannotProve: 'That it moves by the right amount: compare with a gauge.',
    advice: [{ verdict: ['unsteady'], say: 'It did not move upwards: pipe and port first, crossed hoses on a two-port sensor, then the sensor.' }],
    rules: thumb(volt({ lower: 0.3, upper: 4.8, sequence: { direction: 'rising' }, byPosition: { 'with stimulus': { lower: 0.8 } } })),
  }),
  voltTest({
    id: 'sensor-unplugged', name: 'Input with the sensor unplugged', area: AREA, part: 'input', layout: 'places', positions: ['pull-down input', 'pull-up input'], minutes: 3, states: [STATES.keyOn, STATES.unplugged], cautions: FIVE, connection: 'unplugged',
    purpose: 'Finds whether the input pulls up or down: that tells how to read a later 0 or 5 V.', probe: 'On the signal pin of the harness side, black on the ground pin. Read the one that the maker states, or see which it is.',
    steps: ['Sensor unplugged, key on.', 'A pull-down input falls to about 0 V, a pull-up input rises to about 5 V.', 'This sets a code: note it as caused by testing.'], proves: 'That signal wire and input are whole.', cannotProve: 'That the sensor is bad.',
    advice: [{ verdict: ['high', 'low'], say: 'Neither about 0 nor about 5 V: the wire touches something, or the input is damaged.' }],
    rules: thumb(volt({ lower: -0.1, upper: 0.2, byPosition: { 'pull-up input': { lower: 4.75, upper: 5.25 } } })),
  }),
  voltTest({
    id: 'sensor-bypass', name: 'Bypass: jumper at the unplugged connector', area: AREA, part: 'input', layout: 'places', positions: ['reference to signal', 'ground to signal'], minutes: 4, states: [STATES.keyOn, STATES.unplugged], cautions: FIVE, connection: 'unplugged',
    tool: { kind: 'scan tool', mode: 'volts of this input' }, purpose: 'Proves both wires, the pins and the input at once: what is left is the sensor.', probe: 'Fused jumper; read the scan tool. Ground to signal for a pull-up input.',
    steps: ['Sensor unplugged.', 'Fused jumper from reference to signal: close to 5 V. For a pull-up input ground to signal: close to 0 V.', 'Never battery voltage.'], proves: 'That wires, pins and controller input are good.', cannotProve: 'That the sensor’s ground carries: read it under load.',
    advice: [{ pattern: ['good'], say: 'Wires and input are proven: the sensor is what is left. Prove the new one on the bench before it is fitted.' }, { verdict: ['low', 'high'], say: 'The scan tool does not follow the jumper: wire, pin or input. Ring the signal wire out.' }],
    rules: thumb(volt({ lower: 4.75, upper: 5.25, byPosition: { 'ground to signal': { lower: -0.1, upper: 0.15 } } })),
  }),
  voltTest({
    id: 'sensor-meter-scan', name: 'Meter against scan tool', area: AREA, part: 'input', positions: ['meter less scan tool'], minutes: 3, states: LIVE, cautions: FIVE, tool: SCAN_AND_METER,
    purpose: 'If the meter at the pin and the scan tool agree, wiring and input are good. The scan tool alone never shows this.', probe: 'Back-probe the signal at the sensor; read the scan tool at the same moment; enter meter less scan tool.',
    steps: ['Both at the same moment, nothing moving.', 'Take the difference, with its sign.'], proves: 'That the controller sees what the sensor sends.', cannotProve: 'That what the sensor sends is right.',
    advice: [{ verdict: ['high', 'low'], say: 'The controller sees something else than the sensor sends: signal wire, its pins, then ground offset between sensor and controller.' }],
    rules: thumb(volt({ lower: -0.1, upper: 0.1, watchLower: -0.05, watchUpper: 0.05 })),
  }),
  voltTest({
    id: 'sensor-transfer', name: 'Sensor against a gauge', area: AREA, part: 'sensor', layout: 'places', positions: ['at rest', 'low', 'middle', 'high'], minutes: 10, states: LIVE, cautions: [...FIVE, CAUTIONS.highPressureFuel, CAUTIONS.hotExhaust],
    tool: { kind: 'gauge', mode: 'pressure on the same port, meter on the signal' }, purpose: 'A gauge on the same port predicts the signal; the difference of two gauges for a two-port sensor.', probe: 'Type the volts, an at sign, and what the gauge shows: 2.35 @ 150 kPa.',
    steps: ['Gauge on the same port, within its range.', 'At rest, then at three pressures.', 'Two ports: enter the difference of the gauges; crossed or blocked hoses are a classic.'], proves: 'That the sensor tells the pressure that is there.', cannotProve: 'That the wire carries it: compare with the scan tool.',
    advice: [{ pattern: ['all', 'some'], verdict: ['high', 'low'], say: 'Off everywhere by the same: reference or ground. Off more and more: the sensor. Below rest on a two-port sensor: the hoses are crossed.' }],
    // Which pressure gives which voltage is the maker's: it stands on the shelf or nowhere.
    rules: [],
  }),
  voltTest({
    id: 'sensor-bench', name: 'New sensor on the bench', area: AREA, part: 'new sensor', layout: 'change', positions: ['at rest', 'with pressure'], minutes: 5, states: [{ id: 'bench-supply', label: '5 V bench supply', why: 'Battery voltage destroys a 5 V sensor.' }], cautions: FIVE, connection: 'on the bench', condition: { key: 'off', engine: 'stopped' },
    purpose: 'A cheap sensor fitted on a guess adds a second fault: prove it first.', probe: 'Reference and ground from a 5 V supply, meter on the signal, hand pump on the port.',
    steps: ['5 V with its current limited.', 'Read at rest, then with a known pressure.', 'Keep the seal.'], proves: 'That the new part works before it is fitted.', cannotProve: 'Anything about the wire it will be plugged to.',
    advice: [{ verdict: ['high', 'low', 'unsteady'], say: 'Do not fit it: new is not good.' }], rules: thumb(volt({ lower: 0.3, upper: 4.8, sequence: { direction: 'rising' }, byPosition: { 'at rest': { upper: 2.2 } } })),
  }),
];
