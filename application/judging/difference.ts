import { entryShown } from '../../core/locale/numbers';
import { tr } from '../../core/locale/translate';
import type { Judgement, Position, Verdict } from '../../core/judge/types';
import { verdictWord } from '../../core/judge/words';
import type { Limits } from '../../core/limits/types';

/** A reading that another judgement would judge otherwise. */
export interface VerdictChange {
  readonly position: Position;
  readonly entry: string;
  readonly was: Verdict;
  readonly becomes: Verdict;
}

/** Where two judgements of the same readings differ. */
export function verdictChanges(was: Judgement, becomes: Judgement): VerdictChange[] {
  const now = new Map(becomes.readings.map((r) => [r.position, r]));
  return was.readings.flatMap((r) => {
    const next = now.get(r.position);
    return next && next.verdict !== r.verdict
      ? [{ position: r.position, entry: r.entry, was: r.verdict, becomes: next.verdict }]
      : [];
  });
}

/** "1: 1.1 was in, is too high" */
export const changeWords = (c: VerdictChange, limits: Limits): string =>
  tr`${c.position}: ${entryShown(c.entry)} was ${verdictWord(c.was, limits)}, is ${verdictWord(c.becomes, limits)}`;

/** What judging a run again by this version of the core would change. */
export interface JudgedAgain {
  /** Versions of the core. */
  readonly was: string;
  readonly becomes: string;
  readonly changes: readonly VerdictChange[];
  readonly summary: string;
}
