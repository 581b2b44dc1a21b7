import { tr } from '../../locale/translate';
import { type EvidenceKindDefinition, path, say } from './definition';
import { pathsNear } from './supposition';

/** The loom was moved while something was watched. */
export const WIGGLE: EvidenceKindDefinition<'wiggle'> = {
  kind: 'wiggle',
  name: 'Wiggle',
  purpose: 'Move the loom while a meter or the scan tool is watched.',
  fields: [
    { field: 'where', label: 'Where', kind: 'text', hint: 'which stretch, which connector' },
    { field: 'position', label: 'Position', kind: 'position', optional: true },
    {
      field: 'outcome',
      label: 'The connection',
      kind: 'choice',
      options: [
        ['broke', 'broke'],
        ['held', 'held'],
      ],
    },
  ],
  example: { kind: 'wiggle', where: 'the bracket', position: 2, outcome: 'broke' },
  words: (e) => tr`Loom moved at ${e.where}: ${e.outcome === 'broke' ? 'the connection broke' : 'it held'}`,
  statements: (e, from) => [
    say(
      'wiggle',
      e.outcome === 'broke' ? 'bad' : 'noted',
      path(e.where, e.position ?? null),
      e.outcome === 'broke'
        ? tr`Moved at ${e.where}, the connection breaks: it is bad there.`
        : tr`Moved at ${e.where}, the connection held.`,
      from,
    ),
  ],
  likelihood: (e, supposed) => {
    const paths = pathsNear(supposed, e.position);
    const broke = paths.some((m) => m.intermittent) ? 0.85 : paths.length ? 0.5 : 0.03;
    return e.outcome === 'broke' ? broke : 1 - broke;
  },
};
