'use client';
import { useSyncExternalStore } from 'react';

/** Who is at the bench. Kept in this browser. */
const KEY = 'mudflat-person';
const listeners = new Set<() => void>();

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  window.addEventListener('storage', listener);
  return () => {
    listeners.delete(listener);
    window.removeEventListener('storage', listener);
  };
};

export function setPerson(name: string): void {
  localStorage.setItem(KEY, name);
  for (const listener of listeners) listener();
}

/** The chosen person, or the first of the list while nobody is chosen. */
export function usePerson(names: readonly string[]): string {
  const kept = useSyncExternalStore(subscribe, () => localStorage.getItem(KEY), () => null);
  return kept && names.includes(kept) ? kept : names[0] ?? 'Unnamed technician';
}
