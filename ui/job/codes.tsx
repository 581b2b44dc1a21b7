'use client';
import { useRouter } from '../kit/router';
import { useState } from 'react';
import { v7 } from 'uuid';
import { findCodes } from '../../core/codes/decode';
import { PHASE_WORDS, type Phase, PHASES } from '../../core/codes/phases';
import { knownCodes } from '../../application/codes';
import type { CodeView, JobView } from '../../application/views';
import { Button } from '../kit/button';
import { readFreezeFrame } from './freeze-frame';
import { KnownCodes, Preview } from './known-codes';
import { inputLook } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';

/** Codes: typed or pasted, decoded at once, kept with the phase in which they were read. */
export function Codes({ view }: { view: JobView }) {
  const { job, codes, unplugged } = view;
  const router = useRouter();
  const by = usePerson();
  const [text, setText] = useState('');
  const [phase, setPhase] = useState<Phase>('as-found');
  const [frame, setFrame] = useState('');
  const [status, setStatus] = useState<CodeView['status']>('unknown');
  const { busy, problems, post } = useSend();
  const read = findCodes(text);
  const known = knownCodes(codes);
  const lookedAt = [...new Set(codes.filter((c) => c.code === null).map((c) => c.phase))];

  async function keep(): Promise<void> {
    if (
      !(await post(`/api/jobs/${job.id}/codes`, {
        id: v7(),
        by,
        phase,
        status,
        codes: read.codes,
        ...(frame.trim() ? { freezeFrame: readFreezeFrame(frame) } : {}),
      }))
    )
      return;
    setText('');
    setFrame('');
    router.refresh();
  }
  async function takeBack(code: string): Promise<void> {
    const last = codes.findLast((c) => c.code === code);
    if (last && (await post(`/api/jobs/${job.id}/codes/take-back`, { id: v7(), by, observation: last.id })))
      router.refresh();
  }

  return (
    <div>
      {known.length > 0 && (
        <KnownCodes view={view} known={known} busy={busy} onTakeBack={(code) => void takeBack(code)} />
      )}
      {lookedAt.map((p) => (
        <p key={p} className="mt-1 text-sm">
          No codes {PHASE_WORDS[p]}.
        </p>
      ))}
      <form
        className="mt-2 grid items-end gap-2 md:grid-cols-[minmax(0,1fr)_11rem_9rem_auto]"
        onSubmit={(e) => {
          e.preventDefault();
          // Enter in an empty box says nothing: that there is no code is a button.
          if (read.codes.length) void keep();
        }}
      >
        <label className="text-sm">
          Typed or pasted, in the scan tool’s order
          <input
            className={`${inputLook} font-mono`}
            value={text}
            onChange={(e) => setText(e.target.value)}
            placeholder="P0672 active x3, SPN 653 FMI 5"
            autoComplete="off"
            spellCheck={false}
          />
        </label>
        <label className="text-sm">
          Read
          <select className={inputLook} value={phase} onChange={(e) => setPhase(e.target.value as Phase)}>
            {PHASES.map((p) => (
              <option key={p} value={p}>
                {PHASE_WORDS[p]}
              </option>
            ))}
          </select>
        </label>
        <label className="text-sm">
          Status, if not said
          <select
            className={inputLook}
            value={status}
            onChange={(e) => setStatus(e.target.value as CodeView['status'])}
          >
            {(['unknown', 'active', 'stored', 'intermittent'] as const).map((s) => (
              <option key={s} value={s}>
                {s === 'unknown' ? 'not noted' : s}
              </option>
            ))}
          </select>
        </label>
        <Button
          type={text.trim() === '' ? 'button' : 'submit'}
          disabled={busy || (text.trim() !== '' && read.codes.length === 0)}
          {...(text.trim() === '' ? { onClick: () => void keep() } : {})}
        >
          {text.trim() === ''
            ? 'No codes there'
            : read.codes.length === 1
              ? 'Keep 1 code'
              : `Keep ${read.codes.length} codes`}
        </Button>
      </form>
      {read.codes.length > 0 && (
        <label className="mt-2 block text-sm">
          Freeze frame, if there is one <span className="text-soft">one value a line: engine speed: 812 rpm</span>
          <textarea
            className={`${inputLook} py-2 font-mono`}
            rows={2}
            value={frame}
            onChange={(e) => setFrame(e.target.value)}
          />
        </label>
      )}
      <OtherProblems problems={problems} paths={[]} />
      <Preview read={read} />
      {phase === 'as-found' && read.codes.length > 0 && unplugged.length > 0 && (
        <p role="status" className="mt-2 text-ochre">
          Something was unplugged with the key on ({unplugged.join(', ')}): that sets codes of its own.{' '}
          <button
            type="button"
            className="min-h-8 font-semibold underline"
            onClick={() => setPhase('caused-by-testing')}
          >
            These were caused by testing
          </button>
        </p>
      )}
    </div>
  );
}
