'use client';
import { Check, TriangleAlert } from 'lucide-react';
import { useState } from 'react';
import type { Position } from '../../core/judge/types';
import { positionWords } from '../../core/judge/words';
import { recordsOf, type RecordOf, renewedPositions } from '../../core/repair/proof';
import { type FittingSequence, type FittingStep, sequenceFor } from '../../core/repair/sequences';
import { deviation } from '../../core/repair/values';
import type { FittingValue } from '../../formats/repair';
import type { JobView } from '../../formats/views';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { errorAt } from '../kit/draft';
import { Field, inputLook, tie } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { useIsLead, useMayRecord } from '../kit/session';
import type { FoundFinding } from './found';
import { useKeepData } from './keep-data';
import { useRecord } from './use-record';

/** Further from the value than this is said. Common practice, no source. */
const FAR = 0.1;

/** The fitting sequence, each step ticked with the value that was reached and the tool; positions in order. */
export function Steps({ view, finding }: { view: JobView; finding: FoundFinding }) {
  const sequence = sequenceFor(finding.body.what, finding.body.name);
  const positions = renewedPositions(finding.id, finding.body, {
    records: view.repair.records,
    cylinders: view.unit.engine.cylinders,
  });
  const own = recordsOf(view.repair.records, 'step').filter((s) => s.body.sequence === sequence.id);
  const doneAt = (step: FittingStep, p: Position | undefined): RecordOf<'step'> | undefined =>
    own.findLast((s) => s.body.step === step.id && s.body.position === p);
  const [ticking, setTicking] = useState<{ step: FittingStep; position: Position | undefined } | null>(null);
  const may = useMayRecord() && !view.job.closed;
  return (
    <div>
      <p className="mb-2 rounded-lg border-l-4 border-ochre bg-panel p-2">
        <TriangleAlert size={16} className="mr-1 inline text-ochre" aria-hidden="true" />
        {sequence.cautions.map((c, i) => (i ? <span key={c}> {c}</span> : <b key={c}>{c}</b>))}
      </p>
      <ol className="flex flex-col gap-1">
        {sequence.steps.map((step, i) => (
          <li key={step.id} className="grid gap-2 rounded-lg px-1 py-1 sm:grid-cols-[minmax(0,1fr)_auto]">
            <div>
              <b>{i + 1}.</b> {step.say}
              {step.value && <Asked view={view} sequence={sequence} step={step} />}
            </div>
            <div className="flex flex-wrap gap-1">
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

const keyOf = (sequence: FittingSequence, step: FittingStep): string => `${sequence.id}/${step.id}`;
const askedOf = (view: JobView, sequence: FittingSequence, step: FittingStep) =>
  view.repair.service.find((s) => s.kind === 'fitting' && s.key === keyOf(sequence, step));

/** The workshop's own value; where there is none, it is asked for. */
function Asked({ view, sequence, step }: { view: JobView; sequence: FittingSequence; step: FittingStep }) {
  const line = askedOf(view, sequence, step);
  const isLead = useIsLead();
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
  const asked = askedOf(view, sequence, step);
  const off =
    done?.body.value && asked && step.value
      ? deviation(done.body.value, (asked.body as FittingValue).value, step.value.quantity)
      : null;
  const far = off !== null && Math.abs(off) > FAR;
  if (done)
    return (
      <span
        className={`inline-flex min-h-11 items-center gap-1 rounded-lg border-2 px-2 ${far ? 'border-ochre text-ochre' : 'border-eelgrass text-eelgrass'}`}
        title={`${done.by}${done.body.tool ? `, ${done.body.tool}` : ''}`}
      >
        <Check size={16} aria-hidden="true" />
        <span className="sr-only">done{where}</span>
        {position ?? 'done'}
        {done.body.value && <b className="font-mono">{done.body.value}</b>}
        {far && (
          <span>
            {off > 0 ? '+' : '−'}
            {Math.round(100 * Math.abs(off))} %
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

function TickDialog({
  view,
  sequence,
  step,
  position,
  onClose,
}: {
  view: JobView;
  sequence: FittingSequence;
  step: FittingStep;
  position: Position | undefined;
  onClose: () => void;
}) {
  const [value, setValue] = useState('');
  const [tool, setTool] = useState(
    () => recordsOf(view.repair.records, 'step').findLast((s) => s.body.tool)?.body.tool ?? '',
  );
  const { busy, problems, write } = useRecord(view.job.id);
  const error = errorAt(problems, '/record/value');
  const asked = askedOf(view, sequence, step);
  async function save(): Promise<void> {
    if (
      await write({
        kind: 'step',
        sequence: sequence.id,
        step: step.id,
        ...(position === undefined ? {} : { position }),
        ...(value.trim() ? { value: value.trim() } : {}),
        ...(tool.trim() ? { tool: tool.trim() } : {}),
      })
    )
      onClose();
  }
  return (
    <Dialog
      open
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
      title={step.say}
      description={`${position === undefined ? '' : `${positionWords(position)}: `}${step.value?.what ?? ''}${asked ? `, ${(asked.body as FittingValue).value}` : ''}`}
    >
      <form
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          void save();
        }}
      >
        <Field
          id="step-value"
          label="Value reached"
          hint={step.value?.quantity === 'torque' ? 'Nm or lbf ft' : ''}
          error={error}
        >
          <input
            className={`${inputLook} font-mono`}
            value={value}
            maxLength={60}
            onChange={(e) => setValue(e.target.value)}
            {...tie('step-value', error)}
          />
        </Field>
        <Field id="step-tool" label="Tool">
          <input
            id="step-tool"
            className={inputLook}
            value={tool}
            maxLength={120}
            onChange={(e) => setTool(e.target.value)}
          />
        </Field>
        <OtherProblems problems={problems} paths={['/record/value']} />
        <Button type="submit" tone="strong" disabled={busy}>
          Tick
        </Button>
      </form>
    </Dialog>
  );
}

function ValueDialog({
  view,
  name,
  what,
  onClose,
}: {
  view: JobView;
  name: string;
  what: string;
  onClose: () => void;
}) {
  const [value, setValue] = useState('');
  const [source, setSource] = useState('');
  const { busy, problems, keep } = useKeepData();
  const errors = { value: errorAt(problems, '/body/value'), source: errorAt(problems, '/source') };
  async function save(): Promise<void> {
    if (
      await keep({
        family: view.unit.family,
        kind: 'fitting',
        key: name,
        body: { value: value.trim() },
        source: source.trim(),
      })
    )
      onClose();
  }
  return (
    <Dialog
      open
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
      title="Value from the service information"
      description={`${what}, for ${view.unit.family}`}
    >
      <form
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          void save();
        }}
      >
        <Field id="asked-value" label="Value" hint="with its unit: 18 Nm, 13 lbf ft, 90°" error={errors.value}>
          <input
            className={`${inputLook} font-mono`}
            value={value}
            maxLength={60}
            onChange={(e) => setValue(e.target.value)}
            {...tie('asked-value', errors.value)}
          />
        </Field>
        <Field id="asked-source" label="Source" hint="document, page, revision" error={errors.source}>
          <input
            className={inputLook}
            value={source}
            maxLength={200}
            onChange={(e) => setSource(e.target.value)}
            {...tie('asked-source', errors.source)}
          />
        </Field>
        <OtherProblems problems={problems} paths={['/body/value', '/source']} />
        <Button type="submit" tone="strong" disabled={busy}>
          Keep
        </Button>
      </form>
    </Dialog>
  );
}
