import { useCallback, useState } from 'react';
import type { Position } from '../../core/judge/types';
import type { Target } from './target';
import type { Line, Run } from './use-run';

/** Where the next entry goes. */
export interface Targeting {
  readonly target: Target;
  /** The position that is framed; `null` for the lead zero, or when all are read. */
  readonly active: Position | null;
  /** Somebody else has read the framed position since it was picked. */
  readonly taken: Line | undefined;
  readonly pick: (next: Target | 'auto') => void;
  /** The position after the framed one, or before it. */
  readonly beside: (by: 1 | -1) => Target;
  /** The typing begins: it belongs to what is framed now, whatever colleagues read meanwhile. */
  readonly hold: () => void;
  /** After a reading: on to the next free position. */
  readonly goOn: (from: Position) => void;
  /** Enter again writes over what somebody else has read. */
  readonly acceptTaken: () => void;
  readonly skipZero: () => void;
}

export function useTarget(run: Run, order: readonly Position[], zeroWanted: boolean, draft: string): Targeting {
  const { current } = run;
  const [picked, setPicked] = useState<Target | 'auto'>('auto');
  /** The reading that stood at the picked position when it was picked. */
  const [seen, setSeen] = useState<{ position: Position; id: string | null } | null>(null);
  const [zeroSkipped, setZeroSkipped] = useState(false);

  const automatic = automaticTarget(run, order, zeroWanted && !zeroSkipped);
  // Somebody else has read the position meanwhile: nothing typed yet, so go on to the next; something typed,
  // so ask.
  const taken =
    seen !== null &&
    picked !== 'auto' &&
    picked?.kind === 'position' &&
    picked.position === seen.position &&
    (current.get(seen.position)?.id ?? null) !== seen.id
      ? current.get(seen.position)
      : undefined;
  const target = picked === 'auto' || (taken && draft === '') ? automatic : picked;
  const active = target?.kind === 'position' ? target.position : null;

  const pick = useCallback(
    (next: Target | 'auto'): void => {
      setPicked(next);
      setSeen(
        next !== 'auto' && next?.kind === 'position'
          ? { position: next.position, id: current.get(next.position)?.id ?? null }
          : null,
      );
    },
    [current],
  );
  function beside(by: 1 | -1): Target {
    const at = active === null ? (by === 1 ? -1 : order.length) : order.indexOf(active);
    const next = order[(at + by + order.length) % order.length];
    return next === undefined ? null : { kind: 'position', position: next };
  }
  function hold(): void {
    if (picked === 'auto' && draft === '' && target?.kind === 'position') pick(target);
  }
  function goOn(from: Position): void {
    const at = order.indexOf(from);
    const next = [...order.slice(at + 1), ...order.slice(0, at)].find((p) => !current.has(p));
    setPicked(next === undefined ? null : { kind: 'position', position: next });
    setSeen(next === undefined ? null : { position: next, id: null });
  }
  function skipZero(): void {
    setZeroSkipped(true);
    setPicked('auto');
  }
  const acceptTaken = (): void => {
    if (taken) setSeen({ position: taken.position, id: taken.id });
  };
  return { target, active, taken, pick, beside, hold, goOn, acceptTaken, skipZero };
}

/**
 * The zero of the leads first, where it matters and nobody has noted it; then the first position that nobody
 * has read.
 */
function automaticTarget(run: Run, order: readonly Position[], zeroAsked: boolean): Target {
  if (zeroAsked && run.circumstance.leadZero === null && run.current.size === 0) return { kind: 'lead-zero' };
  const free = order.find((p) => !run.current.has(p));
  return free === undefined ? null : { kind: 'position', position: free };
}
