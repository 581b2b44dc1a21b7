'use client';
import { tr } from '../../core/locale/translate';
import { TriangleAlert } from 'lucide-react';
import { memo, useState, useSyncExternalStore } from 'react';
import { usePerson } from './session';

/**
 * Cautions before a step: at most two lines of the first one, the rest at a tap. The first time that a person
 * meets them they stand in full.
 */
export const Cautions = memo(function Cautions({ id, all }: { id: string; all: readonly string[] }) {
  const person = usePerson();
  const key = `cautions seen ${person}: ${id}`;
  const isSeen = useSyncExternalStore(
    () => () => undefined,
    () => wasSeen(key),
    () => false,
  );
  const [isOpen, setOpen] = useState<boolean | null>(null);
  const open = isOpen ?? !isSeen;
  const [first, ...rest] = all;
  if (first === undefined) return null;
  return (
    <div className="rounded-lg border-l-4 border-ochre bg-panel px-3 py-1">
      <p className={open ? '' : 'line-clamp-2'}>
        <TriangleAlert size={16} className="mr-1 inline text-ochre" aria-hidden="true" />
        <b>{first}</b>
        {open && rest.map((c) => <span key={c}> {c}</span>)}
      </p>
      {rest.length > 0 && (
        <button
          type="button"
          aria-expanded={open}
          className="min-h-11 text-sm underline"
          onClick={() => {
            remember(key);
            setOpen(!open);
          }}
        >
          {open ? 'I have read them' : tr`All ${all.length} cautions`}
        </button>
      )}
    </div>
  );
});

function wasSeen(key: string): boolean {
  try {
    return localStorage.getItem(key) !== null;
  } catch {
    // Nothing is kept here: they stand in full.
    return false;
  }
}

function remember(key: string): void {
  try {
    localStorage.setItem(key, '1');
  } catch {
    // Then they stand in full the next time too.
  }
}
