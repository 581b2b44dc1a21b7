'use client';
import { useSyncExternalStore } from 'react';

const never = () => () => undefined;
/** False on the server and for the first paint, so that both draw the same. */
export const useOnClient = () =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );

const today = (): string => new Date().toISOString().slice(0, 10);
/** The date, "2026-11-23"; `null` on the server and for the first paint. */
export const useToday = () => useSyncExternalStore(never, today, () => null);
