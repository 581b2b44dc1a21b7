import { bySystem, CAUTIONS, ohm, ohmTest, otherTest, seenTest, STATES, thumb, volt, voltTest } from './shared';
import type { TestDefinition } from './types';

const pins = (feed: number, ceiling: number) => volt({
  lower: feed, upper: ceiling, byPosition: {
    ground: { lower: -0.1, upper: 0.2, watchUpper: 0.1 }, '5 V reference': { lower: 4.75, upper: 5.25 }, 'driver (off)': { lower: feed, upper: ceiling }, 'switched battery (key off)': { lower: -0.1, upper: 0.5 },
  },
});
const PIN_NAMES = ['battery', 'switched battery', 'switched battery (key off)', 'ignition', 'ground', '5 V reference', 'driver (off)'];

/** Controller feeds and drivers. Common practice, no source. */
export const CONTROLLER: readonly TestDefinition[] = [
  voltTest({
    id: 'controller-pins', name: 'Controller, table of pins', area: 'Controller', part: 'pin', layout: 'pins', positions: PIN_NAMES, minutes: 15, states: [STATES.batteryCharged], cautions: [CAUTIONS.fiveVolts], connection: 'breakout',
    purpose: 'Feeds, grounds and drivers as they should be in each key state, read at the controller’s connector. Copy it for a controller with other pins.', probe: 'Through the breakout harness or back-probed, black on the ground stud that the maker names.',
    probes: { 'switched battery (key off)': 'The same pin with the key off: it must be dead.', 'driver (off)': 'The driver’s pin with its consumer plugged in and not commanded.' }, groups: { feeds: ['battery', 'switched battery', 'ignition'] }, shared: 'master switch, battery and main ground',
    steps: ['Battery first.', 'Key on: feeds, ignition, ground, 5 V.', 'Key off: what is switched must be dead.'], proves: 'That the controller is fed and grounded.', cannotProve: 'That it works.',
    advice: [{ pattern: ['group'], say: 'All feeds and nothing else: master switch, main fuse, the relay that they share.' }, { verdict: ['low'], say: 'A few tenths under battery is fine, a volt lost is a fault: follow {suspects} back with the load on.' }],
    rules: bySystem(pins(11.5, 15), pins(23, 30)),
  }),
  ohmTest({
    id: 'low-side-driver', name: 'Low-side driver, pin to ground', area: 'Controller', part: 'driver', positions: ['driver pin'], minutes: 5, connection: 'breakout',
    purpose: 'Tells a shorted or open driver. The value is an order of magnitude.', probe: 'Through the breakout harness, pin to the ground stud that the maker names; a painted bracket is no ground.', states: [STATES.unplugged, STATES.rightRange],
    steps: ['Key off, breakout harness fitted.', 'Pin to ground, highest range first.', 'Some engines are isolated from ground: use the stud that the maker names.'], proves: 'That the driver is neither shorted nor open.', cannotProve: 'That it switches.',
    advice: [{ verdict: ['short', 'open'], say: 'Read it again at another ground point before the controller is condemned.' }], rules: thumb(ohm({ lower: 60e3, upper: 86e3, recheckMargin: 0.2, shortBelow: 1000, openAbove: 1e6 })),
  }),
  voltTest({
    id: 'fuel-shut-off', name: 'Fuel shut-off solenoid, voltage commanded', area: 'Controller', part: 'solenoid', layout: 'change', positions: ['not commanded', 'commanded'], minutes: 4, states: [STATES.batteryCharged, STATES.pluggedIn], cautions: [CAUTIONS.running],
    purpose: 'Commanded voltage present, audible click, then flow.', probe: 'On the solenoid’s feed, plugged in, black on the battery’s negative post.', steps: ['Read without the command.', 'Read with it, and listen for the click.', 'An old controller with an internal battery: charge the system overnight, key on, before it is condemned.'],
    proves: 'That the command arrives as voltage.', cannotProve: 'That the solenoid opens: listen and see the flow.', advice: [{ verdict: ['low'], say: 'Commanded and no voltage: fuse, relay and wire before the controller.' }],
    rules: bySystem(volt({ lower: 11, upper: 15, byPosition: { 'not commanded': { lower: -0.1, upper: 0.5 } } }), volt({ lower: 22, upper: 30, byPosition: { 'not commanded': { lower: -0.1, upper: 0.5 } } })),
  }),
  seenTest({
    id: 'fuel-shut-off-click', name: 'Fuel shut-off solenoid, click and flow', area: 'Controller', part: 'solenoid', layout: 'places', positions: ['click', 'flow'], minutes: 3, condition: { key: 'on', engine: 'stopped' }, connection: 'plugged-in', states: [STATES.keyOn, STATES.commandOn], cautions: [CAUTIONS.highPressureFuel],
    purpose: 'Voltage without a click is the solenoid; a click without flow is what lies behind it.', probe: 'Hand on the solenoid, then the low-pressure side’s flow into a vessel.', steps: ['Command it.', 'Feel and listen.', 'Flow on the low-pressure side only.'],
    proves: 'That it moves, and that fuel passes.', cannotProve: 'That it holds when hot.', advice: [{ verdict: ['failed'], say: 'Read the voltage at it with the command on, if that is not done.' }],
  }),
];

const PEAK = { people: 2, cautions: [CAUTIONS.running, CAUTIONS.roadTest, CAUTIONS.hotExhaust] } as const;

/** Plausibility of air and fuel, as single readings. */
export const AIR_AND_FUEL: readonly TestDefinition[] = [
  voltTest({
    ...PEAK, id: 'airflow-peak', name: 'Airflow meter, peak in a snap acceleration', area: 'Air and fuel', part: 'airflow meter', positions: ['peak'], minutes: 4, condition: { key: 'on', engine: 'running' }, states: [STATES.pluggedIn], tool: { kind: 'multimeter', mode: 'peak hold' },
    purpose: 'Under its peak the fuelling follows it down, and the rail pressure with it.', probe: 'Back-probe the signal; peak hold; one snap of the throttle.', steps: ['Engine warm.', 'Peak hold on, one snap.'], proves: 'That it sees the air that the engine can draw.', cannotProve: 'Whether little air is the meter, a leak, a blocked intake or exhaust, or a stuck exhaust-gas valve.',
    advice: [{ verdict: ['low'], say: 'Leaks, blocked intake or exhaust and a stuck exhaust-gas valve look the same: rule them out before the airflow meter.' }], rules: thumb(volt({ lower: 4.5, upper: 5 })),
  }),
  voltTest({
    ...PEAK, id: 'rail-full-demand', name: 'Rail sensor at full demand', area: 'Air and fuel', part: 'rail pressure', positions: ['full demand'], minutes: 6, condition: { key: 'on', engine: 'running' }, states: [STATES.pluggedIn], cautions: [CAUTIONS.highPressureFuel, ...PEAK.cautions], tool: { kind: 'multimeter', mode: 'peak hold' },
    purpose: 'Shows whether the rail reaches what is asked when most is asked.', probe: 'Back-probe the signal; second person drives or loads the engine.', steps: ['Full demand, second person.', 'Highest value.'], proves: 'That the rail reaches it.', cannotProve: 'What starves it where it does not.',
    advice: [{ verdict: ['low'], say: 'Airflow peak, supply pressure and return flow before the pump.' }], rules: thumb(volt({ lower: 3.6, watchLower: 3.9, upper: 4.6 })),
  }),
  otherTest({
    id: 'supply-pressure', name: 'Supply pump, pressure', area: 'Air and fuel', part: 'supply pump', quantity: 'pressure', unit: 'psi', tool: { kind: 'gauge', mode: 'low-pressure side' }, layout: 'states', positions: ['cranking', 'running'], minutes: 8, states: [STATES.airBled], cautions: [CAUTIONS.highPressureFuel, CAUTIONS.running],
    condition: { key: 'on', engine: 'each state in turn' }, purpose: 'No lift, no rail: read what reaches the pump.', probe: 'Gauge at the low-pressure test point, never in the high-pressure side.', steps: ['Air bled, fuel present and fresh.', 'Cranking, then running.'], proves: 'That the supply pump lifts.', cannotProve: 'That the filter lets through at full demand.',
    advice: [{ pattern: ['all'], say: 'Air, fuel, filter and the pump’s drive coupling before the pump.' }], rules: thumb({ quantity: 'pressure', unit: 'psi', lower: 25, byPosition: { running: { lower: 120, watchLower: 140, upper: 180 } } }),
  }),
  otherTest({
    id: 'supply-build-time', name: 'Supply pump, time to build pressure', area: 'Air and fuel', part: 'supply pump', quantity: 'time', unit: 's', tool: { kind: 'stopwatch', mode: 'seconds of cranking to the stated pressure' }, positions: ['time'], minutes: 4, states: [STATES.airBled, STATES.batteryCharged], cautions: [CAUTIONS.highPressureFuel, CAUTIONS.running, CAUTIONS.crankOnly],
    condition: { key: 'on', engine: 'cranking' }, purpose: 'A pump that builds slowly has air, a worn coupling or a leaking valve.', probe: 'Count from the first turn to the stated pressure. OL where it never comes.', steps: ['Air bled.', 'Crank and count.'], proves: 'How fast pressure comes.', cannotProve: 'What slows it.',
    advice: [{ verdict: ['high'], say: 'Bleed once more; then suction side for air, drive coupling, pressure valve.' }], rules: thumb({ quantity: 'time', unit: 's', upper: 5, watchUpper: 4 }),
  }),
  otherTest({
    id: 'cranking-current', name: 'Starter current while cranking', area: 'Air and fuel', part: 'starter', quantity: 'current', unit: 'A', tool: { kind: 'clamp', mode: 'DC amperes, large range' }, layout: 'cylinders', minutes: 6, people: 2, states: [STATES.batteryCharged, STATES.clampZeroed], cautions: [CAUTIONS.running, CAUTIONS.crankOnly, CAUTIONS.batteryGas],
    condition: { key: 'on', engine: 'cranking' }, purpose: 'Peaks even across cylinders say even compression; and even peaks that are very high say that something drags.', probe: 'Clamp around the battery’s positive cable; peak of each compression in firing order.', steps: ['Fuel disabled.', 'Zero the clamp; know its mV per A.', 'Peaks from the recorder, by cylinder.'],
    proves: 'Compression relative to each other, and how hard the engine turns.', cannotProve: 'Compression in bar.', advice: [{ pattern: ['all'], verdict: ['high'], say: 'Even and too high: oil, seized accessory, starter or bearings drag.' }, { verdict: ['low', 'odd'], say: 'Lower than its neighbours: a real compression test of {suspects}.' }],
    rules: [{ when: { systemVoltage_V: 12 }, limits: { quantity: 'current', unit: 'A', lower: 150, upper: 600, neighbours: { maxRatio: 1.2 } } }, { when: { systemVoltage_V: 24 }, limits: { quantity: 'current', unit: 'A', lower: 100, upper: 500, neighbours: { maxRatio: 1.2 } } }],
  }),
];
