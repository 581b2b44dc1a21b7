'use client';
import { useRouter } from '../kit/router';
import { useState } from 'react';
import { v7 } from 'uuid';
import { type Confidence, CONFIDENCES, type FindingBody, type ProposedFinding } from '../../core/evidence/finding';
import type { FindingView, JobView } from '../../application/views';
import { Button } from '../kit/button';
import { Choice } from '../kit/chips';
import { Dialog } from '../kit/dialog';
import { errorAt } from '../kit/draft';
import { Field, inputLook, tie } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';
import { foundOf, NO_OTHER, type OtherDraft, OtherFinding } from './other-finding';

const NOT_FOUND = 'not-found';
const OTHER = 'other';
const CONFIDENCE_WORDS = { certain: 'certain', probable: 'probable', possible: 'possible' } as const;

/** A person signs what was found. The evidence proposes; it never signs. */
export function FindingDialog({
  view,
  replaces,
  picked: first,
  onClose,
}: {
  view: JobView;
  replaces: FindingView | null;
  /** Which proposal stands chosen at first, or "other". */
  picked?: string;
  onClose: () => void;
}) {
  const router = useRouter();
  const by = usePerson();
  const [id] = useState(() => v7());
  const { proposals, ruledOut } = view;
  const [picked, setPicked] = useState<string>(first ?? (proposals.length ? '0' : NOT_FOUND));
  const proposal = proposals[Number(picked)];
  const old = replaces?.body;
  const [draft, setDraft] = useState({
    text: old?.text ?? proposal?.text ?? '',
    confidence: (old?.kind === 'found' ? old.confidence : proposal?.confidence) ?? 'possible',
    advice: old?.kind === 'found' ? old.advice : '',
    ifReturns: old?.kind === 'not-found' ? old.ifReturns : '',
  });
  const [other, setOther] = useState<OtherDraft>(NO_OTHER);
  const isOther = picked === OTHER;
  const { busy, problems, setProblems, post } = useSend();

  function change(next: OtherDraft): void {
    // The sentence follows, as long as nobody has written one.
    if (draft.text === '' || draft.text === foundOf(other).text) setDraft({ ...draft, text: foundOf(next).text });
    setOther(next);
  }
  function pick(value: string): void {
    setPicked(value);
    const p = proposals[Number(value)];
    setDraft({ ...draft, text: p?.text ?? '', confidence: p?.confidence ?? 'possible' });
  }
  async function save(): Promise<void> {
    if (isOther && other.name.trim() === '') {
      setProblems([{ path: '/finding/name', message: 'What was found? A part, a wire, a place.' }]);
      return;
    }
    const finding = isOther ? otherBody(other, draft, ruledOut) : bodyOf(proposal, draft, ruledOut);
    if (
      !(await post(`/api/jobs/${view.job.id}/findings`, {
        id,
        by,
        finding,
        ...(replaces ? { supersedes: replaces.id } : {}),
      }))
    )
      return;
    onClose();
    router.refresh();
  }
  const errors = {
    text: errorAt(problems, '/finding/text'),
    ifReturns: errorAt(problems, '/finding/ifReturns'),
    name: errorAt(problems, '/finding/name'),
  };
  return (
    <Dialog
      open
      wide
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
      title={replaces ? 'Change the finding' : 'Write a finding'}
      description="The evidence proposes; you sign. The older finding stays in the trail."
    >
      <form
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          void save();
        }}
      >
        <Choice
          label="What was found"
          value={picked}
          onChange={pick}
          options={[
            ...proposals.map((p, i) => [String(i), p.text] as const),
            [OTHER, 'Another finding'] as const,
            [NOT_FOUND, 'Not found yet'] as const,
          ]}
        />
        {isOther && <OtherFinding draft={other} error={errors.name} onChange={change} />}
        <Field id="finding-text" label="In a sentence" error={errors.text}>
          <textarea
            rows={2}
            className={`${inputLook} py-2`}
            value={draft.text}
            maxLength={2000}
            onChange={(e) => setDraft({ ...draft, text: e.target.value })}
            {...tie('finding-text', errors.text)}
          />
        </Field>
        {proposal || isOther ? (
          <>
            <Choice
              label="How sure"
              value={draft.confidence}
              onChange={(confidence) => setDraft({ ...draft, confidence })}
              options={CONFIDENCES.map((c) => [c, CONFIDENCE_WORDS[c]] as const)}
            />
            {proposal && (
              <p>
                <b>For:</b> {proposal.supports.map((r) => r.label).join('; ')}
              </p>
            )}
            {proposal && proposal.against.length > 0 && (
              <p className="text-ochre">
                <b>Against:</b> {proposal.against.map((r) => r.label).join('; ')}
              </p>
            )}
            <Field id="finding-advice" label="Advised" hint="shown at the next visit">
              <input
                id="finding-advice"
                className={inputLook}
                value={draft.advice}
                maxLength={2000}
                onChange={(e) => setDraft({ ...draft, advice: e.target.value })}
              />
            </Field>
          </>
        ) : (
          <Field id="finding-returns" label="What to try when it returns" error={errors.ifReturns}>
            <textarea
              rows={2}
              className={`${inputLook} py-2`}
              value={draft.ifReturns}
              maxLength={2000}
              onChange={(e) => setDraft({ ...draft, ifReturns: e.target.value })}
              {...tie('finding-returns', errors.ifReturns)}
            />
          </Field>
        )}
        {ruledOut.length > 0 && (
          <details className="mb-3">
            <summary className="cursor-pointer font-semibold">Ruled out ({ruledOut.length})</summary>
            <ul>
              {ruledOut.map((r) => (
                <li key={r.what}>
                  <b>{r.what}</b>: {r.by}
                </li>
              ))}
            </ul>
          </details>
        )}
        <OtherProblems problems={problems} paths={['/finding/text', '/finding/ifReturns', '/finding/name']} />
        <Button type="submit" tone="strong" disabled={busy}>
          Sign as {by}
        </Button>
      </form>
    </Dialog>
  );
}

interface Written {
  readonly text: string;
  readonly confidence: Confidence;
  readonly advice: string;
  readonly ifReturns: string;
}

const otherBody = (other: OtherDraft, d: Written, ruledOut: JobView['ruledOut']): FindingBody => {
  const { what, name, positions, text } = foundOf(other);
  return {
    kind: 'found',
    what,
    name,
    positions,
    confidence: d.confidence,
    supports: [],
    against: [],
    advice: d.advice.trim(),
    text: d.text.trim() || text,
    ruledOut,
  };
};

function bodyOf(p: ProposedFinding | undefined, d: Written, ruledOut: JobView['ruledOut']): FindingBody {
  const plain = { text: d.text.trim(), ruledOut };
  if (!p) return { kind: 'not-found', ...plain, ifReturns: d.ifReturns.trim() };
  return {
    kind: 'found',
    what: p.target.kind,
    name: p.target.name,
    positions: p.positions,
    confidence: d.confidence,
    supports: p.supports,
    against: p.against,
    advice: d.advice.trim(),
    ...plain,
  };
}
