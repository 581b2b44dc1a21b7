'use client';
import { type ReactNode, useEffect, useRef, useState } from 'react';

/**
 * What may be wider than the glass is moved sideways by itself; by the arrow keys too. It is a stop of the
 * Tab key only where there is something to move, and until that is measured: a page that has not come alive
 * yet can still be read.
 */
export function Sideways({
  name,
  className = '',
  children,
}: {
  name: string;
  className?: string;
  children: ReactNode;
}) {
  const at = useRef<HTMLDivElement>(null);
  const [isWider, setIsWider] = useState(true);
  useEffect(() => {
    const box = at.current;
    if (!box) return undefined;
    const watcher = new ResizeObserver(() => setIsWider(box.scrollWidth > box.clientWidth));
    watcher.observe(box);
    for (const inside of box.children) watcher.observe(inside);
    return () => watcher.disconnect();
  }, [children]);
  return (
    <div
      ref={at}
      className={`overflow-x-auto ${className}`}
      {...(isWider ? { tabIndex: 0, role: 'group', 'aria-label': name } : {})}
    >
      {children}
    </div>
  );
}
