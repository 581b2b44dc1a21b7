'use client';
import { jobName } from '../../application/job-number';
import { Link } from '../kit/link';
import type { ReactNode } from 'react';
import type { JobBrief, JobView, NoteView } from '../../application/views';
import { shownTime } from '../kit/time';
import { AuditTrail } from './audit-trail';
import { Parts } from './parts';

/** What is wanted rarely: papers, notes, earlier jobs, the trail, the parts that are fitted. */
export function More({ view }: { view: JobView }) {
  const { unit, notes, earlier, job } = view;
  return (
    <div className="flex flex-col gap-2">
      <Papers jobId={job.id} />
      <Folded title="Noted" count={notes.length}>
        <Notes notes={notes} timeZone={unit.timeZone} />
      </Folded>
      <Folded title="Earlier jobs of this unit" count={earlier.length}>
        <Earlier jobs={earlier} timeZone={unit.timeZone} />
      </Folded>
      <AuditTrail view={view} />
      <Parts unit={unit} />
    </div>
  );
}

function Papers({ jobId }: { jobId: string }) {
  const look = 'inline-flex min-h-12 items-center underline';
  return (
    <nav aria-label="Papers" className="flex flex-wrap gap-x-4 rounded-xl bg-card px-3">
      <Link className={look} href={`/jobs/${jobId}/traces`}>
        Recordings
      </Link>
      <Link className={look} href={`/jobs/${jobId}/report?voice=payer`}>
        Report for the payer
      </Link>
      <Link className={look} href={`/jobs/${jobId}/report?voice=file`}>
        for the file
      </Link>
      <a className={look} href={`/api/jobs/${jobId}/bundle`} download>
        Bundle
      </a>
    </nav>
  );
}

function Folded({ title, count, children }: { title: string; count: number; children: ReactNode }) {
  if (count === 0) return null;
  return (
    <details className="rounded-xl bg-card p-3">
      <summary className="min-h-8 cursor-pointer font-semibold text-soft">
        {title} ({count})
      </summary>
      {children}
    </details>
  );
}

/** What was put into the record beside readings. */
function Notes({ notes, timeZone }: { notes: readonly NoteView[]; timeZone: string }) {
  return (
    <ol className="flex flex-col gap-2" aria-label="Noted">
      {notes.map((n) => (
        <li key={n.id} className="mt-1 border-t border-line pt-1">
          <b>{n.title}</b>
          {n.lines.map((l, i) => (
            <p key={i} className={i === n.lines.length - 1 && n.kind === 'sum' ? 'text-sm text-soft' : ''}>
              {l}
            </p>
          ))}
          <p className="text-sm text-soft">
            {shownTime(n.at, timeZone)}, {n.by}
          </p>
        </li>
      ))}
    </ol>
  );
}

function Earlier({ jobs, timeZone }: { jobs: readonly JobBrief[]; timeZone: string }) {
  return (
    <ul className="flex flex-col">
      {jobs.map((j) => (
        <li key={j.id}>
          <Link href={`/jobs/${j.id}`} className="block min-h-12 py-1">
            <b>{jobName(j.number)}</b> {j.complaint}
            <span className="block text-sm text-soft">
              {shownTime(j.openedAt, timeZone)}
              {j.closed ? ', released' : ', open'}
            </span>
          </Link>
        </li>
      ))}
    </ul>
  );
}
