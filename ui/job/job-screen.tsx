'use client';
import { useRouter } from 'next/navigation';
import Link from 'next/link';
import { useMemo, useState } from 'react';
import { v7 } from 'uuid';
import { areasFor } from '../../core/codes/phases';
import { indexFindable } from '../../core/catalogue/search';
import { groupBy } from '../../core/collections';
import type { JobBrief, JobView, NoteView, PersonView, RunBrief, TestBrief } from '../../formats/views';
import { usePerson } from '../kit/person';
import { send } from '../kit/send';
import { shownTime } from '../kit/time';
import { Codes, knownCodes } from './codes';
import { Parts } from './parts';
import { JudgementWord } from '../posts/judgement-word';
import { MiniPosts } from '../posts/mini-posts';

/** One job: the complaint, what was measured in order, what to measure next, and what the unit came with before. */
export function JobScreen({ view, persons }: { view: JobView; persons: readonly PersonView[] }) {
  const { job, unit, earlier } = view;
  return (
    <main className="mx-auto grid w-full max-w-7xl flex-1 content-start gap-4 p-4 lg:grid-cols-[minmax(0,2fr)_minmax(0,1fr)]">
      <section className="rounded-xl bg-card p-4 lg:col-span-2">
        <h2 className="text-sm font-semibold text-soft">Job {job.number}, opened {shownTime(job.openedAt, unit.timeZone)} by {job.openedBy}</h2>
        <p className="mt-1 text-xl">{job.complaint}</p>
      </section>
      <Codes view={view} persons={persons} />
      <section aria-label="Measured">
        <h2 className="mb-2 font-semibold text-soft">Measured</h2>
        {job.runs.length === 0 && <p className="rounded-xl border border-dashed border-line p-4">Nothing yet. Choose a test under “Measure next”.</p>}
        <ol className="flex flex-col gap-3">{job.runs.map((r) => <li key={r.id}><RunCard run={r} timeZone={unit.timeZone} /></li>)}</ol>
      </section>
      <div className="flex flex-col gap-4">
        <StartTest job={job} tests={view.tests} points={areasFor(knownCodes(view.codes))} persons={persons} />
        <Notes notes={view.notes} timeZone={unit.timeZone} />
        <Parts unit={unit} persons={persons} />
        <Earlier jobs={earlier} timeZone={unit.timeZone} />
      </div>
    </main>
  );
}

function RunCard({ run, timeZone }: { run: RunBrief; timeZone: string }) {
  return (
    <article className="rounded-xl border border-line bg-card p-4">
      <Link href={`/runs/${run.id}`} className="flex min-h-12 flex-wrap items-center justify-between gap-3">
        <span className="text-lg font-bold underline decoration-line underline-offset-4">{run.name}</span>
        <JudgementWord judgement={run.judgement} />
      </Link>
      {run.judgement && <div className="my-2"><MiniPosts judgement={run.judgement} /></div>}
      {run.judgement && <p className="font-semibold">{run.judgement.summary}</p>}
      {run.judgement?.advice.slice(0, 2).map((a) => <p key={a} className="mt-1">{a}</p>)}
      <p className="mt-2 text-sm text-soft">{shownTime(run.startedAt, timeZone)}, {run.startedBy}. <a className="underline" href={`/api/runs/${run.id}/pdf`}>Result as PDF</a></p>
    </article>
  );
}

const ENERGY = 'Energy first';

function StartTest({ job, tests: all, points, persons }: { job: JobBrief; tests: readonly TestBrief[]; points: readonly string[]; persons: readonly PersonView[] }) {
  const router = useRouter();
  const by = usePerson(persons.map((p) => p.name));
  const [error, setError] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [search, setSearch] = useState('');

  async function start(test: string): Promise<void> {
    setBusy(true);
    const id = v7();
    const sent = await send('/api/runs', { id, jobId: job.id, test, by });
    if (sent.ok) {
      router.push(`/runs/${id}`);
      return;
    }
    setBusy(false);
    setError(sent.error.kind === 'unreachable' ? 'No server. Try again.' : sent.error.problem.errors[0]?.message ?? sent.error.problem.title);
  }

  const find = useMemo(() => indexFindable(all), [all]);
  // Energy first, then what the codes point at, then the order of the work.
  const rank = (area: string): number => (area === ENERGY ? -1 : points.includes(area) ? points.indexOf(area) : points.length);
  const found = find(search).toSorted((a, b) => rank(a.area) - rank(b.area));
  return (
    <section aria-label="Measure next">
      <h2 className="mb-2 font-semibold text-soft">Measure next</h2>
      <input aria-label="Find a test" placeholder="Find a test" value={search} onChange={(e) => setSearch(e.target.value)} className="mb-2 block min-h-12 w-full rounded-lg border-2 border-line bg-card px-3" />
      {error && <p role="alert" className="mb-2 font-semibold text-rust">{error}</p>}
      {found.length === 0 && <p className="text-soft">The catalogue has no test with “{search}” in it.</p>}
      <div className="lg:max-h-[36rem] lg:overflow-y-auto lg:pr-1">
      {[...groupBy(found, (t) => t.area)].map(([area, tests]) => (
        <div key={area} className="mb-3">
          <h3 className="text-sm font-semibold text-soft">{area}{points.includes(area) && <span className="ml-2 text-estuary">the codes point here</span>}</h3>
          <ul>
            {tests.map((t) => (
              <li key={t.id}>
                <button type="button" disabled={busy} onClick={() => void start(t.id)} className="mt-1 block min-h-12 w-full rounded-lg border border-line bg-card px-3 py-2 text-left hover:border-estuary">
                  <b>{t.name}</b> <span className="text-sm whitespace-nowrap text-soft">about {t.minutes} min{t.people > 1 ? `, ${t.people} people` : ''}</span>
                  <span className="block text-sm">{t.purpose}</span>
                </button>
              </li>
            ))}
          </ul>
        </div>
      ))}
      </div>
    </section>
  );
}

/** What was put into the record beside readings. */
function Notes({ notes, timeZone }: { notes: readonly NoteView[]; timeZone: string }) {
  if (notes.length === 0) return null;
  return (
    <section aria-label="Noted">
      <h2 className="mb-2 font-semibold text-soft">Noted</h2>
      <ol className="flex flex-col gap-2">
        {notes.map((n) => (
          <li key={n.id} className="rounded-xl bg-card p-3"><b>{n.title}</b>{n.lines.map((l, i) => <p key={i} className={i === n.lines.length - 1 && n.kind === 'sum' ? 'text-sm text-soft' : ''}>{l}</p>)}<p className="text-sm text-soft">{shownTime(n.at, timeZone)}, {n.by}</p></li>
        ))}
      </ol>
    </section>
  );
}

function Earlier({ jobs, timeZone }: { jobs: readonly JobBrief[]; timeZone: string }) {
  if (jobs.length === 0) return null;
  return (
    <section aria-label="Earlier jobs of this unit">
      <h2 className="mb-2 font-semibold text-soft">Earlier jobs of this unit</h2>
      <ul className="flex flex-col gap-2">
        {jobs.map((j) => (
          <li key={j.id}><Link href={`/jobs/${j.id}`} className="block min-h-12 rounded-xl bg-card p-3"><b>Job {j.number}</b> {j.complaint}<span className="block text-sm text-soft">{shownTime(j.openedAt, timeZone)}</span></Link></li>
        ))}
      </ul>
    </section>
  );
}
