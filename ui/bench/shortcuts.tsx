'use client';
import { Dialog } from '../kit/dialog';

const KEYS = [
  ['0–9 . ,', 'what the display shows, digit for digit'],
  ['k  m  M', 'kilo, milli, mega: 4.5k or 4k5'],
  ['Enter', 'record, go to the next position'],
  ['o', 'OL: the display shows overload'],
  ['w or ~', 'it wanders: 0.4 w 0.9'],
  ['>', 'more than: >20M'],
  ['↓ ↑', 'next, previous position (→ ← while nothing is typed)'],
  ['z', 'zero the leads'],
  ['y', 'yes: the next of what must be true is so'],
  ['p', 'the meter is proven, where it is doubted'],
  ['l', 'listen to the meter, or stop'],
  ['F9', 'yes to what is asked while it listens; a foot switch that sends F9 does it too'],
  ['u', 'while it listens: the last position again'],
  ['f', 'while it listens: the far view'],
  ['Esc', 'empty the field, back to what is missing'],
  ['?', 'this sheet'],
] as const;

export function Shortcuts({ onClose }: { onClose: () => void }) {
  return (
    <Dialog
      onClose={onClose}
      onCloseAutoFocus={(e) => {
        e.preventDefault();
        document.getElementById('entry')?.focus();
      }}
      title="Keys on the bench"
      description="To correct a reading, go to it, type the new one and press Enter. The old one stays in the record."
    >
      <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-2">
        {KEYS.map(([key, meaning]) => (
          <div key={key} className="contents">
            <dt className="font-mono font-semibold whitespace-pre">{key}</dt>
            <dd>{meaning}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
