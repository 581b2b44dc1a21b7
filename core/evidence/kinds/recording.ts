import { tr } from '../../locale/translate';
import { type EvidenceKindDefinition, ofPosition, part, path, say } from './definition';
import { chanceThere, type SupposedFault, type Supposition } from './supposition';
import type { Stand, Target } from '../types';

/** What a recording has shown of one signal. */
export const RECORDING_OUTCOMES = [
  ['pin dropped out', 'dropped out at the pin while the other channels went on'],
  ['scan tool dropped out', 'went on at the pin while the scan tool’s value dropped out'],
  ['all dropped out', 'dropped out together with all other channels'],
  ['pin differs', 'differs at the pin from what the scan tool shows'],
  ['pin agrees', 'agrees at the pin with what the scan tool shows'],
  ['nothing found', 'shows nothing, as small as the search would have found it'],
] as const;
type Outcome = (typeof RECORDING_OUTCOMES)[number][0];

const WHAT_IT_SAYS: Readonly<
  Record<Outcome, (name: string, at: Target['position']) => readonly [Stand, Target, string]>
> = {
  'pin dropped out': (name, at) => [
    'suspect',
    path(name, at),
    'the sensor or its wire up to the pin breaks off now and then',
  ],
  'scan tool dropped out': (name, at) => [
    'suspect',
    { kind: 'input', name, position: at },
    'the wire’s end or the controller’s input loses it',
  ],
  'all dropped out': (name) => [
    'suspect',
    { kind: 'shared', name: tr`what ${name} and the others share`, position: null },
    'the common ground or a shared supply breaks off; first the recorder’s own leads',
  ],
  'pin differs': (name, at) => [
    'suspect',
    { kind: 'input', name, position: at },
    'the wire’s end, its ground or the controller’s input sees something else than the pin',
  ],
  'pin agrees': (name, at) => [
    'cleared',
    { kind: 'input', name, position: at },
    'wire end and controller input see what the pin carries',
  ],
  'nothing found': (name, at) => ['noted', part(name, at), 'nothing left its course while it was recorded'],
};

/** A recording at the pins: what was found in it, or that nothing was. */
export const RECORDING: EvidenceKindDefinition<'recording'> = {
  kind: 'recording',
  name: 'Recording',
  purpose: 'What a recording at the controller’s pins has shown.',
  caution: 'Back-probe beside the seal, never through it; the leads clear of moving and hot parts.',
  fields: [
    { field: 'signal', label: 'Signal', kind: 'part', hint: 'such as rail sensor' },
    { field: 'position', label: 'Position', kind: 'position', optional: true },
    { field: 'outcome', label: 'The signal', kind: 'choice', options: RECORDING_OUTCOMES },
    { field: 'seen', label: 'What was seen', kind: 'long' },
  ],
  example: {
    kind: 'recording',
    signal: 'rail sensor',
    outcome: 'pin dropped out',
    seen: 'for 20 ms at 12:03 to 0.02 V, the supply stayed at 5.00 V',
  },
  words: (e) => tr`Recording of ${e.signal}${ofPosition(e.position)}: ${outcomeWords(e.outcome)}. ${e.seen}`,
  statements: (e, from) => {
    const [stand, target, means] = WHAT_IT_SAYS[e.outcome](e.signal, e.position ?? null);
    return [
      say(
        'recording',
        stand,
        target,
        tr`In a recording ${e.signal}${ofPosition(e.position)} ${outcomeWords(e.outcome)}: ${means}.`,
        from,
      ),
    ];
  },
  likelihood: (e, supposed, shows) =>
    CHANCES[e.outcome](
      supposed,
      (m) => e.position === undefined || m.position === null || m.position === e.position,
      shows,
    ),
};

const outcomeWords = (outcome: Outcome): string => RECORDING_OUTCOMES.find(([o]) => o === outcome)?.[1] ?? outcome;

type Chance = (
  s: Supposition,
  isThere: (m: SupposedFault) => boolean,
  shows: Parameters<typeof chanceThere>[2],
) => number;

/**
 * How likely the outcome is where one of these is supposed: `often` if it comes and goes, `seldom` if it is
 * always there.
 */
const byKind =
  (kinds: readonly SupposedFault['is'][], often: number, seldom: number, other: number): Chance =>
  (s, isThere) => {
    const those = s.members.filter((m) => kinds.includes(m.is) && isThere(m));
    return those.some((m) => m.intermittent) ? often : those.length ? seldom : other;
  };

// Common practice, no source: a recording shows what comes and goes while it runs. Its own leads slip at
// times.
const CHANCES: Readonly<Record<Outcome, Chance>> = {
  'pin dropped out': byKind(['part', 'path'], 0.7, 0.1, 0.02),
  'scan tool dropped out': byKind(['input'], 0.7, 0.2, 0.03),
  'all dropped out': byKind(['shared'], 0.7, 0.1, 0.08),
  'pin differs': byKind(['input', 'path'], 0.4, 0.6, 0.04),
  'pin agrees': (s, isThere, shows) => 1 - CHANCES['pin differs'](s, isThere, shows),
  'nothing found': (s, _, shows) =>
    s.members.length === 0 ? 0.97 : s.members.every((m) => m.intermittent) ? 1 - 0.6 * chanceThere(s, [], shows) : 0.6,
};
