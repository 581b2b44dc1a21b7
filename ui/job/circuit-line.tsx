'use client';
import { ChevronRight } from 'lucide-react';
import { Link } from '../kit/link';
import type { CircuitView, JobView } from '../../application/views';

/** Each circuit behind the readings in a line: who leads. Its own page shows it in full. */
export function CircuitLines({ view }: { view: JobView }) {
  if (view.circuits.length === 0) return null;
  return (
    <section aria-label="Circuits" className="rounded-xl bg-card px-4 py-1">
      <ul className="divide-y divide-line">
        {view.circuits.map((c) => (
          <li key={c.circuit.id}>
            <Link
              href={`/jobs/${view.job.id}/circuits#${c.circuit.id}`}
              className="flex min-h-12 items-center justify-between gap-2 py-1"
            >
              <span className="min-w-0">
                <b className="block truncate">{c.circuit.name}</b>
                <span className="block truncate text-sm text-soft">{leading(c)}</span>
              </span>
              <ChevronRight size={20} aria-hidden="true" className="shrink-0 text-soft" />
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

function leading({ diagnosis: d }: CircuitView): string {
  const [first] = d.suspects;
  if (!first || d.unexplained > first.probability) return 'Nothing in it stands out.';
  return `${Math.min(99, Math.round(100 * first.probability))} % ${first.words}`;
}
