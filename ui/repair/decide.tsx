'use client';
import { tr } from '../../core/locale/translate';
import { useMemo, useState } from 'react';
import { oneOrSet } from '../../core/repair/one-or-set';
import { moneyWords } from '../../core/repair/money';
import { recordsOfKind } from '../../core/repair/proof';
import type { RepairView } from '../../application/repair-view';
import type { JobView } from '../../application/views';
import type { Draft } from '../kit/draft';
import { DraftField, OtherProblems, Row } from '../kit/form';
import { useMay } from '../kit/session';
import { costsOf, draftFrom, FIELDS, inputsOf } from './decision-draft';
import { Assumptions, Comparison, DecideNow, KeepCosts } from './decision-parts';
import type { FoundFinding } from './found';
import { useRecord } from './use-record';

interface DecideProps {
  readonly view: JobView;
  readonly finding: FoundFinding;
  readonly start: RepairView['decisions'][number];
}

/**
 * One or the whole set: two buttons, the age of the others, and behind "how?" what each is expected to cost.
 */
export function Decide({ view, finding, start }: DecideProps) {
  const made = recordsOfKind(view.repair.records, 'decision').findLast((d) => d.body.finding === finding.id);
  const currency = made?.body.currency ?? start.currency;
  const [draft, setDraft] = useState<Draft>(() => draftFrom(made?.body.inputs ?? start.inputs, currency));
  const [again, setAgain] = useState(false);
  const { busy, problems, write } = useRecord(view.job.id);
  const may = useMay('job.write-repair') && !view.job.closed;
  const read = useMemo(() => inputsOf(draft, currency), [draft, currency]);
  const result = useMemo(() => (read.inputs ? oneOrSet(read.inputs) : null), [read]);
  const money = (minor: number): string => moneyWords(Math.round(minor), currency);
  const f = {
    draft,
    // What nobody has typed yet is not wrong, it is not known.
    problems: [...read.problems.filter((p) => (draft[p.path.split('/').at(-1) ?? ''] ?? '') !== ''), ...problems],
    onChange: (field: string, value: string) => setDraft({ ...draft, [field]: value }),
  };
  async function decide(school: 'one' | 'set', why: string): Promise<void> {
    const record = { kind: 'decision', finding: finding.id, school, inputs: read.inputs, currency, why } as const;
    if (await write(record)) setAgain(false);
  }
  const missing = FIELDS.filter(([field]) => (draft[field] ?? '').trim() === '').map(([, label]) =>
    label.toLowerCase(),
  );
  if (made && !again)
    return (
      <p>
        <b>Decided: {made.body.school === 'one' ? 'only those that failed' : 'the whole set'}.</b>{' '}
        {made.body.why && `${made.body.why}. `}
        <span className="text-sm text-soft">{made.by}</span>{' '}
        {may && (
          <button type="button" className="min-h-12 px-2 underline" onClick={() => setAgain(true)}>
            decide anew
          </button>
        )}
      </p>
    );
  return (
    <div>
      <p className="font-semibold">
        {start.inputs.failed} of {start.inputs.positions} bad. Only {start.inputs.failed === 1 ? 'that one' : 'those'},
        or the whole set?
      </p>
      <div className="max-w-72">
        <DraftField
          {...f}
          field="age_h"
          path="/record/inputs/age_h"
          label="Age of the others"
          hint="hours; the engine’s, if they were never renewed"
          mono
        />
      </div>
      {result ? (
        <Comparison result={result} draft={draft} inputs={read.inputs} money={money} />
      ) : (
        missing.length > 0 && (
          <p className="text-sm text-soft">Not known here yet: {missing.join(', ')}. It can be decided without.</p>
        )
      )}
      {may && <DecideNow cheaper={result?.cheaper ?? null} busy={busy} onDecide={(s, why) => void decide(s, why)} />}
      <OtherProblems problems={problems} paths={FIELDS.map(([field]) => `/record/inputs/${field}`)} />
      <How start={start} f={f} read={read} currency={currency} />
    </div>
  );
}

interface HowProps {
  readonly start: DecideProps['start'];
  readonly f: Omit<Parameters<typeof DraftField>[0], 'field' | 'path' | 'label'>;
  readonly read: ReturnType<typeof inputsOf>;
  readonly currency: string;
}

/**
 * What it is reckoned with: prices and times are the workshop's own, lives are assumed until it has enough of
 * them.
 */
function How({ start, f, read, currency }: HowProps) {
  const isLead = useMay('service-data.change');
  return (
    <details className="mt-2">
      <summary className="min-h-12 cursor-pointer py-2 font-semibold">How is that reckoned?</summary>
      <Row>
        {FIELDS.filter(([field]) => field !== 'age_h').map(([field, label, hint]) => (
          <DraftField
            key={field}
            {...f}
            field={field}
            path={`/record/inputs/${field}`}
            label={label}
            hint={hint.replace('money', currency)}
            mono
          />
        ))}
      </Row>
      <p className="mb-2 text-sm text-soft">
        {start.costsFrom ?? 'This workshop has not entered what it costs'}. Life:{' '}
        {start.life.from === 'own history'
          ? tr`fitted to ${start.life.failures} failures of this workshop`
          : tr`assumed; ${start.life.failures} failures are noted here, too few to fit`}
        .
      </p>
      {isLead && <KeepCosts name={start.name} costs={read.inputs && costsOf(read.inputs, currency)} />}
      <Assumptions />
    </details>
  );
}
