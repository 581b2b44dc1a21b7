import { tr } from '../../locale/translate';
import type { Ref, Statement } from '../types';
import { type EvidenceKindDefinition, type EvidenceOf, ofPosition, part, say } from './definition';

type NewPart = EvidenceOf<'new-part'>;

function statements(e: NewPart, from: readonly Ref[]): Statement[] {
  const target = part(e.part, e.position ?? null);
  const at = ofPosition(e.position);
  const tell = (stand: Statement['stand'], text: string): Statement[] => [say('new-part', stand, target, text, from)];
  switch (e.outcome) {
    case 'cured':
      return tell('bad', tr`A new ${e.part}${at} cured it: the old one, or the connector that was disturbed with it.`);
    case 'no change':
      return tell(
        'cleared',
        isSet(e)
          ? tr`New ${`${e.part}s`} changed nothing: they are hardly the cause, unless the new ones are one bad batch.`
          : tr`A new ${e.part}${at} changed nothing: the ${e.part}${at} is not the cause, unless the new one is bad too. New is not proven good.`,
      );
    case 'other fault':
      return tell('noted', tr`A new ${e.part}${at} brought another fault: ${e.changed}.`);
  }
}

/** Of parts that every cylinder has: all of them. */
const isSet = (e: NewPart): boolean => e.position === undefined && (e.part === 'plug' || e.part === 'injector');

/** A new part was fitted. */
export const NEW_PART: EvidenceKindDefinition<'new-part'> = {
  kind: 'new-part',
  name: 'New part',
  purpose: 'A new part was fitted: what changed?',
  fields: [
    { field: 'part', label: 'Part', kind: 'part' },
    { field: 'position', label: 'Position', kind: 'position', optional: true },
    {
      field: 'outcome',
      label: 'Outcome',
      kind: 'choice',
      options: [
        ['cured', 'cured'],
        ['no change', 'no change'],
        ['other fault', 'another fault'],
      ],
    },
    { field: 'changed', label: 'What changed', kind: 'long' },
  ],
  example: { kind: 'new-part', part: 'relay', outcome: 'no change', changed: 'nothing' },
  words: (e) => tr`New ${e.part}${ofPosition(e.position)}: ${e.outcome}. ${e.changed}`,
  statements,
  likelihood: (e, supposed) => {
    const bad = supposed.members.some(
      (m) =>
        m.is === 'part' &&
        m.name === e.part &&
        (e.position === undefined || m.position === null || m.position === e.position),
    );
    // New parts of one batch may be bad together.
    const cured = bad ? (supposed.members.length > 1 && !isSet(e) ? 0.1 : isSet(e) ? 0.75 : 0.88) : 0.05;
    return e.outcome === 'cured' ? cured : e.outcome === 'no change' ? 1 - cured : 1;
  },
};
