'use client';
import { useSyncExternalStore } from 'react';
import type { Slot } from '../../core/calculations/types';

/** What the bench can fill a sum with: told by the bench while it is open, by what a slot asks for. */
export type BenchFacts = Readonly<Partial<Record<NonNullable<Slot['from']>, string>>>;

const NOTHING: BenchFacts = {};
let facts: BenchFacts = NOTHING;
const listeners = new Set<() => void>();

export function tellBenchFacts(next: BenchFacts | null): void {
  facts = next ?? NOTHING;
  for (const listener of listeners) listener();
}

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

export const useBenchFacts = (): BenchFacts =>
  useSyncExternalStore(
    subscribe,
    () => facts,
    () => NOTHING,
  );
