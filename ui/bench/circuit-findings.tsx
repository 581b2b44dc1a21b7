'use client';
import { tr } from '../../core/locale/translate';
import { read } from '../kit/send';
import { startTransition, useEffect, useMemo, useState } from 'react';
import type { Case, WeighedCircuit } from '../../core/diagnosis/case';
import type { DiagnosticReading } from '../../core/diagnosis/types';
import type { Judgement } from '../../core/judge/types';
import { positionWords } from '../../core/judge/words';
import { joinAnd } from '../../core/quantity/print';
import { measuredOf, momentsOfRun } from '../../application/diagnosis/measured';
import type { RunView } from '../../application/views';
import { VERDICT_FIRST_ms } from '../kit/verdict-first';
import { weighBeside, weigher } from '../kit/weigher';

/**
 * What the circuit behind the readings says, while they are read: who is suspected, and which test tells most
 * for its time. Weighed beside the page.
 */
export function CircuitFindings({ view, judgement }: { view: RunView; judgement: Judgement }) {
  const known = useCase(view.id);
  const [weighed, setWeighed] = useState<readonly WeighedCircuit[]>([]);
  const [progress, setProgress] = useState<string | null>(null);
  const { definition: test } = view;
  const asked = useMemo((): readonly DiagnosticReading[] | null => {
    if (!known) return null;
    const own = measuredOf(test, judgement, {
      under: momentsOfRun(test.condition.engine, view.circumstance.condition.partTemperature_degC),
      run: view.id,
    });
    return own.length ? own : null;
  }, [known, judgement, test, view.circumstance, view.id]);
  useEffect(() => {
    if (!asked || !known) return undefined;
    let gone = false;
    // What is typed meanwhile goes first.
    const later = (change: () => void): void => {
      if (!gone) startTransition(change);
    };
    let isWeighing = false;
    const weigh = (): void => {
      isWeighing = true;
      void weighBeside(known, asked, (done, of) =>
        later(() => setProgress(done < of ? tr`${done} of ${of} circuits weighed` : null)),
      ).then(
        (found) => {
          isWeighing = false;
          if (found) later(() => setWeighed(found));
        },
        () => {
          isWeighing = false;
        },
      );
    };
    // The verdict is seen first: what the circuit says comes a moment later anyhow.
    const start = setTimeout(weigh, VERDICT_FIRST_ms);
    return () => {
      gone = true;
      clearTimeout(start);
      if (isWeighing) void weigher().cancel();
    };
  }, [asked, known]);
  const relevant = asked ? weighed.filter((w) => w.diagnosis.suspects.length > 0) : [];
  if (relevant.length === 0) return null;
  return (
    <section
      className="rounded-xl border-2 border-dashed border-estuary bg-card p-3"
      aria-label="What the circuit says"
      aria-live="polite"
    >
      <h2 className="mb-1 text-sm font-semibold text-soft">
        The circuit behind it{progress && <span className="font-normal">: {progress}</span>}
      </h2>
      {relevant.map((w) => (
        <OneCircuit key={w.circuit.id} weighed={w} view={view} isOpen={judgement.pattern === 'incomplete'} />
      ))}
    </section>
  );
}

function OneCircuit({
  weighed: { diagnosis: d },
  view,
  isOpen,
}: {
  weighed: WeighedCircuit;
  view: RunView;
  /** The set is not complete yet. */
  isOpen: boolean;
}) {
  const [next] = d.next;
  const leading = d.suspects.filter((s) => s.probability >= 0.1).slice(0, 2);
  // The meter is the first suspect: what it showed is weighed, and convicts nobody yet.
  if (d.isDoubted)
    return (
      <p className="mb-1 text-soft last:mb-0">
        Once that is settled{leading.length ? tr`: ${joinAnd(leading.map((s) => s.words))}, by what was read.` : '.'}
      </p>
    );
  return (
    <div className="mb-1 last:mb-0">
      {leading.map((s) => (
        <p key={s.key}>
          <b className={s.probability >= 0.5 ? 'text-rust' : 'text-ochre'}>{share(s.probability)}</b>{' '}
          {s.isListed === false && 'something else here: '}
          {s.words}
        </p>
      ))}
      {leading.length === 0 && (
        <p>
          {d.unexplained >= 0.5
            ? 'Nothing in this circuit is wrong as far as it was read.'
            : 'No suspect stands out yet.'}
        </p>
      )}
      {d.notes.map((n) => (
        <p key={n} className="text-ochre">
          {n}
        </p>
      ))}
      {d.decided ? (
        <p className="font-semibold text-eelgrass">Decided as far as this circuit goes.</p>
      ) : (
        next && isOpen && <MostHere next={next} view={view} />
      )}
    </div>
  );
}

const share = (p: number): string => (p >= 0.995 ? 'nearly certain:' : `${Math.round(100 * p)} %`);

/** Where in this test it tells most; what comes after it says the job. */
function MostHere({ next, view }: { next: WeighedCircuit['diagnosis']['next'][number]; view: RunView }) {
  if (next.test !== view.definition.id) return null;
  return (
    <p className="mt-1">
      <b>Tells most here: {positionWords(next.position)}.</b> {next.why}
    </p>
  );
}

/** What the job knows beside this run; nothing while the server does not answer. */
function useCase(runId: string): Case | null {
  const [known, setKnown] = useState<Case | null>(null);
  useEffect(() => {
    const control = new AbortController();
    void read(`/api/runs/${runId}/case`, { signal: control.signal }).then(
      async (r) => {
        if (r.ok) setKnown((await r.json()) as Case);
      },
      () => undefined,
    );
    return () => control.abort();
  }, [runId]);
  return known;
}
