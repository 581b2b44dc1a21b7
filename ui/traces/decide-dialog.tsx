'use client';
import { useRouter } from '../kit/router';
import { useState } from 'react';
import { v7 } from 'uuid';
import type { TraceView } from '../../application/views';
import { evidenceOf, nothingFound, type TraceEvidence } from '../../application/traces/finding-evidence';
import { CAPTURE_OUTCOMES } from '../../core/evidence/kinds/capture';
import { RECORDING_OUTCOMES } from '../../core/evidence/kinds/recording';
import type { Finding } from '../../core/signal/types';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { inputLook } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';
import { noteOf } from './finding-words';

type Outcome = TraceEvidence['outcome'];

interface Props {
  readonly trace: TraceView;
  readonly of: Finding | 'nothing';
  readonly onClose: () => void;
}

/** What is said of a finding, as it is typed, and how it is kept. */
function useDecision({ trace, of, onClose }: Props) {
  const router = useRouter();
  const by = usePerson();
  const proposed = of === 'nothing' ? nothingFound(trace.head) : evidenceOf(trace.head, of);
  const isCapture = proposed?.kind === 'capture';
  const [signal, setSignal] = useState(proposed?.kind === 'recording' ? proposed.signal : '');
  const [position, setPosition] = useState(proposed?.position?.toString() ?? '');
  const [outcome, setOutcome] = useState<Outcome>(proposed?.outcome ?? 'pin dropped out');
  const [seen, setSeen] = useState(proposed?.seen ?? '');
  const { busy, problems, setProblems, post } = useSend();

  async function note(kind: 'evidence' | 'dismissed', text: string, evidence?: string): Promise<void> {
    const longest = Math.max(0, ...trace.head.search.searched.map((s) => s.seconds));
    const body = of === 'nothing' ? { kind, from_s: 0, to_s: longest, channel: null, text } : noteOf(of, kind, text);
    const noted = await post(`/api/traces/${trace.id}/notes`, {
      id: v7(),
      by,
      ...body,
      ...(evidence ? { evidence } : {}),
    });
    if (!noted) return;
    router.refresh();
    onClose();
  }
  async function confirm(): Promise<void> {
    const id = v7();
    const at = position.trim();
    const evidence = {
      ...(isCapture ? { kind: 'capture' } : { kind: 'recording', signal: signal.trim() }),
      ...(at ? { position: /^\d+$/.test(at) ? Number(at) : at } : {}),
      outcome,
      seen: seen.trim(),
    };
    if (await post(`/api/jobs/${trace.jobId}/evidence`, { id, by, evidence })) await note('evidence', outcome, id);
  }
  const draft = { signal, setSignal, position, setPosition, outcome, setOutcome, seen, setSeen };
  return { ...draft, isCapture, busy, problems, setProblems, note, confirm };
}

/** Whether a finding is evidence: it goes to the trail and the suspects, or is dismissed with a word why. */
export function DecideDialog(props: Props) {
  const decision = useDecision(props);
  const { isCapture, signal, position, outcome, seen, busy, problems } = decision;
  return (
    <Dialog onClose={props.onClose} title="Is this evidence?" wide>
      <OtherProblems problems={problems} paths={[]} />
      <div className="grid gap-3 sm:grid-cols-[minmax(0,1fr)_8rem]">
        {!isCapture && (
          <label className="font-semibold">
            Signal
            <input className={inputLook} value={signal} onChange={(e) => decision.setSignal(e.target.value)} />
          </label>
        )}
        <label className="font-semibold">
          {isCapture ? 'Cylinder' : 'Position'}
          <input
            className={inputLook}
            value={position}
            placeholder="none"
            onChange={(e) => decision.setPosition(e.target.value)}
          />
        </label>
      </div>
      <label className="mt-3 block font-semibold">
        {isCapture ? 'It' : 'The signal'}
        <select className={inputLook} value={outcome} onChange={(e) => decision.setOutcome(e.target.value as Outcome)}>
          {(isCapture ? CAPTURE_OUTCOMES : RECORDING_OUTCOMES).map(([value, words]) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </select>
      </label>
      <label className="mt-3 block font-semibold">
        What was seen
        <textarea
          className={`${inputLook} py-2`}
          rows={4}
          value={seen}
          onChange={(e) => decision.setSeen(e.target.value)}
        />
      </label>
      <p className="mt-2 text-sm text-soft">
        A recorder’s own lead slips too. Where all channels fall at once, look at its ground first.
      </p>
      <div className="mt-4 flex flex-wrap gap-3">
        <Button tone="strong" disabled={busy} onClick={() => void decision.confirm()}>
          Yes, it is evidence
        </Button>
      </div>
      {props.of !== 'nothing' && <Dismiss {...decision} />}
    </Dialog>
  );
}

/** It is none: said in a word why. */
function Dismiss({ busy, note, setProblems }: Pick<ReturnType<typeof useDecision>, 'busy' | 'note' | 'setProblems'>) {
  const [why, setWhy] = useState('');
  return (
    <form
      className="mt-5 flex flex-wrap items-end gap-3 border-t border-line pt-3"
      onSubmit={(e) => {
        e.preventDefault();
        if (why.trim() === '') setProblems([{ path: '', message: 'Say in a word why it is none.' }]);
        else void note('dismissed', why.trim());
      }}
    >
      <label className="min-w-60 flex-1 font-semibold">
        No, because
        <input className={inputLook} value={why} onChange={(e) => setWhy(e.target.value)} />
      </label>
      <Button type="submit" disabled={busy}>
        Dismiss it
      </Button>
    </form>
  );
}
