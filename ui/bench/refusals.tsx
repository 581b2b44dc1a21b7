'use client';
import { positionWords } from '../../core/judge/words';
import type { Line } from './use-run';

/** Readings that the server would not take: nothing is thrown away before the person has decided. */
export function Refusals({
  lines,
  onSend,
  onDiscard,
}: {
  lines: readonly Line[];
  onSend: (line: Line) => void;
  onDiscard: (id: string) => void;
}) {
  const refused = lines.filter((l) => l.state === 'refused');
  if (refused.length === 0) return null;
  return (
    <ul className="shrink-0 rounded-xl border-2 border-rust bg-card p-3 text-sm" role="alert">
      {refused.map((l) => (
        <li key={l.id} className="flex flex-wrap items-center gap-2">
          <span className="flex-1">
            Your <b className="font-mono">{l.entry}</b> at {positionWords(l.position)} was not stored:{' '}
            {l.problem?.errors[0]?.message ?? l.problem?.title}
          </span>
          <button
            type="button"
            className="min-h-10 rounded-lg border border-line px-3 font-semibold"
            onClick={() => onSend(l)}
          >
            Send as correction
          </button>
          <button type="button" className="min-h-10 rounded-lg border border-line px-3" onClick={() => onDiscard(l.id)}>
            Drop mine
          </button>
        </li>
      ))}
    </ul>
  );
}
