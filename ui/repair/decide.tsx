'use client';
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

/** Both schools with what they are expected to cost, and what would tip it. */
export function Decide({
  view,
  finding,
  start,
}: {
  view: JobView;
  finding: FoundFinding;
  start: RepairView['decisions'][number];
}) {
  const made = recordsOfKind(view.repair.records, 'decision').findLast((d) => d.body.finding === finding.id);
  const currency = made?.body.currency ?? start.currency;
  const [draft, setDraft] = useState<Draft>(() => draftFrom(made?.body.inputs ?? start.inputs, currency));
  const { busy, problems, write } = useRecord(view.job.id);
  const may = useMay('job.write-repair');
  const isLead = useMay('service-data.change');
  const read = useMemo(() => inputsOf(draft, currency), [draft, currency]);
  const result = useMemo(() => (read.inputs ? oneOrSet(read.inputs) : null), [read]);
  const money = (minor: number): string => moneyWords(Math.round(minor), currency);
  const f = {
    draft,
    problems: [...read.problems, ...problems],
    onChange: (field: string, value: string) => setDraft({ ...draft, [field]: value }),
  };
  const decide = (school: 'one' | 'set', why: string): void => {
    if (read.inputs)
      void write({
        kind: 'decision',
        finding: finding.id,
        school,
        inputs: read.inputs,
        currency,
        why,
      });
  };
  return (
    <div>
      {result && <Comparison result={result} draft={draft} inputs={read.inputs} money={money} />}
      <details className="mt-2" open={!made}>
        <summary className="min-h-8 cursor-pointer font-semibold">What it is reckoned with</summary>
        <Row>
          {FIELDS.map(([field, label, hint]) => (
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
          {start.costsFrom}. Life:{' '}
          {start.life.from === 'own history'
            ? `fitted to ${start.life.failures} failures of this workshop`
            : `assumed; ${start.life.failures} failures are noted here, too few to fit`}
          .
        </p>
        {isLead && <KeepCosts name={start.name} costs={read.inputs && costsOf(read.inputs, currency)} />}
      </details>
      <Assumptions />
      <OtherProblems problems={problems} paths={FIELDS.map(([field]) => `/record/inputs/${field}`)} />
      {may && !view.job.closed && <DecideNow cheaper={result?.cheaper ?? null} busy={busy} onDecide={decide} />}
      {made && (
        <p className="mt-2 font-semibold">
          Decided by {made.by}: {made.body.school === 'one' ? 'only those that failed' : 'the whole set'}
          {made.body.why && `. ${made.body.why}`}
        </p>
      )}
    </div>
  );
}
