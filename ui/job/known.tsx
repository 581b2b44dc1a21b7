'use client';
import { capital } from '../../core/foundation/text';
import { ChevronRight } from 'lucide-react';
import { Link } from '../kit/link';
import { groupBy } from '../../core/foundation/collections';
import { targetsWords } from '../../core/evidence/finding';
import { heldTogether } from '../../core/evidence/known';
import { RULES, type Stand, type Statement } from '../../core/evidence/types';
import type { JobView, RunBrief } from '../../application/views';
import { MiniPosts } from '../posts/mini-posts';

const STAND_WORDS: Readonly<Record<Stand, readonly [word: string, tone: string]>> = {
  bad: ['bad', 'text-rust'],
  suspect: ['suspected', 'text-ochre'],
  cleared: ['good', 'text-eelgrass'],
  noted: ['noted', 'text-soft'],
};

/**
 * What the evidence proves and what does not go together, each with the readings that carry it. Every
 * sentence opens its rule and what it rests on.
 */
export function Known({ view }: { view: JobView }) {
  const { known, job } = view;
  const of = (...stands: readonly Stand[]): Statement[] => known.statements.filter((s) => stands.includes(s.stand));
  const [against, cleared, noted] = [of('bad', 'suspect'), of('cleared'), of('noted')];
  const together = heldTogether(known);
  const runs = new Map(job.runs.map((r) => [r.id, r]));
  return (
    <section id="known" aria-label="What is known" className="scroll-mt-4 rounded-xl bg-card p-4">
      <h2 className="font-semibold text-soft">What is known</h2>
      {known.contradictions.map((c) => (
        <details key={c.text} className="mt-2 rounded-lg border-l-4 border-ochre bg-panel p-3">
          <summary className="cursor-pointer font-semibold text-ochre">Does not go together: {c.text}</summary>
          <ul className="mt-1">
            {c.sides.map((s) => (
              <li key={s.text}>{s.text}</li>
            ))}
          </ul>
        </details>
      ))}
      {together.length > 1 && (
        <p className="mt-2">
          Faults that stand at the same time: {together.join('; ')}. {together.length === 2 ? 'Two' : 'Several'} at once
          are real.
        </p>
      )}
      {against.length + cleared.length + noted.length === 0 && (
        <p className="mt-1 text-soft">Nothing yet: measure, or record what was seen.</p>
      )}
      <List statements={against} runs={runs} />
      <More title="Good" statements={cleared} runs={runs} />
      <More title="Noted" statements={noted} runs={runs} />
    </section>
  );
}

type Runs = ReadonlyMap<string, RunBrief>;

function More({ title, statements, runs }: { title: string; statements: readonly Statement[]; runs: Runs }) {
  if (statements.length === 0) return null;
  return (
    <details className="mt-1">
      <summary className="flex min-h-12 cursor-pointer items-center gap-1 font-semibold text-soft">
        <ChevronRight size={16} aria-hidden="true" className="folded" />
        {title} ({statements.length})
      </summary>
      <List statements={statements} runs={runs} />
    </details>
  );
}

/** The same said of several positions is one line that opens. */
function List({ statements, runs }: { statements: readonly Statement[]; runs: Runs }) {
  const groups = [
    ...groupBy(
      statements,
      (s) => `${s.rule}|${s.stand}|${s.target.kind}|${s.target.name}${s.target.position === null ? s.text : ''}`,
    ).values(),
  ];
  return (
    <ul className="mt-1 flex flex-col gap-1">
      {groups.map((g, i) => {
        const [s] = g;
        return (
          s && (
            <li key={i}>
              {g.length > 1 ? <Several first={s} all={g} /> : <Said s={s} />}
              <Carried by={s} runs={runs} />
            </li>
          )
        );
      })}
    </ul>
  );
}

function Several({ first, all }: { first: Statement; all: readonly Statement[] }) {
  const [word, tone] = STAND_WORDS[first.stand];
  const positions = all.flatMap((s) => (s.target.position === null ? [] : [s.target.position]));
  return (
    <details className="rounded-lg px-2 py-1 open:bg-panel">
      <summary className="cursor-pointer">
        <b className={tone}>{word}:</b> {capital(targetsWords(first.target, positions))}.
      </summary>
      <ul className="mt-1">
        {all.map((s, i) => (
          <li key={i}>{s.text}</li>
        ))}
      </ul>
      <p className="mt-1 text-sm">
        Why: {RULES[first.rule]} <span className="text-soft">Common practice, no source.</span>
      </p>
    </details>
  );
}

function Said({ s }: { s: Statement }) {
  const [word, tone] = STAND_WORDS[s.stand];
  return (
    <details className="rounded-lg px-2 py-1 open:bg-panel">
      <summary className="cursor-pointer">
        <b className={tone}>{word}:</b> {s.text}
      </summary>
      <p className="mt-1 text-sm">
        Why: {RULES[s.rule]} <span className="text-soft">Common practice, no source.</span>
      </p>
      <p className="text-sm text-soft">From: {s.from.map((r) => r.label).join('; ')}</p>
    </details>
  );
}

/** The readings that carry a statement against something, drawn small; they lead to their bench. */
function Carried({ by, runs }: { by: Statement; runs: Runs }) {
  if (by.stand !== 'bad' && by.stand !== 'suspect') return null;
  const own = [...new Set(by.from.map((r) => r.id))].flatMap((id) => runs.get(id) ?? []);
  if (own.length === 0) return null;
  return (
    <span className="flex flex-wrap gap-3 pl-6">
      {own.slice(0, 2).map(
        (r) =>
          r.judgement && (
            <Link key={r.id} href={`/runs/${r.id}`} title={r.name} className="inline-flex min-h-12 items-center">
              <span className="sr-only">{r.name}: </span>
              <MiniPosts judgement={r.judgement} />
            </Link>
          ),
      )}
    </span>
  );
}
