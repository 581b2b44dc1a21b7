'use client';
import { tr } from '../../core/locale/translate';
import { useRouter } from '../kit/router';
import { useState } from 'react';
import { v7 } from 'uuid';
import { findCodes } from '../../core/codes/decode';
import { evidenceWords } from '../../core/evidence/kinds/kinds';
import type { Problem } from '../../core/foundation/result';
import { decodeText } from '../../formats/text';
import { PHASE_WORDS, type Phase, PHASES } from '../../core/codes/phases';
import { knownCodes } from '../../application/codes';
import { type ImportedScan, importScan } from '../../application/scan-tool';
import type { CodeView, JobView } from '../../application/views';
import { useBegun } from '../kit/begun';
import { Button, buttonLook } from '../kit/button';
import { readFreezeFrame } from './freeze-frame';
import { KnownCodes, Preview } from './known-codes';
import { inputLook } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';

/** What is typed or was read from a file, how it is kept, and what a scan tool has shown besides. */
function useCodes({ job, codes }: JobView) {
  const router = useRouter();
  const by = usePerson();
  const [draft, setDraft] = useState<CodesDraft>(NOTHING_TYPED);
  const { busy, problems, post } = useSend();
  const [scan, setScan] = useState<ImportedScan | null>(null);
  const [unreadable, setUnreadable] = useState<readonly Problem[]>([]);
  const change = (part: Partial<CodesDraft>): void => setDraft((before) => ({ ...before, ...part }));
  const read = findCodes(draft.text);
  useBegun([draft.text, draft.frame].some((t) => t.trim() !== '') || (scan?.evidence.length ?? 0) > 0);

  async function keep(): Promise<void> {
    const { phase, status, frame } = draft;
    const freezeFrame = frame.trim() ? { freezeFrame: readFreezeFrame(frame) } : {};
    if (!(await post(`/api/jobs/${job.id}/codes`, { id: v7(), by, phase, status, codes: read.codes, ...freezeFrame })))
      return;
    change({ text: '', frame: '' });
    router.refresh();
  }
  /** A file of the scan tool: its codes come into the field, to be kept with their phase like typed ones. */
  async function open(file: File): Promise<void> {
    // The schemas come with the first file, not with every job.
    const { readScan } = await import('../../formats/scan');
    const document = readScan(decodeText(new Uint8Array(await file.arrayBuffer())).text);
    setUnreadable(document.ok ? [] : document.error.slice(0, 5));
    setScan(null);
    if (!document.ok) return;
    const taken = importScan(document.value);
    setScan(taken);
    change({
      text: taken.codes.map((c) => [c.code, c.status, c.count && `x${c.count}`].filter(Boolean).join(' ')).join(', '),
      frame: taken.freezeFrame.map((f) => `${f.name}: ${f.value}`).join('\n'),
    });
  }
  async function keepEvidence(taken: ImportedScan): Promise<void> {
    for (const evidence of taken.evidence)
      if (!(await post(`/api/jobs/${job.id}/evidence`, { id: v7(), by, evidence }))) return;
    setScan(null);
    router.refresh();
  }
  async function takeBack(code: string): Promise<void> {
    const last = codes.findLast((c) => c.code === code);
    if (last && (await post(`/api/jobs/${job.id}/codes/take-back`, { id: v7(), by, observation: last.id })))
      router.refresh();
  }
  return {
    draft,
    change,
    read,
    busy,
    problems: [...problems, ...unreadable],
    scan,
    keep,
    open,
    keepEvidence,
    takeBack,
  };
}

interface CodesDraft {
  readonly text: string;
  readonly phase: Phase;
  readonly frame: string;
  readonly status: CodeView['status'];
}
const NOTHING_TYPED: CodesDraft = { text: '', phase: 'as-found', frame: '', status: 'unknown' };

/** Codes: typed or pasted, decoded at once, kept with the phase in which they were read. */
export function Codes({ view }: { view: JobView }) {
  const form = useCodes(view);
  const { draft, change, read, busy, scan } = form;
  const known = knownCodes(view.codes);
  const lookedAt = [...new Set(view.codes.filter((c) => c.code === null).map((c) => c.phase))];
  return (
    <div>
      {known.length > 0 && (
        <KnownCodes view={view} known={known} busy={busy} onTakeBack={(code) => void form.takeBack(code)} />
      )}
      {lookedAt.map((p) => (
        <p key={p} className="mt-1 text-sm">
          No codes {PHASE_WORDS[p]}.
        </p>
      ))}
      <CodesForm
        draft={draft}
        count={read.codes.length}
        busy={busy}
        onChange={change}
        onKeep={() => void form.keep()}
      />
      {read.codes.length > 0 && (
        <label className="mt-2 block text-sm">
          Freeze frame, if there is one <span className="text-soft">one value a line: engine speed: 812 rpm</span>
          <textarea
            className={`${inputLook} py-2 font-mono`}
            rows={2}
            value={draft.frame}
            onChange={(e) => change({ frame: e.target.value })}
          />
        </label>
      )}
      <OtherProblems problems={form.problems} paths={[]} />
      <Preview read={read} />
      <ScanFile onOpen={(file) => void form.open(file)} />
      {scan && scan.evidence.length > 0 && (
        <ShownBesides scan={scan} busy={busy} onTake={() => void form.keepEvidence(scan)} />
      )}
      {draft.phase === 'as-found' && read.codes.length > 0 && view.unplugged.length > 0 && (
        <p role="status" className="mt-2 text-ochre">
          Something was unplugged with the key on ({view.unplugged.join(', ')}): that sets codes of its own.{' '}
          <button
            type="button"
            className="min-h-8 font-semibold underline"
            onClick={() => change({ phase: 'caused-by-testing' })}
          >
            These were caused by testing
          </button>
        </p>
      )}
    </div>
  );
}

interface CodesFormProps {
  readonly draft: CodesDraft;
  /** Codes that were understood. */
  readonly count: number;
  readonly busy: boolean;
  readonly onChange: (part: Partial<CodesDraft>) => void;
  readonly onKeep: () => void;
}

function CodesForm({ draft, count, busy, onChange, onKeep }: CodesFormProps) {
  const isEmpty = draft.text.trim() === '';
  return (
    <form
      className="mt-2 grid items-end gap-2 md:grid-cols-[minmax(0,1fr)_11rem_9rem_auto]"
      onSubmit={(e) => {
        e.preventDefault();
        // Enter in an empty box says nothing: that there is no code is a button.
        if (count) onKeep();
      }}
    >
      <label className="text-sm">
        Typed or pasted, in the scan tool’s order
        <input
          className={`${inputLook} font-mono`}
          value={draft.text}
          onChange={(e) => onChange({ text: e.target.value })}
          placeholder="P0672 active x3, SPN 653 FMI 5"
          autoComplete="off"
          spellCheck={false}
        />
      </label>
      <label className="text-sm">
        Read
        <select
          className={inputLook}
          value={draft.phase}
          onChange={(e) => onChange({ phase: e.target.value as Phase })}
        >
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
          value={draft.status}
          onChange={(e) => onChange({ status: e.target.value as CodeView['status'] })}
        >
          {(['unknown', 'active', 'stored', 'intermittent'] as const).map((s) => (
            <option key={s} value={s}>
              {s === 'unknown' ? 'not noted' : s}
            </option>
          ))}
        </select>
      </label>
      <Button
        type={isEmpty ? 'button' : 'submit'}
        disabled={busy || (!isEmpty && count === 0)}
        {...(isEmpty ? { onClick: onKeep } : {})}
      >
        {isEmpty ? 'No codes there' : count === 1 ? 'Keep 1 code' : tr`Keep ${count} codes`}
      </Button>
    </form>
  );
}

/** What a scan tool has shown besides codes: taken as evidence on a tap. */
function ShownBesides({ scan, busy, onTake }: { scan: ImportedScan; busy: boolean; onTake: () => void }) {
  return (
    <section aria-label="From the scan tool" className="mt-2 rounded-lg bg-panel p-3">
      <h4 className="font-bold">Besides codes it has shown</h4>
      <ul className="list-disc pl-5">
        {scan.evidence.map((e, i) => (
          <li key={i}>{evidenceWords(e)}</li>
        ))}
      </ul>
      <Button disabled={busy} onClick={onTake}>
        {scan.evidence.length === 1 ? 'Take it as evidence' : tr`Take all ${scan.evidence.length} as evidence`}
      </Button>
    </section>
  );
}

/** A file that a scan tool, or whatever can export, has written. */
function ScanFile({ onOpen }: { onOpen: (file: File) => void }) {
  return (
    <label
      className={`${buttonLook()} mt-2 cursor-pointer focus-within:outline-2`}
      title="mudflat/scan, as JSON or as a table"
    >
      Open a file of the scan tool
      <input
        type="file"
        accept=".json,.csv,.txt"
        className="sr-only"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) onOpen(file);
          e.target.value = '';
        }}
      />
    </label>
  );
}
