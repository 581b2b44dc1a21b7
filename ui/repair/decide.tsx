'use client';
import { useMemo, useState } from 'react';
import { ASSUMPTIONS, oneOrSet, type OneOrSetInputs, type School, type Tip } from '../../core/repair/one-or-set';
import { minorDigits, moneyWords } from '../../core/repair/money';
import { recordsOfKind } from '../../core/repair/proof';
import type { JobView } from '../../application/views';
import { Button } from '../kit/button';
import { type Draft, DraftReader } from '../kit/draft';
import { DraftField, OtherProblems, Row } from '../kit/form';
import type { Costs } from '../../core/repair/suggest';
import { useMay } from '../kit/session';
import type { FoundFinding } from './found';
import { useKeepData } from './keep-data';
import { useRecord } from './use-record';
import type { RepairView } from '../../application/repair-view';

/**
 * Field, label, hint, and what one unit of it is in the arithmetic; `money`: as many minor units as the
 * currency has.
 */
const FIELDS = [
  ['failed', 'Failed', '', 1],
  ['positions', 'of positions', '', 1],
  ['part', 'A part', 'money', 'money'],
  ['access_min', 'Access, once', 'min', 1],
  ['each_min', 'Labour, each', 'min', 1],
  ['labour', 'Labour', 'money an hour', 'money'],
  ['age_h', 'Age of the others', 'hours', 1],
  ['horizon_h', 'Looked ahead', 'hours', 1],
  ['shape', 'Weibull shape', '1: at random', 1],
  ['scale_h', 'Weibull scale', 'hours', 1],
  ['breakage', 'Breaks on removal', '%', 0.01],
  ['breakageCost', 'A broken one costs', 'money', 'money'],
  ['comeback', 'A return costs beside', 'money', 'money'],
] as const;

type Unit = (typeof FIELDS)[number][3];
const unitOf = (unit: Unit, currency: string): number => (unit === 'money' ? 10 ** minorDigits(currency) : unit);

const draftFrom = (i: OneOrSetInputs, currency: string): Draft =>
  Object.fromEntries(
    FIELDS.map(([f, , , unit]) => {
      const value = f === 'shape' ? i.life.shape : f === 'scale_h' ? i.life.scale_h : i[f];
      return [f, String(Number((value / unitOf(unit, currency)).toPrecision(9)))];
    }),
  );

function inputsOf(
  draft: Draft,
  currency: string,
): { inputs: OneOrSetInputs | null; problems: DraftReader['problems'] } {
  const read = new DraftReader(draft);
  const v = Object.fromEntries(
    FIELDS.map(([f, , , unit]) => {
      const value = read.number(f, `/record/inputs/${f}`);
      if (value === undefined || value < 0)
        read.problems.push({ path: `/record/inputs/${f}`, message: 'A number of 0 or more.' });
      return [f, (value ?? 0) * unitOf(unit, currency)];
    }),
  ) as Record<(typeof FIELDS)[number][0], number>;
  if (v.failed > v.positions)
    read.problems.push({ path: '/record/inputs/failed', message: `There are ${v.positions} positions.` });
  if (!(v.shape >= 0.2) || !(v.scale_h > 0))
    read.problems.push({ path: '/record/inputs/shape', message: 'A shape of 0.2 or more and a scale above 0.' });
  const { shape, scale_h, ...rest } = v;
  const whole = Object.fromEntries(
    Object.entries(rest).map(([k, n]) => [
      k,
      ['part', 'labour', 'breakageCost', 'comeback', 'failed', 'positions'].includes(k) ? Math.round(n) : n,
    ]),
  ) as Omit<OneOrSetInputs, 'life'>;
  return { inputs: read.problems.length ? null : { ...whole, life: { shape, scale_h } }, problems: read.problems };
}

const costsOf = (
  { part, access_min, each_min, labour, breakage, breakageCost, comeback, horizon_h, life }: OneOrSetInputs,
  currency: string,
): Costs => ({
  part,
  access_min,
  each_min,
  labour,
  breakage,
  breakageCost,
  comeback,
  horizon_h,
  shape: life.shape,
  scale_h: life.scale_h,
  currency,
});

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
  const [why, setWhy] = useState('');
  const { busy, problems, write } = useRecord(view.job.id);
  const may = useMay('job.write-repair');
  const isLead = useMay('service-data.change');
  const kept = useKeepData();
  const [source, setSource] = useState('');
  const read = useMemo(() => inputsOf(draft, currency), [draft, currency]);
  const result = useMemo(() => (read.inputs ? oneOrSet(read.inputs) : null), [read]);
  const money = (minor: number): string => moneyWords(Math.round(minor), currency);
  const f = {
    draft,
    problems: [...read.problems, ...problems],
    onChange: (field: string, value: string) => setDraft({ ...draft, [field]: value }),
  };
  const decide = (school: 'one' | 'set'): void => {
    if (read.inputs)
      void write({
        kind: 'decision',
        finding: finding.id,
        school,
        inputs: read.inputs,
        currency: currency,
        why: why.trim(),
      });
  };
  return (
    <div>
      {result && (
        <>
          <div className="grid gap-3 sm:grid-cols-2">
            <SchoolCard
              title={`Only those that failed (${draft.failed})`}
              school={result.one}
              money={money}
              best={result.cheaper === 'one'}
            />
            <SchoolCard
              title={`The whole set (${draft.positions})`}
              school={result.set}
              money={money}
              best={result.cheaper === 'set'}
            />
          </div>
          <p className="mt-2">
            One that works now fails within the time looked ahead with {Math.round(100 * result.nextFailure)} %
            probability.{' '}
            {result.cheaper === 'even'
              ? 'Both cost the same.'
              : `${result.cheaper === 'one' ? 'Only those that failed' : 'The whole set'} is expected to cost ${money(Math.abs(result.one.total - result.set.total))} less.`}
          </p>
          <p className="mt-1">
            <b>It would tip</b> {tipWords(result.tips, read.inputs, money)}
          </p>
        </>
      )}
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
        {isLead && read.inputs && (
          <div className="flex flex-wrap items-end gap-2">
            <label className="min-w-52 flex-1 font-semibold">
              Source of these costs{' '}
              <input
                className="mt-1 block min-h-12 w-full rounded-lg border-2 border-line bg-card px-3 font-normal"
                value={source}
                maxLength={200}
                onChange={(e) => setSource(e.target.value)}
              />
            </label>
            <Button
              disabled={kept.busy}
              onClick={() => {
                if (read.inputs)
                  void kept.keep({
                    family: null,
                    kind: 'costs',
                    key: start.name,
                    source: source.trim(),
                    body: costsOf(read.inputs, currency),
                  });
              }}
            >
              Keep as our costs
            </Button>
          </div>
        )}
        <OtherProblems problems={kept.problems} paths={[]} />
      </details>
      <details className="mt-1 text-sm">
        <summary className="min-h-6 cursor-pointer text-soft">What is assumed</summary>
        <ul className="list-disc pl-5">
          {ASSUMPTIONS.map((a) => (
            <li key={a}>{a}</li>
          ))}
        </ul>
      </details>
      <OtherProblems problems={problems} paths={FIELDS.map(([field]) => `/record/inputs/${field}`)} />
      {may && !view.job.closed && result && (
        <div className="mt-2 flex flex-wrap items-end gap-2">
          <label className="min-w-52 flex-1 font-semibold">
            Why{' '}
            <input
              className="mt-1 block min-h-12 w-full rounded-lg border-2 border-line bg-card px-3 font-normal"
              value={why}
              maxLength={2000}
              onChange={(e) => setWhy(e.target.value)}
            />
          </label>
          <Button disabled={busy} tone={result.cheaper === 'one' ? 'strong' : 'plain'} onClick={() => decide('one')}>
            Decide: only those
          </Button>
          <Button disabled={busy} tone={result.cheaper === 'set' ? 'strong' : 'plain'} onClick={() => decide('set')}>
            Decide: the set
          </Button>
        </div>
      )}
      {made && (
        <p className="mt-2 font-semibold">
          Decided by {made.by}: {made.body.school === 'one' ? 'only those that failed' : 'the whole set'}
          {made.body.why && `. ${made.body.why}`}
        </p>
      )}
    </div>
  );
}

function SchoolCard({
  title,
  school,
  money,
  best,
}: {
  title: string;
  school: School;
  money: (minor: number) => string;
  best: boolean;
}) {
  return (
    <div className={`rounded-lg border-2 p-3 ${best ? 'border-eelgrass' : 'border-line'}`}>
      <p className="font-semibold">
        {title}
        {best && <span className="ml-2 font-normal text-eelgrass">cheaper</span>}
      </p>
      <p className="font-mono text-xl">{money(school.total)}</p>
      <p className="text-sm text-soft">
        {money(school.now)} now; {school.returns.toFixed(2)} returns expected, {money(school.later)}
      </p>
    </div>
  );
}

function tipWords(tips: readonly Tip[], inputs: OneOrSetInputs | null, money: (minor: number) => string): string {
  const said = tips.flatMap(({ input, at }) => {
    if (at === null || !inputs) return [];
    switch (input) {
      case 'comeback':
        return [`if a return cost ${money(at)} beside its repair`];
      case 'part':
        return [`if a part cost ${money(at)}`];
      case 'access_min':
        return [`if access took ${Math.round(at)} min`];
      case 'age_h':
        return [`if the others were ${Math.round(at).toLocaleString('en-GB')} hours old`];
      case 'breakage':
        return [`if ${Math.round(100 * at)} % broke on removal`];
    }
  });
  return said.length ? `${said.join(', or ')}.` : 'by none of these alone.';
}
