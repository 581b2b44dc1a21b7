import type { JudgedReading, Pattern, Position } from './types';

export interface PatternFound {
  readonly pattern: Pattern;
  readonly suspects: readonly Position[];
  readonly group: string | null;
}

/**
 * Positions that something is wrong with, or that must be looked at again before anything is said of the
 * part.
 */
export const isSuspect = (r: JudgedReading): boolean =>
  r.severity === 'fail' || r.verdict === 'odd' || r.verdict === 'recheck';

/**
 * What the whole set says. `incomplete` stands while positions are missing, whatever the rest shows; the
 * suspects are named all the same. A group is found only where all of its members are suspect and nobody else
 * is.
 */
export function findPattern(
  readings: readonly JudgedReading[],
  groups: ReadonlyMap<string, readonly Position[]>,
): PatternFound {
  const suspects = readings.filter(isSuspect).map((r) => r.position);
  const group = matchGroup(suspects, readings.length, groups);
  return { pattern: name(readings, suspects.length, group), suspects, group };
}

function name(readings: readonly JudgedReading[], bad: number, group: string | null): Pattern {
  if (readings.length === 0 || readings.some((r) => r.verdict === 'not-measured')) return 'incomplete';
  // Of what has no limit nobody can say that it is good.
  const isOpen = (r: JudgedReading): boolean => r.verdict === 'undecided' || r.verdict === 'no-limit';
  if (bad === 0) return readings.some(isOpen) ? 'undecided' : 'good';
  if (bad === 1) return 'one';
  if (bad === readings.length) return 'all';
  return group === null ? 'some' : 'group';
}

function matchGroup(
  suspects: readonly Position[],
  positions: number,
  groups: ReadonlyMap<string, readonly Position[]>,
): string | null {
  if (suspects.length < 2 || suspects.length === positions) return null;
  for (const [name, members] of groups) {
    if (members.length === suspects.length && members.every((m) => suspects.includes(m))) return name;
  }
  return null;
}
