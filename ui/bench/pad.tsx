'use client';
import { Delete, Keyboard } from 'lucide-react';
import { useState } from 'react';

const KEYS = ['1', '2', '3', '4', '5', 'k', 'back', '6', '7', '8', '9', '0', '.', 'Enter'] as const;

/** Keys large enough for gloves. Open from the start where there is no fine pointer. */
export function Pad({ onPress }: { onPress: (key: string) => void }) {
  const [open, setOpen] = useState<boolean | null>(null);
  const grid = open === null ? 'hidden pointer-coarse:grid' : open ? 'grid' : 'hidden';
  return (
    <div className="no-print shrink-0">
      <div className={`${grid} grid-cols-7 gap-2`} role="group" aria-label="Number pad">
        {KEYS.map((key) => (
          <button key={key} type="button" onClick={() => onPress(key)} aria-label={key === 'back' ? 'Delete the last sign' : key === 'Enter' ? 'Record' : key}
            className={`flex min-h-14 items-center justify-center rounded-xl border text-2xl font-semibold ${key === 'Enter' ? 'border-estuary bg-estuary text-lg text-on-estuary' : 'border-line bg-card font-mono'}`}>
            {key === 'back' ? <Delete aria-hidden="true" /> : key === 'Enter' ? 'Next' : key}
          </button>
        ))}
      </div>
      <button type="button" aria-expanded={open ?? undefined} onClick={() => setOpen(open === null ? !matchMedia('(pointer: coarse)').matches : !open)}
        className="mt-1 inline-flex min-h-7 items-center gap-2 rounded px-1 text-sm text-soft"><Keyboard size={16} aria-hidden="true" />Large keys</button>
    </div>
  );
}
