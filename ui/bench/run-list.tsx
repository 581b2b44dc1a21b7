import { jobName } from '../../application/job-number';
import { memo } from 'react';
import { Link } from '../kit/link';
import type { Judgement } from '../../core/judge/types';
import type { RunView } from '../../application/views';
import { JudgementWord } from '../posts/judgement-word';

/** The job's trail: what was done, in order, each with its verdict. */
export const RunList = memo(function Trail({
  view,
  judgement,
  className,
}: {
  view: RunView;
  judgement: Judgement;
  className: string;
}) {
  return (
    <nav
      className={`border-line bg-panel p-3 xl:overflow-y-auto xl:border-r xl:contain-strict ${className}`}
      aria-label="This job"
    >
      <h2 className="mb-2 text-sm font-semibold text-soft">
        <Link href={`/jobs/${view.job.id}`} className="underline">
          {jobName(view.job.number)}
        </Link>
      </h2>
      <ol className="flex flex-col gap-1">
        {view.job.runs.map((r) => {
          const here = r.id === view.id;
          return (
            <li key={r.id}>
              <Link
                href={`/runs/${r.id}`}
                aria-current={here ? 'page' : undefined}
                className={`block min-h-12 rounded-lg border-l-4 px-3 py-2 ${here ? 'border-estuary bg-card' : 'border-transparent'}`}
              >
                <span className="block">{r.name}</span>
                <JudgementWord judgement={here ? judgement : r.judgement} />
              </Link>
            </li>
          );
        })}
      </ol>
      <p className="mt-4 px-3 text-sm text-soft">{view.job.complaint}</p>
    </nav>
  );
});
