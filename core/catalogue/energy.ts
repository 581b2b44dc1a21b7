import { bySystem, CAUTIONS, STATES, thumb, volt, voltTest } from './shared';
import type { TestDefinition } from './types';

/** What everything else hangs on. Common practice, no source. */
export const ENERGY: readonly TestDefinition[] = [
  voltTest({
    id: 'battery-at-rest', name: 'Battery at rest', area: 'Energy first', part: 'battery', positions: ['battery'], minutes: 1, states: [], cautions: [CAUTIONS.batteryGas],
    condition: { key: 'off', engine: 'stopped' },
    purpose: 'Everything after it hangs on this: charge first, then measure.', probe: 'On the battery’s posts, not on the clamps.',
    steps: ['Loads off for some minutes.', 'Posts, not clamps.'], proves: 'How far the battery is charged.', cannotProve: 'That it holds under load: read it while cranking.',
    advice: [{ verdict: ['low', 'watch'], say: 'Charge the battery before anything else is measured.' }],
    rules: bySystem(volt({ lower: 12.4, watchLower: 12.6, upper: 13.2 }), volt({ lower: 24.8, watchLower: 25.2, upper: 26.4 })),
  }),
  voltTest({
    id: 'battery-cranking', name: 'Battery, before, while and after cranking', area: 'Energy first', part: 'battery', layout: 'states', positions: ['at rest', 'cranking', 'after'], minutes: 3, people: 2,
    states: [STATES.batteryCharged], cautions: [CAUTIONS.batteryGas, CAUTIONS.running, CAUTIONS.crankOnly], condition: { key: 'on', engine: 'each state in turn' },
    purpose: 'Shows what the battery holds under the largest load it has.', probe: 'On the battery’s posts, not on the clamps.',
    steps: ['Fuel disabled where the test only cranks.', 'Read at rest, the lowest value while cranking, and a minute after.', 'Fifteen seconds at most, then rest the starter.'],
    proves: 'That the battery carries the starter at this temperature.', cannotProve: 'Whether a low value is the battery, its clamps or a starter that drags: read the drop of the cables.',
    advice: [{ verdict: ['low'], say: 'Read again from post to clamp on both sides while cranking: what is lost there is a clamp, not the battery.' }],
    rules: bySystem(
      volt({ lower: 12.4, watchLower: 12.6, byPosition: { cranking: { lower: 9.6, watchLower: 10, upper: null } } }),
      volt({ lower: 24.8, watchLower: 25.2, byPosition: { cranking: { lower: 19.2, watchLower: 20, upper: null } } })),
  }),
  voltTest({
    id: 'feed-steps', name: 'Feed step by step under load', area: 'Energy first', part: 'feed', layout: 'places', positions: ['behind the fuse', 'behind the relay'], minutes: 4,
    states: [STATES.commandOn, STATES.pluggedIn], purpose: 'Walks along a feed and finds the step at which the voltage ends.', probe: 'Black on the battery’s negative post, red on each place in turn, load on.',
    steps: ['Switch the load on.', 'Behind the fuse, then behind the relay.', 'A relay: swap it with a twin before it is condemned.'], cautions: [CAUTIONS.batteryGas], proves: 'Up to which place the feed is whole under this load.', cannotProve: 'Anything about what lies behind the last place.',
    advice: [{ verdict: ['low'], say: 'The first place that is low: what lies just before it.' }], rules: bySystem(volt({ lower: 11.5, watchLower: 12, upper: 15 }), volt({ lower: 23, watchLower: 24, upper: 30 })),
  }),
  voltTest({
    id: 'voltage-drop', name: 'Voltage drop of a feed or ground under load', area: 'Energy first', part: 'feed or ground', layout: 'places', positions: ['feed', 'ground'], minutes: 6,
    states: [STATES.commandOn, STATES.pluggedIn], purpose: 'A broken strand passes an ohms check and fails under load; this finds it.',
    probe: 'Along the wire: one probe at its beginning, the other at its end, load on.', probes: { feed: 'Red on the battery’s positive post, black on the consumer’s feed pin.', ground: 'Red on the consumer’s ground pin, black on the battery’s negative post.' },
    steps: ['Switch the load on; nothing is lost in a wire without current.', 'Feed: from the battery’s positive post to the pin.', 'Ground: from the pin to the negative post.', 'A high value: halve the way until the place is found.'],
    cautions: [CAUTIONS.batteryGas], proves: 'That wire, clamps and contacts carry this current.', cannotProve: 'That they carry more than this load takes.',
    advice: [{ verdict: ['high', 'watch'], say: 'Move the probe along the way: the step in voltage is the place.' }, { verdict: ['low'], say: 'Less than nothing: the probes are crossed, or the load is off.' }],
    rules: thumb(volt({ upper: 0.5, watchUpper: 0.3, byPosition: { ground: { upper: 0.3, watchUpper: 0.1 } } })),
  }),
  voltTest({
    id: 'controller-feed-steps', name: 'Controller feed, step by step', area: 'Energy first', part: 'feed', layout: 'places', positions: ['behind the master switch', 'behind the main fuse', 'relay in', 'relay out'], minutes: 5,
    states: [STATES.keyOn, STATES.pluggedIn], purpose: 'Walks from the battery to the controller and finds the step at which the voltage ends.', probe: 'Black on the battery’s negative post, red on each place in turn, key on.',
    steps: ['Key on, controller plugged in: without its load a bad contact looks good.', 'Master switch, main fuse, relay in, relay out.', 'A relay: swap it with a twin before it is condemned.'], cautions: [CAUTIONS.batteryGas], proves: 'Up to which place the feed is whole under this load.', cannotProve: 'Anything about what lies behind the last place.',
    advice: [{ verdict: ['low'], say: 'The first place that is low: what lies just before it.' }], rules: bySystem(volt({ lower: 11.5, watchLower: 12, upper: 15 }), volt({ lower: 23, watchLower: 24, upper: 30 })),
  }),
  voltTest({
    id: 'starter-drops', name: 'Starter cables, drops while cranking', area: 'Energy first', part: 'cable', layout: 'places', positions: ['positive cable', 'solenoid contacts', 'negative cable'], minutes: 6, people: 2,
    states: [STATES.batteryCharged], cautions: [CAUTIONS.batteryGas, CAUTIONS.running, CAUTIONS.crankOnly], condition: { key: 'on', engine: 'cranking' },
    purpose: 'Says where the volts of a slow starter are lost: cables, clamps or solenoid.', probe: 'Along the way of the current, one probe at each end, while a second person cranks.',
    probes: { 'positive cable': 'Red on the positive post, black on the solenoid’s battery stud.', 'solenoid contacts': 'Red on the battery stud, black on the motor stud.', 'negative cable': 'Red on the starter’s body, black on the negative post.' },
    steps: ['Fuel disabled.', 'Probes on before the starter turns; read while it turns.', 'Fifteen seconds at most, then rest the starter.'], proves: 'That cables, clamps and contacts carry the starter’s current.', cannotProve: 'That the starter itself is good.',
    advice: [{ verdict: ['high', 'watch'], say: 'Post to clamp first: most of it is lost there. Then the length of the cable.' }, { pattern: ['good'], say: 'Cables are good: battery under load and the starter’s current are left.' }],
    rules: thumb(volt({ lower: -0.05, upper: 0.5, watchUpper: 0.3 })),
  }),
];
