/**
 * Fitting sequences as data. What is done and in which order: common practice, no source. Values are the
 * workshop's own service data: none stands here.
 */
export interface FittingSequence {
  readonly id: string;
  readonly name: string;
  /** Names of findings that it mends. */
  readonly mends: readonly string[];
  readonly cautions: readonly string[];
  readonly steps: readonly FittingStep[];
}

export interface FittingStep {
  readonly id: string;
  readonly say: string;
  /** Done at every position, in order; absent: once. */
  readonly each?: true;
  /** A value is reached, and it is written down with the tool. */
  readonly value?: {
    readonly quantity: 'torque' | 'angle' | 'length' | 'voltage' | 'resistance';
    readonly what: string;
    /** What is asked for is not to be exceeded; below it is good. */
    readonly isLimit?: true;
  };
}

const DEFER = 'The maker’s service information and the site’s rules come before what stands here.';
const PRESSURE =
  'High-pressure fuel: wait until the rail has let go, never loosen a line on a running or just-stopped engine. A jet goes through gloves and skin.';

export const SEQUENCES: readonly FittingSequence[] = [
  {
    id: 'glow-plugs',
    name: 'Glow plugs',
    mends: ['plug'],
    cautions: [
      'Warm engine: burns. Stop at the maker’s limit of breakaway torque; a plug that breaks in the head is the dear outcome.',
      DEFER,
    ],
    steps: [
      { id: 'warm', say: 'Engine warm, key off, battery isolated where fitted.' },
      { id: 'clean', say: 'Clean about the plug so that nothing falls in.', each: true },
      { id: 'soak', say: 'Penetrating fluid, and time for it to work.', each: true },
      {
        id: 'extract',
        say: 'Long socket, even pull; back and forth rather than force.',
        each: true,
        value: { quantity: 'torque', what: 'breakaway torque at which it came', isLimit: true },
      },
      { id: 'seat', say: 'Clean thread and seat; look at the tip of the old one.', each: true },
      { id: 'grease', say: 'A trace of anti-seize where the maker allows it, never on the tip.', each: true },
      {
        id: 'torque',
        say: 'Fit by hand, then to torque.',
        each: true,
        value: { quantity: 'torque', what: 'fitting torque' },
      },
      { id: 'terminal', say: 'Terminal nut or clip on, lead in its place.', each: true },
      { id: 'read', say: 'Read the new one before the cover goes on.', each: true },
    ],
  },
  {
    id: 'injectors',
    name: 'Injectors',
    mends: ['injector'],
    cautions: [
      PRESSURE,
      'Injector circuits hold 48 to over 150 V for a while after key off: nothing plugged or unplugged live.',
      DEFER,
    ],
    steps: [
      { id: 'depressure', say: 'Rail without pressure, supply voltage gone, key out.' },
      { id: 'clean', say: 'Clean about lines and injector; caps on every opening at once.', each: true },
      { id: 'out', say: 'Line and return off, clamp off, injector out with the puller.', each: true },
      { id: 'bore', say: 'Old sealing washer out; clean bore and seat.', each: true },
      { id: 'washer', say: 'New sealing washer, one only.', each: true },
      { id: 'bolts', say: 'New stretch bolts: the old ones are not used again.', each: true },
      {
        id: 'torque',
        say: 'Clamp bolts to torque.',
        each: true,
        value: { quantity: 'torque', what: 'clamp, first stage' },
      },
      { id: 'angle', say: 'Then by angle.', each: true, value: { quantity: 'angle', what: 'clamp, angle' } },
      {
        id: 'line',
        say: 'New line where the maker says so; union to torque.',
        each: true,
        value: { quantity: 'torque', what: 'line union' },
      },
      { id: 'coding', say: 'Enter its trim code for its cylinder, exactly.', each: true },
      {
        id: 'rocker',
        say: 'Rocker or bridge clearance where the design has it.',
        each: true,
        value: { quantity: 'length', what: 'clearance' },
      },
      {
        id: 'cover',
        say: 'Cover on with a good gasket, bolts to torque.',
        value: { quantity: 'torque', what: 'cover' },
      },
      { id: 'bleed', say: 'Bleed, then look for leaks with a card, never with a hand.' },
    ],
  },
  {
    id: 'cover',
    name: 'Cover and gasket',
    mends: ['cover', 'cover gasket', 'valve cover', 'gasket'],
    cautions: ['Key off; oil and covers are hot after running.', DEFER],
    steps: [
      { id: 'clean', say: 'Clean both faces; nothing falls into the engine.' },
      { id: 'gasket', say: 'Gasket looked at, renewed where it is hard or torn; plugs of the loom seated in it.' },
      { id: 'free', say: 'No wire lies under the edge.' },
      { id: 'torque', say: 'Bolts in their order, to torque.', value: { quantity: 'torque', what: 'cover bolts' } },
    ],
  },
  {
    id: 'harness',
    name: 'Wiring and connectors',
    mends: [
      'harness',
      'plug',
      'injector',
      'signal wire',
      'reference wire',
      'ground wire',
      'upper wire',
      'lower wire',
      'feed',
      'ground',
      'common wire',
      'wire',
    ],
    cautions: ['Key off, battery isolated where fitted. Never pierce insulation under a cover.', DEFER],
    steps: [
      { id: 'route', say: 'Photograph the way of the loom before it comes off.' },
      { id: 'cause', say: 'Take away what did it: dress the edge, set the clip, free the bracket.' },
      { id: 'mend', say: 'Renew loom or conductor; crimped and sealed, no twisted joints.' },
      { id: 'pins', say: 'Pins seated and drawn at: each one grips.' },
      { id: 'seals', say: 'Seals and lock of the connector; clean of oil.' },
      { id: 'ring', say: 'Ring it out and move it while watching.' },
    ],
  },
  {
    id: 'three-wire-sensor',
    name: 'Sensor',
    mends: ['sensor', 'temperature sensor', 'pressure sensor'],
    cautions: ['Exhaust and its sensors burn. Ports and pipes may hold pressure.', DEFER],
    steps: [
      {
        id: 'bench',
        say: 'Prove the new one on the bench before it is fitted.',
        value: { quantity: 'voltage', what: 'signal at rest' },
      },
      { id: 'port', say: 'Clear port and pipe; keep the seal, or a new one.' },
      { id: 'torque', say: 'Fit to torque.', value: { quantity: 'torque', what: 'fitting torque' } },
      { id: 'plug', say: 'Key off, connector on, lock closed.' },
      { id: 'zero', say: 'Zero or learn it on the scan tool where the controller asks for it.' },
    ],
  },
  {
    id: 'position-sensor',
    name: 'Position sensor',
    mends: ['position sensor', 'primary position sensor', 'secondary position sensor', 'crank sensor', 'cam sensor'],
    cautions: ['Key off; nothing of the engine turns while a hand is at the wheel.', DEFER],
    steps: [
      { id: 'plug', say: 'Key off, connector off; pins looked at.' },
      { id: 'tip', say: 'Old one out; swarf off its tip, bore clean, wheel looked at.' },
      { id: 'bench', say: 'Read the new one before it is fitted.', value: { quantity: 'resistance', what: 'coil' } },
      { id: 'gap', say: 'Fit with shim or gap as asked.', value: { quantity: 'length', what: 'gap' } },
      { id: 'torque', say: 'Bolt to torque.', value: { quantity: 'torque', what: 'fitting torque' } },
      { id: 'route', say: 'Cable in its clips, away from hot and turning parts; lock closed.' },
      { id: 'learn', say: 'Learn it on the scan tool where the controller asks for it.' },
    ],
  },
  {
    id: 'module',
    name: 'Module or controller',
    mends: ['module', 'controller', 'output', 'driver', 'controller’s input', 'controller’s reference'],
    cautions: ['Injector modules hold 48 to over 150 V for a while after key off. Moisture kills modules.', DEFER],
    steps: [
      {
        id: 'discharged',
        say: 'Battery isolated; wait, then measure that it has let go.',
        value: { quantity: 'voltage', what: 'voltage left', isLimit: true },
      },
      { id: 'seal', say: 'Clean the cover before opening; look at the seal, wipe it.' },
      { id: 'fit', say: 'Fit to torque, grounds clean.', value: { quantity: 'torque', what: 'bolts' } },
      { id: 'program', say: 'Program or copy its data with the maker’s tool.' },
      { id: 'supply', say: 'Read feed and ground under load before it is trusted.' },
    ],
  },
  {
    id: 'supply',
    name: 'Feed, relay, fuse, battery',
    mends: [
      'fuse',
      'relay',
      'relay or control unit',
      'feed cable',
      'engine ground',
      'battery',
      'master switch',
      'main fuse',
      'main relay',
      'positive cable',
      'negative cable',
      'solenoid',
      'starter',
      'feed, relay or control unit, fuse and ground',
      'actuator',
    ],
    cautions: ['Battery: no sparks or flame; negative off first, on last.', DEFER],
    steps: [
      { id: 'isolate', say: 'Negative off.' },
      { id: 'cause', say: 'Find what blew the fuse or burnt the contact before it is renewed.' },
      { id: 'renew', say: 'Renew with the same rating; contacts bright, greased where the maker says so.' },
      { id: 'torque', say: 'Studs and clamps to torque.', value: { quantity: 'torque', what: 'studs' } },
      {
        id: 'drop',
        say: 'Read the drop with the load on.',
        value: { quantity: 'voltage', what: 'drop under load', isLimit: true },
      },
    ],
  },
];

/** The sequence for a finding: of the loom for what is between, of the part for a part. */
export function sequenceFor(what: string, name: string): FittingSequence {
  const harness = SEQUENCES.find((s) => s.id === 'harness') as FittingSequence;
  if (what === 'path') return harness;
  return (
    SEQUENCES.find((s) => s.id !== 'harness' && s.mends.includes(name)) ??
    SEQUENCES.find((s) => s.mends.includes(name)) ??
    (what === 'shared' ? (SEQUENCES.find((s) => s.id === 'supply') ?? harness) : harness)
  );
}
