import type { EvidenceField, EvidenceKindDefinition } from '../../core/evidence/kinds/definition';
import { EVIDENCE_KINDS } from '../../core/evidence/kinds/kinds';
import type { Evidence, EvidenceKind } from '../../core/evidence/types';
import type { Position } from '../../core/judge/types';
import type { Problem } from '../../core/foundation/result';
import { type Draft, DraftReader, pruned } from '../kit/draft';

/** A kind of evidence as the form asks for it. */
export type EvidenceForm = Pick<
  EvidenceKindDefinition<EvidenceKind>,
  'kind' | 'name' | 'purpose' | 'caution' | 'fields'
>;

export const EVIDENCE_FORMS: readonly EvidenceForm[] = Object.values(EVIDENCE_KINDS);

/** A cylinder number where it is one, else a name. */
export const readPosition = (text: string): Position =>
  /^\d{1,3}$/.test(text.trim()) ? Number(text.trim()) : text.trim();

/** The evidence that a draft states, or what is missing, by the path that the server would name. */
export function evidenceOf(
  form: EvidenceForm,
  draft: Draft,
  conditions: readonly string[],
  photos: readonly string[],
): { body: Evidence } | { problems: readonly Problem[] } {
  const reader = new DraftReader(draft);
  const body: Record<string, unknown> = { kind: form.kind, ...(photos.length ? { photos } : {}) };
  for (const f of form.fields) {
    const text = reader.text(f.field);
    if (f.kind === 'conditions') body[f.field] = conditions;
    else if (text === undefined) {
      if (!f.optional)
        reader.problems.push({
          path: `/evidence/${f.field}`,
          message: f.options ? 'Choose one.' : 'This is needed.',
        });
    } else body[f.field] = valueOf(f, text);
  }
  return reader.problems.length ? { problems: reader.problems } : { body: pruned(body) as unknown as Evidence };
}

function valueOf(f: EvidenceField, text: string): unknown {
  if (f.kind === 'position' || f.kind === 'cylinder') return readPosition(text);
  return f.kind === 'yes-no' ? text === f.options?.[0]?.[0] : text;
}
