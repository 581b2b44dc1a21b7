'use client';
import { Delete } from 'lucide-react';

const KEYS = ['1', '2', '3', '4', '5', 'k', 'back', '6', '7', '8', '9', '0', '.', 'Enter'] as const;

/** Keys large enough for gloves. `open` null: shown where there is no fine pointer. */
export function Pad({
  open,
  seen = false,
  onPress,
}: {
  open: boolean | null;
  seen?: boolean;
  onPress: (key: string) => void;
}) {
  const grid = open === null ? 'hidden pointer-coarse:grid' : open ? 'grid' : 'hidden';
  if (seen) {
    return (
      <div className={`no-print shrink-0 ${grid} grid-cols-2 gap-2`} role="group" aria-label="Pass or fail">
        {(['pass', 'fail'] as const).map((key) => (
          <button
            key={key}
            type="button"
            onClick={() => onPress(key)}
            className={`min-h-20 rounded-xl border-2 bg-card text-2xl font-bold ${key === 'pass' ? 'border-eelgrass text-eelgrass' : 'border-rust text-rust'}`}
          >
            {key === 'pass' ? 'Pass' : 'Fail'}
          </button>
        ))}
      </div>
    );
  }
  return (
    <div className={`no-print shrink-0 ${grid} grid-cols-7 gap-2`} role="group" aria-label="Number pad">
      {KEYS.map((key) => (
        <button
          key={key}
          type="button"
          onClick={() => onPress(key)}
          aria-label={key === 'back' ? 'Delete the last sign' : key === 'Enter' ? 'Record' : key}
          className={`flex min-h-14 items-center justify-center rounded-xl border text-2xl font-semibold ${key === 'Enter' ? 'border-estuary bg-estuary text-lg text-on-estuary' : 'border-line bg-card font-mono'}`}
        >
          {key === 'back' ? <Delete aria-hidden="true" /> : key === 'Enter' ? 'Next' : key}
        </button>
      ))}
    </div>
  );
}
