'use client';
import { CircleCheck, CircleDashed, CircleX } from 'lucide-react';
import { useState } from 'react';
import type { ProofCheck, ProofCheckId } from '../../core/repair/types';
import type { JobView } from '../../application/views';
import { Button } from '../kit/button';
import { Choice } from '../kit/chips';
import { errorAt } from '../kit/draft';
import { Field, inputLook, tie } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { Sideways } from '../kit/sideways';
import { usePerson, useMay } from '../kit/session';
import { MiniPosts } from '../posts/mini-posts';
import { useRecord } from './use-record';

const ICONS = {
  done: [CircleCheck, 'text-eelgrass'],
  open: [CircleDashed, 'text-soft'],
  failed: [CircleX, 'text-rust'],
} as const;

/** What proves the repair, the same posts before and after, and the release. */
export function Proof({ view }: { view: JobView }) {
  const { checks, pairs } = view.repair;
  const may = useMay('job.write-repair');
  return (
    <div>
      <ul className="flex flex-col gap-1">
        {checks.map((c) => (
          <li key={c.id}>
            <CheckLine check={c} />
          </li>
        ))}
      </ul>
      {pairs.map((p) => (
        <div key={p.test} className="mt-3">
          <p className="font-semibold">{p.name}, before and after</p>
          <Sideways name={`Posts: ${p.name}`}>
            <MiniPosts
              judgement={p.after?.judgement ?? p.before.judgement}
              {...(p.after ? { before: p.before.judgement } : {})}
            />
          </Sideways>
          <p className="text-sm text-soft">
            Before: {p.before.judgement.summary}
            {p.after ? (
              <>
                {' '}
                After: <b className="text-ink">{p.after.judgement.summary}</b>
              </>
            ) : (
              ' Not measured again yet.'
            )}
          </p>
        </div>
      ))}
      {may &&
        (view.job.closed ? (
          <Reopen view={view} />
        ) : (
          <>
            <Scan view={view} />
            <Release view={view} open={checks.filter((c) => c.state !== 'done')} />
          </>
        ))}
    </div>
  );
}

function CheckLine({ check: { label, state, why } }: { check: ProofCheck }) {
  const [Icon, tone] = ICONS[state];
  return (
    <p className="flex items-start gap-2">
      <Icon size={20} className={`mt-0.5 shrink-0 ${tone}`} aria-label={state} />
      <span>
        <b>{label}</b> <span className="text-soft">{why}</span>
      </span>
    </p>
  );
}

function Scan({ view }: { view: JobView }) {
  const [outcome, setOutcome] = useState<'clean' | 'codes'>('clean');
  const [said, setSaid] = useState('');
  const { busy, problems, write } = useRecord(view.job.id);
  if (view.repair.checks.find((c) => c.id === 'vehicle-scan')?.state === 'done') return null;
  return (
    <details className="mt-3">
      <summary className="min-h-10 cursor-pointer font-semibold">Note the scan of the whole vehicle</summary>
      <form
        noValidate
        aria-label="Scan of the whole vehicle"
        onSubmit={(e) => {
          e.preventDefault();
          void write({ kind: 'scan', outcome, said: said.trim() });
        }}
      >
        <Choice<'clean' | 'codes'>
          label="All controllers"
          value={outcome}
          onChange={setOutcome}
          options={[
            ['clean', 'No codes'],
            ['codes', 'Codes'],
          ]}
        />
        <Field id="scan-said" label="What was there">
          <input
            id="scan-said"
            className={inputLook}
            value={said}
            maxLength={2000}
            onChange={(e) => setSaid(e.target.value)}
          />
        </Field>
        <OtherProblems problems={problems} paths={[]} />
        <Button type="submit" disabled={busy}>
          Note it
        </Button>
      </form>
    </details>
  );
}

function Release({ view, open }: { view: JobView; open: readonly ProofCheck[] }) {
  const by = usePerson();
  const isLead = useMay('job.release-with-open-checks');
  const [said, setSaid] = useState('');
  const [because, setBecause] = useState<Readonly<Partial<Record<ProofCheckId, string>>>>({});
  const { busy, problems, write } = useRecord(view.job.id);
  const error = errorAt(problems, '/record/said');
  const waived = open.flatMap((c) => {
    const why = because[c.id]?.trim();
    return why ? [{ check: c.id, because: why }] : [];
  });
  return (
    <form
      noValidate
      aria-label="Release"
      className="mt-3 border-t border-line pt-3"
      onSubmit={(e) => {
        e.preventDefault();
        void write({ kind: 'release', said: said.trim(), waived });
      }}
    >
      {open.length > 0 && (
        <p className="font-semibold text-ochre">
          {open.length === 1 ? 'One check is' : `${open.length} checks are`} not done.{' '}
          {isLead
            ? 'Say why it is released all the same, or do it.'
            : 'A lead can release it all the same, and says why.'}
        </p>
      )}
      {isLead &&
        open.map((c) => (
          <Field key={c.id} id={`waive-${c.id}`} label={c.label}>
            <input
              id={`waive-${c.id}`}
              className={inputLook}
              placeholder="left because"
              value={because[c.id] ?? ''}
              maxLength={2000}
              onChange={(e) => setBecause({ ...because, [c.id]: e.target.value })}
            />
          </Field>
        ))}
      <Field id="release-said" label="Release with" hint="what the next one should know" error={error}>
        <input
          className={inputLook}
          value={said}
          maxLength={2000}
          onChange={(e) => setSaid(e.target.value)}
          {...tie('release-said', error)}
        />
      </Field>
      <OtherProblems problems={problems} paths={['/record/said']} />
      <Button type="submit" tone="strong" disabled={busy || (open.length > 0 && !isLead)}>
        Release, signed {by}
      </Button>
    </form>
  );
}

function Reopen({ view }: { view: JobView }) {
  const [because, setBecause] = useState('');
  const { busy, problems, write } = useRecord(view.job.id);
  const error = errorAt(problems, '/record/because');
  return (
    <details className="mt-3">
      <summary className="min-h-10 cursor-pointer font-semibold">The fault returned: reopen this job</summary>
      <form
        noValidate
        aria-label="Reopen"
        onSubmit={(e) => {
          e.preventDefault();
          void write({ kind: 'reopen', because: because.trim() });
        }}
      >
        <Field id="reopen-because" label="What returned" error={error}>
          <input
            className={inputLook}
            value={because}
            maxLength={2000}
            onChange={(e) => setBecause(e.target.value)}
            {...tie('reopen-because', error)}
          />
        </Field>
        <OtherProblems problems={problems} paths={['/record/because']} />
        <Button type="submit" disabled={busy}>
          Reopen
        </Button>
      </form>
    </details>
  );
}
