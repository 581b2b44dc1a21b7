import { tr } from '../../locale/translate';
import { capital } from '../../foundation/text';
import { positionWords } from '../../judge/words';
import type { Ref, Statement } from '../types';
import { type EvidenceKindDefinition, type EvidenceOf, HIGH_PRESSURE, part, path, say } from './definition';
import { isCalled, supposedAt } from './supposition';

type Swap = EvidenceOf<'swap'>;

const OUTCOMES: Readonly<Record<Swap['outcome'], string>> = {
  followed: 'the fault followed the part',
  stayed: 'the fault stayed',
  gone: 'the fault is gone',
};

function statements(e: Swap, from: readonly Ref[]): Statement[] {
  if (e.from === undefined || e.to === undefined) return withTwin(e, from);
  const [here, there] = [positionWords(e.from), positionWords(e.to)];
  const about = [part(e.part, e.from), path(e.part, e.from)] as const;
  if (e.wasThere === false)
    return [
      say(
        'swap',
        'noted',
        about[0],
        tr`${capital(here)} and ${there} were exchanged while the fault was not there: it proves nothing before the fault returns.`,
        from,
      ),
    ];
  const tell = (stand: Statement['stand'], target: Statement['target'], text: string): Statement =>
    say('swap', stand, target, text, from);
  switch (e.outcome) {
    case 'followed':
      return [
        tell(
          'bad',
          about[0],
          tr`The fault followed the ${e.part} from ${here} to ${there}: the ${e.part} that was at ${here} is bad.`,
        ),
        tell(
          'cleared',
          about[1],
          tr`With another ${e.part}, ${here} works: its wire and its controller output are good.`,
        ),
      ];
    case 'stayed':
      return [
        tell('cleared', about[0], tr`The fault stayed at ${here} with another ${e.part}: the ${e.part} is good.`),
        tell('suspect', about[1], tr`The fault stayed at ${here}: its wire, the controller, or the mechanics there.`),
      ];
    case 'gone':
      return [
        tell(
          'suspect',
          about[1],
          tr`After exchanging ${here} and ${there} the fault is gone from both: a connector that was disturbed, or an intermittent fault.`,
        ),
      ];
  }
}

/** A part that has no position, as a relay: exchanged with another one of its kind. */
function withTwin(e: Swap, from: readonly Ref[]): Statement[] {
  const target = part(e.part, null);
  if (e.wasThere === false)
    return [
      say(
        'swap',
        'noted',
        target,
        tr`The ${e.part} was exchanged while the fault was not there: it proves nothing.`,
        from,
      ),
    ];
  switch (e.outcome) {
    case 'stayed':
      return [
        say('swap', 'cleared', target, tr`The fault stayed with another ${e.part}: the ${e.part} is good.`, from),
      ];
    case 'followed':
      return [say('swap', 'bad', target, tr`The fault went with the ${e.part}: it is bad.`, from)];
    case 'gone':
      return [
        say(
          'swap',
          'suspect',
          target,
          tr`With another ${e.part} the fault is gone: the ${e.part}, or the contact that was disturbed with it.`,
          from,
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
    { field: 'from', label: 'From', kind: 'position', optional: true, hint: 'empty: with a twin, as a relay' },
    { field: 'to', label: 'To', kind: 'position', optional: true },
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
    {
      field: 'wasThere',
      label: 'Just before',
      kind: 'yes-no',
      options: [
        ['yes', 'the fault was there'],
        ['no', 'it was not there'],
      ],
      optional: true,
    },
  ],
  example: { kind: 'swap', part: 'injector', from: 3, to: 1, outcome: 'followed' },
  words: (e) =>
    tr`Swap of ${e.part}${e.from === undefined || e.to === undefined ? ' with its twin' : tr`, ${positionWords(e.from)} with ${positionWords(e.to)}`}: ${OUTCOMES[e.outcome]}${e.wasThere === false ? ', which was not there before' : ''}`,
  statements,
  likelihood: (e, supposed) => {
    if (e.wasThere === false) return 0.5;
    const { from } = e;
    // A part that has no cylinder is known by its name.
    if (typeof from !== 'number') {
      const own = supposed.members.some((m) => m.position === null && isCalled(m.name, e.part));
      return own
        ? { followed: 0.5, stayed: 0.06, gone: 0.44 }[e.outcome]
        : { followed: 0.03, stayed: 0.87, gone: 0.1 }[e.outcome];
    }
    const own = supposedAt(supposed, from);
    if (own.some((m) => m.is === 'part' && m.name === e.part))
      return { followed: 0.9, stayed: 0.04, gone: 0.06 }[e.outcome];
    const inPath = own.some((m) => m.is === 'path') || supposed.members.some((m) => m.is === 'shared');
    return inPath
      ? { followed: 0.03, stayed: 0.85, gone: 0.12 }[e.outcome]
      : { followed: 0.04, stayed: 0.9, gone: 0.06 }[e.outcome];
  },
};
