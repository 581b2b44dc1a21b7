import type { Evidence, EvidenceKind } from '../../core/evidence/types';
import type { Position } from '../../core/judge/types';
import type { Problem } from '../../core/foundation/result';
import { type Draft, DraftReader, pruned } from '../kit/draft';

/** How each kind of evidence is asked for. Adding one is adding data here and a rule in `core/evidence`. */
export interface EvidenceField {
  readonly field: string;
  readonly label: string;
  readonly kind: 'text' | 'long' | 'position' | 'part' | 'choice' | 'conditions';
  readonly options?: readonly (readonly [string, string])[];
  readonly optional?: boolean;
  readonly hint?: string;
}

export interface EvidenceForm {
  readonly kind: EvidenceKind;
  readonly name: string;
  /** One sentence: what it is for. */
  readonly purpose: string;
  readonly caution?: string;
  readonly fields: readonly EvidenceField[];
}

const YES_NO = [
  ['yes', 'yes'],
  ['no', 'no'],
] as const;
const HIGH_PRESSURE =
  'Follow the maker’s service information. Never loosen a fuel line on a running or just-stopped engine; injectors hold voltage for a while after key off.';

export const EVIDENCE_FORMS: readonly EvidenceForm[] = [
  {
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
  },
  {
    kind: 'cut-out',
    name: 'Cut-out',
    purpose: 'Cut one cylinder at a time while it runs.',
    caution:
      'Running engine: chocks, park brake, neutral; hands and clothes clear of belts and fan. On the road a second person works the laptop.',
    fields: [
      { field: 'position', label: 'Cylinder', kind: 'position' },
      { field: 'faultPresent', label: 'Was the fault present?', kind: 'choice', options: YES_NO },
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
  },
  {
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
  },
  {
    kind: 'visual',
    name: 'Seen',
    purpose: 'What the eye finds, with the place.',
    fields: [
      { field: 'where', label: 'Where', kind: 'text' },
      { field: 'position', label: 'Position', kind: 'position', optional: true },
      {
        field: 'damaged',
        label: 'Damaged?',
        kind: 'choice',
        options: [
          ['yes', 'damaged'],
          ['no', 'looks good'],
        ],
      },
      { field: 'seen', label: 'What is seen', kind: 'long' },
    ],
  },
  {
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
  },
  {
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
  },
  {
    kind: 'repair',
    name: 'Mended',
    purpose: 'Something was mended: what was read there before is history from now on.',
    fields: [
      {
        field: 'path',
        label: 'What was mended?',
        kind: 'choice',
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
  },
];

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
          message: f.kind === 'choice' ? 'Choose one.' : 'This is needed.',
        });
    } else if (f.kind === 'position') body[f.field] = readPosition(text);
    else body[f.field] = BOOLEAN.has(f.field) ? text === 'yes' : text;
  }
  return reader.problems.length ? { problems: reader.problems } : { body: pruned(body) as unknown as Evidence };
}
const BOOLEAN: ReadonlySet<string> = new Set(['faultPresent', 'damaged', 'path']);
