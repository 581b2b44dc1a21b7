'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { v7 } from 'uuid';
import { decodeCode, findCodes } from '../../core/codes/decode';
import { type Fate, PHASE_WORDS, type Phase, PHASES } from '../../core/codes/phases';
import type { CodeMeaning } from '../../core/codes/types';
import { knownCodes } from '../../application/codes';
import type { CodeView, JobView } from '../../application/views';
import { Button } from '../kit/button';
import { FreezeFrames, readFreezeFrame } from './freeze-frame';
import { Describe } from './describe-code';
import { inputLook } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';

const TONES: Readonly<Record<Fate, string>> = {
  'as found': 'text-ink',
  'came back': 'text-rust',
  gone: 'text-eelgrass',
  new: 'text-rust',
  'caused by testing': 'text-soft',
};

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
    <section id="codes" aria-label="Codes" className="scroll-mt-4 rounded-xl bg-card p-4">
      <h2 className="font-semibold text-soft">Codes</h2>
      {known.length > 0 && (
        <table className="mt-1 w-full text-left max-sm:text-[15px] max-sm:leading-snug">
          <thead className="text-sm text-soft">
            <tr>
              <th>Code</th>
              <th>What it says</th>
              <th>Read</th>
              <th>What became of it</th>
              <th>
                <span className="sr-only">Take back</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {known.map((c) => (
              <tr key={c.code} className="border-t border-line align-top">
                <td className="py-1 pr-3 font-mono font-semibold max-sm:w-16 max-sm:pr-2 sm:whitespace-nowrap">
                  {c.code}
                </td>
                <td className="pr-3 max-sm:pr-2">
                  {meaningWords(c)}
                  {c.confidence === 'maker-defined' && (
                    <Describe depotId={view.depotId} code={c.code} text={view.descriptions[c.code] ?? ''} />
                  )}
                  <FreezeFrames codes={codes} code={c.code} />
                </td>
                <td className="pr-3 text-sm">{c.phases.map((p) => PHASE_WORDS[p]).join(', ')}</td>
                <td className={`pr-3 font-semibold max-sm:pr-1 ${TONES[c.fate]}`}>{c.fate}</td>
                <td>
                  <button
                    type="button"
                    className="min-h-9 px-1 text-sm underline sm:px-2 pointer-coarse:min-h-12"
                    aria-label={`take back ${c.code}`}
                    disabled={busy}
                    onClick={() => void takeBack(c.code)}
                  >
                    take back
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
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
          void keep();
        }}
      >
        <label className="text-sm">
          Typed or pasted
          <input
            className={`${inputLook} font-mono`}
            value={text}
            onChange={(e) => setText(e.target.value)}
            placeholder="P0672, SPN 653 FMI 5"
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
          Status
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
        <Button type="submit" disabled={busy || (text.trim() !== '' && read.codes.length === 0)}>
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
    </section>
  );
}

/** What the typed text says before it is kept. */
function Preview({ read }: { read: ReturnType<typeof findCodes> }) {
  if (read.codes.length === 0 && read.unknown.length === 0) return null;
  return (
    <div className="mt-2 text-sm" aria-live="polite">
      <ul>
        {read.codes.map((code, i) => {
          const meaning = decodeCode(code);
          return (
            <li key={i}>
              <span className="font-mono font-semibold">{code}</span>{' '}
              {meaning.ok ? meaningWords(meaning.value) : <span className="text-rust">{meaning.error}</span>}
            </li>
          );
        })}
      </ul>
      {read.unknown.length > 0 && <p className="text-ochre">Left out, no code: {read.unknown.join(' ')}</p>}
    </div>
  );
}

/** "glow plug, cylinder 2: circuit or open (SAE J2012)" */
export function meaningWords(m: CodeMeaning): string {
  const what = m.component ?? (m.confidence === 'maker-defined' ? `${m.system}, defined by the maker` : m.system);
  return `${what}${m.cylinder === null ? '' : `, cylinder ${m.cylinder}`}${m.failure === null ? '' : `: ${m.failure}`} (${m.standard})`;
}
