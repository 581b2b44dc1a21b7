import { tr } from '../../core/locale/translate';
import { capital } from '../../core/foundation/text';
import { ArrowDown, ArrowUp, Check, CirclePlay, SkipForward, Undo2 } from 'lucide-react';
import type { PlanStep } from '../../core/plan/types';
import { Button } from '../kit/button';

const small =
  'inline-flex min-h-12 min-w-12 items-center justify-center gap-1 rounded-lg border border-line bg-card px-2 text-sm disabled:opacity-40';

interface StepProps {
  readonly step: PlanStep;
  /** The first and the last of those to do: they cannot move further. */
  readonly first: boolean;
  readonly last: boolean;
  /** It is what the job asks for next. */
  readonly leads: boolean;
  readonly may: boolean;
  /** The plan is being changed: moves and skips stand at each step. */
  readonly isChanging: boolean;
  readonly busy: boolean;
  readonly onStart: () => void;
  readonly onMove: (where: 'earlier' | 'later') => void;
  readonly onSkip: () => void;
}

/** A step to do: what, why, how long, its button, and, while the plan is changed, where it may go. */
export function Step(props: StepProps) {
  const { step: s, leads, may, isChanging, busy, onStart } = props;
  return (
    <li className={`rounded-lg border p-2 ${leads ? 'border-2 border-estuary' : 'border-line'}`}>
      <div className="flex items-center justify-between gap-2">
        <div className="min-w-0">
          <b>
            {leads && <span className="text-estuary">Now: </span>}
            {s.name}
          </b>{' '}
          <span className="text-sm whitespace-nowrap text-soft">
            {s.minutes} min{s.people > 1 ? tr`, ${s.people} people` : ''}
          </span>
          <p className="text-sm leading-snug">
            {s.why}
            {s.with && <span className="text-soft"> {capital(s.with)}.</span>}
          </p>
        </div>
        {/* What is next has its button beside the sentence that says so. */}
        {may && !leads && (
          <Button className="shrink-0 px-3" disabled={busy} onClick={onStart}>
            <CirclePlay size={18} aria-hidden="true" />
            {s.run === undefined ? 'Start' : 'Go on'}
            <span className="sr-only"> {s.name}</span>
          </Button>
        )}
      </div>
      {may && isChanging && <ChangeButtons {...props} />}
    </li>
  );
}

function ChangeButtons({ step: s, first, last, busy, onMove, onSkip }: StepProps) {
  return (
    <div className="mt-1 flex flex-wrap gap-1">
      <button
        type="button"
        className={small}
        disabled={busy || first}
        aria-label={tr`${s.name} earlier`}
        onClick={() => onMove('earlier')}
      >
        <ArrowUp size={18} aria-hidden="true" /> earlier
      </button>
      <button
        type="button"
        className={small}
        disabled={busy || last}
        aria-label={tr`${s.name} later`}
        onClick={() => onMove('later')}
      >
        <ArrowDown size={18} aria-hidden="true" /> later
      </button>
      <button type="button" className={small} disabled={busy} aria-label={tr`Skip ${s.name}`} onClick={onSkip}>
        <SkipForward size={18} aria-hidden="true" /> skip
      </button>
    </div>
  );
}

interface RestProps {
  readonly steps: readonly PlanStep[];
  readonly may: boolean;
  readonly onUnskip: (test: string) => void;
}

/** The steps that are done or skipped. */
export function Rest({ steps, may, onUnskip }: RestProps) {
  return (
    <details className="mt-2">
      <summary className="min-h-8 cursor-pointer text-soft">Done or skipped ({steps.length})</summary>
      <ul>
        {steps.map((s) => (
          <li key={s.test} className="flex items-center gap-2 py-1">
            {s.state === 'done' ? (
              <Check size={18} aria-label="done" className="text-eelgrass" />
            ) : (
              <SkipForward size={18} aria-label="skipped" />
            )}
            <span className="flex-1">
              {s.name}
              {s.because && <span className="text-soft">: {s.because}</span>}
            </span>
            {may && s.state === 'skipped' && (
              <button
                type="button"
                className={small}
                aria-label={tr`Do ${s.name} after all`}
                onClick={() => onUnskip(s.test)}
              >
                <Undo2 size={18} aria-hidden="true" />
              </button>
            )}
          </li>
        ))}
      </ul>
    </details>
  );
}
