'use client';
import { ArrowRight, CirclePlay, Clock, ListChecks } from 'lucide-react';
import { Link } from '../kit/link';
import { type ReactNode, useState } from 'react';
import type { Act, NextStep } from '../../core/job/next-step';
import type { JobView } from '../../application/views';
import { Button, buttonLook } from '../kit/button';
import { OtherProblems } from '../kit/form';
import { useMay } from '../kit/session';
import { useStartRun } from '../kit/use-start-run';
import { CheckAction } from '../repair/check-action';
import { FindingDialog } from './finding-dialog';
import { ChooseTest } from './plan';

/**
 * The one step that is next: what, why, what it will tell, what must be true first, and the button that does
 * it. The work of its stage stands below.
 */
export function Now({ view, children }: { view: JobView; children?: ReactNode }) {
  const { sign, dialog } = useSigning(view);
  return (
    <>
      <Step view={view} onSign={sign}>
        {children}
      </Step>
      {dialog}
    </>
  );
}

type OnSign = (act: Extract<Act, { do: 'sign-finding' }>) => void;

/**
 * A finding that is being written stays open when something else becomes next: the dialog is no part of the
 * step.
 */
function useSigning(view: JobView): { readonly sign: OnSign; readonly dialog: ReactNode } {
  const [act, setAct] = useState<Parameters<OnSign>[0] | null>(null);
  const dialog = act && (
    <FindingDialog
      view={view}
      replaces={null}
      picked={act.proposal === undefined ? 'other' : String(act.proposal)}
      onClose={() => setAct(null)}
    />
  );
  return { sign: setAct, dialog };
}

function Step({ view, onSign, children }: { view: JobView; onSign: OnSign; children?: ReactNode }) {
  const { next, say, waits } = view.progress;
  if (!next)
    return (
      <section id="now" aria-label="Now" className="rounded-xl border-2 border-eelgrass bg-card p-4">
        <p className="text-xl font-bold text-eelgrass">{say}</p>
        {children}
      </section>
    );
  return (
    <section id="now" aria-label="Now" className="scroll-mt-4 rounded-xl border-2 border-estuary bg-card p-4">
      <div className="flex flex-wrap items-start justify-between gap-x-6 gap-y-3">
        <div className="min-w-0 flex-[1_1_20rem]">
          <h2 className="text-xl leading-snug font-bold">
            <span className="text-estuary">Now: </span>
            {say}
          </h2>
          <p className="mt-1">{next.why}</p>
          {next.tells && <p className="mt-1 text-soft">{next.tells}</p>}
          <Needs step={next} waits={waits} />
        </div>
        <ActButton view={view} step={next} onSign={onSign} />
      </div>
      {children}
    </section>
  );
}

function Needs({ step, waits }: { step: NextStep; waits: JobView['progress']['waits'] }) {
  if (step.minutes === null && step.needs.length === 0 && (waits === null || waits === 'somebody')) return null;
  return (
    <p className="mt-1 flex flex-wrap items-center gap-x-4 text-sm">
      {step.minutes !== null && (
        <span className="inline-flex items-center gap-1">
          <Clock size={16} aria-hidden="true" /> about {step.minutes} min
        </span>
      )}
      {step.needs.length > 0 && (
        <span className="inline-flex items-center gap-1">
          <ListChecks size={16} aria-hidden="true" /> First: {step.needs.join(', ')}
        </span>
      )}
      {waits !== null && waits !== 'somebody' && <b className="text-ochre">Waits for {waits}</b>}
    </p>
  );
}

const MAY: Readonly<Record<Act['do'], Parameters<typeof useMay>[0]>> = {
  'read-codes': 'job.keep-codes',
  measure: 'run.start',
  'choose-test': 'run.start',
  'sign-finding': 'job.write-finding',
  choose: 'job.write-repair',
  quote: 'job.write-repair',
  answer: 'job.write-repair',
  repair: 'job.write-repair',
  prove: 'job.write-repair',
  release: 'job.write-repair',
};

/** The button that does a step. What is done in the work below it has none: it stands there. */
function ActButton({ view, step, onSign }: { view: JobView; step: NextStep; onSign: OnSign }) {
  const { act } = step;
  const may = useMay(MAY[act.do]);
  if (!may || view.job.closed) return null;
  switch (act.do) {
    case 'measure':
      return <Measure view={view} act={act} />;
    case 'choose-test':
      return <ChooseTest view={view} />;
    case 'sign-finding':
      return <Sign act={act} onSign={onSign} strong />;
    case 'prove': {
      const check = view.repair.checks.find((c) => c.id === act.check);
      return check ? (
        <div className="flex flex-col gap-2">
          <CheckAction check={check} view={view} strong />
        </div>
      ) : null;
    }
    default:
      return null;
  }
}

function Measure({ view, act }: { view: JobView; act: Extract<Act, { do: 'measure' }> }) {
  const { busy, problems, start } = useStartRun(view.job);
  const name = view.tests.find((t) => t.id === act.test)?.name ?? act.test;
  if (act.run !== undefined)
    return (
      <Link className={buttonLook('strong')} href={`/runs/${act.run}`}>
        <ArrowRight size={18} aria-hidden="true" />
        Go on<span className="sr-only"> with {name}</span>
      </Link>
    );
  return (
    <div>
      <Button tone="strong" disabled={busy} onClick={() => void start(act.test)}>
        <CirclePlay size={18} aria-hidden="true" />
        Start<span className="sr-only"> {name}</span>
      </Button>
      <OtherProblems problems={problems} paths={[]} />
    </div>
  );
}

function Sign({ act, onSign, strong = false }: { act: Parameters<OnSign>[0]; onSign: OnSign; strong?: boolean }) {
  return (
    <Button tone={strong ? 'strong' : 'plain'} onClick={() => onSign(act)}>
      {act.proposal === undefined ? 'Write a finding' : 'Sign the finding'}
    </Button>
  );
}

/** What could be signed in place of what is next. Tests stand in the plan, checks in the proof. */
export function Instead({ view }: { view: JobView }) {
  const { sign, dialog } = useSigning(view);
  return (
    <>
      <Others view={view} onSign={sign} />
      {dialog}
    </>
  );
}

function Others({ view, onSign }: { view: JobView; onSign: OnSign }) {
  const others = view.progress.instead.filter((s) => s.act.do === 'sign-finding');
  const may = useMay('job.write-finding');
  if (others.length === 0 || view.job.closed) return null;
  return (
    <section aria-label="Instead" className="rounded-xl bg-card p-4">
      <h2 className="font-semibold text-soft">Instead</h2>
      <ul className="mt-1 flex flex-col gap-2">
        {others.map((s, i) => (
          <li
            key={i}
            className="flex flex-wrap items-center justify-between gap-2 border-t border-line pt-2 first:border-0"
          >
            <span className="min-w-0 flex-1">
              {s.say} <span className="text-sm text-soft">{s.why}</span>
            </span>
            {may && s.act.do === 'sign-finding' && <Sign act={s.act} onSign={onSign} />}
          </li>
        ))}
      </ul>
    </section>
  );
}
