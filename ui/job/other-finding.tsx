'use client';
import { type FindingBody, sayFound } from '../../core/evidence/finding';
import type { Target } from '../../core/evidence/types';
import { Choice } from '../kit/chips';
import { Field, inputLook } from '../kit/field';
import { readPosition } from './evidence-fields';

type Kind = Exclude<Target['kind'], 'input'>;

/** What somebody found that nothing has proposed. */
export interface OtherDraft {
  readonly kind: Kind;
  readonly name: string;
  /** As typed: "2, 4" or "pin 26"; empty: of no position. */
  readonly positions: string;
}

export const NO_OTHER: OtherDraft = { kind: 'part', name: '', positions: '' };

/** As the draft stands: its target, its positions, and the sentence that says it. */
export function foundOf(d: OtherDraft): Pick<Extract<FindingBody, { kind: 'found' }>, 'name' | 'positions' | 'text'> & {
  readonly what: Kind;
} {
  const name = d.name.trim();
  const positions = [...new Set(d.positions.split(/[,;]|\band\b/).map((p) => p.trim()))]
    .filter((p) => p !== '')
    .map(readPosition);
  const target = { kind: d.kind, name, position: positions[0] ?? null };
  return { what: d.kind, name, positions, text: name ? sayFound(target, positions, true) : '' };
}

export function OtherFinding({
  draft,
  error,
  onChange,
}: {
  draft: OtherDraft;
  error: string | undefined;
  onChange: (draft: OtherDraft) => void;
}) {
  return (
    <>
      <Choice<Kind>
        label="It is"
        value={draft.kind}
        onChange={(kind) => onChange({ ...draft, kind })}
        options={[
          ['part', 'a part'],
          ['path', 'a wire or connector'],
          ['shared', 'what several share'],
          ['mechanics', 'mechanics'],
        ]}
      />
      <Field
        id="finding-name"
        label={draft.kind === 'path' ? 'The wire to' : 'What'}
        hint={draft.kind === 'path' ? 'plug, sensor; or the place itself' : 'plug, relay, pump drive'}
        error={error}
      >
        <input
          id="finding-name"
          className={inputLook}
          value={draft.name}
          maxLength={200}
          list="parts"
          onChange={(e) => onChange({ ...draft, name: e.target.value })}
        />
      </Field>
      <Field id="finding-positions" label="Where" hint="2, 4 or pin 26; empty: of no position">
        <input
          id="finding-positions"
          className={inputLook}
          value={draft.positions}
          maxLength={200}
          onChange={(e) => onChange({ ...draft, positions: e.target.value })}
        />
      </Field>
    </>
  );
}
