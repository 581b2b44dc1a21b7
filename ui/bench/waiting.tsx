'use client';
import { Download, RotateCw } from 'lucide-react';
import { useEffect, useState } from 'react';
import { exportWaiting, flush, onOutbox, type WaitingLane } from './outbox';

/**
 * On every page: what the bench has kept in this browser goes to the server, whichever page is open. What
 * cannot go is said, with the reason, and can be taken out as a file. While there is no server at all the
 * bench says so itself.
 */
export function Waiting() {
  const [lanes, setLanes] = useState<readonly WaitingLane[]>([]);
  useEffect(() => {
    const stop = onOutbox((event) => {
      if (event.type === 'waiting') setLanes(event.lanes.filter((l) => l.trouble.kind !== 'unreachable'));
    });
    void flush().catch(() => undefined);
    return stop;
  }, []);
  if (lanes.length === 0) return null;
  return (
    <aside
      aria-label="Entries that wait"
      className="no-print fixed right-3 bottom-14 z-40 max-w-md rounded-xl border-2 border-ochre bg-card p-3 text-sm shadow-lg"
    >
      <ul role="status">
        {lanes.map((l) => (
          <li key={`${l.by}|${l.runId}`}>
            <b>{l.entries === 1 ? '1 entry' : `${l.entries} entries`}</b> of {l.by} wait{l.entries === 1 ? 's' : ''} in
            this browser: {l.trouble.kind === 'unreachable' ? 'no server.' : l.trouble.message}
          </li>
        ))}
      </ul>
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
          onClick={() => void exportWaiting().then(save)}
        >
          <Download size={18} aria-hidden="true" /> Save as a file
        </button>
      </div>
    </aside>
  );
}

function save(text: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type: 'application/json' }));
  link.download = 'waiting-entries.json';
  link.click();
  URL.revokeObjectURL(link.href);
}
