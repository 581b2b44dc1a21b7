'use client';
import { createContext, type ReactNode, useContext, useEffect, useState } from 'react';

type Count = (by: 1 | -1) => void;
const Begun = createContext<Count>(() => undefined);

/** A form says that something stands in it that is not kept yet. */
export function useBegun(isBegun: boolean): void {
  const count = useContext(Begun);
  useEffect(() => {
    if (!isBegun) return undefined;
    count(1);
    return () => count(-1);
  }, [isBegun, count]);
}

/** What stays in its place while a form in it is begun. */
export interface Held<T> {
  readonly shown: T;
  /** Something else is wanted, and what was begun is not kept yet. */
  readonly isLeft: boolean;
  readonly leave: () => void;
  readonly count: Count;
}

/**
 * Shows what is wanted, but keeps showing what it shows as long as a form in it is begun: what is typed is
 * not taken away because something else has happened meanwhile. The forms stand inside `HeldForms`.
 */
export function useHeld<T>(wanted: T): Held<T> {
  const [shown, setShown] = useState(wanted);
  const [begun, setBegun] = useState(0);
  const [count] = useState<Count>(() => (by: 1 | -1) => setBegun((n) => n + by));
  const isLeft = begun > 0 && shown !== wanted;
  if (begun === 0 && shown !== wanted) setShown(wanted);
  return { shown: isLeft ? shown : wanted, isLeft, leave: () => setShown(wanted), count };
}

export const HeldForms = ({ count, children }: { count: Count; children: ReactNode }) => (
  <Begun.Provider value={count}>{children}</Begun.Provider>
);
