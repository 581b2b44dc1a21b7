'use client';
import { fixed, grouped } from '../../core/locale/numbers';
import { tr } from '../../core/locale/translate';
import { useState } from 'react';
import { ASSUMPTIONS, type oneOrSet, type OneOrSetInputs, type School, type Tip } from '../../core/repair/one-or-set';
import type { Costs } from '../../core/repair/suggest';
import { useBegun } from '../kit/begun';
import { Button } from '../kit/button';
import type { Draft } from '../kit/draft';
import { OtherProblems } from '../kit/form';
import { useKeepData } from './keep-data';

interface ComparisonProps {
  readonly result: ReturnType<typeof oneOrSet>;
  readonly draft: Draft;
  readonly inputs: OneOrSetInputs | null;
  readonly money: (minor: number) => string;
}

/** What each way is expected to cost, which is cheaper, and what would change that. */
export function Comparison({ result, draft, inputs, money }: ComparisonProps) {
  return (
    <>
      <div className="grid gap-3 sm:grid-cols-2">
        <SchoolCard
          title={tr`Only those that failed (${draft.failed})`}
          school={result.one}
          money={money}
          best={result.cheaper === 'one'}
        />
        <SchoolCard
          title={tr`The whole set (${draft.positions})`}
          school={result.set}
          money={money}
          best={result.cheaper === 'set'}
        />
      </div>
      <p className="mt-2">
        One that works now fails within the time looked ahead with {Math.round(100 * result.nextFailure)} % probability.{' '}
        {result.cheaper === 'even'
          ? 'Both cost the same.'
          : tr`${result.cheaper === 'one' ? 'Only those that failed' : 'The whole set'} is expected to cost ${money(Math.abs(result.one.total - result.set.total))} less.`}
      </p>
      <details className="mt-1">
        <summary className="min-h-8 cursor-pointer text-sm text-soft">What would tip it</summary>
        <p>It would tip {tipWords(result.tips, inputs, money)}</p>
      </details>
    </>
  );
}

/**
 * A lead technician may keep what was typed as the workshop's own costs. While a number is wrong there are
 * none to keep; the source that was typed stays.
 */
export function KeepCosts({ name, costs }: { name: string; costs: Costs | null }) {
  const kept = useKeepData();
  const [source, setSource] = useState('');
  if (costs === null) return null;
  return (
    <>
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
            void kept.keep({ family: null, kind: 'costs', key: name, source: source.trim(), body: costs });
          }}
        >
          Keep as our costs
        </Button>
      </div>
      <OtherProblems problems={kept.problems} paths={[]} />
    </>
  );
}

export function Assumptions() {
  return (
    <details className="mt-1 text-sm">
      <summary className="min-h-6 cursor-pointer text-soft">What is assumed</summary>
      <ul className="list-disc pl-5">
        {ASSUMPTIONS.map((a) => (
          <li key={a}>{a}</li>
        ))}
      </ul>
    </details>
  );
}

interface DecideNowProps {
  /** `null`: nobody knows what it costs. */
  readonly cheaper: ReturnType<typeof oneOrSet>['cheaper'] | null;
  readonly busy: boolean;
  readonly onDecide: (school: 'one' | 'set', why: string) => void;
}

/** The decision itself, with its reason if there is one. */
export function DecideNow({ cheaper, busy, onDecide }: DecideNowProps) {
  const [why, setWhy] = useState('');
  useBegun(why.trim() !== '');
  return (
    <div className="mt-2 flex flex-wrap items-end gap-2">
      <Button disabled={busy} tone={cheaper === 'one' ? 'strong' : 'plain'} onClick={() => onDecide('one', why.trim())}>
        Decide: only those
      </Button>
      <Button disabled={busy} tone={cheaper === 'set' ? 'strong' : 'plain'} onClick={() => onDecide('set', why.trim())}>
        Decide: the set
      </Button>
      <label className="min-w-52 flex-1 text-sm">
        Why, if it is not the sum
        <input
          className="mt-1 block min-h-12 w-full rounded-lg border-2 border-line bg-card px-3 text-base"
          value={why}
          maxLength={2000}
          onChange={(e) => setWhy(e.target.value)}
        />
      </label>
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
        {money(school.now)} now; {fixed(school.returns, 2)} returns expected, {money(school.later)}
      </p>
    </div>
  );
}

function tipWords(tips: readonly Tip[], inputs: OneOrSetInputs | null, money: (minor: number) => string): string {
  const said = tips.flatMap(({ input, at }) => {
    if (at === null || !inputs) return [];
    switch (input) {
      case 'comeback':
        return [tr`if a return cost ${money(at)} beside its repair`];
      case 'part':
        return [tr`if a part cost ${money(at)}`];
      case 'access_min':
        return [tr`if access took ${Math.round(at)} min`];
      case 'age_h':
        return [tr`if the others were ${grouped(Math.round(at))} hours old`];
      case 'breakage':
        return [tr`if ${Math.round(100 * at)} % broke on removal`];
    }
  });
  return said.length ? `${said.join(', or ')}.` : 'by none of these alone.';
}
