import { CAUTIONS, ohmTest, STATES, voltTest } from './shared';
import type { TestDefinition } from './types';

const GLOWING = [CAUTIONS.noStartingFluid, CAUTIONS.hotPlugs];

/** Common practice throughout, no source. */
export const GLOW_CIRCUIT: readonly TestDefinition[] = [
  ohmTest({
    id: 'glow-plug-through-harness', name: 'Glow plugs, through the harness', area: 'Glow plugs', part: 'plug with its wire', positions: 'cylinders', minutes: 4,
    purpose: 'With the bare readings beside it, tells the wire from the plug.', connection: 'through-harness', cautions: [CAUTIONS.noStartingFluid],
    probe: 'Red on the pin of the cover’s connector, black on bare engine metal; the plug stays connected.',
    steps: ['Key off, connector at the cover off, plugs connected.', 'Zero the leads.', 'Each pin to engine ground.'],
    proves: 'That the path from the connector through the plug to ground conducts.', cannotProve: 'That it carries current under load: a single strand is enough for an ohmmeter.',
    advice: [{ verdict: ['high', 'open'], say: 'Measure {suspects} again at the bare plug: what is more than there belongs to wire and connector, about 1 ohm at most.' }],
  }),
  {
    id: 'glow-plug-current', name: 'Glow plugs, current at start', area: 'Glow plugs', part: 'plug', quantity: 'current', unit: 'A', positions: 'cylinders', minutes: 6, connection: 'plugged-in',
    purpose: 'Shows under load what an ohmmeter cannot: a plug or wire that gives up when it carries current.', condition: { key: 'on', engine: 'stopped' },
    states: [STATES.batteryCharged, STATES.commandOn, STATES.clampZeroed], cautions: [...GLOWING, CAUTIONS.defer], probe: 'Clamp around the wire of one plug, arrow towards the plug.',
    steps: ['Zero the clamp away from any wire.', 'Command the plugs on.', 'Read each at the same moment after the start: the current falls as the plug heats.'],
    proves: 'That plug, wire and feed carry current together.', cannotProve: 'Which of them is at fault where the current is low.',
    advice: [{ verdict: ['low', 'odd'], say: 'Compare {suspects} in ohms, at the plug and through the harness.' }, { pattern: ['all'], say: 'All of them: feed, relay and ground before the plugs.' }],
  },
  voltTest({
    id: 'glow-feed-voltage', name: 'Glow plugs, feed with command on', area: 'Glow plugs', part: 'feed', positions: 'cylinders', minutes: 5,
    purpose: 'Shows whether battery voltage reaches each plug while the plugs are commanded on.', states: [STATES.batteryCharged, STATES.commandOn, STATES.pluggedIn], cautions: GLOWING,
    probe: 'Red on the plug’s terminal with its lead on, black on the battery’s negative post.',
    steps: ['Command the plugs on and read the state on the scan tool.', 'Read each terminal under load.'],
    proves: 'That fuse, relay or control unit and wire deliver.', cannotProve: 'That the plug gets hot.',
    advice: [{ pattern: ['all'], say: 'None is fed: fuse, relay or control unit, and the command itself.' }, { pattern: ['one', 'some', 'group'], say: 'The others prove battery, fuse and relay. Follow the wire to {suspects}.' }],
  }),
];
