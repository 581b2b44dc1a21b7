import { tr } from '../../locale/translate';
import { type EvidenceKindDefinition, part, path, say } from './definition';

/** What was mended at a place: from then on older evidence about it is history. */
export const REPAIR: EvidenceKindDefinition<'repair'> = {
  kind: 'repair',
  name: 'Mended',
  purpose: 'Something was mended: what was read there before is history from now on.',
  fields: [
    {
      field: 'path',
      label: 'What was mended?',
      kind: 'yes-no',
      options: [
        ['yes', 'a wire or connector'],
        ['no', 'a part'],
      ],
    },
    { field: 'part', label: 'Part', kind: 'part', hint: 'or the part that the wire goes to' },
    { field: 'where', label: 'Where', kind: 'text' },
    { field: 'position', label: 'Position', kind: 'position', optional: true },
    { field: 'done', label: 'What was done', kind: 'long' },
  ],
  example: { kind: 'repair', where: 'the cover', path: true, part: 'injector', position: 4, done: 'loom replaced' },
  words: (e) => tr`Mended at ${e.where}: ${e.done}`,
  statements: (e, from) => [
    say(
      'repaired',
      'noted',
      e.path ? path(e.where, e.position ?? null) : part(e.part, e.position ?? null),
      tr`Mended at ${e.where}: ${e.done}.`,
      from,
    ),
  ],
  likelihood: () => 1,
};
