import { capital } from '../../foundation/text';
import type { Stand } from '../types';
import { type EvidenceKindDefinition, type EvidenceOf, mechanics, ofPosition, say } from './definition';

type Mechanical = EvidenceOf<'mechanical'>;

const STANDS: Readonly<Record<Mechanical['outcome'], Stand>> = { broken: 'bad', doubtful: 'suspect', good: 'cleared' };
/** If nothing electrical is wrong, and if something is. */
const CHANCES: Readonly<Record<Mechanical['outcome'], readonly [outside: number, inside: number]>> = {
  broken: [0.3, 0.02],
  doubtful: [0.3, 0.12],
  good: [0.4, 0.86],
};

/**
 * What was felt, heard or seen of the engine itself: it turns hard, no compression, a coupling that is worn.
 */
export const MECHANICAL: EvidenceKindDefinition<'mechanical'> = {
  kind: 'mechanical',
  name: 'Mechanics',
  purpose: 'What was felt, heard or seen of the engine itself: compression, how it turns, drives and couplings.',
  caution: 'Bar by hand with the key out and the battery isolated; keep hands clear of belts and fans.',
  fields: [
    { field: 'where', label: 'What', kind: 'text', hint: 'compression, pump drive, turning by hand' },
    { field: 'position', label: 'Cylinder', kind: 'position', optional: true },
    {
      field: 'outcome',
      label: 'It is',
      kind: 'choice',
      options: [
        ['broken', 'broken or worn out'],
        ['doubtful', 'not as it should be'],
        ['good', 'good'],
      ],
    },
    { field: 'seen', label: 'What was seen', kind: 'long' },
  ],
  example: {
    kind: 'mechanical',
    where: 'pump drive',
    outcome: 'broken',
    seen: 'the coupling turns, the pump does not',
  },
  words: (e) => `${e.where}${ofPosition(e.position)}: ${e.outcome}. ${e.seen}`,
  statements: (e, from) => [
    say(
      'mechanical',
      STANDS[e.outcome],
      mechanics(e.where, e.position ?? null),
      `${capital(e.where)}${ofPosition(e.position)}: ${e.seen}.`,
      from,
    ),
  ],
  likelihood: (e, supposed) => CHANCES[e.outcome][supposed.members.length === 0 ? 0 : 1],
};
