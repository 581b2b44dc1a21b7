'use client';
import { tr } from '../../core/locale/translate';
import { CircleCheck, CircleDashed, CircleX } from 'lucide-react';
import { useState } from 'react';
import type { ProofCheck } from '../../core/repair/types';
import type { JobView } from '../../application/views';
import { useBegun } from '../kit/begun';
import { Button } from '../kit/button';
import { Choice } from '../kit/chips';
import { Field, inputLook } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { Sideways } from '../kit/sideways';
import { useMay } from '../kit/session';
import { MiniPosts } from '../posts/mini-posts';
import { CheckAction } from './check-action';
import { useRecord } from './use-record';

const ICONS = {
  done: [CircleCheck, 'text-eelgrass'],
  open: [CircleDashed, 'text-soft'],
  failed: [CircleX, 'text-rust'],
} as const;

/** What proves the repair, and the same posts before and after. */
export function Proof({ view }: { view: JobView }) {
  const { checks, pairs } = view.repair;
  // What is next has its button beside the sentence.
  const act = view.progress.next?.act;
  const leading = act?.do === 'prove' ? act.check : null;
  const may = useMay('job.write-repair');
  return (
    <div>
      <ul className="flex flex-col gap-1">
        {checks.map((c) => (
          <li key={c.id}>
            <CheckLine check={c} />
            {may && !view.job.closed && c.state !== 'done' && c.id !== leading && (
              <div className="mt-1 flex flex-wrap gap-2 pl-7">
                <CheckAction check={c} view={view} />
              </div>
            )}
          </li>
        ))}
      </ul>
      {pairs.map((p) => (
        <div key={p.test} className="mt-3">
          <p className="font-semibold">{p.name}, before and after</p>
          <Sideways name={tr`Posts: ${p.name}`}>
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
      {may && !view.job.closed && <Scan view={view} />}
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
  const isDone = view.repair.checks.find((c) => c.id === 'vehicle-scan')?.state === 'done';
  useBegun(said.trim() !== '' && !isDone);
  if (isDone) return null;
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
