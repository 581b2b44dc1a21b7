'use client';
import { tr } from '../../core/locale/translate';
import { Link } from '../kit/link';
import { useState } from 'react';
import type { LibraryCapture } from '../../application/views';
import { inputLook } from '../kit/field';
import { conditionWords } from './cycle-words';

/** Captures of all units, by engine family: what a new one can be laid over. */
export function CaptureLibrary({ captures }: { captures: readonly LibraryCapture[] }) {
  const [wanted, setWanted] = useState('');
  const words = wanted.toLowerCase().split(/\s+/).filter(Boolean);
  const found = captures.filter((c) => words.every((w) => textOf(c).includes(w)));
  const families = [...new Set(found.map((c) => c.family))].sort();
  return (
    <main className="mx-auto flex w-full max-w-5xl flex-1 flex-col gap-3 p-3 sm:p-4">
      <h1 className="text-xl font-bold">Library of captures</h1>
      <label className="text-sm">
        Search: family, unit, condition, what it is good for
        <input
          className={inputLook}
          value={wanted}
          autoComplete="off"
          placeholder="L4-20 known good cranking"
          onChange={(e) => setWanted(e.target.value)}
        />
      </label>
      {captures.length === 0 && (
        <p className="rounded-xl bg-card p-4">
          No capture over crank angle was taken in yet. Take one in under Recordings of a job: crank, cam, starter or
          injector current. A lead says which of them is known good.
        </p>
      )}
      {captures.length > 0 && found.length === 0 && <p role="status">Nothing of that is here.</p>}
      {families.map((family) => (
        <section key={family} aria-label={family}>
          <h2 className="mt-2 font-semibold text-soft">{family}</h2>
          <ul className="flex flex-col gap-2">
            {found
              .filter((c) => c.family === family)
              .map((c) => (
                <li key={c.id} className="rounded-xl bg-card p-3">
                  <Link href={`/traces/${c.id}`} className="inline-flex min-h-12 items-center font-bold underline">
                    {c.unit}, {c.name}
                  </Link>{' '}
                  <span className={`rounded-full border-2 px-3 py-0.5 text-sm ${TONES[c.standing]}`}>{c.standing}</span>
                  <p className="text-sm text-soft">
                    Recorded while {conditionWords(c.capture)}
                    {c.capture.cycle && tr`, ${Math.round(c.capture.cycle.speed_rpm)} rpm`};{' '}
                    {c.channels.map((h) => h.name).join(', ')}. {c.by}
                  </p>
                </li>
              ))}
          </ul>
        </section>
      ))}
    </main>
  );
}

const TONES = { 'known good': 'border-eelgrass', unknown: 'border-line', bad: 'border-rust' } as const;
const textOf = (c: LibraryCapture): string =>
  [c.family, c.unit, c.name, c.standing, c.capture.condition, conditionWords(c.capture), c.by].join(' ').toLowerCase();
