'use client';
import { valueForReader } from '../../core/repair/values';
import { tr } from '../../core/locale/translate';
import { Check } from 'lucide-react';
import { useState } from 'react';
import type { Position } from '../../core/judge/types';
import { positionWords } from '../../core/judge/words';
import { recordsOfKind, renewedPositions, ticksOf } from '../../core/repair/proof';
import { type FittingSequence, type FittingStep, sequenceFor } from '../../core/repair/sequences';
import type { Left } from '../../core/repair/types';
import type { JobView } from '../../application/views';
import { useBegun } from '../kit/begun';
import { Button } from '../kit/button';
import { Cautions } from '../kit/cautions';
import { inputLook } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { useMay } from '../kit/session';
import { requestedValuesOf, keyOf } from './requested-values';
import type { FoundFinding, Place } from './found';
import { ValueDialog } from './step-dialogs';
import { Tick, ValueTick } from './tick';
import { useRecord } from './use-record';
import type { FittingValue } from '../../formats/requests/service-data';

/**
 * The fitting sequence of a finding: each step at each position, ticked one by one, by the row, by the
 * column, or all that need no value at once.
 */
export function Steps({ view, finding }: { view: JobView; finding: FoundFinding }) {
  const sequence = sequenceFor(finding.body.what, finding.body.name);
  const positions = renewedPositions(finding.id, finding.body, {
    records: view.repair.records,
    cylinders: view.unit.engine.cylinders,
  });
  const own = ticksOf(finding, view.repair.records);
  const doneAt = ({ step, position }: Place) =>
    own.findLast((s) => s.body.step === step.id && s.body.position === position);
  const placesOf = (step: FittingStep): Place[] =>
    (step.each && positions.length ? positions : [undefined]).map((position) => ({ step, position }));
  const left = sequence.steps.flatMap(placesOf).filter((p) => !doneAt(p));
  const plain = left.filter((p) => !p.step.value);
  const [tool, setTool] = useState(
    () => recordsOfKind(view.repair.records, 'step').findLast((s) => s.body.tool)?.body.tool ?? '',
  );
  const { busy, problems, write } = useRecord(view.job.id);
  const may = useMay('job.write-repair') && !view.job.closed;
  // A value that is typed anew; it takes the place of the older one.
  const [again, setAgain] = useState<Place | null>(null);
  const tick = (places: readonly Place[], left?: Left): void =>
    void write({
      kind: 'ticks',
      finding: finding.id,
      sequence: sequence.id,
      ...(left ? { left } : {}),
      ticks: places.map(({ step, position }) => ({ step: step.id, ...(position === undefined ? {} : { position }) })),
    });
  return (
    <div>
      <Cautions key={sequence.id} id={`sequence ${sequence.id}`} all={sequence.cautions} />
      {may && plain.length > 1 && <TickMany plain={plain} positions={positions} busy={busy} onTick={tick} />}
      {may && left.some((p) => p.step.value) && (
        <label className="my-1 flex max-w-md flex-wrap items-center gap-2 text-sm">
          Tool for the values
          <input
            className={`${inputLook} mt-0 min-w-40 flex-1`}
            value={tool}
            maxLength={120}
            onChange={(e) => setTool(e.target.value)}
          />
        </label>
      )}
      <OtherProblems problems={problems} paths={[]} />
      <ol className="flex flex-col divide-y divide-line">
        {sequence.steps.map((step, i) => (
          <StepRow
            key={step.id}
            number={i + 1}
            step={step}
            places={placesOf(step)}
            again={again?.step.id === step.id ? again : null}
            {...{ view, finding, sequence, doneAt, may, busy, tool: tool.trim() }}
            onTick={tick}
            onAgain={setAgain}
          />
        ))}
      </ol>
      <OwnSteps view={view} finding={finding} may={may} />
    </div>
  );
}

type TickPlaces = (places: readonly Place[], left?: Left) => void;

/** Ticks what needs no value: all of it, or all of one position. */
function TickMany(props: {
  plain: readonly Place[];
  positions: readonly Position[];
  busy: boolean;
  onTick: TickPlaces;
}) {
  const { plain, positions, busy, onTick } = props;
  return (
    <div className="my-2 flex flex-wrap gap-2">
      <Button disabled={busy} onClick={() => onTick(plain)}>
        <Check size={18} aria-hidden="true" />
        Tick all that need no value ({plain.length})
      </Button>
      {positions.length > 1 && <span className="self-center">or all of</span>}
      {positions.length > 1 &&
        positions.map((p) => {
          const column = plain.filter((x) => x.position === p);
          return (
            column.length > 0 && (
              <Button
                key={p}
                className="min-w-12 px-2"
                aria-label={tr`All of ${positionWords(p)}`}
                disabled={busy}
                onClick={() => onTick(column)}
              >
                {p}
              </Button>
            )
          );
        })}
    </div>
  );
}

interface StepRowProps {
  readonly view: JobView;
  readonly finding: FoundFinding;
  readonly sequence: FittingSequence;
  readonly number: number;
  readonly step: FittingStep;
  readonly places: readonly Place[];
  /** A value of this step that is typed anew. */
  readonly again: Place | null;
  readonly doneAt: (place: Place) => DoneStep | undefined;
  readonly may: boolean;
  readonly busy: boolean;
  readonly tool: string;
  readonly onTick: TickPlaces;
  readonly onAgain: (place: Place | null) => void;
}
type DoneStep = ReturnType<typeof ticksOf>[number];

/** One step at each of its positions. */
function StepRow(props: StepRowProps) {
  const { view, sequence, number, step, places, again, doneAt, may, busy, onTick, onAgain } = props;
  const open = places.filter((p) => !doneAt(p));
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 py-1">
      <div className="min-w-0 flex-[1_1_16rem]">
        <b>{number}.</b> {step.say}
        {step.value && <Asked view={view} sequence={sequence} step={step} />}
      </div>
      <div className="flex flex-wrap items-center gap-1">
        {places.map((p) => (
          <Tick
            key={String(p.position)}
            view={view}
            sequence={sequence}
            place={p}
            done={doneAt(p)}
            disabled={!may || busy}
            onTick={() => onTick([p])}
            {...(may && step.value ? { onAgain: () => onAgain(p) } : {})}
          />
        ))}
        {may && !step.value && open.length > 1 && (
          <Button
            className="px-3"
            disabled={busy}
            aria-label={tr`Tick step ${step.id} at all`}
            onClick={() => onTick(open)}
          >
            all
          </Button>
        )}
        {may && !step.value && open.length > 0 && (
          <button
            type="button"
            disabled={busy}
            className="min-h-12 px-2 text-sm underline"
            aria-label={tr`Step ${step.id}: does not apply`}
            onClick={() => onTick(open, 'does not apply')}
          >
            does not apply
          </button>
        )}
        {may && step.value && (open.length > 0 || again) && (
          <ValueTick
            key={again ? String(again.position) : ''}
            view={view}
            finding={props.finding}
            sequence={sequence}
            step={step}
            open={again ? [again] : open}
            tool={props.tool}
            onDone={() => onAgain(null)}
          />
        )}
      </div>
    </li>
  );
}

/** Steps that the sequence does not have, in words of one's own. */
function OwnSteps({ view, finding, may }: { view: JobView; finding: FoundFinding; may: boolean }) {
  const [say, setSay] = useState('');
  useBegun(say.trim() !== '');
  const { busy, problems, write } = useRecord(view.job.id);
  const own = recordsOfKind(view.repair.records, 'own-step').filter((s) => s.body.finding === finding.id);
  async function keep(): Promise<void> {
    if (say.trim() && (await write({ kind: 'own-step', finding: finding.id, say: say.trim() }))) setSay('');
  }
  const id = `own-${finding.id}`;
  return (
    <div className="mt-1 border-t border-line pt-1">
      {own.map((s) => (
        <p key={s.id} className="flex items-center gap-2 py-1">
          <Check size={16} aria-label="done" className="text-eelgrass" /> {s.body.say}{' '}
          <span className="text-sm text-soft">{s.by}</span>
        </p>
      ))}
      {may && (
        <form
          noValidate
          className="flex flex-wrap items-center gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            void keep();
          }}
        >
          <label htmlFor={id} className="sr-only">
            Another step, in your own words
          </label>
          <input
            id={id}
            className={`${inputLook} mt-0 flex-1`}
            placeholder="Another step that was done, in your own words"
            value={say}
            maxLength={2000}
            onChange={(e) => setSay(e.target.value)}
          />
          <Button type="submit" disabled={busy || say.trim() === ''}>
            Done
          </Button>
        </form>
      )}
      <OtherProblems problems={problems} paths={[]} />
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
          <b className="font-mono">{valueForReader((line.body as FittingValue).value)}</b>{' '}
          <span className="text-soft">
            ({line.source}
            {line.family ? `, ${line.family}` : ''})
          </span>
        </>
      ) : (
        <span className="text-ochre">no value here yet; take it from the maker’s service information</span>
      )}
      {isLead && (
        <button type="button" className="ml-2 min-h-12 underline" onClick={() => setEntering(true)}>
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
