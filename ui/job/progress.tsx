import { STAGE_WORDS, type Stage, type StageId, type StageState, type JobProgress } from '../../core/job/progress';
import { MARKS, type Stroke } from '../../application/posts/shapes';

/** Where each stage is worked on, on the page of a job. */
const PLACE: Readonly<Record<StageId, string>> = {
  complaint: 'complaint',
  codes: 'codes',
  tests: 'plan',
  finding: 'known',
  agreed: 'repair',
  repair: 'repair',
  proof: 'repair',
  release: 'repair',
};

const LOOK: Readonly<Record<StageState, { strokes: readonly Stroke[]; colour: string; said: string }>> = {
  done: { strokes: MARKS.within, colour: 'eelgrass', said: 'done' },
  now: { strokes: MARKS['not-measured'], colour: 'estuary', said: 'next' },
  open: { strokes: MARKS['not-measured'], colour: 'socket', said: 'not yet' },
  failed: { strokes: MARKS.failed, colour: 'rust', said: 'not good' },
  'left out': { strokes: [{ d: 'M-14 0H14', width: 2.5 }], colour: 'socket', said: 'left out' },
};

/** Where a job stands: its stages as a row of posts, and what is next in a sentence that leads there. */
export function Progress({ stands }: { stands: JobProgress }) {
  return (
    <section aria-label="Where it stands" className="rounded-xl bg-card px-4 py-3 lg:col-span-2">
      <ol className="grid grid-cols-4 gap-1 sm:grid-cols-8">
        {stands.stages.map((s) => (
          <StagePost key={s.id} stage={s} isNow={s.id === stands.now} />
        ))}
      </ol>
      <p className="mt-2">
        {stands.now === null ? (
          <b className="text-eelgrass">{stands.say}</b>
        ) : (
          <>
            <b className="text-estuary">Now:</b>{' '}
            <a href={`#${PLACE[stands.now]}`} className="underline decoration-line underline-offset-4">
              {stands.say}
            </a>
          </>
        )}
      </p>
    </section>
  );
}

function StagePost({ stage, isNow }: { stage: Stage; isNow: boolean }) {
  const { strokes, colour, said } = LOOK[stage.state];
  return (
    <li>
      <a
        href={`#${PLACE[stage.id]}`}
        aria-current={isNow ? 'step' : undefined}
        className={`flex min-h-12 flex-col items-center justify-center gap-1 rounded-lg border-2 px-1 text-sm ${isNow ? 'border-estuary font-semibold' : 'border-transparent'}`}
      >
        <svg width={40} height={16} viewBox="-40 -14 80 28" aria-hidden="true">
          <path d="M-40 0H40" stroke="var(--channel)" strokeWidth={14} />
          {strokes.map((s) => (
            <path
              key={s.d}
              d={s.d}
              fill={s.fill ? `var(--${colour})` : 'none'}
              stroke={s.fill ? 'none' : `var(--${colour})`}
              strokeWidth={s.width}
            />
          ))}
        </svg>
        {STAGE_WORDS[stage.id]}
        <span className="sr-only">, {said}</span>
      </a>
    </li>
  );
}
