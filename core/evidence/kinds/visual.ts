import { tr } from '../../locale/translate';
import { type EvidenceKindDefinition, path, say } from './definition';
import { pathsNear } from './supposition';

/** What the eye finds. */
export const VISUAL: EvidenceKindDefinition<'visual'> = {
  kind: 'visual',
  name: 'Seen',
  purpose: 'What the eye finds, with the place.',
  fields: [
    { field: 'where', label: 'Where', kind: 'text' },
    { field: 'position', label: 'Position', kind: 'position', optional: true },
    {
      field: 'damaged',
      label: 'Damaged?',
      kind: 'yes-no',
      options: [
        ['yes', 'damaged'],
        ['no', 'looks good'],
      ],
    },
    { field: 'seen', label: 'What is seen', kind: 'long' },
  ],
  example: { kind: 'visual', where: 'the cover', position: 1, damaged: true, seen: 'insulation rubbed through' },
  words: (e) => tr`Seen at ${e.where}: ${e.seen}`,
  statements: (e, from) => [
    say(
      'visual',
      e.damaged ? 'bad' : 'noted',
      path(e.where, e.position ?? null),
      e.damaged
        ? tr`Seen at ${e.where}: ${e.seen}.`
        : tr`Looked at ${e.where}: ${e.seen}. It looks good, which proves nothing.`,
      from,
    ),
  ],
  likelihood: (e, supposed) => {
    const bad = pathsNear(supposed, e.position).length > 0;
    return e.damaged ? (bad ? 0.4 : 0.03) : bad ? 0.6 : 0.97;
  },
};
