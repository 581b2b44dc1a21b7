'use client';
import { Calculator } from 'lucide-react';
import dynamic from 'next/dynamic';
import { useState } from 'react';

const SumsDrawer = dynamic(() => import('./calculations-drawer').then((m) => m.CalculationsDrawer));

/** `look`: how its word stands by its icon. */
export function CalculationsButton({ jobId, look }: { jobId: string | null; look: string }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button
        type="button"
        title="Sums"
        onClick={() => setOpen(true)}
        className={`inline-flex min-h-11 min-w-11 items-center justify-center rounded-lg text-soft hover:text-ink ${look}`}
      >
        <Calculator size={18} aria-hidden="true" />
        <span>Sums</span>
      </button>
      {open && <SumsDrawer jobId={jobId} onClose={() => setOpen(false)} />}
    </>
  );
}
