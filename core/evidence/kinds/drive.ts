import { tr } from '../../locale/translate';
import { joinAnd } from '../../quantity/print';
import { conditionWords, type EvidenceKindDefinition, mechanics, say } from './definition';
import { chanceThere, momentsOf } from './supposition';

/** A drive in the conditions of the complaint. */
export const DRIVE: EvidenceKindDefinition<'drive'> = {
  kind: 'drive',
  name: 'Drive',
  purpose: 'A drive in the conditions of the complaint.',
  caution: 'A second person works the laptop; the driver drives.',
  fields: [
    { field: 'conditions', label: 'Conditions', kind: 'conditions' },
    {
      field: 'outcome',
      label: 'The fault',
      kind: 'choice',
      options: [
        ['showed', 'showed itself'],
        ['did not show', 'did not show'],
      ],
    },
    { field: 'seen', label: 'What was seen', kind: 'long' },
  ],
  example: { kind: 'drive', conditions: ['hot', 'towing'], outcome: 'showed', seen: 'power lost on the hill' },
  words: (e) =>
    tr`Drive${e.conditions.length ? ` (${joinAnd([...e.conditions])})` : ''}: the fault ${e.outcome}. ${e.seen}`,
  statements: (e, from) => [
    say(
      'drive',
      'noted',
      mechanics('the complaint', null),
      tr`${e.outcome === 'showed' ? 'Showed itself' : 'Did not show itself'} in a drive${conditionWords(e.conditions)}: ${e.seen}.`,
      from,
    ),
  ],
  likelihood: (e, supposed, shows) => {
    if (supposed.members.length === 0) return 0.5;
    // What is always there shows in any drive; what comes and goes, where its conditions were met.
    const showed = supposed.members.every((m) => m.intermittent)
      ? chanceThere(supposed, momentsOf(e.conditions), shows)
      : 0.9;
    return e.outcome === 'showed' ? showed : 1 - showed;
  },
};
