import { Link } from '../kit/link';

import type { RunView } from '../../application/views';
import { PrintButton } from './print-button';
import { PrintedPosts, ReadingsTable } from './run-parts';
import { reportFacts } from '../../application/report/facts';

/** One A4 page for the file: what was read, under which conditions, against what, and what it says. */
export function RunPrint({ view }: { view: RunView }) {
  const report = reportFacts(view);
  const { judgement } = view;
  return (
    <main
      data-theme="shed"
      className="mx-auto max-w-[186mm] bg-card p-6 text-[13px] leading-snug text-ink print:bg-white print:p-0"
    >
      <p className="no-print mb-4 flex gap-3">
        <PrintButton />
        <Link className="inline-flex min-h-12 items-center underline" href={`/runs/${view.id}`}>
          Back to the bench
        </Link>
      </p>
      <h1 className="text-2xl font-bold">{report.title}</h1>
      <dl className="mt-2 grid grid-cols-[6rem_1fr] gap-x-3 gap-y-0.5">
        {report.facts.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-soft">{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      {report.unconfirmed.length > 0 && (
        <p className="mt-1 font-semibold text-ochre">Not confirmed: {report.unconfirmed.join(', ')}.</p>
      )}
      <PrintedPosts run={view} />
      <section className="mt-3 border-l-4 border-estuary pl-3">
        <p className="text-base font-bold">{judgement.summary}</p>
        {judgement.advice.map((a) => (
          <p key={a} className="mt-1">
            {a}
          </p>
        ))}
      </section>
      <ReadingsTable run={view} rows={report.rows} />
      {report.corrections.length > 0 && (
        <section className="mt-2">
          <h2 className="font-bold">Corrections</h2>
          {report.corrections.map((c) => (
            <p key={c}>{c}</p>
          ))}
        </section>
      )}
      <section className="mt-3 border border-ochre p-2">
        <h2 className="font-bold">Caution</h2>
        {report.cautions.map((c) => (
          <p key={c}>{c}</p>
        ))}
      </section>
    </main>
  );
}
