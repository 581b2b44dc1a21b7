import { ArrowDown, ArrowUp, Check, CirclePlay, SkipForward, Undo2 } from 'lucide-react';
import type { PlanStep } from '../../core/plan/types';
import { Button } from '../kit/button';

const small =
  'inline-flex size-10 items-center justify-center rounded-lg border border-line bg-card disabled:opacity-40 pointer-coarse:size-12';

interface StepProps {
  readonly step: PlanStep;
  /** The first and the last of those to do: they cannot move further. */
  readonly first: boolean;
  readonly last: boolean;
  /** It is what the job asks for next. */
  readonly leads: boolean;
  readonly may: boolean;
  readonly busy: boolean;
  readonly onStart: () => void;
  readonly onMove: (where: 'earlier' | 'later') => void;
  readonly onSkip: () => void;
}

/** A step to do: what, why, how long, and what may be done with it. */
export function Step(props: StepProps) {
  const { step: s, leads, may } = props;
  return (
    <li className={`rounded-lg border p-2 ${leads ? 'border-2 border-estuary' : 'border-line'}`}>
      <div className="flex items-start justify-between gap-2">
        <div className="min-w-0">
          <b>
            {leads && <span className="text-estuary">Next: </span>}
            {s.name}
          </b>{' '}
          <span className="text-sm whitespace-nowrap text-soft">
            {s.minutes} min{s.people > 1 ? `, ${s.people} people` : ''}
          </span>
          <p className="text-sm">
            {s.why}
            {s.with && (
              <span className="text-soft">
                {' '}
                {s.with.charAt(0).toUpperCase()}
                {s.with.slice(1)}.
              </span>
            )}
          </p>
        </div>
      </div>
      {may && <StepButtons {...props} />}
    </li>
  );
}

function StepButtons({ step: s, first, last, leads, busy, onStart, onMove, onSkip }: StepProps) {
  return (
    <div className="mt-1 flex flex-wrap gap-1">
      <Button tone={leads ? 'strong' : 'plain'} className="min-h-10 flex-1 px-3" disabled={busy} onClick={onStart}>
        <CirclePlay size={18} aria-hidden="true" />
        Start<span className="sr-only"> {s.name}</span>
      </Button>
      <button
        type="button"
        className={small}
        disabled={busy || first}
        aria-label={`${s.name} earlier`}
        onClick={() => onMove('earlier')}
      >
        <ArrowUp size={18} aria-hidden="true" />
      </button>
      <button
        type="button"
        className={small}
        disabled={busy || last}
        aria-label={`${s.name} later`}
        onClick={() => onMove('later')}
      >
        <ArrowDown size={18} aria-hidden="true" />
      </button>
      <button type="button" className={small} disabled={busy} aria-label={`Skip ${s.name}`} onClick={onSkip}>
        <SkipForward size={18} aria-hidden="true" />
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
                aria-label={`Do ${s.name} after all`}
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
