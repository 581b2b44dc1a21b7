'use client';
import { tr } from '../../core/locale/translate';
import dynamic from 'next/dynamic';
import { Link } from '../kit/link';
import { codesKept, recordsOfKind } from '../../core/repair/proof';
import { sequenceFor } from '../../core/repair/sequences';
import type { JobView } from '../../application/views';
import type { FoundFinding } from './found';
import { Release, Reopen } from './release';

const Decide = dynamic(() => import('./decide').then((m) => m.Decide));
const Quotations = dynamic(() => import('./quotations').then((m) => m.Quotations));
const Steps = dynamic(() => import('./steps').then((m) => m.Steps));
const Coding = dynamic(() => import('./coding').then((m) => m.Coding));

const foundIn = (view: JobView): FoundFinding[] =>
  view.findings.flatMap((f): FoundFinding[] => (f.body.kind === 'found' ? [{ id: f.id, body: f.body }] : []));

/** One or the set where that is a question, and what the payer is asked and says. */
export function AgreedWork({ view }: { view: JobView }) {
  const found = foundIn(view);
  if (found.length === 0) return <p className="text-soft">First a finding is signed.</p>;
  const choices = found.flatMap((f) => {
    const start = view.repair.decisions.find((d) => d.finding === f.id && d.isChoice);
    return start ? [{ f, start }] : [];
  });
  return (
    <div className="flex flex-col gap-4">
      {choices.map(({ f, start }) => (
        <section key={f.id} aria-label={tr`One or the whole set: ${f.body.name}`}>
          <Decide view={view} finding={f} start={start} />
        </section>
      ))}
      <section aria-label="Quotation">
        <Quotations view={view} findings={found} />
      </section>
    </div>
  );
}

/** The steps of each finding, and the codes of new parts. */
export function RepairWork({ view }: { view: JobView }) {
  const found = foundIn(view);
  if (found.length === 0) return <p className="text-soft">First a finding is signed.</p>;
  const isCoded =
    found.some((f) => f.body.what === 'part' && f.body.name === 'injector') || codesKept(view.repair.records).size > 0;
  return (
    <div className="flex flex-col gap-4">
      {found.map((f) => (
        <section key={f.id} aria-label={tr`Steps: ${sequenceFor(f.body.what, f.body.name).name}`}>
          {found.length > 1 && <h3 className="font-semibold">{f.body.text}</h3>}
          <Steps view={view} finding={f} />
        </section>
      ))}
      {isCoded && (
        <section aria-label="Codes of new parts">
          <h3 className="font-semibold">Codes of new parts</h3>
          <Coding view={view} />
        </section>
      )}
    </div>
  );
}

/** The release, or what became of it. */
export function ReleaseWork({ view }: { view: JobView }) {
  const { repair, job } = view;
  const released = recordsOfKind(repair.records, 'release').at(-1);
  return (
    <div>
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
      {released && job.closed && (
        <p className="mt-1 font-semibold text-eelgrass">
          Released by {released.by}: {released.body.said}
        </p>
      )}
      {job.closed ? <Reopen view={view} /> : <Release view={view} />}
    </div>
  );
}
