'use client';
import { tr } from '../../core/locale/translate';
import { Check, Minus } from 'lucide-react';
import { useId, useState } from 'react';
import { positionWords } from '../../core/judge/words';
import { type RecordOf, recordsOfKind } from '../../core/repair/proof';
import type { FittingSequence, FittingStep } from '../../core/repair/sequences';
import { type Left, LEFT } from '../../core/repair/types';
import { strayed, valueForReader } from '../../core/repair/values';
import type { JobView } from '../../application/views';
import type { FittingValue } from '../../formats/requests/service-data';
import { useBegun } from '../kit/begun';
import { Button } from '../kit/button';
import { errorAt } from '../kit/draft';
import { inputLook } from '../kit/field';
import { OtherProblems } from '../kit/form';
import type { FoundFinding, Place } from './found';
import { requestedValuesOf } from './requested-values';
import { bareUnits, valueWithUnit } from './value-unit';
import { useRecord } from './use-record';

interface TickProps {
  readonly view: JobView;
  readonly sequence: FittingSequence;
  readonly place: Place;
  readonly done: RecordOf<'step'> | undefined;
  readonly disabled: boolean;
  readonly onTick: () => void;
  /** Types its value anew; absent: it has none, or nobody may. */
  readonly onAgain?: () => void;
}

/** A step at a position: how it was done, or the button that ticks it. Values are typed beside it. */
export function Tick({ view, sequence, place: { step, position }, done, disabled, onTick, onAgain }: TickProps) {
  const where = position === undefined ? '' : tr` at ${positionWords(position)}`;
  if (!done)
    return step.value ? null : (
      <button
        type="button"
        disabled={disabled}
        aria-label={tr`Tick step ${step.id}${where}`}
        className="min-h-12 min-w-12 rounded-lg border-2 border-line px-2 disabled:opacity-50"
        onClick={onTick}
      >
        {position ?? 'tick'}
      </button>
    );
  const asked = requestedValuesOf(view, sequence, step);
  const far =
    done.body.value && asked && step.value
      ? strayed(done.body.value, (asked.body as FittingValue).value, step.value)
      : null;
  const Icon = done.body.left ? Minus : Check;
  return (
    <span
      className={`inline-flex min-h-11 items-center gap-1 rounded-lg px-2 ${far === null ? (done.body.left ? 'text-soft' : 'text-eelgrass') : 'text-ochre'}`}
      title={`${done.by}${done.body.tool ? `, ${done.body.tool}` : ''}`}
    >
      <Icon size={16} aria-hidden="true" />
      <span className="sr-only">done{where}</span>
      {position ?? (done.body.left ? '' : 'done')}
      {done.body.left && <span className="text-sm">{done.body.left}</span>}
      {done.body.value && <b className="font-mono">{valueForReader(done.body.value)}</b>}
      {far !== null && (
        <span>
          {far > 0 ? '+' : '−'}
          {Math.round(100 * Math.abs(far))} %
        </span>
      )}
      {onAgain && (
        <button type="button" className="min-h-11 px-1 text-sm underline" onClick={onAgain}>
          again<span className="sr-only">: {tr`${step.value?.what ?? ''}${where}`}</span>
        </button>
      )}
    </span>
  );
}

interface ValueTickProps {
  readonly view: JobView;
  readonly finding: FoundFinding;
  readonly sequence: FittingSequence;
  readonly step: FittingStep;
  /** Where it is not ticked yet. */
  readonly open: readonly Place[];
  readonly tool: string;
  readonly onDone: () => void;
}

/**
 * The value that a step reached: one for all positions that are left, or of the next one only. It may be not
 * measured, or not apply here.
 */
export function ValueTick({ view, finding, sequence, step, open, tool, onDone }: ValueTickProps) {
  const [value, setValue] = useState('');
  useBegun(value.trim() !== '');
  const [chosen, setUnit] = useState<string | null>(null);
  const unit = chosen ?? lastUnit(view, step);
  const [isEach, setEach] = useState(false);
  const { busy, problems, write } = useRecord(view.job.id);
  const id = useId();
  const [next] = open;
  const hasMany = open.length > 1;
  const places = hasMany && isEach && next ? [next] : open;
  const error = errorAt(problems, '/record/value');
  async function keep(left?: Left): Promise<void> {
    const done = await write({
      kind: 'ticks',
      finding: finding.id,
      sequence: sequence.id,
      ticks: places.map(({ position }) => ({ step: step.id, ...(position === undefined ? {} : { position }) })),
      ...(left ? { left } : value.trim() ? { value: valueWithUnit(value, unit) } : {}),
      ...(tool && !left ? { tool } : {}),
    });
    if (!done) return;
    setValue('');
    onDone();
  }
  const units = step.value ? bareUnits(step.value.quantity) : [];
  const at = hasMany && !isEach ? 'all' : next?.position === undefined ? '' : positionWords(next.position);
  return (
    <form
      noValidate
      aria-label={tr`Value: ${step.id}`}
      className="flex flex-wrap items-center gap-1"
      onSubmit={(e) => {
        e.preventDefault();
        void keep();
      }}
    >
      <label htmlFor={id} className="sr-only">
        {step.value?.what}
        {at && `, ${at}`}
      </label>
      <input
        id={id}
        className={`${inputLook} mt-0 w-28! font-mono`}
        value={value}
        maxLength={60}
        placeholder={at || 'value'}
        aria-invalid={error !== undefined}
        aria-describedby={`${id}-error`}
        onChange={(e) => setValue(e.target.value)}
      />
      <UnitChoice of={step.value?.what ?? ''} units={units} unit={unit} onChange={setUnit} />
      <Button type="submit" disabled={busy}>
        Tick{hasMany && !isEach ? tr` all ${open.length}` : ''}
        <span className="sr-only"> step {step.id}</span>
      </Button>
      {hasMany && (
        <label className="inline-flex min-h-12 items-center gap-1 text-sm">
          <input type="checkbox" className="size-5" checked={isEach} onChange={(e) => setEach(e.target.checked)} />
          one by one
        </label>
      )}
      <LeaveIt what={step.value?.what ?? step.id} busy={busy} onLeave={(left) => void keep(left)} />
      <span id={`${id}-error`} role="alert" className="w-full font-semibold text-rust empty:hidden">
        {error}
      </span>
      <OtherProblems problems={problems} paths={['/record/value']} />
    </form>
  );
}

/** There is no value, and why. */
function LeaveIt({ what, busy, onLeave }: { what: string; busy: boolean; onLeave: (left: Left) => void }) {
  return LEFT.map((l) => (
    <button
      key={l}
      type="button"
      disabled={busy}
      className="min-h-12 px-2 text-sm underline"
      aria-label={tr`${what}: ${l}`}
      onClick={() => onLeave(l)}
    >
      {l}
    </button>
  ));
}

/** The unit in which a value is written; nothing to choose where there is one. */
function UnitChoice({
  of,
  units,
  unit,
  onChange,
}: {
  of: string;
  units: readonly string[];
  unit: string;
  onChange: (unit: string) => void;
}) {
  return units.length > 1 ? (
    <select
      aria-label={tr`Unit of ${of}`}
      className={`${inputLook} mt-0 w-24!`}
      value={unit}
      onChange={(e) => onChange(e.target.value)}
    >
      {units.map((u) => (
        <option key={u}>{u}</option>
      ))}
    </select>
  ) : (
    <span className="text-sm text-soft">{units[0]}</span>
  );
}

/**
 * The unit in which values of this kind were written last in the job, else what the workshop asks in, else
 * the first.
 */
function lastUnit(view: JobView, step: FittingStep): string {
  const units = step.value ? bareUnits(step.value.quantity) : [];
  const written = recordsOfKind(view.repair.records, 'step').flatMap((s) => s.body.value ?? []);
  // An angle that was written since says nothing of torques.
  const last = written.findLast((value) => units.some((u) => value.endsWith(u)));
  return units.find((u) => last?.endsWith(u)) ?? units[0] ?? '';
}
