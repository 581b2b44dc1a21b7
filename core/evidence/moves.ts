import type { Position } from '../judge/types';
import type { RecordedEvidence } from './types';

interface Swap {
  readonly part: string;
  readonly a: Position;
  readonly b: Position;
  readonly at: string;
}

/**
 * Where parts sit that were exchanged between positions. What was read before a swap is about a part that
 * sits elsewhere now.
 */
export class PartMoves {
  private readonly swaps: readonly Swap[];

  constructor(evidence: readonly RecordedEvidence[]) {
    this.swaps = evidence
      .flatMap((e): Swap[] =>
        e.body.kind === 'swap' && e.body.from !== undefined && e.body.to !== undefined && firstLook(e, evidence) === e
          ? [{ part: e.body.part, a: e.body.from, b: e.body.to, at: e.at }]
          : [],
      )
      .toSorted((x, y) => (x.at < y.at ? -1 : x.at > y.at ? 1 : 0));
  }

  /**
   * Where the part sits now that was at `position` at that moment (ISO 8601), before anything that happened
   * then.
   */
  now(part: string, position: Position, at: string): Position {
    return this.between(part, position, at, null);
  }

  /** The same at a later moment; `null`: now. */
  between(part: string, position: Position, at: string, then: string | null): Position {
    return this.swaps
      .filter((s) => s.part === part && s.at >= at && (then === null || s.at < then))
      .reduce(exchanged, position);
  }

  /** Where the part was before all swaps that is at `position` at that moment. */
  atFirst(part: string, position: Position, at: string): Position {
    return this.swaps.filter((s) => s.part === part && s.at < at).reduceRight((p, s) => exchanged(p, s), position);
  }

  /** Whether another part has come to that position before that moment. */
  isExchanged(part: string, position: Position, at: string): boolean {
    return this.atFirst(part, position, at) !== position;
  }
}

/**
 * The same swap written down again is a second look at it, not a second exchange. Itself where it is the
 * first.
 */
export function firstLook(e: RecordedEvidence, all: readonly RecordedEvidence[]): RecordedEvidence {
  const { body } = e;
  if (body.kind !== 'swap' || body.from === undefined) return e;
  return all
    .filter(
      ({ body: o, at }) =>
        o.kind === 'swap' && o.part === body.part && o.from === body.from && o.to === body.to && at <= e.at,
    )
    .reduce((a, b) => (b.at < a.at ? b : a), e);
}

const exchanged = (p: Position, { a, b }: Swap): Position => (p === a ? b : p === b ? a : p);
