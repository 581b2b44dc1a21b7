import type { Position } from '../../judge/types';
import type { DriveCondition } from '../types';

/** What something that comes and goes may depend on. */
export type Moment = 'cold' | 'hot' | 'load';

/** What is supposed to be wrong: one thing or several. */
export interface Supposition {
  readonly members: readonly SupposedFault[];
}

export interface SupposedFault {
  readonly is: 'part' | 'path' | 'shared' | 'input';
  readonly name: string;
  readonly position: Position | null;
  readonly intermittent: boolean;
  readonly when: readonly Moment[];
}

/** Of the conditions of a complaint or a drive, those that something may depend on. */
export const momentsOf = (conditions: readonly DriveCondition[]): Moment[] => [
  ...new Set(
    conditions.flatMap((c): Moment[] =>
      c === 'cold' || c === 'hot' || c === 'load' ? [c] : c === 'towing' ? ['load'] : [],
    ),
  ),
];

/**
 * Probability that what comes and goes is there at a moment: half of the time; where it is said to depend on
 * something, mostly then and hardly ever else. The complaint knows better than the data. Common practice, no
 * source.
 */
export function chanceThere(s: Supposition, under: readonly Moment[], shows: readonly Moment[]): number {
  const bound = shows.length ? shows : [...new Set(s.members.flatMap((m) => (m.intermittent ? m.when : [])))];
  if (bound.length === 0 || under.length === 0) return 0.5;
  return bound.some((w) => under.includes(w)) ? 0.8 : 0.08;
}

/** "main fuse" and "fuse" are called a fuse, and so are fuses. */
export function isCalled(name: string, asked: string): boolean {
  const plain = (s: string): string => s.trim().toLowerCase().replace(/^the /, '').replace(/s$/, '');
  const b = plain(asked);
  return name.split(/, | or | and /).some((one) => {
    const a = plain(one);
    return a === b || a.endsWith(` ${b}`) || b.endsWith(` ${a}`);
  });
}

/** Those supposed at exactly this position. */
export const supposedAt = (s: Supposition, position: Position): readonly SupposedFault[] =>
  s.members.filter((m) => m.position !== null && m.position === position);

/** Wires supposed bad where something was looked at; a place without a position is any. */
export const pathsNear = (s: Supposition, position: Position | undefined): readonly SupposedFault[] =>
  s.members.filter(
    (m) => m.is === 'path' && (position === undefined || m.position === position || m.position === null),
  );
