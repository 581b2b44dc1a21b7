'use client';
import { Calculator } from 'lucide-react';
import dynamic from 'next/dynamic';
import { useState } from 'react';

const SumsDrawer = dynamic(() => import('./calculations-drawer').then((m) => m.CalculationsDrawer));

export function CalculationsButton({ jobId, wordy }: { jobId: string | null; wordy: boolean }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button
        type="button"
        title="Sums"
        onClick={() => setOpen(true)}
        className="inline-flex min-h-11 min-w-11 items-center justify-center gap-1.5 rounded-lg px-2 text-sm text-soft hover:text-ink"
      >
        <Calculator size={18} aria-hidden="true" />
        <span className={wordy ? 'sr-only md:not-sr-only' : 'sr-only'}>Sums</span>
      </button>
      {open && <SumsDrawer jobId={jobId} onClose={() => setOpen(false)} />}
    </>
  );
}
