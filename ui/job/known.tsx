'use client';
import { useState } from 'react';
import { groupBy } from '../../core/foundation/collections';
import { findingWords, targetsWords } from '../../core/evidence/finding';
import { heldTogether } from '../../core/evidence/known';
import { RULES, type Stand, type Statement } from '../../core/evidence/types';
import type { FindingView, JobView } from '../../application/views';
import { Button } from '../kit/button';
import { useMay } from '../kit/session';
import { shownTime } from '../kit/time';
import { FindingDialog } from './finding-dialog';

const STANDS: Readonly<Record<Stand, readonly [word: string, tone: string]>> = {
  bad: ['convicted', 'text-rust'],
  suspect: ['suspected', 'text-ochre'],
  cleared: ['cleared', 'text-eelgrass'],
  noted: ['noted', 'text-soft'],
};

/**
 * What the evidence proves, what does not go together, and what was found. Every sentence opens its rule and
 * what it rests on.
 */
export function Known({ view }: { view: JobView }) {
  const { known, findings, unit } = view;
  const [writing, setWriting] = useState<FindingView | 'new' | null>(null);
  const may = useMay('job.write-finding');
  const of = (...stands: readonly Stand[]): Statement[] => known.statements.filter((s) => stands.includes(s.stand));
  const [against, cleared, noted] = [of('bad', 'suspect'), of('cleared'), of('noted')];
  const together = heldTogether(known);
  return (
    <section id="known" aria-label="What is known" className="scroll-mt-4 rounded-xl bg-card p-4">
      <div className="flex flex-wrap items-center justify-between gap-2">
        <h2 className="font-semibold text-soft">What is known</h2>
        {may && <Button onClick={() => setWriting('new')}>Write a finding</Button>}
      </div>
      {findings.map((f) => (
        <Finding key={f.id} finding={f} timeZone={unit.timeZone} {...(may ? { onChange: () => setWriting(f) } : {})} />
      ))}
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
        <p className="mt-2 text-soft">Nothing yet: measure, or record what was seen.</p>
      )}
      <List statements={against} />
      <More title="Cleared" statements={cleared} />
      <More title="Noted" statements={noted} />
      {writing && (
        <FindingDialog view={view} replaces={writing === 'new' ? null : writing} onClose={() => setWriting(null)} />
      )}
    </section>
  );
}

function More({ title, statements }: { title: string; statements: readonly Statement[] }) {
  if (statements.length === 0) return null;
  return (
    <details className="mt-2" open={statements.length < 4}>
      <summary className="min-h-8 cursor-pointer font-semibold text-soft">
        {title} ({statements.length})
      </summary>
      <List statements={statements} />
    </details>
  );
}

/** The same said of several positions is one line that opens. */
function List({ statements }: { statements: readonly Statement[] }) {
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
        return s && <li key={i}>{g.length > 1 ? <Several first={s} all={g} /> : <Said s={s} />}</li>;
      })}
    </ul>
  );
}

const SEVERAL: Readonly<Record<Stand, string>> = { bad: 'bad', suspect: 'suspected', cleared: 'good', noted: 'noted' };

function Several({ first, all }: { first: Statement; all: readonly Statement[] }) {
  const [word, tone] = STANDS[first.stand];
  const positions = all.flatMap((s) => (s.target.position === null ? [] : [s.target.position]));
  return (
    <details className="rounded-lg px-2 py-1 open:bg-panel">
      <summary className="cursor-pointer">
        <b className={tone}>{word}</b> {capital(targetsWords(first.target, positions))}: {SEVERAL[first.stand]}.
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

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

function Said({ s }: { s: Statement }) {
  const [word, tone] = STANDS[s.stand];
  return (
    <details className="rounded-lg px-2 py-1 open:bg-panel">
      <summary className="cursor-pointer">
        <b className={tone}>{word}</b> {s.text}
      </summary>
      <p className="mt-1 text-sm">
        Why: {RULES[s.rule]} <span className="text-soft">Common practice, no source.</span>
      </p>
      <p className="text-sm text-soft">From: {s.from.map((r) => r.label).join('; ')}</p>
    </details>
  );
}

function Finding({
  finding: { body: f, by, at },
  timeZone,
  onChange,
}: {
  finding: FindingView;
  timeZone: string;
  onChange?: () => void;
}) {
  return (
    <article className="mt-2 rounded-lg border-2 border-estuary p-3">
      <p className="text-lg font-bold">
        {f.kind === 'found' ? 'Finding: ' : ''}
        {findingWords(f)}
        {f.kind === 'found' && <span className="ml-2 font-normal text-soft">{f.confidence}</span>}
      </p>
      {f.kind === 'found' && f.supports.length > 0 && (
        <p>
          <b>For:</b> {f.supports.map((r) => r.label).join('; ')}
        </p>
      )}
      {f.kind === 'found' && f.against.length > 0 && (
        <p>
          <b>Against:</b> {f.against.map((r) => r.label).join('; ')}
        </p>
      )}
      {f.ruledOut.length > 0 && (
        <details>
          <summary className="cursor-pointer">Ruled out ({f.ruledOut.length})</summary>
          <ul>
            {f.ruledOut.map((r) => (
              <li key={r.what}>
                <b>{r.what}</b>: {r.by}
              </li>
            ))}
          </ul>
        </details>
      )}
      {f.kind === 'found' && f.advice && (
        <p>
          <b>Advised:</b> {f.advice}
        </p>
      )}
      {f.kind === 'not-found' && (
        <p>
          <b>If it returns:</b> {f.ifReturns}
        </p>
      )}
      <p className="flex items-center gap-3 text-sm text-soft">
        {shownTime(at, timeZone)}, {by}
        {onChange && (
          <button type="button" className="min-h-10 underline" onClick={onChange}>
            change
          </button>
        )}
      </p>
    </article>
  );
}
