import { tr } from '../../core/locale/translate';
import { jobName } from '../../application/job-number';
import { Plus } from 'lucide-react';
import { Link } from '../kit/link';
import type { YardJob, YardView } from '../../application/views';
import { JudgementWord } from '../posts/judgement-word';
import { MiniPosts } from '../posts/mini-posts';

export function UnitCard({ unit, onOpen }: { unit: YardView['units'][number]; onOpen: () => void }) {
  return (
    <article className="flex h-full flex-col rounded-xl border border-line bg-card p-3">
      <header className="flex items-center gap-3">
        <h3 className="text-xl font-bold">{unit.fleetNumber}</h3>
        <p className="min-w-0 flex-1 truncate text-sm text-soft">
          {unit.kind} · {unit.family} · {unit.depot}
        </p>
        <button
          type="button"
          onClick={onOpen}
          aria-label={tr`Open a job for ${unit.fleetNumber}`}
          className="inline-flex min-h-11 items-center gap-1 rounded-lg border border-line px-3 text-sm font-semibold"
        >
          <Plus size={16} aria-hidden="true" />
          Job
        </button>
      </header>
      {unit.jobs.map((j) => (
        <JobLine key={j.id} job={j} />
      ))}
      {unit.released.length > 0 && (
        <details className="mt-auto border-t border-line pt-1">
          <summary className="min-h-11 cursor-pointer py-2 text-sm text-soft">
            Released ({unit.released.length})
          </summary>
          <ul>
            {unit.released.map((r) => (
              <li key={r.id}>
                <Link href={`/jobs/${r.id}`} className="block min-h-11 py-1 text-sm hover:underline">
                  <b>Job {r.number}</b> {r.complaint}
                </Link>
              </li>
            ))}
          </ul>
        </details>
      )}
    </article>
  );
}

function JobLine({ job }: { job: YardJob }) {
  const { latest } = job;
  return (
    <div className="mt-2 border-t border-line pt-2">
      <Link href={`/jobs/${job.id}`} className="block min-h-6 font-semibold hover:underline">
        {jobName(job.number)}
        <span className="font-normal"> {job.complaint}</span>
      </Link>
      {job.progress.waits !== null && job.progress.waits !== 'somebody' && (
        <p className="mt-0.5 text-sm font-semibold text-ochre">Waits for {job.progress.waits}</p>
      )}
      <p className="mt-0.5 line-clamp-2 text-sm text-soft">{job.progress.say}</p>
      {latest && (
        <Link href={`/runs/${latest.id}`} className="mt-1 flex min-h-12 items-center gap-3 rounded-lg">
          <span className="sr-only">To the bench: {latest.name}</span>
          {latest.judgement && <MiniPosts judgement={latest.judgement} />}
          <JudgementWord judgement={latest.judgement} />
        </Link>
      )}
    </div>
  );
}
