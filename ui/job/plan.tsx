'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { v7 } from 'uuid';
import type { StageId } from '../../core/job/progress';
import type { PlanChange, PlanStep } from '../../core/plan/types';
import type { JobView } from '../../application/views';
import { Button } from '../kit/button';
import { OtherProblems } from '../kit/form';
import { usePerson, useMay } from '../kit/session';
import { useSend } from '../kit/use-send';
import { Choose, Skip } from './plan-dialogs';
import { Rest, Step } from './plan-steps';

/** The stages in which a measurement is what comes next. */
const MEASURING: readonly StageId[] = ['complaint', 'codes', 'tests', 'finding'];

/**
 * What to measure, in order. It is made anew whenever something is known; what a person changed stays
 * changed.
 */
export function PlanOfJob({ view }: { view: JobView }) {
  const { plan, job } = view;
  const router = useRouter();
  const by = usePerson();
  const may = useMay('job.change-plan');
  const { busy, problems, post } = useSend();
  const [skipping, setSkipping] = useState<PlanStep | null>(null);
  const [adding, setAdding] = useState(false);

  async function start(test: string): Promise<void> {
    const begun = job.runs.findLast(
      (r) => r.test === test && (r.judgement === null || r.judgement.pattern === 'incomplete'),
    );
    if (begun) {
      router.push(`/runs/${begun.id}`);
      return;
    }
    const id = v7();
    if (await post('/api/runs', { id, jobId: job.id, test, by })) router.push(`/runs/${id}`);
  }
  async function change(what: PlanChange): Promise<void> {
    if (await post(`/api/jobs/${job.id}/plan`, { id: v7(), by, change: what })) router.refresh();
  }
  const todo = plan.steps.filter((s) => s.state === 'to do');
  const rest = plan.steps.filter((s) => s.state !== 'to do');
  // Once the fault is found, what could still be measured does not call for attention: the stages say what
  // does.
  const leads = view.progress.now !== null && MEASURING.includes(view.progress.now);
  return (
    <section id="plan" aria-label="Plan" className="scroll-mt-4 rounded-xl bg-card p-4">
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h2 className="font-semibold text-soft">{leads ? 'Plan' : 'Could still be measured'}</h2>
        {todo.length > 0 && (
          <span className="text-sm text-soft">
            {todo.length} to do, about {plan.minutes} min
          </span>
        )}
      </div>
      <OtherProblems problems={problems} paths={[]} />
      {todo.length === 0 && (
        <p className="mt-1">
          {rest.length
            ? 'Nothing left to measure. Write a finding, or choose another test.'
            : 'The complaint and the codes point nowhere yet. Choose a test.'}
        </p>
      )}
      <ol className="mt-2 flex flex-col gap-2">
        {todo.map((s, i) => (
          <Step
            key={s.test}
            step={s}
            first={i === 0}
            last={i === todo.length - 1}
            leads={leads && i === 0}
            may={may}
            busy={busy}
            onStart={() => void start(s.test)}
            onMove={(where) => {
              const before = todo[where === 'earlier' ? i - 1 : i + 2]?.test ?? null;
              void change({ kind: 'move', test: s.test, before });
            }}
            onSkip={() => setSkipping(s)}
          />
        ))}
      </ol>
      {may && (
        <Button className="mt-2 w-full" onClick={() => setAdding(true)}>
          Another test
        </Button>
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
      {adding && (
        <Choose
          tests={view.tests}
          planned={new Set(plan.steps.map((s) => s.test))}
          onClose={() => setAdding(false)}
          onStart={(t) => void start(t)}
          onAdd={(t) => {
            setAdding(false);
            void change({ kind: 'add', test: t });
          }}
        />
      )}
    </section>
  );
}
