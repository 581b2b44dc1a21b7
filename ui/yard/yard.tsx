'use client';
import { tr } from '../../core/locale/translate';
import { FileUp, Plus, Search } from 'lucide-react';
import dynamic from 'next/dynamic';
import { useRouter } from '../kit/router';
import { useEffect, useState, useTransition } from 'react';
import type { FirstStepsView, FleetUnitView, YardView } from '../../application/views';
import { Button } from '../kit/button';
import { useMay } from '../kit/session';
import { FirstSteps } from './first-steps';
import { UnitCard } from './unit-card';

const OpenJob = dynamic(() => import('./open-job').then((m) => m.OpenJobDialog));
const ImportJob = dynamic(() => import('./import-job').then((m) => m.ImportJobDialog));
const AddUnit = dynamic(() => import('./add-unit').then((m) => m.AddUnitDialog));

/** All units of the fleet with their open jobs, those with work to do first. */
export function Yard({ yard, steps }: { yard: YardView; steps: FirstStepsView | null }) {
  const router = useRouter();
  const [search, setSearch] = useState(yard.search);
  const [, startTransition] = useTransition();
  const [opening, setOpening] = useState<FleetUnitView | null>(null);
  const [adding, setAdding] = useState(false);
  const [taking, setTaking] = useState(false);
  const isLead = useMay('job.import');
  // The server searches: a fleet of thousands does not travel to the browser. What is here already is
  // narrowed at once.
  useEffect(() => {
    if (search.trim() === yard.search) return undefined;
    const timer = setTimeout(
      () => startTransition(() => router.replace(search.trim() ? `/?q=${encodeURIComponent(search.trim())}` : '/')),
      150,
    );
    return () => clearTimeout(timer);
  }, [search, yard.search, router]);
  const found = yard.units;
  const [busy, idle] = [found.filter((u) => u.jobs.length), found.filter((u) => !u.jobs.length)];
  return (
    <main className="mx-auto w-full max-w-7xl flex-1 p-4">
      <div className="mb-4 flex flex-wrap items-center gap-3">
        <label className="flex min-h-12 min-w-60 flex-1 items-center gap-2 rounded-lg border-2 border-line bg-card px-3">
          <Search size={18} aria-hidden="true" />
          <span className="sr-only">Find a unit</span>
          <input
            value={search}
            onChange={(e) => setSearch(e.target.value)}
            placeholder="Fleet number, kind, depot, complaint"
            className="min-w-0 flex-1 bg-transparent focus-visible:outline-none"
          />
        </label>
        <Button onClick={() => setAdding(true)}>
          <Plus size={18} aria-hidden="true" />
          Unit
        </Button>
        {isLead && (
          <Button onClick={() => setTaking(true)}>
            <FileUp size={18} aria-hidden="true" />
            Job from elsewhere
          </Button>
        )}
      </div>
      {steps && <FirstSteps steps={steps} />}
      <UnitList title="Open jobs" units={busy} onOpen={setOpening} />
      <UnitList title="No open job" units={idle} onOpen={setOpening} />
      {yard.found > found.length && (
        <p className="py-4 text-soft">
          {found.length} of {yard.found} units. Type a number or a word to find another.
        </p>
      )}
      {found.length === 0 && (
        <p className="py-8 text-soft">
          {yard.search
            ? tr`No unit has “${yard.search}” in its number, kind, depot, engine or complaints.`
            : 'No units yet. Add the first one.'}
        </p>
      )}
      {opening && <OpenJob unit={opening} onClose={() => setOpening(null)} />}
      {taking && <ImportJob yard={yard} onClose={() => setTaking(false)} />}
      {adding && <AddUnit yard={yard} onClose={() => setAdding(false)} />}
    </main>
  );
}

function UnitList({
  title,
  units,
  onOpen,
}: {
  title: string;
  units: YardView['units'];
  onOpen: (unit: FleetUnitView) => void;
}) {
  if (units.length === 0) return null;
  return (
    <section className="mb-6" aria-label={title}>
      <h2 className="mb-2 font-semibold text-soft">{title}</h2>
      <ul className="grid grid-cols-1 gap-3 md:grid-cols-2 xl:grid-cols-3">
        {units.map((u) => (
          <li key={u.id}>
            <UnitCard unit={u} onOpen={() => onOpen(u)} />
          </li>
        ))}
      </ul>
    </section>
  );
}
