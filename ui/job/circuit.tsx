'use client';
import { fixed } from '../../core/locale/numbers';
import { tr } from '../../core/locale/translate';
import dynamic from 'next/dynamic';
import { Link } from '../kit/link';
import { useState } from 'react';
import type { ComparedReading, ExpectedReading } from '../../core/diagnosis/case';
import { DECIDED_ERROR } from '../../core/diagnosis/claims';
import type { Suspect, WeighedEvidence } from '../../core/diagnosis/types';
import { positionWords } from '../../core/judge/words';
import type { NextStep } from '../../core/job/next-step';
import type { CircuitView, JobView } from '../../application/views';
import { Button } from '../kit/button';
import { Sideways } from '../kit/sideways';
import { Schematic } from './schematic';

const WhatIf = dynamic(() => import('./what-if').then((m) => m.WhatIf));

/** The circuits behind a job's readings, in full. */
export function CircuitsOfJob({ view }: { view: JobView }) {
  return (
    <main className="mx-auto flex w-full max-w-5xl flex-1 flex-col gap-4 p-4">
      <p>
        <Link className="inline-flex min-h-12 items-center underline" href={`/jobs/${view.job.id}`}>
          Back to the job
        </Link>
        {view.progress.next && (
          <span className="ml-4">
            <b className="text-estuary">Now: </b>
            {view.progress.say}
          </span>
        )}
      </p>
      {view.circuits.length === 0 && <p>Nothing was measured in a circuit that is known here.</p>}
      {view.circuits.map((c) => (
        <CircuitCard key={c.circuit.id} view={c} now={view.progress.next} />
      ))}
    </main>
  );
}

/**
 * The circuit behind the readings: who is suspected how much, by what, and which test tells them apart. `now`
 * is what the job asks for: another test of this circuit is only in its place.
 */
export function CircuitCard({ view, now }: { view: CircuitView; now: NextStep | null }) {
  const { circuit, wiring, diagnosis: d, expected, compared } = view;
  const [asking, setAsking] = useState(false);
  const shares = new Map<string, number>();
  for (const s of d.suspects) shares.set(s.element, Math.min(1, (shares.get(s.element) ?? 0) + s.probability));
  const [next] = d.next;
  return (
    <section id={circuit.id} aria-label={tr`Circuit: ${circuit.name}`} className="scroll-mt-4 rounded-xl bg-card p-4">
      <div className="flex flex-wrap items-center justify-between gap-2">
        <h2 className="font-semibold text-soft">The circuit behind it: {circuit.name}</h2>
        <Button onClick={() => setAsking(!asking)} aria-expanded={asking}>
          What if
        </Button>
      </div>
      <Schematic circuit={circuit} wiring={wiring} shares={shares} probe={!d.decided && next ? next : null} />
      <ol className="flex flex-col gap-1">
        {d.suspects.slice(0, 4).map((s) => (
          <li key={s.key}>
            <SuspectLine s={s} />
          </li>
        ))}
      </ol>
      {d.unexplained >= 0.05 && (
        <p className="mt-1 px-2">
          <b>{percent(d.unexplained)}</b> a cause outside this circuit
          {d.unexplained >= 0.5 ? ': mechanics, fuel, air, or a test not done yet' : ''}.
        </p>
      )}
      {view.before.length > 0 && (
        <details className="mt-1 px-2 text-sm">
          <summary className="cursor-pointer text-soft">Taken into account before anything was measured</summary>
          <ul className="list-disc pl-5">
            {view.before.map((b) => (
              <li key={b}>{b}</li>
            ))}
          </ul>
        </details>
      )}
      {d.notes.map((n) => (
        <p key={n} className="mt-1 px-2 text-ochre">
          {n}
        </p>
      ))}
      {d.decided ? (
        <p className="mt-2 px-2 font-semibold text-eelgrass">
          Decided as far as this circuit goes: on simulated vehicles at most {100 * DECIDED_ERROR} in 100 decided so
          were wrong. A reading that does not fit, taken twice, would change it.
        </p>
      ) : (
        expected.length > 0 && (
          <div className="mt-2 rounded-lg border-2 border-estuary p-3">
            <p>
              <b className="text-estuary">
                {now?.act.do === 'measure' && now.act.test === expected[0]?.test
                  ? 'Now: '
                  : 'Instead, of this circuit: '}
              </b>
              <b>
                {expected[0]?.name}, {positionWords(expected[0]?.position ?? '')}.
              </b>{' '}
              {next?.why}
            </p>
            <Predicted all={expected} />
          </div>
        )
      )}
      {compared.length > 0 && (
        <details className="mt-2 rounded-lg px-2 py-1 open:bg-panel">
          <summary className="cursor-pointer font-semibold">What was read, beside what the meter would show</summary>
          <Predicted all={compared} />
        </details>
      )}
      {asking && <WhatIf circuit={circuit} wiring={wiring} />}
      <p className="mt-2 px-2 text-sm text-soft">
        Values of good parts and how often what fails: common practice, no source. The maker’s service information goes
        first.
      </p>
    </section>
  );
}

/**
 * Points of measurement, one in a row: what was read there, if it was, and what the meter would show if all
 * were well and under each leading suspect.
 */
function Predicted({ all }: { all: readonly (ExpectedReading & Partial<ComparedReading>)[] }) {
  const [first] = all;
  if (!first) return null;
  return (
    <Sideways name={first.read === undefined ? 'What the meter would show' : 'What was read'} className="mt-1">
      <table className="w-full text-left text-sm">
        <thead className="align-bottom text-soft">
          <tr>
            <th scope="col">{first.read === undefined ? 'What the meter would show' : 'Where'}</th>
            {first.read !== undefined && <th scope="col">read</th>}
            {first.readings.map((r) => (
              <th scope="col" key={r.when} className="pl-3">
                {r.when}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {all.map((e) => (
            <tr key={`${e.test} ${e.position}`} className="border-t border-line">
              <th scope="row" className="py-1 font-normal">
                {e.name}, {positionWords(e.position)}
              </th>
              {e.read !== undefined && <td className="font-mono font-bold">{e.read}</td>}
              {e.readings.map((r) => (
                <td key={r.when} className="pl-3 font-mono">
                  {r.shown}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Sideways>
  );
}

const percent = (share: number): string =>
  share >= 0.995 ? 'nearly certain' : share < 0.01 ? 'under 1 %' : `${Math.round(share * 100)} %`;

function SuspectLine({ s }: { s: Suspect }) {
  const toneOf = s.probability >= 0.5 ? 'text-rust' : 'text-ochre';
  return (
    <details className="rounded-lg px-2 py-1 open:bg-panel">
      <summary className="cursor-pointer">
        <b className={toneOf}>{percent(s.probability)}</b> {s.isListed === false && 'something else here: '}
        {s.words}
      </summary>
      {s.isListed === false && (
        <p className="text-sm text-soft">
          The data of this circuit do not list it. The readings confine it to: {(s.stretch ?? [s.element]).join(', ')}.
        </p>
      )}
      <Weighed title="For" all={s.supports} />
      <Weighed title="Against" all={s.contradicts} />
      {s.supports.length + s.contradicts.length === 0 && (
        <p className="text-sm text-soft">Nothing measured speaks for it or against it: only how often it happens.</p>
      )}
    </details>
  );
}

function Weighed({ title, all }: { title: string; all: readonly WeighedEvidence[] }) {
  if (all.length === 0) return null;
  return (
    <div className="text-sm">
      <b>{title}:</b>
      <ul>
        {[...all]
          .sort((a, b) => Math.abs(b.nats) - Math.abs(a.nats))
          .slice(0, 6)
          .map((w) => (
            <li key={w.label}>
              {w.strength}: {w.label} <span className="text-soft">({fixed(Math.abs(w.nats), 1)} nats)</span>
            </li>
          ))}
      </ul>
    </div>
  );
}
