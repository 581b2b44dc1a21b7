import { useEffect, useState } from 'react';

/** With less than this a day's photos do not fit. */
const LITTLE_bytes = 100e6;
const LOOK_ms = 60_000;

/** Bytes that this browser still takes, where that is little; `null`: enough, or it does not say. */
export function useLittleRoom(): number | null {
  const [left, setLeft] = useState<number | null>(null);
  useEffect(() => {
    const look = async (): Promise<void> => {
      const { quota, usage } = await navigator.storage.estimate();
      const free = quota === undefined || usage === undefined ? Infinity : quota - usage;
      setLeft(free < LITTLE_bytes ? Math.max(0, free) : null);
    };
    if (!('storage' in navigator)) return undefined;
    void look().catch(() => undefined);
    const timer = setInterval(() => void look().catch(() => undefined), LOOK_ms);
    return () => clearInterval(timer);
  }, []);
  return left;
}
