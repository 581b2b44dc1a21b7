'use client';
import { useEffect, useState } from 'react';

interface Language {
  readonly code: string;
  readonly name: string;
}

/** Languages that can be chosen here; `own` is always one of them. */
export function useLanguages(own: string): readonly Language[] {
  const [known, setKnown] = useState<readonly Language[]>([]);
  useEffect(() => {
    const leave = new AbortController();
    fetch('/words', { signal: leave.signal })
      .then((r) => r.json() as Promise<readonly Language[]>)
      .then(setKnown)
      // Without the server the language stays what it is.
      .catch(() => undefined);
    return () => leave.abort();
  }, []);
  return known.some((l) => l.code === own) ? known : [{ code: own, name: own }, ...known];
}
