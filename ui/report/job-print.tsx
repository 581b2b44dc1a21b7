import { tr } from '../../core/locale/translate';
import { Link } from '../kit/link';
import { reportFacts } from '../../application/report/facts';
import {
  fileReport,
  payerReport,
  type ReportView,
  type Section,
  type Voice,
} from '../../application/report/job-report';
import { pictureHeight, strokesOf, type TracePicture } from '../../application/traces/picture';
import { PrintButton } from './print-button';
import { PrintedPosts, ReadingsTable } from './run-parts';

/** The report of a job on screen and on paper, in one of its two voices. */
export function JobPrint({ view, voice, hasLogo }: { view: ReportView; voice: Voice; hasLogo: boolean }) {
  const id = view.job.job.id;
  return (
    <main
      data-theme="shed"
      className="mx-auto max-w-[186mm] bg-card p-6 text-[13px] leading-snug text-ink print:bg-white print:p-0"
    >
      <p className="no-print mb-4 flex flex-wrap gap-3">
        <PrintButton />
        <a className="inline-flex min-h-12 items-center underline" href={`/api/jobs/${id}/report?voice=${voice}`}>
          PDF
        </a>
        <Link
          className="inline-flex min-h-12 items-center underline"
          href={`/jobs/${id}/report?voice=${voice === 'payer' ? 'file' : 'payer'}`}
        >
          {voice === 'payer' ? 'For the file' : 'For the payer'}
        </Link>
        <Link className="inline-flex min-h-12 items-center underline" href={`/jobs/${id}`}>
          Back to the job
        </Link>
      </p>
      {voice === 'payer' ? <Payer view={view} hasLogo={hasLogo} /> : <File view={view} />}
    </main>
  );
}

const Sections = ({ sections }: { sections: readonly Section[] }) => (
  <>
    {sections.map((s) => (
      <section key={s.title} className="mt-3 break-inside-avoid-page">
        <h2 className="text-base font-bold">{s.title}</h2>
        {s.lines.map((l, i) => (
          <p key={i} className="mt-0.5">
            {l}
          </p>
        ))}
      </section>
    ))}
  </>
);

function Payer({ view, hasLogo }: { view: ReportView; hasLogo: boolean }) {
  const report = payerReport(view);
  return (
    <>
      <address className="mb-6 border-b-2 border-estuary pb-2 not-italic">
        {/* oxlint-disable-next-line nextjs/no-img-element -- as it is on paper */}
        {hasLogo && <img src="/api/workshop/logo" alt="" className="float-right max-h-16 max-w-52" />}
        {report.letterhead.map((line, i) => (
          <span key={i} className={`block ${i === 0 ? 'text-lg font-bold' : 'text-soft'}`}>
            {line}
          </span>
        ))}
      </address>
      <h1 className="text-2xl font-bold">{report.title}</h1>
      <p className="text-soft">{report.unit}</p>
      <div className="text-[15px]">
        <Sections sections={report.sections.slice(0, 3)} />
        {/* oxlint-disable-next-line nextjs/no-img-element -- as it is on paper */}
        {report.picture && <img src={`/api/photos/${report.picture}`} alt="What was found" className="mt-3 max-h-72" />}
        {report.recording && <Recorded picture={report.recording} />}
        <Sections sections={report.sections.slice(3)} />
        {report.cost && (
          <section className="mt-3">
            <h2 className="text-base font-bold">What it costs</h2>
            <table className="w-full text-left">
              <tbody>
                {report.cost.lines.map(([text, how, sum], i) => (
                  <tr key={i} className="border-b border-line">
                    <td>{text}</td>
                    <td className="text-right">{how}</td>
                    <td className="text-right">{sum}</td>
                  </tr>
                ))}
                <tr className="font-bold">
                  <td>In all</td>
                  <td />
                  <td className="text-right">{report.cost.total}</td>
                </tr>
              </tbody>
            </table>
            <p>{report.cost.answer}</p>
          </section>
        )}
        <p className="mt-10 border-t border-line pt-1">{report.signed ? tr`Signed: ${report.signed}` : 'Signature'}</p>
      </div>
    </>
  );
}

const WIDE = 680;
const AREAS = {
  lane: 'fill-white stroke-line',
  limits: 'fill-channel opacity-40',
  marked: 'fill-rust opacity-25',
} as const;

/** The lanes of a recording around what was found. */
function Recorded({ picture }: { picture: TracePicture }) {
  return (
    <figure className="mt-3 break-inside-avoid">
      <svg
        viewBox={`0 0 ${WIDE} ${pictureHeight(picture)}`}
        role="img"
        aria-label={picture.caption}
        className="w-full max-w-[720px]"
      >
        {strokesOf(picture, WIDE).map((s, i) =>
          s.kind === 'area' ? (
            <rect key={i} x={s.box[0]} y={s.box[1]} width={s.box[2]} height={s.box[3]} className={AREAS[s.role]} />
          ) : s.kind === 'line' ? (
            <polyline
              key={i}
              points={s.points.map(([x, y]) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' ')}
              className="fill-none stroke-estuary"
              strokeWidth={1.2}
            />
          ) : (
            <text
              key={i}
              x={s.at[0]}
              y={s.at[1] + 9}
              textAnchor={s.align === 'right' ? 'end' : 'start'}
              className="fill-ink text-[10px]"
            >
              {s.text}
            </text>
          ),
        )}
      </svg>
      <figcaption className="text-soft">{picture.caption}</figcaption>
    </figure>
  );
}

/** One test: its facts, its posts, and each reading with its verdict. */
function RunSection({ run }: { run: ReportView['runs'][number] }) {
  const facts = reportFacts(run);
  return (
    <section className="mt-5 break-before-page">
      <h2 className="text-lg font-bold">{facts.title}</h2>
      <dl className="grid grid-cols-[6rem_1fr] gap-x-3">
        {facts.facts.slice(4).map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-soft">{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      <PrintedPosts run={run} />
      <p className="mt-1 font-bold">{run.judgement.summary}</p>
      <ReadingsTable run={run} rows={facts.rows} />
      {facts.corrections.map((c) => (
        <p key={c}>Correction. {c}</p>
      ))}
    </section>
  );
}

function Photos({ photos }: { photos: ReportView['job']['photos'] }) {
  return (
    <section className="mt-5 break-before-page">
      <h2 className="text-lg font-bold">Photos</h2>
      <div className="grid grid-cols-2 gap-3">
        {photos.map((p) => (
          <figure key={p.id} className="break-inside-avoid">
            {/* oxlint-disable-next-line nextjs/no-img-element -- as it is on paper */}
            <img src={`/api/photos/${p.id}`} alt={p.name} className="max-h-56" />
            <figcaption className="text-soft">
              {p.name}, {p.by}
            </figcaption>
          </figure>
        ))}
      </div>
    </section>
  );
}

function File({ view }: { view: ReportView }) {
  const report = fileReport(view);
  return (
    <>
      <h1 className="text-2xl font-bold">{report.title}</h1>
      <dl className="mt-2 grid grid-cols-[6rem_1fr] gap-x-3 gap-y-0.5">
        {report.facts.map(([name, value], i) => (
          <div key={i} className="contents">
            <dt className="text-soft">{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      <Sections sections={report.sections} />
      <section className="mt-3">
        <h2 className="text-base font-bold">Proof</h2>
        {report.checks.map((c) => (
          <p key={c.id}>
            <b>{c.state}</b> {c.label}. {c.why}
          </p>
        ))}
      </section>
      {view.recordings.map((r) => (
        <section key={r.id} className="mt-5">
          <h2 className="text-lg font-bold">Recording: {r.name}</h2>
          {r.lines.map((l) => (
            <p key={l} className="break-words">
              {l}
            </p>
          ))}
          {r.picture && <Recorded picture={r.picture} />}
        </section>
      ))}
      {view.runs.map((run) => (
        <RunSection key={run.id} run={run} />
      ))}
      {view.job.photos.length > 0 && <Photos photos={view.job.photos} />}
      <section className="mt-5">
        <h2 className="text-lg font-bold">Trail</h2>
        <p className="break-words">{report.head}</p>
        {report.trail.map((t) => (
          <p key={t} className="text-[11px]">
            {t}
          </p>
        ))}
      </section>
    </>
  );
}
