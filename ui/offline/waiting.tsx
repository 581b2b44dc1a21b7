'use client';
import { tr } from '../../core/locale/translate';
import { Download, RotateCw, TriangleAlert } from 'lucide-react';
import { Link } from '../kit/link';
import { useEffect, useState } from 'react';
import { useMay, usePerson } from '../kit/session';
import { flush, queuedItems, onOutbox, takeOver, type WaitingLane } from './outbox';
import { saveQueue } from './save-queue';

/**
 * On every page: what the bench has kept in this browser goes to the server, whichever page is open. What
 * cannot go is said, with the reason, and can be taken out as a file. While there is no server at all the
 * bench says so itself.
 */
export function Waiting() {
  const person = usePerson();
  // Whoever may change people may answer for what one of them has left on a tablet.
  const mayTakeOver = useMay('person.change');
  const [lanes, setLanes] = useState<readonly WaitingLane[]>([]);
  const [refused, setRefused] = useState(0);
  useEffect(() => {
    const stop = onOutbox((event) => {
      if (event.type !== 'waiting') return;
      setLanes(event.lanes.filter((l) => l.trouble.kind !== 'unreachable'));
      void queuedItems().then((items) => setRefused(items.filter((i) => i.refused).length));
    });
    void flush().catch(() => undefined);
    return stop;
  }, []);
  if (lanes.length === 0) return refused > 0 ? <NotTaken count={refused} /> : null;
  const entries = lanes.reduce((sum, l) => sum + l.entries, 0);
  return (
    <aside aria-label="Entries that wait" className="no-print fixed right-3 bottom-3 z-40 max-w-md text-sm">
      {/* Folded it covers nothing that is needed on the bench. */}
      <details className="rounded-xl border-2 border-ochre bg-card shadow-lg">
        <summary className="flex min-h-9 cursor-pointer items-center gap-2 px-3 font-semibold text-ochre">
          <TriangleAlert size={18} aria-hidden="true" />
          {entries === 1 ? '1 entry waits' : tr`${entries} entries wait`}
        </summary>
        <div className="border-t border-line p-3">
          <ul>
            {lanes.map((l) => (
              <li key={l.lane}>
                <b>{l.entries === 1 ? '1 entry' : tr`${l.entries} entries`}</b> of {l.by} wait
                {l.entries === 1 ? 's' : ''} in this browser:{' '}
                {l.trouble.kind === 'unreachable' ? 'no server.' : l.trouble.message}
                {mayTakeOver && l.trouble.kind === 'signed-out' && l.by !== person && (
                  <button
                    type="button"
                    className="mt-1 block min-h-11 rounded-lg border border-line px-3 font-semibold"
                    onClick={() => void takeOver(l.lane, person)}
                  >
                    Send as mine, typed by {l.by}
                  </button>
                )}
              </li>
            ))}
          </ul>
          <Link href="/waits" className="mt-1 inline-flex min-h-11 items-center font-semibold underline">
            What waits
          </Link>
          <div className="mt-2 flex flex-wrap gap-2">
            <button
              type="button"
              className="inline-flex min-h-11 items-center gap-2 rounded-lg border border-line px-3 font-semibold"
              onClick={() => void flush(true)}
            >
              <RotateCw size={18} aria-hidden="true" /> Try again
            </button>
            <button
              type="button"
              className="inline-flex min-h-11 items-center gap-2 rounded-lg border border-line px-3"
              onClick={() => void saveQueue()}
            >
              <Download size={18} aria-hidden="true" /> Save as a file
            </button>
          </div>
        </div>
      </details>
    </aside>
  );
}

/** Something was refused: its person decides, on the page of what waits. */
const NotTaken = ({ count }: { count: number }) => (
  <aside aria-label="Not taken" className="no-print fixed right-3 bottom-3 z-40 text-sm">
    <Link
      href="/waits"
      className="flex min-h-11 items-center gap-2 rounded-xl border-2 border-rust bg-card px-3 font-semibold text-rust shadow-lg"
    >
      <TriangleAlert size={18} aria-hidden="true" />
      {count === 1 ? '1 entry was not taken' : tr`${count} entries were not taken`}
    </Link>
  </aside>
);
