import type { ReactNode } from 'react';

/** The head of a part of the workshop’s screen, with what can be done there. */
export function Title({ text, children }: { text: string; children?: ReactNode }) {
  return (
    <div className="mt-6 mb-2 flex flex-wrap items-center justify-between gap-2">
      <h2 className="text-lg font-semibold">{text}</h2>
      <div className="flex flex-wrap gap-2">{children}</div>
    </div>
  );
}
