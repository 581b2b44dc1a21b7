'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { v7 } from 'uuid';
import { CONFIDENCES, type FindingBody, type ProposedFinding } from '../../core/evidence/finding';
import type { FindingView, JobView } from '../../application/views';
import { Button } from '../kit/button';
import { Choice } from '../kit/chips';
import { Dialog } from '../kit/dialog';
import { errorAt } from '../kit/draft';
import { Field, inputLook, tie } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';

const NOT_FOUND = 'not-found';
const CONFIDENCE_WORDS = { certain: 'certain', probable: 'probable', possible: 'possible' } as const;

/** A person signs what was found. The evidence proposes; it never signs. */
export function FindingDialog({
  view,
  replaces,
  onClose,
}: {
  view: JobView;
  replaces: FindingView | null;
  onClose: () => void;
}) {
  const router = useRouter();
  const by = usePerson();
  const [id] = useState(() => v7());
  const { proposals, ruledOut } = view;
  const [picked, setPicked] = useState<string>(proposals.length ? '0' : NOT_FOUND);
  const proposal = proposals[Number(picked)];
  const old = replaces?.body;
  const [draft, setDraft] = useState({
    text: old?.text ?? proposal?.text ?? '',
    confidence: (old?.kind === 'found' ? old.confidence : proposal?.confidence) ?? 'possible',
    advice: old?.kind === 'found' ? old.advice : '',
    ifReturns: old?.kind === 'not-found' ? old.ifReturns : '',
  });
  const { busy, problems, post } = useSend();

  function pick(value: string): void {
    setPicked(value);
    const p = proposals[Number(value)];
    setDraft({ ...draft, text: p?.text ?? '', confidence: p?.confidence ?? 'possible' });
  }
  async function save(): Promise<void> {
    const finding = bodyOf(proposal, draft, ruledOut);
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
  const errors = { text: errorAt(problems, '/finding/text'), ifReturns: errorAt(problems, '/finding/ifReturns') };
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
          options={[...proposals.map((p, i) => [String(i), p.text] as const), [NOT_FOUND, 'Not found yet'] as const]}
        />
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
        {proposal ? (
          <>
            <Choice
              label="How sure"
              value={draft.confidence}
              onChange={(confidence) => setDraft({ ...draft, confidence })}
              options={CONFIDENCES.map((c) => [c, CONFIDENCE_WORDS[c]] as const)}
            />
            <p>
              <b>For:</b> {proposal.supports.map((r) => r.label).join('; ')}
            </p>
            {proposal.against.length > 0 && (
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
        <OtherProblems problems={problems} paths={['/finding/text', '/finding/ifReturns']} />
        <Button type="submit" tone="strong" disabled={busy}>
          Sign as {by}
        </Button>
      </form>
    </Dialog>
  );
}

function bodyOf(
  p: ProposedFinding | undefined,
  d: {
    text: string;
    confidence: FindingBody extends infer F ? (F extends { confidence: infer C } ? C : never) : never;
    advice: string;
    ifReturns: string;
  },
  ruledOut: JobView['ruledOut'],
): FindingBody {
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
