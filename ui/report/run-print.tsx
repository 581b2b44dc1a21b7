import { readerUnit } from '../../core/quantity/reader-unit';
import Link from 'next/link';

import type { RunView } from '../../application/views';
import { PostRow } from '../posts/post-row';
import { noteOf, rowsOf } from '../../application/posts/rows';
import { scaleFor } from '../../application/posts/scale';
import { PrintButton } from './print-button';
import { reportFacts } from '../../application/report/facts';

/** One A4 page for the file: what was read, under which conditions, against what, and what it says. */
export function RunPrint({ view }: { view: RunView }) {
  const report = reportFacts(view);
  const { judgement } = view;
  const rows = rowsOf(view.unit.engine, view.definition);
  const readings = new Map(judgement.readings.map((r) => [r.position, r]));
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
      <div className="mt-3 flex flex-col gap-2">
        {rows.map((r, i) => (
          <div key={r.title} className="flex h-52 break-inside-avoid">
            <PostRow
              title={r.title}
              note={noteOf(view.unit.engine, i, rows.length, view.definition)}
              positions={r.positions}
              readings={readings}
              limits={view.specification.limits}
              scale={scaleFor(view.specification.limits)}
              active={null}
            />
          </div>
        ))}
      </div>
      <section className="mt-3 border-l-4 border-estuary pl-3">
        <p className="text-base font-bold">{judgement.summary}</p>
        {judgement.advice.map((a) => (
          <p key={a} className="mt-1">
            {a}
          </p>
        ))}
      </section>
      <Readings report={report} unit={readerUnit(view.specification.limits.unit).symbol} />
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

function Readings({ report, unit }: { report: ReturnType<typeof reportFacts>; unit: string }) {
  return (
    <table className="mt-3 w-full border-collapse text-left">
      <thead>
        <tr className="border-b border-ink">
          <th>Where</th>
          <th>Read</th>
          <th>Corrected, {unit}</th>
          <th>Verdict</th>
          <th>Why</th>
          <th>When, who</th>
        </tr>
      </thead>
      <tbody>
        {report.rows.map((r) => (
          <tr key={r.reading.position} className="border-b border-line align-top">
            <td className="font-bold">{r.reading.position}</td>
            <td className="pr-2 font-mono">{r.entry}</td>
            <td className="pr-2 font-mono whitespace-nowrap">{r.corrected}</td>
            <td className="pr-2 font-semibold">{r.verdict}</td>
            <td className="pr-2">{r.reasons}</td>
            <td className="whitespace-nowrap">{r.taken}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
