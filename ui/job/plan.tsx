'use client';
import { tr } from '../../core/locale/translate';
import { read } from '../kit/send';
import { useRouter } from '../kit/router';
import { type ReactNode, useState } from 'react';
import { v7 } from 'uuid';
import type { Problem } from '../../core/foundation/result';
import type { StageId } from '../../core/job/progress';
import { typePart } from '../../core/plan/hardware';
import type { HardwareQuestion, PlanChange, PlanStep } from '../../core/plan/types';
import type { JobView } from '../../application/views';
import { Button } from '../kit/button';
import { OtherProblems } from '../kit/form';
import { usePerson, useMay } from '../kit/session';
import { useSend } from '../kit/use-send';
import { useStartRun } from '../kit/use-start-run';
import { Choose, Skip } from './plan-dialogs';
import { Rest, Step } from './plan-steps';

/** The stages in which something is measured next. */
const MEASURING: readonly StageId[] = ['complaint', 'codes', 'tests'];

/** A measurement is what comes next, or it is being looked for. */
export const isMeasured = ({ progress: { now, next } }: JobView): boolean =>
  now !== null && (MEASURING.includes(now) || next?.act.do === 'measure');

/**
 * What to measure, in order. It is made anew whenever something is known; what a person changed stays
 * changed.
 */
export function PlanOfJob({ view }: { view: JobView }) {
  const { plan, job } = view;
  const router = useRouter();
  const by = usePerson();
  const may = useMay('job.change-plan');
  const sender = useSend();
  const { post } = sender;
  const { start, ...starter } = useStartRun(job);
  const busy = sender.busy || starter.busy;
  const problems = [...sender.problems, ...starter.problems];
  const [skipping, setSkipping] = useState<PlanStep | null>(null);
  const [isChanging, setChanging] = useState(false);

  async function change(what: PlanChange): Promise<void> {
    if (await post(`/api/jobs/${job.id}/plan`, { id: v7(), by, change: what })) router.refresh();
  }
  const todo = plan.steps.filter((s) => s.state === 'to do');
  const rest = plan.steps.filter((s) => s.state !== 'to do');
  // Once the fault is found, what could still be measured does not call for attention: the stages say what
  // does.
  const { next } = view.progress;
  const leads = isMeasured(view);
  const told = todo.length > 0 && (
    <span className="text-sm text-soft">
      {todo.length} to do, about {plan.minutes} min
    </span>
  );
  return (
    <Foldable isOpen={leads} title={leads ? 'Plan' : 'Could still be measured'} told={told}>
      <OtherProblems problems={problems} paths={[]} />
      {may && !job.closed && (plan.asks ?? []).map((q) => <WhichIsFitted key={q.kind} view={view} question={q} />)}
      {todo.length === 0 && (
        <p className="mt-1">
          {rest.length ? 'Nothing left to measure.' : 'The complaint and the codes point nowhere yet.'}
        </p>
      )}
      <ol className="mt-2 flex flex-col gap-2">
        {todo.map((s, i) => (
          <Step
            key={s.test}
            step={s}
            first={i === 0}
            last={i === todo.length - 1}
            leads={next?.act.do === 'measure' && next.act.test === s.test}
            may={may}
            isChanging={isChanging}
            busy={busy}
            onStart={() => (s.run === undefined ? void start(s.test) : router.push(`/runs/${s.run}`))}
            onMove={(where) => {
              const before = todo[where === 'earlier' ? i - 1 : i + 2]?.test ?? null;
              void change({ kind: 'move', test: s.test, before });
            }}
            onSkip={() => setSkipping(s)}
          />
        ))}
      </ol>
      {may && !job.closed && (
        <div className="mt-2 flex flex-wrap gap-2">
          <ChooseTest view={view} className="flex-1" />
          {todo.length > 0 && (
            <Button aria-pressed={isChanging} onClick={() => setChanging(!isChanging)}>
              {isChanging ? 'Order is right' : 'Change the order'}
            </Button>
          )}
        </div>
      )}
      {rest.length > 0 && <Rest steps={rest} may={may} onUnskip={(test) => void change({ kind: 'unskip', test })} />}
      {skipping && (
        <Skip
          step={skipping}
          onClose={() => setSkipping(null)}
          onSkip={(because) => {
            setSkipping(null);
            void change({ kind: 'skip', test: skipping.test, because });
          }}
        />
      )}
    </Foldable>
  );
}

/** Open while a measurement is what comes next; a line that opens, once it is not. */
function Foldable(p: { isOpen: boolean; title: string; told: ReactNode; children: ReactNode }) {
  const look = 'scroll-mt-4 rounded-xl bg-card px-4 py-3';
  if (!p.isOpen)
    return (
      <details id="plan" className={look}>
        <summary className="min-h-8 cursor-pointer">
          <h2 className="mr-2 inline font-semibold text-soft">{p.title}</h2> {p.told}
        </summary>
        <section aria-label="Plan">{p.children}</section>
      </details>
    );
  return (
    <section id="plan" aria-label="Plan" className={look}>
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h2 className="font-semibold text-soft">{p.title}</h2>
        {p.told}
      </div>
      {p.children}
    </section>
  );
}

/** Asked once of a unit: the answer chooses among the tests, here and at its next visit. */
function WhichIsFitted({ view, question: q }: { view: JobView; question: HardwareQuestion }) {
  const router = useRouter();
  const by = usePerson();
  const { busy, problems, post } = useSend();
  async function say(which: string): Promise<void> {
    if (await post(`/api/units/${view.unit.id}/parts`, { by, part: typePart(q.kind), code: which })) router.refresh();
  }
  return (
    <div role="group" aria-label={tr`Which ${q.kind}?`} className="mt-2 flex flex-wrap items-center gap-2">
      <span>
        Which <b>{q.kind}</b> is fitted?
      </span>
      {q.options.map((o) => (
        <Button key={o} className="px-3" disabled={busy} onClick={() => void say(o)}>
          {o}
        </Button>
      ))}
      <OtherProblems problems={problems} paths={[]} />
    </div>
  );
}

/** Any test of the catalogue, begun at once or put into the plan. */
export function ChooseTest({ view, className = '' }: { view: JobView; className?: string }) {
  const { job, plan } = view;
  const router = useRouter();
  const by = usePerson();
  const { post, problems } = useSend();
  const starter = useStartRun(job);
  const [choosing, setChoosing] = useState(false);
  const [tests, setTests] = useState<JobView['tests'] | null>(null);
  const [failed, setFailed] = useState<readonly Problem[]>([]);
  // Fetched when it is asked for: the whole catalogue need not travel with every look at a job.
  async function choose(): Promise<void> {
    setChoosing(true);
    const answer = await read(`/api/jobs/${job.id}/tests`).catch(() => null);
    if (answer?.ok) setTests(((await answer.json()) as { tests: JobView['tests'] }).tests);
    else setFailed([{ path: '', message: 'No server: the catalogue cannot be shown. Try again.' }]);
  }
  async function add(test: string): Promise<void> {
    setChoosing(false);
    if (await post(`/api/jobs/${job.id}/plan`, { id: v7(), by, change: { kind: 'add', test } })) router.refresh();
  }
  return (
    <>
      <Button className={className} onClick={() => void choose()}>
        Another test
      </Button>
      <OtherProblems problems={[...problems, ...starter.problems]} paths={[]} />
      {choosing && (
        <Choose
          tests={tests}
          problems={failed}
          planned={new Set(plan.steps.map((s) => s.test))}
          onClose={() => setChoosing(false)}
          onStart={(t) => void starter.start(t)}
          onAdd={(t) => void add(t)}
        />
      )}
    </>
  );
}
