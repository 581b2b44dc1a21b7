'use client';
import { useRouter } from 'next/navigation';
import Link from 'next/link';
import { v7 } from 'uuid';
import { evidenceWords } from '../../core/evidence/kinds/kinds';
import type { EvidenceView, JobBrief, JobView, NoteView, RunBrief } from '../../application/views';
import { useLive } from '../kit/live';
import { usePerson, useMay } from '../kit/session';
import { shownTime } from '../kit/time';
import { useSend } from '../kit/use-send';
import { JudgementWord } from '../posts/judgement-word';
import { MiniPosts } from '../posts/mini-posts';
import { CircuitCard } from './circuit';
import { Repair } from '../repair/repair';
import { Codes } from './codes';
import { RecordEvidence } from './evidence';
import { Intake } from './intake';
import { Known } from './known';
import { Parts } from './parts';
import { Thumbs } from './photos';
import { PlanOfJob } from './plan';
import { Progress } from './progress';
import { AuditTrail } from './audit-trail';

/**
 * One job from complaint to finding: what is known and by which evidence, what is next, and the trail of it
 * all.
 */
export function JobScreen({ view }: { view: JobView }) {
  const { job, unit, earlier } = view;
  const router = useRouter();
  useLive(job.id, () => router.refresh());
  return (
    <main className="mx-auto grid w-full max-w-7xl flex-1 content-start gap-4 p-4 lg:grid-cols-[minmax(0,2fr)_minmax(0,1fr)]">
      <Progress stands={view.progress} />
      <Intake view={view} />
      <div className="flex min-w-0 flex-col gap-4">
        <Known view={view} />
        <Repair view={view} />
        {view.circuits.map((c) => (
          <CircuitCard key={c.circuit.id} view={c} />
        ))}
        <Evidence view={view} />
        <Codes view={view} />
      </div>
      <div className="flex min-w-0 flex-col gap-4">
        <PlanOfJob view={view} />
        <RecordEvidence view={view} />
        <Notes notes={view.notes} timeZone={unit.timeZone} />
        <AuditTrail view={view} />
        <Parts unit={unit} />
        <Earlier jobs={earlier} timeZone={unit.timeZone} />
      </div>
    </main>
  );
}

/** What was measured and seen, in the order in which it happened. */
function Evidence({ view }: { view: JobView }) {
  const { job, unit } = view;
  const all = [
    ...job.runs.map((run) => ({ at: run.startedAt, run })),
    ...view.evidence.map((seen) => ({ at: seen.at, seen })),
  ].sort((a, b) => (a.at < b.at ? -1 : 1));
  return (
    <section aria-label="Evidence">
      <h2 className="mb-2 font-semibold text-soft">Evidence</h2>
      {all.length === 0 && (
        <p className="rounded-xl border border-dashed border-line p-4">
          Nothing yet. The plan says what to measure first.
        </p>
      )}
      <ol className="flex flex-col gap-3">
        {all.map((e) =>
          'run' in e ? (
            <li key={e.run.id}>
              <RunCard run={e.run} timeZone={unit.timeZone} />
            </li>
          ) : (
            <li key={e.seen.id}>
              <SeenCard view={view} seen={e.seen} />
            </li>
          ),
        )}
      </ol>
    </section>
  );
}

function SeenCard({ view, seen }: { view: JobView; seen: EvidenceView }) {
  const router = useRouter();
  const by = usePerson();
  const may = useMay('run.start');
  const { busy, post } = useSend();
  async function takeBack(): Promise<void> {
    if (await post(`/api/jobs/${view.job.id}/evidence/take-back`, { id: v7(), by, evidence: seen.id }))
      router.refresh();
  }
  return (
    <article className="rounded-xl border border-line bg-card p-4">
      <p className="font-semibold">{evidenceWords(seen.body)}</p>
      {seen.body.note && <p>{seen.body.note}</p>}
      <Thumbs ids={seen.body.photos} photos={view.photos} />
      <p className="flex items-center gap-3 text-sm text-soft">
        {shownTime(seen.at, view.unit.timeZone)}, {seen.by}
        {may && (
          <button
            type="button"
            disabled={busy}
            className="min-h-10 underline"
            aria-label={`Take back: ${evidenceWords(seen.body)}`}
            onClick={() => void takeBack()}
          >
            take back
          </button>
        )}
      </p>
    </article>
  );
}

function RunCard({ run, timeZone }: { run: RunBrief; timeZone: string }) {
  return (
    <article className="rounded-xl border border-line bg-card p-4">
      <Link href={`/runs/${run.id}`} className="flex min-h-12 flex-wrap items-center justify-between gap-3">
        <span className="text-lg font-bold underline decoration-line underline-offset-4">{run.name}</span>
        <JudgementWord judgement={run.judgement} />
      </Link>
      {run.judgement && (
        <div className="my-2">
          <MiniPosts judgement={run.judgement} />
        </div>
      )}
      {run.judgement && <p className="font-semibold">{run.judgement.summary}</p>}
      {run.judgement?.advice.slice(0, 2).map((a) => (
        <p key={a} className="mt-1">
          {a}
        </p>
      ))}
      <p className="mt-2 text-sm text-soft">
        {shownTime(run.startedAt, timeZone)}, {run.startedBy}.{' '}
        <a className="underline" href={`/api/runs/${run.id}/pdf`}>
          Result as PDF
        </a>
      </p>
    </article>
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
          <li key={n.id} className="rounded-xl bg-card p-3">
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
          <li key={j.id}>
            <Link href={`/jobs/${j.id}`} className="block min-h-12 rounded-xl bg-card p-3">
              <b>Job {j.number}</b> {j.complaint}
              <span className="block text-sm text-soft">{shownTime(j.openedAt, timeZone)}</span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
