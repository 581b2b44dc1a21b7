'use client';
import { useState } from 'react';
import type { Position } from '../../core/judge/types';
import { positionWords } from '../../core/judge/words';
import { recordsOfKind } from '../../core/repair/proof';
import type { FittingSequence, FittingStep } from '../../core/repair/sequences';
import type { JobView } from '../../application/views';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { errorAt } from '../kit/draft';
import { Field, inputLook, tie } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { requestedValuesOf } from './requested-values';
import { useKeepData } from './keep-data';
import { useRecord } from './use-record';
import type { FittingValue } from '../../formats/requests/service-data';

/** The value that a step reached, and the tool. */
export function TickDialog({
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
    () => recordsOfKind(view.repair.records, 'step').findLast((s) => s.body.tool)?.body.tool ?? '',
  );
  const { busy, problems, write } = useRecord(view.job.id);
  const error = errorAt(problems, '/record/value');
  const asked = requestedValuesOf(view, sequence, step);
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

/** What a step is to reach, from the service information; a lead's to enter. */
export function ValueDialog({
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
