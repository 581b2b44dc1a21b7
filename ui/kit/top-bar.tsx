import Link from 'next/link';
import type { ReactNode } from 'react';
import { Logo } from './logo';
import { Selects } from './selects';

/** The bar over every screen: where I am, which unit, who I am, which light. */
export function TopBar({ persons, children }: { persons: readonly string[]; children?: ReactNode }) {
  return (
    <header className="flex min-h-13 shrink-0 flex-wrap items-center gap-x-4 gap-y-1 border-b border-line bg-panel px-4 py-1">
      <Link href="/" className="flex min-h-11 items-center gap-2 text-xl font-bold"><Logo /><span className="sr-only sm:not-sr-only">Mudflat</span></Link>
      <div className="order-last flex min-w-0 flex-1 basis-full flex-wrap items-baseline gap-x-4 text-soft md:order-none md:basis-0">{children}</div>
      <Selects persons={persons} />
    </header>
  );
}
