'use client';
import { Check, TriangleAlert } from 'lucide-react';
import { useState } from 'react';
import type { Position } from '../../core/judge/types';
import { positionWords } from '../../core/judge/words';
import { recordsOfKind, type RecordOf, renewedPositions } from '../../core/repair/proof';
import { type FittingSequence, type FittingStep, sequenceFor } from '../../core/repair/sequences';
import { strayed } from '../../core/repair/values';
import type { JobView } from '../../application/views';
import { useMay } from '../kit/session';
import { requestedValuesOf, keyOf } from './requested-values';
import type { FoundFinding } from './found';
import { TickDialog, ValueDialog } from './step-dialogs';
import { useRecord } from './use-record';
import type { FittingValue } from '../../formats/requests/service-data';

/** The fitting sequence, each step ticked with the value that was reached and the tool; positions in order. */
export function Steps({ view, finding }: { view: JobView; finding: FoundFinding }) {
  const sequence = sequenceFor(finding.body.what, finding.body.name);
  const positions = renewedPositions(finding.id, finding.body, {
    records: view.repair.records,
    cylinders: view.unit.engine.cylinders,
  });
  const own = recordsOfKind(view.repair.records, 'step').filter((s) => s.body.sequence === sequence.id);
  const doneAt = (step: FittingStep, p: Position | undefined): RecordOf<'step'> | undefined =>
    own.findLast((s) => s.body.step === step.id && s.body.position === p);
  const [ticking, setTicking] = useState<{ step: FittingStep; position: Position | undefined } | null>(null);
  const may = useMay('job.write-repair') && !view.job.closed;
  return (
    <div>
      <p className="mb-2 rounded-lg border-l-4 border-ochre bg-panel p-2">
        <TriangleAlert size={16} className="mr-1 inline text-ochre" aria-hidden="true" />
        {sequence.cautions.map((c, i) => (i ? <span key={c}> {c}</span> : <b key={c}>{c}</b>))}
      </p>
      <ol className="flex flex-col gap-1">
        {sequence.steps.map((step, i) => (
          <li key={step.id} className="flex flex-wrap items-start gap-x-4 gap-y-2 rounded-lg px-1 py-1">
            <div className="min-w-0 flex-[1_1_18rem]">
              <b>{i + 1}.</b> {step.say}
              {step.value && <Asked view={view} sequence={sequence} step={step} />}
            </div>
            <div className="flex flex-wrap items-start gap-1">
              {(step.each && positions.length ? positions : [undefined]).map((p) => (
                <Tick
                  key={String(p)}
                  view={view}
                  sequence={sequence}
                  step={step}
                  position={p}
                  done={doneAt(step, p)}
                  may={may}
                  onValue={() => setTicking({ step, position: p })}
                />
              ))}
            </div>
          </li>
        ))}
      </ol>
      {ticking && (
        <TickDialog
          view={view}
          sequence={sequence}
          step={ticking.step}
          position={ticking.position}
          onClose={() => setTicking(null)}
        />
      )}
    </div>
  );
}

/** The workshop's own value; where there is none, it is asked for. */
function Asked({ view, sequence, step }: { view: JobView; sequence: FittingSequence; step: FittingStep }) {
  const line = requestedValuesOf(view, sequence, step);
  const isLead = useMay('service-data.change');
  const [entering, setEntering] = useState(false);
  return (
    <span className="block text-sm">
      {step.value?.what}:{' '}
      {line ? (
        <>
          <b className="font-mono">{(line.body as FittingValue).value}</b>{' '}
          <span className="text-soft">
            ({line.source}
            {line.family ? `, ${line.family}` : ''})
          </span>
        </>
      ) : (
        <span className="text-ochre">no value here yet; take it from the maker’s service information</span>
      )}
      {isLead && (
        <button type="button" className="ml-2 min-h-8 underline" onClick={() => setEntering(true)}>
          {line ? 'change' : 'enter'}
          <span className="sr-only"> {step.value?.what}</span>
        </button>
      )}
      {entering && (
        <ValueDialog
          view={view}
          name={keyOf(sequence, step)}
          what={`${sequence.name}, ${step.value?.what ?? ''}`}
          onClose={() => setEntering(false)}
        />
      )}
    </span>
  );
}

function Tick({
  view,
  sequence,
  step,
  position,
  done,
  may,
  onValue,
}: {
  view: JobView;
  sequence: FittingSequence;
  step: FittingStep;
  position: Position | undefined;
  done: RecordOf<'step'> | undefined;
  may: boolean;
  onValue: () => void;
}) {
  const { busy, write } = useRecord(view.job.id);
  const where = position === undefined ? '' : ` at ${positionWords(position)}`;
  const asked = requestedValuesOf(view, sequence, step);
  const far =
    done?.body.value && asked && step.value
      ? strayed(done.body.value, (asked.body as FittingValue).value, step.value)
      : null;
  if (done)
    return (
      <span
        className={`inline-flex min-h-11 items-center gap-1 rounded-lg border-2 px-2 ${far === null ? 'border-eelgrass text-eelgrass' : 'border-ochre text-ochre'}`}
        title={`${done.by}${done.body.tool ? `, ${done.body.tool}` : ''}`}
      >
        <Check size={16} aria-hidden="true" />
        <span className="sr-only">done{where}</span>
        {position ?? 'done'}
        {done.body.value && <b className="font-mono">{done.body.value}</b>}
        {far !== null && (
          <span>
            {far > 0 ? '+' : '−'}
            {Math.round(100 * Math.abs(far))} %
          </span>
        )}
        {may && step.value && (
          <button type="button" className="min-h-8 text-sm underline" onClick={onValue}>
            again
          </button>
        )}
      </span>
    );
  return (
    <button
      type="button"
      disabled={!may || busy}
      aria-label={`Tick step ${step.id}${where}`}
      className="min-h-11 min-w-11 rounded-lg border-2 border-line px-2 disabled:opacity-50"
      onClick={() =>
        step.value
          ? onValue()
          : void write({
              kind: 'step',
              sequence: sequence.id,
              step: step.id,
              ...(position === undefined ? {} : { position }),
            })
      }
    >
      {position ?? 'tick'}
    </button>
  );
}
