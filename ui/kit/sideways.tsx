'use client';
import { type ReactNode, useEffect, useRef, useState } from 'react';

/** What may be wider than the glass is moved sideways by itself; by the arrow keys too, but it is a stop of the Tab key only where there is something to move. */
export function Sideways({ name, children }: { name: string; children: ReactNode }) {
  const at = useRef<HTMLDivElement>(null);
  const [isWider, setIsWider] = useState(false);
  useEffect(() => {
    const box = at.current;
    if (!box) return undefined;
    const watcher = new ResizeObserver(() => setIsWider(box.scrollWidth > box.clientWidth));
    watcher.observe(box);
    return () => watcher.disconnect();
  }, []);
  return (
    <div ref={at} className="overflow-x-auto" {...(isWider ? { tabIndex: 0, role: 'group', 'aria-label': name } : {})}>
      {children}
    </div>
  );
}
