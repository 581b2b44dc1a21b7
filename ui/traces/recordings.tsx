'use client';
import { tr } from '../../core/locale/translate';
import { Link } from '../kit/link';
import { useRouter } from '../kit/router';
import type { RecordingLimits, TraceView } from '../../application/views';
import type { Engine } from '../../core/engine/layout';
import type { LeadMap } from '../../core/signal/lead-map';
import { span } from '../../core/signal/words';
import { useLive } from '../kit/live';
import { shownTime } from '../kit/time';
import { ImportRecording } from './import-recording';

interface Props {
  readonly jobId: string;
  readonly isClosed: boolean;
  readonly traces: readonly TraceView[];
  readonly timeZone: string;
  readonly plan: LeadMap | null;
  readonly limits: readonly RecordingLimits[];
  readonly engine: Engine;
}

/** The recordings of a job, and taking another one in. */
export function Recordings({ jobId, isClosed, traces, timeZone, plan, limits, engine }: Props) {
  const router = useRouter();
  useLive(jobId, () => router.refresh());
  return (
    <main className="mx-auto flex w-full max-w-5xl flex-1 flex-col gap-3 p-3 sm:p-4">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <h2 className="text-xl font-bold">Recordings</h2>
        <Link href={`/jobs/${jobId}`} className="inline-flex min-h-12 items-center underline">
          Back to the job
        </Link>
      </div>
      {traces.length === 0 && (
        <p className="rounded-xl bg-card p-4">
          A fault that comes and goes is seldom there when a meter is. Let a logger watch the pins on the road, and take
          its file in here: it is searched for what left its course, and says how small a dropout it would have found.
        </p>
      )}
      <p>
        <Link href={`/jobs/${jobId}/traces/leads`} className="inline-flex min-h-12 items-center underline">
          {plan ? 'Which lead goes to which pin' : 'Before recording: say which lead goes to which pin'}
        </Link>
        {plan && (
          <span className="ml-2 text-soft">
            {plan.leads.length} leads, ground at {plan.ground}
          </span>
        )}
      </p>
      <ul className="flex flex-col gap-2" aria-label="Recordings of this job">
        {traces.map((t) => (
          <li key={t.id} className="rounded-xl bg-card p-4">
            <Link href={`/traces/${t.id}`} className="inline-flex min-h-12 items-center text-lg font-bold underline">
              {t.name}
            </Link>
            <p>{briefOf(t)}</p>
            <p className="text-sm text-soft">
              {shownTime(t.at, timeZone)}, {t.by}
            </p>
            {t.missing.length > 0 && (
              <p className="font-semibold text-ochre">
                {t.missing.length} of {t.head.streams.reduce((n, s) => n + s.blocks.length, 0)} blocks have not arrived.
                Choose the same file again: it goes on from there.
              </p>
            )}
          </li>
        ))}
      </ul>
      {!isClosed && <ImportRecording jobId={jobId} traces={traces} plan={plan} limits={limits} engine={engine} />}
    </main>
  );
}

/** Length, channels and what was found, in a line. */
export function briefOf({ head }: TraceView): string {
  const { findings, searched } = head.search;
  const bad = findings.filter((f) => f.severity === 'fail' || f.severity === 'attention').length;
  const longest = Math.max(0, ...searched.map((s) => s.seconds));
  const found = bad === 0 ? 'nothing left its course' : tr`${bad} ${bad === 1 ? 'finding' : 'findings'}`;
  return tr`${span(longest)} of ${head.channels.map((c) => c.name).join(', ')}: ${found}.`;
}
