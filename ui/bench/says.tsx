'use client';
import { memo } from 'react';
import { TriangleAlert } from 'lucide-react';
import type { TestDefinition } from '../../core/catalogue/types';
import type { Judgement, Position } from '../../core/judge/types';
import { positionWords, rangeWords, reasonWords, VERDICT_WORDS } from '../../core/judge/words';
import type { RunView } from '../../formats/views';
import { Mark } from '../posts/mark';
import { TONE } from '../posts/shapes';
import type { Target } from './target';

export interface SaysProps {
  readonly view: RunView;
  readonly judgement: Judgement;
  readonly test: TestDefinition | undefined;
  readonly active: Position | null;
  readonly target: Target;
}

const card = 'rounded-xl bg-card p-3';

/** The right side: the caution, what the readings say, why, and what to do next. */
export const Says = memo(function Says(props: SaysProps) {
  const { view, judgement, test, active } = props;
  return (
    <aside className="flex min-h-0 flex-col gap-2 overflow-y-auto border-line bg-panel p-3 text-[15px] leading-snug lg:border-l" aria-label="What the readings say">
      <section className={`${card} border-l-4 border-ochre text-[13px]`} aria-label="Caution">
        <TriangleAlert size={15} className="mr-1 inline text-ochre" aria-hidden="true" />
        {test?.cautions.map((c, i) => (i ? <span key={c.id}> {c.text}</span> : <b key={c.id}>{c.text}</b>))}
      </section>
      <section className={card}>
        <h2 className="mb-1 text-sm font-semibold text-soft">What the readings say</h2>
        <p aria-live="polite" className="font-semibold" data-testid="summary">{judgement.summary}</p>
      </section>
      <Suspects judgement={judgement} />
      <Next {...props} />
      <Why judgement={judgement} position={active} />
      <LimitCard view={view} />
    </aside>
  );
});

function Suspects({ judgement }: { judgement: Judgement }) {
  const those = judgement.readings.filter((r) => judgement.suspects.includes(r.position) || r.verdict === 'undecided');
  if (those.length === 0) return null;
  return (
    <section className={card} aria-label="Suspects">
      <h2 className="mb-1 text-sm font-semibold text-soft">{judgement.suspects.length ? 'Suspects' : 'Not decided'}</h2>
      <ul className={`grid gap-1 ${those.every((r) => typeof r.position === 'number') ? 'grid-cols-2' : 'grid-cols-1'}`}>
        {those.map((r) => (
          <li key={r.position} className="flex items-center gap-2">
            <Mark verdict={r.verdict} severity={r.severity} size={24} /><b>{r.position}</b>
            <span style={{ color: `var(--${TONE[r.severity]})` }}>{VERDICT_WORDS[r.verdict]}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Next({ judgement, target, test }: SaysProps) {
  const waiting = target?.kind === 'lead-zero'
    ? 'Touch the leads together and enter what the meter shows.'
    : target?.kind === 'position' && judgement.readings.find((r) => r.position === target.position)?.verdict === 'not-measured'
      ? `Read ${positionWords(target.position)}. ${test?.probe ?? ''}` : null;
  const steps = target?.kind === 'lead-zero' ? [] : judgement.pattern === 'incomplete' ? judgement.advice.slice(0, 1) : judgement.advice;
  if (!waiting && steps.length === 0) return null;
  return (
    <section className={`${card} border-2 border-estuary`} aria-label="Next">
      <h2 className="mb-1 text-sm font-semibold text-soft">Next</h2>
      {waiting && <p className="font-semibold">{waiting}</p>}
      {steps.map((s) => <p key={s} className="mt-1">{s}</p>)}
    </section>
  );
}

function Why({ judgement, position }: { judgement: Judgement; position: Position | null }) {
  const r = judgement.readings.find((x) => x.position === position);
  if (!r || r.verdict === 'not-measured') return null;
  return (
    <section className={card} aria-label={`Why ${positionWords(r.position)}: ${VERDICT_WORDS[r.verdict]}`}>
      <h2 className="mb-1 text-sm font-semibold text-soft">Why {positionWords(r.position)}: {VERDICT_WORDS[r.verdict]}</h2>
      <ul className="list-disc pl-4">{r.reasons.map((x) => <li key={x.rule}>{reasonWords(x, judgement.limits, r.resolution)}</li>)}</ul>
      {r.probabilityWithin !== null && <p className="mt-1 text-soft">Inside the limits with {Math.round(100 * r.probabilityWithin)} % probability.</p>}
    </section>
  );
}

const STATUS = { approved: 'approved', draft: 'a draft that nobody has approved yet', 'rule-of-thumb': 'a general rule of thumb; enter the maker’s own' } as const;

function LimitCard({ view }: { view: RunView }) {
  const { specification: s } = view;
  return (
    <section className={`${card} text-[13px]`} aria-label="Limit">
      <p><b>Limit {rangeWords(s.limits, s.limits)}</b>, {s.family ? `for ${s.family}` : 'for any engine'}</p>
      <p className={s.status === 'approved' ? 'text-soft' : 'font-semibold text-ochre'}>{s.source}; {STATUS[s.status]}.</p>
    </section>
  );
}
