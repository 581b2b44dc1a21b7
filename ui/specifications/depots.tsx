'use client';
import { useState } from 'react';
import type { SpecificationsView } from '../../application/specifications-view';
import { OtherProblems } from '../kit/form';
import { useOnClient } from '../kit/on-client';
import { useSend } from '../kit/use-send';

const RULES = [
  ['three-way', 'Three-way: says “cannot tell”'],
  ['simple', 'Simple: the value as it stands'],
  ['guarded', 'Guarded: only what is proven at 95 %'],
] as const;
/** After ISO 4217, as the browser knows them. */
const CURRENCIES = Intl.supportedValuesOf('currency');
const look = 'mt-1 block min-h-12 w-full rounded-lg border-2 border-line bg-card px-2';

/** How each depot accepts, and which school it has picked where there are several. */
export function Depots({ view, by, onDone }: { view: SpecificationsView; by: string; onDone: () => void }) {
  const sender = useSend();
  // A choice made before the page is alive would be lost.
  const alive = useOnClient();
  const schools = [
    ...new Map(
      view.lines
        .filter((l) => l.entry.school && l.status !== 'withdrawn')
        .map((l) => [`${l.entry.test}/${l.entry.school}`, l.entry]),
    ).values(),
  ];
  const tests = [...new Set(schools.map((e) => e.test))];
  const choose = async (depot: string, body: object): Promise<void> => {
    if (await sender.post(`/api/depots/${depot}/choices`, { by, ...body })) onDone();
  };
  return (
    <section className="rounded-xl bg-card p-4" aria-label="How the depots judge">
      <h2 className="font-bold">How the depots judge</h2>
      <p className="text-sm text-soft">Counts for runs that begin from now on.</p>
      <OtherProblems problems={sender.problems} paths={[]} />
      {view.depots.map((d) => (
        <fieldset key={d.id} className="mt-3 border-t border-line pt-2" disabled={sender.busy || !alive}>
          <legend className="font-semibold">{d.name}</legend>
          <label className="block text-sm">
            Decision rule
            <select
              className={look}
              value={d.decision}
              onChange={(e) => void choose(d.id, { decision: e.target.value })}
            >
              {RULES.map(([id, label]) => (
                <option key={id} value={id}>
                  {label}
                </option>
              ))}
            </select>
          </label>
          <label className="mt-2 block text-sm">
            Currency
            <select
              className={look}
              value={d.currency ?? 'EUR'}
              onChange={(e) => void choose(d.id, { currency: e.target.value })}
            >
              {(alive ? CURRENCIES : [d.currency ?? 'EUR']).map((c) => (
                <option key={c}>{c}</option>
              ))}
            </select>
          </label>
          <Letterhead text={d.letterhead ?? ''} onKeep={(letterhead) => void choose(d.id, { letterhead })} />
          {tests.map((test) => (
            <label key={test} className="mt-2 block text-sm">
              House rule for {view.tests.find((t) => t.id === test)?.name ?? test}
              <select
                className={look}
                value={d.schools[test] ?? ''}
                onChange={(e) => void choose(d.id, { school: { test, name: e.target.value || null } })}
              >
                <option value="">none picked</option>
                {schools
                  .filter((s) => s.test === test)
                  .map((s) => (
                    <option key={s.school} value={s.school ?? ''}>
                      {s.school}
                    </option>
                  ))}
              </select>
            </label>
          ))}
        </fieldset>
      ))}
    </section>
  );
}

/** Name and address at the head of what the payer is given. */
function Letterhead({ text, onKeep }: { text: string; onKeep: (text: string) => void }) {
  const [typed, setTyped] = useState(text);
  return (
    <label className="mt-2 block text-sm">
      Head of letters: name and address, a line each
      <textarea
        className={`${look} py-2`}
        rows={3}
        maxLength={400}
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={() => {
          if (typed.trim() !== text) onKeep(typed.trim());
        }}
      />
    </label>
  );
}
