import { bySystem, CAUTIONS, ohm, ohmTest, otherTest, seenTest, STATES, thumb, volt, voltTest } from './shared';
import type { TestDefinition } from './types';

const AREA = 'Glow plugs';
const GLOWING = [CAUTIONS.noStartingFluid, CAUTIONS.hotPlugs];
const SHARED = 'feed, relay or control unit, fuse and ground';

/** Common practice throughout, no source; the maker's service information comes first. */
const AT_PLUG: TestDefinition = {
  ...ohmTest({
    id: 'glow-plug-resistance',
    name: 'Glow plugs, at the plug',
    area: AREA,
    part: 'plug',
    minutes: 6,
    purpose: 'Finds plugs that are open, burnt high or shorted, and tells the plug from its wire.',
    probe: 'Red on the plug terminal, black on clean metal of the engine.',
    steps: [
      'Key off, battery isolated where fitted.',
      'Touch the leads together and enter what the meter shows.',
      'Take the lead off each plug; clean the terminal.',
      'Red probe on the terminal, black on bare engine metal; wait until the display settles.',
      'Enter what the display shows, digit for digit. OL where it shows overload, low~high where it wanders.',
    ],
    cautions: [CAUTIONS.noStartingFluid, CAUTIONS.hotPlugs],
    proves: 'That the heating element of each plug conducts, and how well.',
    cannotProve: 'That the plug gets hot at its tip, or that its feed works.',
    advice: [
      {
        pattern: ['one', 'some', 'group', 'incomplete'],
        verdict: ['high', 'open', 'low', 'short'],
        say: 'Clean the terminal of {suspects} and read once more with the black probe on another clean spot; what stays is the plug.',
      },
      {
        pattern: ['one'],
        verdict: ['high', 'open', 'low', 'short'],
        say: 'One plug has failed and the set has the same age: price both, this one and the whole set.',
      },
      {
        pattern: ['group'],
        say: 'Plugs that share a feed and failed together: before fitting new ones, measure the feed voltage and its duration at their connector.',
      },
      {
        mostlyBad: true,
        say: 'Most of the set is bad. The good one is the odd one out here; the limit counts, not the company.',
      },
      {
        pattern: ['all'],
        verdict: ['high', 'open'],
        doubts: 'meter',
        say: 'All of them at once: prove the meter and the black probe’s ground on a known resistance before condemning the set.',
      },
      {
        pattern: ['good'],
        say: 'The plugs conduct. If the complaint stays, measure the feed at the plug with the glow command on, then through the harness.',
      },
    ],
    rules: thumb(
      ohm({
        lower: 0.3,
        upper: 1.5,
        watchUpper: 1,
        shortBelow: 0.05,
        openAbove: 1e4,
        steadyWithin: 0.1,
        neighbours: { maxRatio: 2.5 },
      }),
    ),
  }),
  states: [
    STATES.keyOff,
    { id: 'leads-off', label: 'plug leads off', why: 'With the lead on, the other plugs are read in parallel.' },
    { id: 'same-temperature', label: 'all plugs equally cold', why: 'A hot plug reads higher than a cold one.' },
    STATES.meterBattery,
  ],
};

const CURRENT = {
  area: AREA,
  part: 'plug',
  quantity: 'current',
  unit: 'A',
  tool: { kind: 'clamp', mode: 'DC amperes, its ratio known' },
  minutes: 6,
  shared: SHARED,
  connection: 'plugged-in',
  condition: { key: 'on', engine: 'stopped' },
  states: [STATES.batteryCharged, STATES.commandOn, STATES.clampZeroed],
  cautions: GLOWING,
  probe: 'Clamp around the wire of one plug, arrow towards the plug.',
  proves: 'That plug, wire and feed carry current together.',
  cannotProve: 'Which of them is at fault where the current is low.',
  advice: [
    { verdict: ['low', 'odd'], say: 'Compare {suspects} in ohms, at the plug and through the harness.' },
    { pattern: ['all'], say: 'All of them: feed, relay and ground before the plugs.' },
  ],
} as const;

export const GLOW_PLUGS: readonly TestDefinition[] = [
  AT_PLUG,
  ohmTest({
    id: 'glow-plug-through-harness',
    name: 'Glow plugs, through the harness',
    area: AREA,
    part: 'plug with its wire',
    minutes: 4,
    shared: 'engine ground',
    purpose: 'With the bare readings beside it, tells the wire from the plug.',
    connection: 'through-harness',
    cautions: [CAUTIONS.noStartingFluid],
    probe: 'Red on the pin of the cover’s connector, black on bare engine metal; the plug stays connected.',
    steps: ['Key off, connector at the cover off, plugs connected.', 'Zero the leads.', 'Each pin to engine ground.'],
    proves: 'That the path from the connector through the plug to ground conducts.',
    cannotProve: 'That it carries current under load: a single strand is enough for an ohmmeter.',
    advice: [
      {
        verdict: ['high', 'open'],
        say: 'Measure {suspects} again at the bare plug: what is more than there belongs to wire and connector, about 1 ohm at most.',
      },
    ],
    rules: thumb(
      ohm({ lower: 0.3, upper: 2.5, watchUpper: 2, shortBelow: 0.05, openAbove: 1e4, neighbours: { maxRatio: 2.5 } }),
    ),
  }),
  otherTest({
    ...CURRENT,
    id: 'glow-plug-current',
    name: 'Glow plugs, current at start',
    purpose: 'Shows under load what an ohmmeter cannot: a plug or wire that gives up when it carries current.',
    steps: [
      'Zero the clamp away from any wire.',
      'Command the plugs on.',
      'Read each in the first second after the start: the current falls as the plug heats.',
    ],
    rules: thumb({ quantity: 'current', unit: 'A', lower: 8, upper: 30, neighbours: { maxDifference: 3 } }),
  }),
  otherTest({
    ...CURRENT,
    id: 'glow-plug-current-later',
    name: 'Glow plugs, current after some seconds',
    purpose: 'A plug that does not heat keeps its starting current; a contact that gives up loses it.',
    steps: [
      'Zero the clamp away from any wire.',
      'Command the plugs on and count the seconds that the specification states.',
      'Read each after the same number of seconds.',
    ],
    rules: thumb({ quantity: 'current', unit: 'A', lower: 4, upper: 20, neighbours: { maxDifference: 3 } }),
  }),
  otherTest({
    ...CURRENT,
    id: 'glow-current-feedback',
    name: 'Glow plugs, current that the control unit reports',
    minutes: 3,
    tool: { kind: 'scan tool', mode: 'current per plug, commanded on' },
    purpose:
      'A unit that switches each plug also measures it: what it reports, held against a clamp, tells wire from unit.',
    probe: 'On the scan tool, plugs commanded on; nothing is opened.',
    steps: ['Command the plugs on.', 'Write down the current of each plug in the first second.'],
    rules: thumb({ quantity: 'current', unit: 'A', lower: 8, upper: 30, neighbours: { maxDifference: 3 } }),
  }),
  voltTest({
    id: 'glow-feed-voltage',
    name: 'Glow plugs, feed with command on',
    area: AREA,
    part: 'feed',
    minutes: 5,
    shared: 'battery, fuse and relay or control unit',
    purpose: 'Shows whether battery voltage reaches each plug while the plugs are commanded on.',
    states: [STATES.batteryCharged, STATES.commandOn, STATES.pluggedIn],
    cautions: GLOWING,
    probe: 'Red on the plug’s terminal with its lead on, black on the battery’s negative post.',
    steps: [
      'Command the plugs on and read the state on the scan tool: many engines keep them on long after the start.',
      'Read each terminal under load.',
    ],
    proves: 'That fuse, relay or control unit and wire deliver.',
    cannotProve: 'That the plug gets hot.',
    advice: [
      { pattern: ['all'], say: 'None is fed: fuse, relay or control unit, and the command itself.' },
      {
        pattern: ['one', 'some', 'group'],
        say: 'The others prove battery, fuse and relay. Follow the wire to {suspects}.',
      },
    ],
    rules: bySystem(volt({ lower: 11, upper: 15 }), volt({ lower: 22, upper: 30 })),
  }),
  voltTest({
    id: 'glow-supply',
    name: 'Glow supply: fuse, relay or control unit',
    area: AREA,
    part: 'supply',
    layout: 'pins',
    positions: ['before the fuse', 'behind the fuse', 'relay or unit in', 'relay or unit out', 'command'],
    minutes: 6,
    purpose: 'Walks from the battery to the plugs’ feed and finds where the voltage ends.',
    states: [STATES.batteryCharged, STATES.commandOn, STATES.pluggedIn],
    cautions: GLOWING,
    probe: 'Black on the battery’s negative post, red on each place in turn, command on.',
    steps: [
      'Command the plugs on.',
      'Each place from the battery towards the plugs.',
      'A relay: swap it with a twin before it is condemned.',
    ],
    proves: 'Up to which place the supply is whole under this load.',
    cannotProve: 'That it holds when every plug draws at once, unless all are connected.',
    advice: [{ verdict: ['low'], say: 'The first place that is low: what lies just before it, fuse, relay or wire.' }],
    rules: bySystem(volt({ lower: 11, watchLower: 11.8, upper: 15 }), volt({ lower: 22, watchLower: 23.6, upper: 30 })),
  }),
  otherTest({
    id: 'glow-plug-heat',
    name: 'Glow plug, bench heat test',
    area: AREA,
    part: 'plug',
    quantity: 'time',
    unit: 's',
    tool: { kind: 'stopwatch', mode: 'seconds until the tip glows' },
    minutes: 10,
    connection: 'on the bench',
    condition: { key: 'off', engine: 'stopped' },
    states: [STATES.batteryCharged],
    cautions: [CAUTIONS.benchHeat, CAUTIONS.noStartingFluid],
    // Voltages that plugs are sold for: common practice, no source.
    asks: {
      what: 'plug rated voltage',
      options: ['4.4 V', '5 V', '7 V', '11 V', '12 V', '23 V'],
      say: 'The plug is rated {}: never more than that on it, or it burns out in seconds.',
    },
    probe: 'Plug in a vice, fused lead to the terminal, body to the battery’s negative.',
    purpose: 'Shows whether the tip gets hot, and how soon: ohms alone do not.',
    steps: [
      'Check the rated voltage on the plug.',
      'Plug in the vice, shielded.',
      'A short burst; count the seconds until the tip glows. Type never where it does not.',
    ],
    proves: 'That the plug heats at its tip.',
    cannotProve: 'Anything about its feed in the engine.',
    advice: [{ verdict: ['high', 'odd'], say: 'Slow or cold is a fail even when the ohms look right.' }],
    rules: thumb({ quantity: 'time', unit: 's', upper: 10, neighbours: { maxRatio: 2 } }),
  }),
  seenTest({
    id: 'glow-plug-removal',
    name: 'Glow plugs, look at the tip',
    area: AREA,
    part: 'plug',
    minutes: 20,
    uses: [{ what: 'anti-seize for the threads', worth_min: 1 }],
    cautions: [CAUTIONS.noStartingFluid, CAUTIONS.hotPlugs],
    purpose: 'A swollen, bent or burnt tip tells of the plug and of the injector behind it.',
    probe: 'Engine warm, long socket, even pull; keep the plugs in order.',
    steps: [
      'Penetrating fluid, engine warm, within the maker’s limit of breakaway torque.',
      'Lay them out in order; look at each tip.',
      'Pass, or fail with a note of what is seen.',
    ],
    proves: 'What the tip looks like.',
    cannotProve: 'That a good-looking tip heats.',
    advice: [
      { verdict: ['failed'], say: 'A burnt tip: look at the injector of {suspects} before a new plug goes in.' },
    ],
  }),
];
