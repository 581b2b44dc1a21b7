'use client';
import { tr } from '../../core/locale/translate';
import { useRouter } from '../kit/router';
import { Link } from '../kit/link';
import { v7 } from 'uuid';
import { evidenceWords } from '../../core/evidence/kinds/kinds';
import type { EvidenceView, JobView, RunBrief } from '../../application/views';
import { usePerson, useMay } from '../kit/session';
import { shownTime } from '../kit/time';
import { useSend } from '../kit/use-send';
import { JudgementWord } from '../posts/judgement-word';
import { MiniPosts } from '../posts/mini-posts';
import { Thumbs } from './photos';

/** What was measured and seen, in the order in which it happened. */
export function Seen({ view }: { view: JobView }) {
  const { job, unit } = view;
  const all = [
    ...job.runs.map((run) => ({ at: run.startedAt, run })),
    ...view.evidence.map((seen) => ({ at: seen.at, seen })),
  ].sort((a, b) => (a.at < b.at ? -1 : 1));
  return (
    <section aria-label="Evidence">
      {all.length === 0 && <p className="text-soft">Nothing yet. The plan says what to measure first.</p>}
      <ol className="flex flex-col divide-y divide-line">
        {all.map((e) =>
          'run' in e ? (
            <li key={e.run.id}>
              <RunLine run={e.run} timeZone={unit.timeZone} />
            </li>
          ) : (
            <li key={e.seen.id}>
              <SeenLine view={view} seen={e.seen} />
            </li>
          ),
        )}
      </ol>
    </section>
  );
}

function SeenLine({ view, seen }: { view: JobView; seen: EvidenceView }) {
  const router = useRouter();
  const by = usePerson();
  const may = useMay('run.start');
  const { busy, post } = useSend();
  async function takeBack(): Promise<void> {
    if (await post(`/api/jobs/${view.job.id}/evidence/take-back`, { id: v7(), by, evidence: seen.id }))
      router.refresh();
  }
  return (
    <article className="py-2">
      <p className="font-semibold">{evidenceWords(seen.body)}</p>
      {seen.body.note && <p>{seen.body.note}</p>}
      <Thumbs ids={seen.body.photos} photos={view.photos} />
      <p className="flex items-center gap-3 text-sm text-soft">
        {shownTime(seen.at, view.unit.timeZone)}, {seen.by}
        {may && (
          <button
            type="button"
            disabled={busy}
            className="min-h-12 underline"
            aria-label={tr`Take back: ${evidenceWords(seen.body)}`}
            onClick={() => void takeBack()}
          >
            take back
          </button>
        )}
      </p>
    </article>
  );
}

function RunLine({ run, timeZone }: { run: RunBrief; timeZone: string }) {
  return (
    <article className="py-2">
      <div className="flex flex-wrap items-center gap-x-4">
        <Link
          href={`/runs/${run.id}`}
          className="inline-flex min-h-12 min-w-40 flex-1 items-center font-bold underline decoration-line underline-offset-4"
        >
          {run.name}
        </Link>
        {run.judgement && <MiniPosts judgement={run.judgement} />}
        <JudgementWord judgement={run.judgement} />
      </div>
      {run.judgement && <p>{run.judgement.summary}</p>}
      <p className="text-sm text-soft">
        {shownTime(run.startedAt, timeZone)}, {run.startedBy}.{' '}
        <a className="inline-flex min-h-8 items-center underline" href={`/api/runs/${run.id}/pdf`}>
          Result as PDF
        </a>
      </p>
    </article>
  );
}
