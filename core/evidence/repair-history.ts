import type { TestDefinition } from '../catalogue/types';
import type { Position } from '../judge/types';
import { evidenceRules } from './kinds/kinds';
import { PartMoves } from './moves';
import { isBare, isPath, partName, positionOf } from './rules';
import type { Evidence, RecordedEvidence, Target } from './types';

/**
 * What was seen before a repair says nothing of what is there after it, as far as it was about what was
 * mended. One rule for statements, for readings and for other evidence.
 */
type Repair = Extract<Evidence, { kind: 'repair' }>;

/** Does a repair change what stands there of this? */
export function unsettles(repair: Repair, t: Target): boolean {
  if (t.kind === 'shared') return true;
  const samePlace = t.position === null || repair.position === undefined || t.position === repair.position;
  if (t.kind === 'mechanics') return samePlace;
  // A mended wire unsettles what was said of the wire and of the input behind it, never what the part showed
  // by itself.
  if (repair.path) return (t.kind === 'path' || t.kind === 'input') && samePlace;
  return t.kind === 'part' && t.name === repair.part && samePlace;
}

/**
 * What a reading of a test is about: a bare part answers for itself, a wire for itself, and what is read in
 * its circuit for both.
 */
export function subjectsOf(test: TestDefinition, position: Position): Target[] {
  const [name, at] = [partName(test), positionOf(test, position)];
  const [ofPart, ofPath]: [Target, Target] = [
    { kind: 'part', name, position: at },
    { kind: 'path', name, position: at },
  ];
  if (isPath(test)) return [ofPath];
  return isBare(test) ? [ofPart] : [ofPart, ofPath];
}

/** Tells of each thing that was seen at a moment (ISO 8601) whether a later repair has made it history. */
export class RepairHistory {
  private readonly moves: PartMoves;
  private readonly repairs: readonly { readonly body: Repair; readonly at: string }[];

  constructor(evidence: readonly RecordedEvidence[]) {
    this.moves = new PartMoves(evidence);
    this.repairs = evidence.flatMap(({ body, at }) => (body.kind === 'repair' ? [{ body, at }] : []));
  }

  isHistory(at: string, target: Target): boolean {
    return this.repairs.some((r) => at < r.at && unsettles(r.body, this.sittingAt(target, at, r.at)));
  }

  /** The same part where it sat at `then`, of where it sat at `at`. */
  private sittingAt(t: Target, at: string, then: string): Target {
    return t.kind === 'part' && t.position !== null
      ? { ...t, position: this.moves.between(t.name, t.position, at, then) }
      : t;
  }

  readingIsHistory(at: string, test: TestDefinition, position: Position): boolean {
    return subjectsOf(test, position).some((t) => this.isHistory(at, t));
  }

  /**
   * Other evidence is weighed whole: it is history once what it accuses was mended, or, where it accuses
   * nothing, all that it speaks of.
   */
  evidenceIsHistory(e: RecordedEvidence): boolean {
    if (e.body.kind === 'repair') return false;
    const said = evidenceRules([e]);
    const accusing = said.filter((s) => s.stand === 'bad' || s.stand === 'suspect');
    const telling = accusing.length ? accusing : said;
    return telling.length > 0 && telling.every((s) => this.isHistory(e.at, s.target));
  }
}
