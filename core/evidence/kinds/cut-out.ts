import { tr } from '../../locale/translate';
import { type EvidenceKindDefinition, mechanics, part, say } from './definition';
import { supposedAt } from './supposition';

/** One cylinder was cut while the engine ran. */
export const CUT_OUT: EvidenceKindDefinition<'cut-out'> = {
  kind: 'cut-out',
  name: 'Cut-out',
  purpose: 'Cut one cylinder at a time while it runs.',
  caution:
    'Running engine: chocks, park brake, neutral; hands and clothes clear of belts and fan. On the road a second person works the laptop.',
  fields: [
    { field: 'position', label: 'Cylinder', kind: 'cylinder' },
    {
      field: 'faultPresent',
      label: 'Was the fault present?',
      kind: 'yes-no',
      options: [
        ['yes', 'yes'],
        ['no', 'no'],
      ],
    },
    {
      field: 'change',
      label: 'With it cut, the engine ran',
      kind: 'choice',
      options: [
        ['worse', 'worse'],
        ['none', 'no different'],
      ],
    },
  ],
  example: { kind: 'cut-out', position: 4, faultPresent: true, change: 'none' },
  words: (e) =>
    tr`Cylinder ${e.position} cut${e.faultPresent ? ' with the fault present' : ''}: ${e.change === 'worse' ? 'worse, it works' : 'no difference'}`,
  statements: (e, from) => {
    const cylinder = mechanics('cylinder', e.position);
    if (e.change === 'worse')
      return [
        say('cut-out', 'cleared', cylinder, tr`Cylinder ${e.position} is missed when it is cut: it works.`, from),
      ];
    if (!e.faultPresent)
      return [
        say(
          'cut-out',
          'noted',
          cylinder,
          tr`Cutting cylinder ${e.position} made no difference, but the fault was not there then: repeat it with the fault present.`,
          from,
        ),
      ];
    return [
      say(
        'cut-out',
        'suspect',
        part('injector', e.position),
        tr`Cutting cylinder ${e.position} makes no difference: it does no work. Injector, its wire, or compression.`,
        from,
      ),
    ];
  },
  likelihood: (e, supposed) => {
    if (!e.faultPresent) return 1;
    const dead = supposedAt(supposed, e.position).length > 0 || supposed.members.some((m) => m.is === 'shared');
    return (e.change === 'none') === dead ? 0.9 : 0.1;
  },
};
