'use client';
import { X } from 'lucide-react';
import { useRouter } from '../kit/router';
import { Dialog as Radix } from 'radix-ui';
import { useState } from 'react';
import { v7 } from 'uuid';
import { runCalculation } from '../../core/calculations/run';
import { findCalculation, CALCULATIONS } from '../../core/calculations/calculations';
import type { Slot, Calculation } from '../../core/calculations/types';
import { outcomeWords } from '../../application/report/calculation-words';
import { Button } from '../kit/button';
import { errorAt } from '../kit/draft';
import { inputLook, tie } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';
import { type BenchFacts, useBenchFacts } from './bench-facts';

const KEPT = 'mudflat-sum';

/**
 * The drawer of sums: formula, source and result of each; filled from the bench, and put into the job's
 * record if wanted.
 */
export function CalculationsDrawer({ jobId, onClose }: { jobId: string | null; onClose: () => void }) {
  const facts = useBenchFacts();
  const [id, setId] = useState(() => sessionStorage.getItem(KEPT) ?? CALCULATIONS[0]?.id ?? '');
  const sum = findCalculation(id) ?? findCalculation('ohms-law');
  if (!sum) return null;
  return (
    <Radix.Root
      open
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
    >
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Radix.Content
          aria-describedby=""
          className="fixed z-50 inset-y-0 right-0 flex w-[min(28rem,100%)] flex-col overflow-y-auto border-l border-line bg-card p-5 text-ink shadow-xl"
        >
          <div className="flex items-center justify-between">
            <Radix.Title className="text-xl font-bold">Sums</Radix.Title>
            <Radix.Close
              className="inline-flex size-12 items-center justify-center rounded-lg border border-line"
              aria-label="Close"
            >
              <X size={20} aria-hidden="true" />
            </Radix.Close>
          </div>
          <label className="mt-3 block font-semibold">
            Which
            <select
              className={inputLook}
              value={sum.id}
              onChange={(e) => {
                sessionStorage.setItem(KEPT, e.target.value);
                setId(e.target.value);
              }}
            >
              {CALCULATIONS.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.name}
                </option>
              ))}
            </select>
          </label>
          <SumForm key={sum.id} sum={sum} facts={facts} jobId={jobId} />
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

const filled = (slot: Slot, facts: BenchFacts): string =>
  (slot.from ? facts[slot.from] : undefined) ?? (slot.initial === undefined ? '' : String(slot.initial));

function SumForm({ sum, facts, jobId }: { sum: Calculation; facts: BenchFacts; jobId: string | null }) {
  const [typed, setTyped] = useState<Record<string, string>>(() =>
    Object.fromEntries(sum.inputs.map((s) => [s.id, filled(s, facts)])),
  );
  const result = runCalculation(sum, typed);
  const problems = result.ok ? [] : result.error;
  // What is still empty is not yet wrong.
  const shown = (slot: Slot): string | undefined =>
    (typed[slot.id] ?? '').trim() === '' ? undefined : errorAt(problems, `/${slot.id}`);
  return (
    <div className="mt-4">
      {sum.inputs.map((slot) => (
        <div key={slot.id} className="mb-2">
          <label htmlFor={`sum-${slot.id}`} className="flex items-center gap-2">
            <span className="w-36 shrink-0 text-sm font-semibold">{slot.label}</span>
            {slot.options ? (
              <select
                {...tie(`sum-${slot.id}`, undefined)}
                className={inputLook}
                value={typed[slot.id]}
                onChange={(e) => setTyped({ ...typed, [slot.id]: e.target.value })}
              >
                {slot.options.map((o) => (
                  <option key={o.value} value={o.value}>
                    {o.label}
                  </option>
                ))}
              </select>
            ) : (
              <input
                {...tie(`sum-${slot.id}`, shown(slot))}
                inputMode="decimal"
                autoComplete="off"
                className={`${inputLook} font-mono`}
                value={typed[slot.id]}
                onChange={(e) => setTyped({ ...typed, [slot.id]: e.target.value })}
              />
            )}
            <span className="w-14 shrink-0 text-sm text-soft">{slot.unit}</span>
          </label>
          {shown(slot) && (
            <p id={`sum-${slot.id}-error`} role="alert" className="text-sm font-semibold text-rust">
              {shown(slot)}
            </p>
          )}
        </div>
      ))}
      <div aria-live="polite" data-testid="sum-result" className="mt-3 min-h-16 rounded-xl bg-panel p-3">
        {result.ok ? (
          result.value.map((o, i) => (
            <p key={i} className="font-mono text-lg">
              {outcomeWords(o)}
            </p>
          ))
        ) : (
          <p className="text-soft">{problems.find((p) => p.path === '')?.message ?? 'Fill in what is known.'}</p>
        )}
      </div>
      <p className="mt-2 font-mono text-sm">{sum.formula}</p>
      <p className="text-sm text-soft">Source: {sum.source}.</p>
      {jobId && <Put sum={sum} typed={typed} ready={result.ok} jobId={jobId} />}
    </div>
  );
}

function Put({
  sum,
  typed,
  ready,
  jobId,
}: {
  sum: Calculation;
  typed: Record<string, string>;
  ready: boolean;
  jobId: string;
}) {
  const router = useRouter();
  const by = usePerson();
  const { busy, problems, post } = useSend();
  const [kept, setKept] = useState<string | null>(null);
  const content = JSON.stringify(typed);
  async function put(): Promise<void> {
    if (!(await post(`/api/jobs/${jobId}/notes`, { id: v7(), by, sum: sum.id, inputs: typed }))) return;
    setKept(content);
    router.refresh();
  }
  return (
    <div className="mt-4">
      <OtherProblems problems={problems} paths={[]} />
      {kept === content ? (
        <p role="status" className="font-semibold text-eelgrass">
          It stands in the job’s record.
        </p>
      ) : (
        <Button tone="strong" disabled={!ready || busy} onClick={() => void put()}>
          Put into the job’s record
        </Button>
      )}
    </div>
  );
}
