import { tr } from '../../locale/translate';
import { type EvidenceKindDefinition, ofPosition, part, say } from './definition';
import { isCalled } from './supposition';

/** What was seen or known to be good without a reading: fuses, air bled, a battery charged overnight. */
export const NORMAL: EvidenceKindDefinition<'normal'> = {
  kind: 'normal',
  name: 'Found good',
  purpose: 'What is known to be good without a reading: fuses, a charged battery, a drive that is intact.',
  fields: [
    { field: 'part', label: 'What is good', kind: 'part', hint: 'fuse, battery, relay, drive coupling' },
    { field: 'position', label: 'Position', kind: 'position', optional: true },
    { field: 'seen', label: 'How it was seen', kind: 'long' },
  ],
  example: { kind: 'normal', part: 'fuse', seen: 'both fuses pulled and looked at' },
  words: (e) => tr`Good: ${e.part}${ofPosition(e.position)}. ${e.seen}`,
  statements: (e, from) => [
    say(
      'normal',
      'cleared',
      part(e.part, e.position ?? null),
      tr`The ${e.part}${ofPosition(e.position)} is good: ${e.seen}.`,
      from,
    ),
  ],
  likelihood: (e, supposed) => {
    const bad = supposed.members.filter(
      // The wire to a plug is called by the plug.
      (m) =>
        isCalled(m.name, e.part) &&
        !(m.is === 'path' && m.position !== null) &&
        (e.position === undefined || m.position === null || m.position === e.position),
    );
    if (bad.length === 0) return 0.95;
    return bad.every((m) => m.intermittent) ? 0.4 : 0.06;
  },
};
