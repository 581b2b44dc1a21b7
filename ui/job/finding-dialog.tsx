'use client';
import { useRouter } from '../kit/router';
import { useState } from 'react';
import { v7 } from 'uuid';
import { sameContent } from '../../core/foundation/content';
import { type Confidence, CONFIDENCES, type FindingBody, type ProposedFinding } from '../../core/evidence/finding';
import type { FindingView, JobView } from '../../application/views';
import { Button } from '../kit/button';
import { Choice } from '../kit/chips';
import { FormDialog } from '../kit/dialog';
import { errorAt } from '../kit/draft';
import { Field, inputLook, tie } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';
import { foundOf, NO_OTHER, type OtherDraft, OtherFinding } from './other-finding';

const NOT_FOUND = 'not-found';
const OTHER = 'other';
const CONFIDENCE_WORDS = { certain: 'certain', probable: 'probable', possible: 'possible' } as const;

interface FindingDialogProps {
  readonly view: JobView;
  readonly replaces: FindingView | null;
  /** Which proposal stands chosen at first, or "other". */
  readonly picked?: string;
  readonly onClose: () => void;
}

type Offer = Pick<JobView, 'proposals' | 'ruledOut'>;

/**
 * What the evidence proposed when the dialog was opened. It stands until the person takes the newer one:
 * whoever signs has read what they sign, whatever is measured meanwhile.
 */
function useOffer({ proposals, ruledOut }: Offer) {
  const [offer, setOffer] = useState<Offer>({ proposals, ruledOut });
  const isOld = !sameContent(offer, { proposals, ruledOut });
  const renew = (): Offer => {
    const now = { proposals, ruledOut };
    setOffer(now);
    return now;
  };
  return { offer, isOld, renew };
}

const isSameTarget = (a: ProposedFinding, b: ProposedFinding): boolean =>
  sameContent([a.target, a.positions], [b.target, b.positions]);

/** What is chosen and written, and how it is signed. */
function useFinding({ view, replaces, picked: first, onClose }: FindingDialogProps) {
  const router = useRouter();
  const by = usePerson();
  const [id] = useState(() => v7());
  const { offer, isOld, renew } = useOffer(view);
  const { proposals, ruledOut } = offer;
  const [picked, setPicked] = useState<string>(first ?? (proposals.length ? '0' : NOT_FOUND));
  const proposal = proposals[Number(picked)];
  const old = replaces?.body;
  const [draft, setDraft] = useState<Written>({
    text: old?.text ?? proposal?.text ?? '',
    confidence: (old?.kind === 'found' ? old.confidence : proposal?.confidence) ?? 'possible',
    advice: old?.kind === 'found' ? old.advice : '',
    ifReturns: old?.kind === 'not-found' ? old.ifReturns : '',
  });
  const [other, setOther] = useState<OtherDraft>(NO_OTHER);
  const isOther = picked === OTHER;
  const { busy, problems, setProblems, post } = useSend();
  const change = (part: Partial<Written>): void => setDraft((before) => ({ ...before, ...part }));

  function changeOther(next: OtherDraft): void {
    // The sentence follows, as long as nobody has written one.
    if (draft.text === '' || draft.text === foundOf(other).text) change({ text: foundOf(next).text });
    setOther(next);
  }
  function pick(value: string): void {
    setPicked(value);
    const p = proposals[Number(value)];
    change({ text: p?.text ?? '', confidence: p?.confidence ?? 'possible' });
  }
  /**
   * The newer proposals: what was chosen stays chosen where it is still proposed, and own words stay in any
   * case. Words about what is proposed no more must not come to stand with another part: they become a
   * finding of one's own.
   */
  function takeNewer(): void {
    const now = renew().proposals;
    if (!proposal) return;
    const there = now.findIndex((p) => isSameTarget(p, proposal));
    const isOwnText = draft.text !== proposal.text;
    if (there < 0 && isOwnText) return setPicked(OTHER);
    setPicked(there >= 0 ? String(there) : now.length ? '0' : NOT_FOUND);
    const next = now[Math.max(there, 0)];
    if (!isOwnText) change({ text: next?.text ?? '' });
    if (there < 0 || draft.confidence === proposal.confidence) change({ confidence: next?.confidence ?? 'possible' });
  }
  async function save(): Promise<void> {
    if (isOther && other.name.trim() === '') {
      setProblems([{ path: '/finding/name', message: 'What was found? A part, a wire, a place.' }]);
      return;
    }
    const finding = isOther ? otherBody(other, draft, ruledOut) : bodyOf(proposal, draft, ruledOut);
    const supersedes = replaces ? { supersedes: replaces.id } : {};
    if (!(await post(`/api/jobs/${view.job.id}/findings`, { id, by, finding, ...supersedes }))) return;
    onClose();
    router.refresh();
  }
  return {
    ...{ by, offer, isOld, takeNewer, picked, pick, proposal, isOther, other, changeOther },
    ...{ draft, change, busy, problems, save },
  };
}

/** A person signs what was found. The evidence proposes; it never signs. */
export function FindingDialog(props: FindingDialogProps) {
  const { replaces, onClose } = props;
  const form = useFinding(props);
  const { draft, change, problems, proposal, isOther, offer } = form;
  const textError = errorAt(problems, '/finding/text');
  return (
    <FormDialog
      wide
      onClose={onClose}
      title={replaces ? 'Change the finding' : 'Write a finding'}
      description="The evidence proposes; you sign. The older finding stays in the trail."
      onSubmit={() => void form.save()}
    >
      {form.isOld && (
        <div role="status" className="mb-3 flex flex-wrap items-center gap-3 font-semibold text-ochre">
          The evidence has changed since this was opened. What stands here is what it proposed then.
          <Button onClick={form.takeNewer}>Show what it proposes now</Button>
        </div>
      )}
      <Choice
        label="What was found"
        value={form.picked}
        onChange={form.pick}
        options={[
          ...offer.proposals.map((p, i) => [String(i), p.text] as const),
          [OTHER, 'Another finding'] as const,
          [NOT_FOUND, 'Not found yet'] as const,
        ]}
      />
      {isOther && (
        <OtherFinding draft={form.other} error={errorAt(problems, '/finding/name')} onChange={form.changeOther} />
      )}
      <Field id="finding-text" label="In a sentence" error={textError}>
        <textarea
          rows={2}
          className={`${inputLook} py-2`}
          value={draft.text}
          maxLength={2000}
          onChange={(e) => change({ text: e.target.value })}
          {...tie('finding-text', textError)}
        />
      </Field>
      {proposal || isOther ? (
        <Found draft={draft} proposal={proposal} onChange={change} />
      ) : (
        <NotFound draft={draft} error={errorAt(problems, '/finding/ifReturns')} onChange={change} />
      )}
      <RuledOut all={offer.ruledOut} />
      <OtherProblems problems={problems} paths={['/finding/text', '/finding/ifReturns', '/finding/name']} />
      <Button type="submit" tone="strong" disabled={form.busy}>
        Sign as {form.by}
      </Button>
    </FormDialog>
  );
}

interface PartProps {
  readonly draft: Written;
  readonly onChange: (part: Partial<Written>) => void;
}

/** How sure, what speaks for and against it, what is advised. */
function Found({ draft, proposal, onChange }: PartProps & { proposal: ProposedFinding | undefined }) {
  return (
    <>
      <Choice
        label="How sure"
        value={draft.confidence}
        onChange={(confidence) => onChange({ confidence })}
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
          onChange={(e) => onChange({ advice: e.target.value })}
        />
      </Field>
    </>
  );
}

function NotFound({ draft, error, onChange }: PartProps & { error: string | undefined }) {
  return (
    <Field id="finding-returns" label="What to try when it returns" error={error}>
      <textarea
        rows={2}
        className={`${inputLook} py-2`}
        value={draft.ifReturns}
        maxLength={2000}
        onChange={(e) => onChange({ ifReturns: e.target.value })}
        {...tie('finding-returns', error)}
      />
    </Field>
  );
}

function RuledOut({ all }: { all: JobView['ruledOut'] }) {
  if (all.length === 0) return null;
  return (
    <details className="mb-3">
      <summary className="cursor-pointer font-semibold">Ruled out ({all.length})</summary>
      <ul>
        {all.map((r) => (
          <li key={r.what}>
            <b>{r.what}</b>: {r.by}
          </li>
        ))}
      </ul>
    </details>
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
