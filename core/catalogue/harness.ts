import { CAUTIONS, ohm, ohmTest, seenTest, STATES, thumb } from './shared';
import type { TestDefinition } from './types';

const AREA = 'Harness';
const CARE = [CAUTIONS.injectorVoltage, CAUTIONS.noPiercing];

/** Common practice throughout, no source. */
export const HARNESS: readonly TestDefinition[] = [
  ohmTest({
    id: 'harness-ring-out', name: 'Under-cover harness, end to end', area: AREA, part: 'conductor', minutes: 8, connection: 'end-to-end',
    purpose: 'Rings out each conductor with an ohmmeter: a beeper sounds at several ohms.', cautions: CARE,
    probe: 'One probe on the cover’s connector pin, one on the terminal at the part.', states: [STATES.unplugged],
    steps: ['Both ends off.', 'Zero the leads.', 'Each conductor end to end; move the loom while watching the display.'],
    proves: 'That each conductor is whole while it lies as it lies.', cannotProve: 'That it is whole under load, or not in touch with its neighbour or ground.',
    advice: [{ verdict: ['unsteady'], say: 'It breaks while moved: look for rubbing, a pinched wire, a pin pushed back.' }],
    rules: thumb(ohm({ upper: 2, watchUpper: 1, openAbove: 1e4, steadyWithin: 0.1 })),
  }),
  ohmTest({
    id: 'harness-ring-out-upper', name: 'Under-cover harness, supply wires end to end', area: AREA, part: 'conductor', minutes: 8, connection: 'end-to-end',
    purpose: 'Where each part has a supply wire of its own, that one is rung out too.', cautions: CARE, probe: 'One probe on the cover’s connector pin of the supply side, one on the terminal at the part.', states: [STATES.unplugged],
    steps: ['Both ends off.', 'Zero the leads.', 'Each supply wire end to end; move the loom while watching the display.'], proves: 'That each supply wire is whole while it lies as it lies.', cannotProve: 'That it is whole under load, or not in touch with its neighbour or ground.',
    advice: [{ verdict: ['unsteady'], say: 'It breaks while moved: look for rubbing, a pinched wire, a pin pushed back.' }], rules: thumb(ohm({ upper: 2, watchUpper: 1, openAbove: 1e4, steadyWithin: 0.1 })),
  }),
  ohmTest({
    id: 'harness-pins', name: 'Under-cover harness, pin by pin with common', area: AREA, part: 'conductor', layout: 'pins', positions: ['pin 1', 'pin 2', 'pin 3', 'pin 4', 'common'], minutes: 8,
    connection: 'end-to-end', purpose: 'Rings out every pin of a connector, the common too. Copy it for a connector with other pins.', cautions: CARE, states: [STATES.unplugged],
    probe: 'One probe on the pin, one on the far end of its conductor.', steps: ['Both ends off.', 'Zero the leads.', 'Pin by pin, the common last.'],
    proves: 'Which conductors are whole.', cannotProve: 'That two of them are not in touch: read the pairs.', shared: 'the common',
    advice: [{ pattern: ['all'], say: 'All of them: the wrong connector, or the far end is not connected.' }, { verdict: ['open', 'high'], say: 'Move the probe half way along {suspects}: connector, pin, then the loom.' }],
    rules: thumb(ohm({ upper: 2, watchUpper: 1, openAbove: 1e4, steadyWithin: 0.1 })),
  }),
  ohmTest({
    id: 'harness-insulation', name: 'Harness, insulation between conductors and to ground', area: AREA, part: 'pair', layout: 'pairs', positions: ['1 to 2', '2 to 3', '3 to 4', '1 to ground', '2 to ground', '3 to ground', '4 to ground'], minutes: 8,
    connection: 'end-to-end', purpose: 'Finds conductors that touch each other or the engine.', cautions: CARE, states: [STATES.unplugged, STATES.rightRange],
    probe: 'Across the two pins that the post names, both ends of the loom off. Overload is good.', steps: ['Both ends off.', 'Highest range.', 'Every pair, then every conductor to bare engine metal.'],
    proves: 'That nothing conducts between them at the meter’s own small voltage.', cannotProve: 'That the insulation holds at working voltage, or when hot and oily.',
    groups: { 'ground side': ['1 to ground', '2 to ground', '3 to ground', '4 to ground'] },
    advice: [{ verdict: ['low', 'short'], say: 'Look along the loom for rub-through, oil in a connector, a conductor pinched by a bracket.' }],
    rules: thumb(ohm({ lower: 1e6, shortBelow: 100 })),
  }),
  seenTest({
    id: 'harness-wiggle', name: 'Wiggle test', area: AREA, part: 'stretch of loom', layout: 'places', positions: ['connector', 'first bend', 'brackets', 'cover entry', 'under the cover'], minutes: 8, cautions: CARE, states: [STATES.keyOff, STATES.unplugged],
    purpose: 'Continuity is watched while the loom is moved; a single break is a fail.', probe: 'Meter on ohms across the conductor, probes held or clipped; move one stretch at a time.',
    steps: ['Clip the probes on: a held probe wiggles too.', 'Move one stretch after the other and watch the display.', 'p where it stands still, f and what it did where it breaks.'],
    proves: 'That a stretch is sound while moved.', cannotProve: 'That it is sound hot, wet or under load.', advice: [{ verdict: ['failed'], say: 'Open the loom at {suspects} only: what breaks is within a hand’s width.' }],
  }),
  seenTest({
    id: 'pin-drag', name: 'Pin drag', area: AREA, part: 'terminal', layout: 'pins', positions: ['pin 1', 'pin 2', 'pin 3', 'pin 4', 'common'], minutes: 5, cautions: [CAUTIONS.noPiercing], states: [STATES.keyOff, STATES.unplugged],
    purpose: 'Each female terminal must grip a test pin.', probe: 'A clean pin of the right size, pushed in and drawn out.', steps: ['Use the right pin: a probe widens the terminal.', 'Push in, draw out, feel the grip.'],
    proves: 'That the terminal grips.', cannotProve: 'That its crimp holds.', advice: [{ verdict: ['failed'], say: 'A terminal that does not grip is replaced, not bent.' }],
  }),
  seenTest({
    id: 'harness-visual', name: 'Harness, what is seen', area: AREA, part: 'place', layout: 'places', positions: ['rub-through', 'oil in connector', 'pin pushed back', 'corrosion', 'seal', 'pinched wire', 'earlier work'], minutes: 6, cautions: [CAUTIONS.noPiercing],
    purpose: 'Finds in minutes what a meter looks for in hours.', probe: 'Light and mirror; connectors opened, seals looked at.', steps: ['Where cover or bracket touches the loom.', 'Inside each connector: oil, pins, corrosion, seal.', 'Signs of earlier hands. f with a note of the place.'],
    proves: 'What can be seen.', cannotProve: 'That a good-looking wire is whole.', advice: [{ verdict: ['failed'], say: 'Take a picture before it is touched, then measure across {suspects}.' }],
  }),
];
