import { tr } from '../../core/locale/translate';
import { Link } from '../kit/link';
import { type CodingRule, groupedCode } from '../../core/repair/coding';
import type { JobView } from '../../application/views';
import { PrintButton } from '../report/print-button';

/** Codes of new parts, large enough to be typed from across the cab, and as they can be scanned. */
export function CodesPrint({
  view,
  codes,
}: {
  view: JobView;
  codes: readonly { part: string; position: number; code: string; old?: string | undefined; svg: string }[];
}) {
  const rule = view.repair.service.find((s) => s.kind === 'coding')?.body as CodingRule | undefined;
  const groups = rule?.groups ?? 4;
  return (
    <main data-theme="shed" className="mx-auto max-w-[186mm] bg-card p-6 text-ink print:bg-white print:p-0">
      <p className="no-print mb-4 flex gap-3">
        <PrintButton />
        <Link className="inline-flex min-h-12 items-center underline" href={`/jobs/${view.job.id}`}>
          Back to the job
        </Link>
      </p>
      <h1 className="text-2xl font-bold">
        Codes of new parts: {view.unit.fleetNumber}, job {view.job.number}
      </h1>
      {codes.length === 0 && <p className="mt-3">No code is kept in this job.</p>}
      <ul>
        {codes.map((c) => (
          <li
            key={`${c.part}${c.position}`}
            className="mt-4 flex break-inside-avoid items-center gap-5 border-b border-line pb-4"
          >
            <div
              className="size-28 shrink-0 bg-white [&>svg]:size-full"
              role="img"
              aria-label={tr`Data Matrix of ${c.part} ${c.position}`}
              dangerouslySetInnerHTML={{ __html: c.svg }}
            />
            <div className="min-w-0">
              <p className="text-lg font-bold capitalize">
                {c.part} {c.position}
              </p>
              <p className="font-mono text-3xl leading-tight font-semibold break-words">
                {groupedCode(c.code, groups)}
              </p>
              {c.old && (
                <p className="mt-1">
                  before: <span className="font-mono break-all">{groupedCode(c.old, groups)}</span>
                </p>
              )}
            </div>
          </li>
        ))}
      </ul>
    </main>
  );
}
