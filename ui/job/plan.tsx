'use client';
import { ArrowDown, ArrowUp, Check, CirclePlay, SkipForward, Undo2 } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { v7 } from 'uuid';
import { groupBy } from '../../core/foundation/collections';
import { indexFindable } from '../../core/catalogue/search';
import type { StageId } from '../../core/job/progress';
import type { PlanChange, PlanStep } from '../../core/plan/types';
import type { JobView, TestBrief } from '../../application/views';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Field, inputLook } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { usePerson, useMay } from '../kit/session';
import { useSend } from '../kit/use-send';

const small =
  'inline-flex size-10 items-center justify-center rounded-lg border border-line bg-card disabled:opacity-40 pointer-coarse:size-12';

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
          <li
            key={s.test}
            className={`rounded-lg border p-2 ${leads && i === 0 ? 'border-2 border-estuary' : 'border-line'}`}
          >
            <div className="flex items-start justify-between gap-2">
              <div className="min-w-0">
                <b>
                  {leads && i === 0 && <span className="text-estuary">Next: </span>}
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
            {may && (
              <div className="mt-1 flex flex-wrap gap-1">
                <Button
                  tone={leads && i === 0 ? 'strong' : 'plain'}
                  className="min-h-10 flex-1 px-3"
                  disabled={busy}
                  onClick={() => void start(s.test)}
                >
                  <CirclePlay size={18} aria-hidden="true" />
                  Start<span className="sr-only"> {s.name}</span>
                </Button>
                <button
                  type="button"
                  className={small}
                  disabled={busy || i === 0}
                  aria-label={`${s.name} earlier`}
                  onClick={() => void change({ kind: 'move', test: s.test, before: todo[i - 1]?.test ?? null })}
                >
                  <ArrowUp size={18} aria-hidden="true" />
                </button>
                <button
                  type="button"
                  className={small}
                  disabled={busy || i === todo.length - 1}
                  aria-label={`${s.name} later`}
                  onClick={() => void change({ kind: 'move', test: s.test, before: todo[i + 2]?.test ?? null })}
                >
                  <ArrowDown size={18} aria-hidden="true" />
                </button>
                <button
                  type="button"
                  className={small}
                  disabled={busy}
                  aria-label={`Skip ${s.name}`}
                  onClick={() => setSkipping(s)}
                >
                  <SkipForward size={18} aria-hidden="true" />
                </button>
              </div>
            )}
          </li>
        ))}
      </ol>
      {may && (
        <Button className="mt-2 w-full" onClick={() => setAdding(true)}>
          Another test
        </Button>
      )}
      {rest.length > 0 && (
        <details className="mt-2">
          <summary className="min-h-8 cursor-pointer text-soft">Done or skipped ({rest.length})</summary>
          <ul>
            {rest.map((s) => (
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
                    onClick={() => void change({ kind: 'unskip', test: s.test })}
                  >
                    <Undo2 size={18} aria-hidden="true" />
                  </button>
                )}
              </li>
            ))}
          </ul>
        </details>
      )}
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

const REASONS = ['No access today', 'Engine is warm already', 'No tool for it here', 'Done before, elsewhere'];

function Skip({ step, onClose, onSkip }: { step: PlanStep; onClose: () => void; onSkip: (because: string) => void }) {
  const [because, setBecause] = useState('');
  return (
    <Dialog
      open
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
      title={`Skip ${step.name}`}
    >
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (because.trim()) onSkip(because.trim());
        }}
      >
        <div className="mb-3 flex flex-wrap gap-2">
          {REASONS.map((r) => (
            <Button key={r} onClick={() => onSkip(r)}>
              {r}
            </Button>
          ))}
        </div>
        <Field id="skip-because" label="Or say why">
          <input
            id="skip-because"
            className={inputLook}
            value={because}
            maxLength={200}
            onChange={(e) => setBecause(e.target.value)}
          />
        </Field>
        <Button type="submit" tone="strong" disabled={because.trim() === ''}>
          Skip
        </Button>
      </form>
    </Dialog>
  );
}

interface ChooseProps {
  readonly tests: readonly TestBrief[];
  readonly planned: ReadonlySet<string>;
  readonly onClose: () => void;
  readonly onStart: (test: string) => void;
  readonly onAdd: (test: string) => void;
}

/** The whole catalogue: anybody may always do something else. */
function Choose({ tests, planned, onClose, onStart, onAdd }: ChooseProps) {
  const [search, setSearch] = useState('');
  const find = useMemo(() => indexFindable(tests), [tests]);
  const found = find(search);
  return (
    <Dialog
      open
      wide
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
      title="Another test"
    >
      <input
        aria-label="Find a test"
        placeholder="Find a test"
        value={search}
        onChange={(e) => setSearch(e.target.value)}
        className={inputLook}
      />
      {found.length === 0 && <p className="mt-2 text-soft">The catalogue has no test with “{search}” in it.</p>}
      {[...groupBy(found, (t) => t.area)].map(([area, own]) => (
        <div key={area} className="mt-3">
          <h3 className="text-sm font-semibold text-soft">{area}</h3>
          <ul className="grid gap-2 md:grid-cols-2">
            {own.map((t) => (
              <li key={t.id} className="flex items-start gap-2 rounded-lg border border-line p-2">
                <div className="min-w-0 flex-1">
                  <b>{t.name}</b>{' '}
                  <span className="text-sm whitespace-nowrap text-soft">
                    {t.minutes} min{t.people > 1 ? `, ${t.people} people` : ''}
                  </span>
                  <p className="text-sm">{t.purpose}</p>
                </div>
                <div className="flex flex-col gap-1">
                  <Button className="min-h-10 px-3" onClick={() => onStart(t.id)}>
                    Start<span className="sr-only"> {t.name}</span>
                  </Button>
                  {!planned.has(t.id) && (
                    <Button className="min-h-10 px-3" onClick={() => onAdd(t.id)}>
                      Plan<span className="sr-only"> {t.name}</span>
                    </Button>
                  )}
                </div>
              </li>
            ))}
          </ul>
        </div>
      ))}
    </Dialog>
  );
}
