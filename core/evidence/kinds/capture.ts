import { tr } from '../../locale/translate';
import { type EvidenceKindDefinition, mechanics, ofPosition, part, path, say } from './definition';
import type { SupposedFault, Supposition } from './supposition';
import type { Evidence, Stand, Target } from '../types';

type Capture = Extract<Evidence, { kind: 'capture' }>;
type Outcome = Capture['outcome'];
type Is = SupposedFault['is'];

/** What a capture over crank angle can show: in words, what it accuses, and how likely it is. */
interface Shown {
  readonly words: string;
  readonly means: string;
  readonly stand: Stand;
  readonly target: (at: Target['position']) => Target;
  /** What of a circuit it comes from, and how that is called; one that has a position must be at the same. */
  readonly from: readonly Is[];
  readonly called: RegExp;
  /**
   * Probability if that is supposed, and if not: a glow plug makes no pulse go missing. Common practice, no
   * source.
   */
  readonly chances: readonly [there: number, otherwise: number];
}

/** Parts and wires that injectors are driven through. */
const INJECTORS = /injector|common wire|pair|driver|module/;
const injector = (at: Target['position']): Target => part('injector', at);
const SHOWN: Readonly<Record<Outcome, Shown>> = {
  'no pulse': {
    words: 'gets no pulse of current',
    means: 'driver, wire or coil; its fuel side is not in question yet',
    stand: 'suspect',
    target: (at) => path('injector', at),
    from: ['part', 'path', 'input', 'shared'],
    called: INJECTORS,
    chances: [0.8, 0.02],
  },
  'off the grid': {
    words: 'has its pulse at another angle than the grid',
    means: 'what commands it: a correction of the controller, or its driver',
    stand: 'suspect',
    target: (at) => ({ kind: 'input', name: 'injector driver', position: at }),
    from: ['input'],
    called: INJECTORS,
    chances: [0.4, 0.1],
  },
  'compresses little': {
    words: 'compresses less than the others',
    means: 'rings, valves or gasket: no injector circuit does that',
    stand: 'suspect',
    target: (at) => mechanics('cylinder', at),
    from: [],
    called: INJECTORS,
    chances: [0.3, 0.3],
  },
  'gives little': {
    words: 'speeds the crank up less than the others',
    means: 'fuel, pulse or compression',
    stand: 'suspect',
    target: injector,
    from: ['part', 'path', 'input', 'shared'],
    called: INJECTORS,
    chances: [0.8, 0.15],
  },
  knocks: {
    words: 'knocks more than the others of its bank',
    means: 'its injector leaks or opens too early, and may starve the others',
    stand: 'suspect',
    target: injector,
    from: ['part'],
    called: /injector/,
    chances: [0.25, 0.2],
  },
  drags: {
    words: 'turns evenly, with far too much current',
    means: 'starter, engine or what it drives is hard to turn',
    stand: 'suspect',
    target: () => mechanics('turning of the engine', null),
    from: [],
    called: INJECTORS,
    chances: [0.3, 0.3],
  },
  'supply weak': {
    words: 'turns slowly while the battery is low',
    means: 'battery, cables or their ends before anything else',
    stand: 'suspect',
    target: () => ({ kind: 'shared', name: 'battery and starter cables', position: null }),
    from: ['shared'],
    called: /battery|cable|ground/,
    chances: [0.6, 0.1],
  },
  'out of time': {
    words: 'has the cam out of time against the known good',
    means: 'belt, chain or gears; or the wheel of the sensor has moved',
    stand: 'suspect',
    target: () => mechanics('cam drive', null),
    from: [],
    called: INJECTORS,
    chances: [0.3, 0.3],
  },
  'signal noisy': {
    words: 'has spikes in its position signal',
    means: 'shield, ground, air gap or the wire of the sensor',
    stand: 'suspect',
    target: () => path('position sensor', null),
    from: ['path', 'part'],
    called: /position sensor/,
    chances: [0.4, 0.06],
  },
  'as it should be': {
    words: 'is as it should be',
    means: 'nothing was odd while it was recorded',
    stand: 'noted',
    target: (at) => mechanics('cylinder', at),
    from: ['part', 'path', 'input', 'shared'],
    called: INJECTORS,
    chances: [0.25, 0.9],
  },
};

export const CAPTURE_OUTCOMES = Object.entries(SHOWN).map(([outcome, s]) => [outcome as Outcome, s.words] as const);

/** A capture over crank angle: what it has shown of the engine or of one cylinder. */
export const CAPTURE: EvidenceKindDefinition<'capture'> = {
  kind: 'capture',
  name: 'Capture',
  purpose: 'What a capture over crank angle has shown of the engine or of one cylinder.',
  caution:
    'Injectors carry high voltage: clamps only, round the insulation. Fuel off while cranking to compare compressions; hands clear of what moves.',
  fields: [
    { field: 'position', label: 'Cylinder', kind: 'cylinder', optional: true },
    { field: 'outcome', label: 'It', kind: 'choice', options: CAPTURE_OUTCOMES },
    { field: 'seen', label: 'What was seen', kind: 'long' },
  ],
  example: { kind: 'capture', position: 3, outcome: 'no pulse', seen: 'in none of 40 cycles, the others have theirs' },
  words: (e) => tr`Capture${ofPosition(e.position)}: ${SHOWN[e.outcome].words}. ${e.seen}`,
  statements: (e, from) => {
    const { stand, target, words, means } = SHOWN[e.outcome];
    const who = e.position === undefined ? 'The engine' : tr`Cylinder ${e.position}`;
    return [say('capture', stand, target(e.position ?? null), `${who} ${words}: ${means}.`, from)];
  },
  likelihood: (e, supposed) => {
    const [there, otherwise] = SHOWN[e.outcome].chances;
    const member = explains(e, supposed);
    if (!member) return otherwise;
    // What comes and goes may have been away while it was recorded.
    return member.intermittent ? (there + otherwise) / 2 : there;
  },
};

const explains = (e: Capture, { members }: Supposition): SupposedFault | undefined =>
  members.find(
    (m) =>
      SHOWN[e.outcome].from.includes(m.is) &&
      SHOWN[e.outcome].called.test(m.name) &&
      (e.position === undefined || m.position === null || m.position === e.position),
  );
