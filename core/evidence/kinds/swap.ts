import { positionWords } from '../../judge/words';
import type { Ref, Statement } from '../types';
import { type EvidenceKindDefinition, type EvidenceOf, HIGH_PRESSURE, part, path, say } from './definition';
import { supposedAt } from './supposition';

type Swap = EvidenceOf<'swap'>;

const OUTCOMES: Readonly<Record<Swap['outcome'], string>> = {
  followed: 'the fault followed the part',
  stayed: 'the fault stayed',
  gone: 'the fault is gone',
};

function statements(e: Swap, from: readonly Ref[]): Statement[] {
  const [here, there] = [positionWords(e.from), positionWords(e.to)];
  const about = [part(e.part, e.from), path(e.part, e.from)] as const;
  const tell = (stand: Statement['stand'], target: Statement['target'], text: string): Statement =>
    say('swap', stand, target, text, from);
  switch (e.outcome) {
    case 'followed':
      return [
        tell(
          'bad',
          about[0],
          `The fault followed the ${e.part} from ${here} to ${there}: the ${e.part} that was at ${here} is bad.`,
        ),
        tell(
          'cleared',
          about[1],
          `With another ${e.part}, ${here} works: its wire and its controller output are good.`,
        ),
      ];
    case 'stayed':
      return [
        tell('cleared', about[0], `The fault stayed at ${here} with another ${e.part}: the ${e.part} is good.`),
        tell('suspect', about[1], `The fault stayed at ${here}: its wire, the controller, or the mechanics there.`),
      ];
    case 'gone':
      return [
        tell(
          'suspect',
          about[1],
          `After exchanging ${here} and ${there} the fault is gone from both: a connector that was disturbed, or an intermittent fault.`,
        ),
      ];
  }
}

/** A part was exchanged with that of another position, or with a twin, and the fault looked for again. */
export const SWAP: EvidenceKindDefinition<'swap'> = {
  kind: 'swap',
  name: 'Swap',
  purpose: 'Exchange the suspect with another position, clear, look again.',
  caution: HIGH_PRESSURE,
  fields: [
    { field: 'part', label: 'Part', kind: 'part' },
    { field: 'from', label: 'From', kind: 'position' },
    { field: 'to', label: 'To', kind: 'position' },
    {
      field: 'outcome',
      label: 'The fault',
      kind: 'choice',
      options: [
        ['followed', 'followed the part'],
        ['stayed', 'stayed'],
        ['gone', 'is gone'],
      ],
    },
  ],
  example: { kind: 'swap', part: 'injector', from: 3, to: 1, outcome: 'followed' },
  words: (e) => `Swap of ${e.part}, ${positionWords(e.from)} with ${positionWords(e.to)}: ${OUTCOMES[e.outcome]}`,
  statements,
  likelihood: (e, supposed) => {
    const own = supposedAt(supposed, e.from);
    if (own.some((m) => m.is === 'part' && m.name === e.part))
      return { followed: 0.9, stayed: 0.04, gone: 0.06 }[e.outcome];
    const inPath = own.some((m) => m.is === 'path') || supposed.members.some((m) => m.is === 'shared');
    return inPath
      ? { followed: 0.03, stayed: 0.85, gone: 0.12 }[e.outcome]
      : { followed: 0.04, stayed: 0.9, gone: 0.06 }[e.outcome];
  },
};
