'use client';
import { read } from '../kit/send';
import { ArrowRight } from 'lucide-react';
import { Link } from '../kit/link';
import { useEffect, useState } from 'react';
import type { JobProgress } from '../../core/job/progress';
import type { RunView } from '../../application/views';
import { OtherProblems } from '../kit/form';
import { useMay } from '../kit/session';
import { useStartRun } from '../kit/use-start-run';

/**
 * What the job asks for next, as its page and the yard say it: `null` until the server has answered. `state`
 * changes with what was read; nothing is asked while it is `null`.
 */
export function useNextInJob(runId: string, state: string | null): JobProgress | null {
  const [answer, setAnswer] = useState<{ readonly state: string; readonly progress: JobProgress } | null>(null);
  useEffect(() => {
    if (state === null) return undefined;
    const control = new AbortController();
    void read(`/api/runs/${runId}/next`, { signal: control.signal, cache: 'no-store' }).then(
      async (r) => {
        if (r.ok) setAnswer({ state, progress: (await r.json()) as JobProgress });
      },
      // Without a server the readings' own advice stands.
      () => undefined,
    );
    return () => control.abort();
  }, [runId, state]);
  return answer !== null && answer.state === state ? answer.progress : null;
}

const look =
  'mt-2 inline-flex min-h-12 items-center gap-1 rounded-lg border-2 border-estuary px-3 font-semibold text-estuary disabled:opacity-50';

/** The step itself, and the button that leads to it. */
export function NextInJob({ view, progress }: { view: RunView; progress: JobProgress }) {
  const may = useMay('run.start');
  const { busy, problems, start } = useStartRun(view.job);
  const { next, say } = progress;
  if (!next) return <p className="font-semibold text-eelgrass">{say}</p>;
  const { act } = next;
  const there = act.do === 'measure' ? act.run : undefined;
  const isHere = there === view.id;
  return (
    <>
      <p className="font-semibold">{say}</p>
      <p className="text-soft">{next.why}</p>
      <OtherProblems problems={problems} paths={[]} />
      {act.do === 'measure' && !isHere && may && there === undefined ? (
        <button type="button" disabled={busy} onClick={() => void start(act.test)} className={look}>
          <ArrowRight size={18} aria-hidden="true" />
          Start it
        </button>
      ) : (
        !isHere && (
          <Link href={there === undefined ? `/jobs/${view.job.id}` : `/runs/${there}`} className={look}>
            <ArrowRight size={18} aria-hidden="true" />
            {there === undefined ? 'To the job' : 'Go on there'}
          </Link>
        )
      )}
    </>
  );
}
