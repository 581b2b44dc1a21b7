'use client';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { recordsOfKind } from '../../core/repair/proof';
import { sequenceFor } from '../../core/repair/sequences';
import type { JobView } from '../../application/views';
import type { FoundFinding } from './found';
import { Proof } from './proof';

const Decide = dynamic(() => import('./decide').then((m) => m.Decide));
const Quotations = dynamic(() => import('./quotations').then((m) => m.Quotations));
const Steps = dynamic(() => import('./steps').then((m) => m.Steps));
const Coding = dynamic(() => import('./coding').then((m) => m.Coding));

/** From finding to release: one or the set, the quotation, the steps, the codes of new parts, the proof. */
export function Repair({ view }: { view: JobView }) {
  const { repair } = view;
  const found = view.findings.flatMap((f): FoundFinding[] =>
    f.body.kind === 'found' ? [{ id: f.id, body: f.body }] : [],
  );
  if (found.length === 0 && repair.records.length === 0 && view.job.runs.length === 0) return null;
  const released = recordsOfKind(repair.records, 'release').at(-1);
  const codes =
    found.some((f) => f.body.what === 'part' && f.body.name === 'injector') ||
    recordsOfKind(repair.records, 'coding').length > 0;
  const quotation = recordsOfKind(repair.records, 'quotation').at(-1);
  const answer = recordsOfKind(repair.records, 'answer').findLast((a) => a.body.quotation === quotation?.id)?.body
    .answer;
  const state = (id: string): string => repair.checks.find((c) => c.id === id)?.state ?? 'open';
  const { now } = view.progress;
  const decidedOn = (f: FoundFinding): 'one' | 'set' | undefined =>
    recordsOfKind(repair.records, 'decision').findLast((d) => d.body.finding === f.id)?.body.school;
  const undecided = found.some((f) => !decidedOn(f) && repair.decisions.some((d) => d.finding === f.id));
  return (
    <section id="repair" aria-label="Repair" className="scroll-mt-4 rounded-xl bg-card p-4">
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h2 className="font-semibold text-soft">Repair</h2>
        <span className="flex flex-wrap gap-x-4 text-sm">
          <Link className="inline-flex min-h-8 items-center underline" href={`/jobs/${view.job.id}/report?voice=payer`}>
            Report for the payer
          </Link>
          <Link className="inline-flex min-h-8 items-center underline" href={`/jobs/${view.job.id}/report?voice=file`}>
            for the file
          </Link>
          <a className="inline-flex min-h-8 items-center underline" href={`/api/jobs/${view.job.id}/bundle`} download>
            Bundle
          </a>
        </span>
      </div>
      {repair.comebackOf && (
        <p className="mt-1 font-semibold text-ochre">
          A comeback of{' '}
          <Link className="underline" href={`/jobs/${repair.comebackOf.id}`}>
            job {repair.comebackOf.number}
          </Link>
          .
        </p>
      )}
      {repair.comebacks.map((c) => (
        <p key={c.id} className="mt-1 font-semibold text-rust">
          The fault came back:{' '}
          <Link className="underline" href={`/jobs/${c.id}`}>
            job {c.number}
          </Link>
          .
        </p>
      ))}
      {released && view.job.closed && (
        <p className="mt-1 font-semibold text-eelgrass">
          Released by {released.by}: {released.body.said}
        </p>
      )}
      {found.map((f) => {
        const start = repair.decisions.find((d) => d.finding === f.id);
        return (
          start && (
            <Stage
              key={f.id}
              title={`One or the whole set: ${f.body.name}`}
              state={DECIDED[decidedOn(f) ?? 'open']}
              open={now === 'agreed' && !decidedOn(f) && !quotation}
            >
              <Decide view={view} finding={f} start={start} />
            </Stage>
          )
        );
      })}
      {found.length > 0 && (
        <Stage
          title="Quotation"
          state={answer ?? state('agreed')}
          open={now === 'agreed' && (!undecided || quotation !== undefined)}
        >
          <Quotations view={view} findings={found} />
        </Stage>
      )}
      {found.map((f) => (
        <Stage
          key={f.id}
          title={`Steps: ${sequenceFor(f.body.what, f.body.name).name}`}
          state={state('repaired')}
          open={now === 'repair'}
        >
          <Steps view={view} finding={f} />
        </Stage>
      ))}
      {codes && (
        <Stage title="Codes of new parts" state={state('coded')}>
          <Coding view={view} />
        </Stage>
      )}
      <Stage
        title="Proof and release"
        state={view.job.closed ? 'done' : repair.checks.every((c) => c.state === 'done') ? 'ready' : 'open'}
        open={now === 'proof' || now === 'release'}
      >
        <Proof view={view} />
      </Stage>
    </section>
  );
}

const DECIDED = { one: 'only those that failed', set: 'the whole set', open: 'open' } as const;

const TONES: Readonly<Record<string, string>> = {
  done: 'text-eelgrass',
  accepted: 'text-eelgrass',
  'only those that failed': 'text-eelgrass',
  'the whole set': 'text-eelgrass',
  ready: 'text-eelgrass',
  open: 'text-soft',
  failed: 'text-rust',
  declined: 'text-rust',
  deferred: 'text-ochre',
};

function Stage({
  title,
  state,
  open = false,
  children,
}: {
  title: string;
  state: string;
  open?: boolean;
  children: ReactNode;
}) {
  return (
    <details className="mt-2 rounded-lg border border-line px-3 py-1 open:pb-3" open={open}>
      <summary className="min-h-10 cursor-pointer py-2 font-semibold">
        {title} <span className={`ml-2 font-normal ${TONES[state] ?? 'text-soft'}`}>{state}</span>
      </summary>
      {children}
    </details>
  );
}
