import type { Position } from '../../core/judge/types';

/** Of a line of readings, those that no later one supersedes, in the order in which they were stored. */
export function currentReadings<R extends { readonly id: string; readonly supersedes: string | null }>(
  readings: readonly R[],
): R[] {
  const superseded = new Set(readings.map((r) => r.supersedes));
  return readings.filter((r) => !superseded.has(r.id));
}

/** A re-reading for this reason is a repeat: it tells a contact from a part. */
export const REPEAT = 'read again';

interface Chained {
  readonly id: string;
  readonly supersedes: string | null;
  readonly why: string | null;
  readonly entry: string;
  readonly position: Position;
  readonly instrumentId: string | null;
}

export interface CountingReading {
  readonly position: Position;
  readonly entry: string;
  readonly instrumentId: string | null;
  readonly earlier: readonly string[];
}

/** The readings that count, each with what the same position showed before where it was only read again. */
export function countingReadings(readings: readonly Chained[]): CountingReading[] {
  const byId = new Map(readings.map((r) => [r.id, r]));
  return currentReadings(readings).map((r) => {
    const earlier: string[] = [];
    for (let at: Chained | undefined = r; at?.supersedes && at.why === REPEAT; at = byId.get(at.supersedes)) {
      const before = byId.get(at.supersedes);
      if (before) earlier.unshift(before.entry);
    }
    return { position: r.position, entry: r.entry, instrumentId: r.instrumentId, earlier };
  });
}
