'use client';
import { shownUnit } from '../../core/quantity/reader-unit';
import { significant } from '../../core/locale/numbers';
import { tr, word } from '../../core/locale/translate';
import { uncapital } from '../../core/foundation/text';
import { memo, useMemo } from 'react';
import dynamic from 'next/dynamic';
import { Link } from '../kit/link';
import { probeAt } from '../../core/catalogue/positions';
import type { StageId } from '../../core/job/progress';
import { budgetOf } from '../../core/judge/budget';
import type { Judgement, Position } from '../../core/judge/types';
import { positionWords, rangeWords, reasonWords, verdictWord } from '../../core/judge/words';
import { type RunInputs, runSet } from '../../application/judging/judge-run';
import type { DisplayPhotoView, RunView } from '../../application/views';
import { Cautions } from '../kit/cautions';
import { Mark } from '../posts/mark';
import { TONE } from '../../application/posts/shapes';
import { AskedFact, factOf } from './asked-fact';
import { Connectors } from './connectors';
import { FitChart } from './fit-chart';
import { NextInJob, useNextInJob } from './next-in-job';
import type { Target } from './target';

const ProposeLimit = dynamic(() => import('./propose-limit').then((m) => m.ProposeLimit), { ssr: false });
const DisplayPhotos = dynamic(() => import('./display-photos').then((m) => m.DisplayPhotos), { ssr: false });
// Not on the first load: it brings the circuits and a worker.
const CircuitSays = dynamic(() => import('./circuit-findings').then((m) => m.CircuitFindings), { ssr: false });

export interface ConclusionsProps {
  readonly view: RunView;
  readonly judgement: Judgement;
  readonly inputs: RunInputs;
  readonly active: Position | null;
  readonly target: Target;
  /** All that was entered has reached the server. */
  readonly isSaved: boolean;
  /** Says that the meter was seen to read a known value right. */
  readonly onMeterProven: () => void;
}

const card = 'rounded-xl bg-card p-3';

/** The right side: the caution, what the readings say, why, and what to do next. */
export const Conclusions = memo(function Says(props: ConclusionsProps) {
  const { view, judgement, inputs, active } = props;
  const { definition: test } = view;
  const cautions = useMemo(() => cautionsOf(view), [view]);
  return (
    // Beside the posts it has its own room, whatever it says: the posts are not laid out again for it.
    <aside
      className="flex min-h-0 flex-col gap-2 overflow-y-auto border-line bg-panel p-3 text-[15px] leading-snug lg:border-l lg:contain-strict"
      aria-label="What the readings say"
    >
      <section className="text-[13px]" aria-label="Caution">
        <Cautions id={`test ${test.id}`} all={cautions} />
        <AskedFact view={view} />
      </section>
      <section className={card}>
        <h2 className="mb-1 text-sm font-semibold text-soft">What the readings say</h2>
        <p aria-live="polite" className="font-semibold" data-testid="summary">
          {judgement.summary}
        </p>
        {judgement.fit && <FitChart judgement={judgement} />}
        {judgement.proven.map((p) => (
          <p key={p} className="mt-1">
            {p}
          </p>
        ))}
      </section>
      <Suspects judgement={judgement} />
      <Next {...props} />
      <Why
        judgement={judgement}
        inputs={inputs}
        position={active}
        displays={view.displays.filter((d) => view.readings.some((r) => r.id === d.readingId && r.position === active))}
      />
      <Connectors view={view} active={active} />
      {/* It comes when it is weighed: what stands above must not move under the finger. */}
      <CircuitSays view={view} judgement={judgement} />
      <LimitCard
        view={view}
        isDoubted={judgement.readings.some((r) => r.reasons.some((x) => x.rule === 'rule-of-thumb-doubted'))}
      />
    </aside>
  );
});

function cautionsOf(view: RunView): readonly string[] {
  const fact = factOf(view);
  return [...(fact === null ? [] : [fact]), ...view.definition.cautions.map((c) => c.text)];
}

function Suspects({ judgement }: { judgement: Judgement }) {
  const those = judgement.readings.filter((r) => judgement.suspects.includes(r.position) || r.verdict === 'undecided');
  if (those.length === 0) return null;
  return (
    <section className={card} aria-label="Suspects">
      <h2 className="mb-1 text-sm font-semibold text-soft">{judgement.suspects.length ? 'Suspects' : 'Not decided'}</h2>
      <ul
        className={`grid gap-1 ${those.every((r) => typeof r.position === 'number') ? 'grid-cols-2' : 'grid-cols-1'}`}
      >
        {those.map((r) => (
          <li key={r.position} className="flex items-center gap-2">
            <Mark verdict={r.verdict} severity={r.severity} size={24} />
            <b>{r.position}</b>
            <span style={{ color: `var(--${TONE[r.severity]})` }}>{verdictWord(r.verdict, judgement.limits)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Next({ judgement, target, view, isSaved, onMeterProven }: ConclusionsProps) {
  const { definition: test } = view;
  // While the set is not complete or not saved, it is itself what is next.
  const isOver = judgement.pattern !== 'incomplete' && isSaved;
  const progress = useNextInJob(view.id, isOver ? stateOf(judgement) : null);
  const sees = judgement.limits.quantity === 'observation';
  const waiting =
    target?.kind === 'lead-zero'
      ? judgement.limits.quantity === 'current'
        ? 'Hold the clamp away from any wire and enter what it shows.'
        : 'Touch the leads together and enter what the meter shows.'
      : target?.kind === 'position' &&
          judgement.readings.find((r) => r.position === target.position)?.verdict === 'not-measured'
        ? tr`${sees ? 'Look at' : 'Read'} ${positionWords(target.position)}. ${probeAt(test, target.position)}`
        : null;
  const steps =
    target?.kind === 'lead-zero'
      ? []
      : judgement.pattern === 'incomplete'
        ? judgement.advice.slice(0, 1)
        : judgement.advice;
  // Once it is found, what the readings themselves would ask for is past.
  const others = progress && LOOKING.has(progress.now ?? 'release') ? steps.filter((s) => s !== progress.say) : [];
  if (!waiting && steps.length === 0 && !progress) return null;
  return (
    <section className={`${card} border-2 border-estuary`} aria-label="Next">
      <h2 className="mb-1 text-sm font-semibold text-soft">Next</h2>
      {waiting && <p className="font-semibold">{waiting}</p>}
      {progress && <NextInJob view={view} progress={progress} />}
      {progress ? (
        <Besides steps={others} />
      ) : (
        steps.map((s) => (
          <p key={s} className="mt-1">
            {s}
          </p>
        ))
      )}
      {judgement.doubts?.some((d) => d.kind === 'meter') && (
        <button
          type="button"
          className="mt-1 min-h-11 rounded-lg border-2 border-estuary px-3 font-semibold text-estuary"
          onClick={onMeterProven}
        >
          The meter is proven <kbd className="font-mono text-sm">p</kbd>
        </button>
      )}
      <AllSteps test={test} />
    </section>
  );
}

const AllSteps = memo(function AllSteps({ test }: { test: RunView['definition'] }) {
  return (
    <details className="mt-1">
      <summary className="min-h-6 cursor-pointer text-sm text-soft">
        All steps, about {test.minutes} min{test.people > 1 ? tr`, ${test.people} people` : ''}
      </summary>
      <ol className="list-decimal pl-5 text-sm">
        {test.steps.map((s) => (
          <li key={s}>{s}</li>
        ))}
      </ol>
      <p className="mt-1 text-sm">
        <b>Proves</b> {uncapital(test.proves)} <b>Cannot prove</b> {uncapital(test.cannotProve)}
      </p>
    </details>
  );
});

const LOOKING: ReadonlySet<StageId> = new Set(['complaint', 'codes', 'tests', 'finding']);

/** What the readings would ask for by themselves, in place of what the job asks for. */
function Besides({ steps }: { steps: readonly string[] }) {
  if (steps.length === 0) return null;
  return (
    <details className="mt-1">
      <summary className="min-h-8 cursor-pointer text-sm text-soft">Instead ({steps.length})</summary>
      {steps.map((s) => (
        <p key={s} className="mt-1 text-sm">
          {s}
        </p>
      ))}
    </details>
  );
}

/** What the server's answer rests on, of this run: another entry asks anew. */
const stateOf = ({ readings, doubts }: Judgement): string =>
  JSON.stringify([readings.map((r) => [r.position, r.verdict, r.corrected]), doubts?.map((d) => d.say)]);

function Why(props: {
  judgement: Judgement;
  inputs: RunInputs;
  position: Position | null;
  displays: readonly DisplayPhotoView[];
}) {
  const { judgement, inputs, position, displays } = props;
  const r = judgement.readings.find((x) => x.position === position);
  if (!r || r.verdict === 'not-measured') return null;
  const title = tr`Why ${positionWords(r.position)}: ${verdictWord(r.verdict, judgement.limits)}`;
  return (
    <section className={card} aria-label={title}>
      <h2 className="mb-1 text-sm font-semibold text-soft">{title}</h2>
      <ul className="list-disc pl-4">
        {r.reasons.map((x) => (
          <li key={x.rule}>{reasonWords(x, judgement.limits, r.resolution)}</li>
        ))}
      </ul>
      {r.probabilityWithin !== null && (
        <p className="mt-1 text-soft">Inside the limits with {Math.round(100 * r.probabilityWithin)} % probability.</p>
      )}
      <Budget inputs={inputs} position={r.position} unit={shownUnit(judgement.limits.unit)} />
      {displays.length > 0 && <DisplayPhotos photos={displays} />}
    </section>
  );
}

/** The uncertainty budget behind a mark, opened on demand. */
function Budget({ inputs, position, unit }: { inputs: RunInputs; position: Position; unit: string }) {
  const set = runSet(inputs);
  const lines = set.ok ? budgetOf(set.value, position) : [];
  if (lines.length === 0) return null;
  const total = Math.hypot(...lines.map((l) => l.standardUncertainty));
  return (
    <details className="mt-1">
      <summary className="min-h-6 cursor-pointer text-sm text-soft">
        Uncertainty ± {shown(2 * total)} {unit} (k = 2), and what it is made of
      </summary>
      <table className="w-full text-left text-[13px]" aria-label="Where it comes from, standard uncertainty, share">
        <tbody>
          {lines.map((l) => (
            <tr key={l.from}>
              <td>{l.words}</td>
              <td className="px-1 text-right font-mono whitespace-nowrap">
                {shown(l.standardUncertainty)} {unit}
              </td>
              <td className="text-right font-mono whitespace-nowrap">{Math.round(100 * l.share)} %</td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}

const shown = (u: number): string => significant(u, 2);

const STATUS = {
  approved: 'approved',
  draft: 'a draft that nobody has approved yet',
  'rule-of-thumb': 'a general rule of thumb; enter the maker’s own',
  withdrawn: 'since taken off the shelf',
} as const;
const FOR = { part: 'for the part', family: 'for', depot: 'for the depot', general: 'for any engine' } as const;

/** `isDoubted`: most of the set agree with each other and not with the limit. */
const LimitCard = memo(function LimitCard({ view, isDoubted }: { view: RunView; isDoubted: boolean }) {
  const { specification: s } = view;
  const seen = s.limits.quantity === 'observation';
  return (
    <section className={`${card} text-[13px]`} aria-label="Limit">
      <p>
        <b>
          {seen
            ? 'Pass or fail, as seen'
            : s.limits.transfer
              ? 'Limit by transfer function'
              : s.limits.byPosition
                ? 'Limits by position'
                : tr`Limit ${rangeWords(s.limits, s.limits)}`.replace('Limit no limit', 'No limit')}
        </b>
        , {[FOR[s.scope], s.of].filter(Boolean).map(word).join(' ')}
        {s.school && tr`, house rule “${s.school}”`}
      </p>
      {!seen && (
        <p className={s.status === 'approved' ? 'text-soft' : 'font-semibold text-ochre'}>
          {s.source}; {STATUS[s.status]}.
        </p>
      )}
      <p className="text-soft">
        {view.because}{' '}
        <Link className="underline" href={`/shelf?test=${view.test}&run=${view.id}`}>
          Why not another
        </Link>
      </p>
      {!seen && s.status !== 'approved' && <ProposeLimit view={view} isDoubted={isDoubted} />}
    </section>
  );
});
