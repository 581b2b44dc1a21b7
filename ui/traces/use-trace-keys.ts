'use client';
import { useEffect, useLayoutEffect, useRef } from 'react';

export interface TraceKeys {
  /** Off while a dialog is open. */
  readonly isOn: boolean;
  readonly shift: (share: number) => void;
  readonly zoom: (share: number) => void;
  readonly whole: () => void;
  readonly step: (by: 1 | -1) => void;
  readonly mark: () => void;
  readonly lane: (index: number) => void;
}

/**
 * Arrows move, + and - zoom, 0 shows all, n and p go from finding to finding, m marks, 1 to 9 draw a lane
 * larger.
 */
export function useTraceKeys(keys: TraceKeys): void {
  const latest = useRef(keys);
  // With what is shown, not a moment after it: a key does what it says on the screen.
  useLayoutEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    function onKey(e: KeyboardEvent): void {
      const k = latest.current;
      const isTyping = e.target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(e.target.tagName);
      if (!k.isOn || isTyping || e.ctrlKey || e.metaKey || e.altKey) return;
      const done = act(k, e.key, e.shiftKey);
      if (done) e.preventDefault();
    }
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}

function act(k: TraceKeys, key: string, isFar: boolean): boolean {
  const share = isFar ? 0.8 : 0.15;
  if (key === 'ArrowLeft') k.shift(-share);
  else if (key === 'ArrowRight') k.shift(share);
  else if (key === '+' || key === '=') k.zoom(0.6);
  else if (key === '-' || key === '_') k.zoom(1 / 0.6);
  else if (key === '0') k.whole();
  else if (key === 'n') k.step(1);
  else if (key === 'p') k.step(-1);
  else if (key === 'm') k.mark();
  else if (/^[1-9]$/.test(key)) k.lane(Number(key) - 1);
  else return false;
  return true;
}
