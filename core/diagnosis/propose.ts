import { groupBy } from '../foundation/collections';
import {
  byPosition,
  type Confidence,
  type ProposedFinding,
  proposeFindings,
  RANK,
  sayFound,
} from '../evidence/finding';
import type { Known, Ref, Target } from '../evidence/types';
import type { Position } from '../judge/types';
import type { Diagnosis, Suspect } from './types';

/**
 * Share of a part or path, all its ways to fail together, from which a finding is proposed, and from which it
 * is certain. Those of the stop rule and below it.
 */
const BELIEVED = 0.8;
const CERTAIN = 0.97;
/** More left to causes outside the circuit than this, and the circuit convicts nobody. */
const OUTSIDE = 0.2;

/**
 * Findings that the evidence would bear: what its rules convict, joined with what the circuits behind the
 * readings do. Where a rule contradicts itself, no circuit makes the finding certain. `sitsNow`: where a part
 * is now that was at a position at first; the circuits speak of where it was.
 */
export function proposeWithCircuits(
  known: Known,
  diagnoses: readonly Diagnosis[],
  sitsNow: (part: string, position: Position) => Position = (_, position) => position,
): ProposedFinding[] {
  const all = groupBy(
    [...proposeFindings(known), ...diagnoses.flatMap((d) => fromCircuit(d, sitsNow))],
    (p) => `${p.target.kind}|${p.target.name}`,
  );
  return [...all.values()]
    .map((alike) => alike.reduce((a, b) => join(a, b, known)))
    .toSorted((a, b) => RANK[a.confidence] - RANK[b.confidence]);
}

/** One proposal per kind of thing that the circuit believes to be bad. */
function fromCircuit(d: Diagnosis, sitsNow: (part: string, position: Position) => Position): ProposedFinding[] {
  if (d.unexplained > OUTSIDE || d.isDoubted) return [];
  return [...groupBy(d.suspects, (s) => `${s.is}|${s.name}`).values()].flatMap((kind) => {
    const places = [...groupBy(kind, (s) => s.position ?? '').values()].filter((at) => mayBeFound(at, d));
    const [first] = places.flat();
    if (!first) return [];
    const at = (p: Position): Position => (first.is === 'part' ? sitsNow(first.name, p) : p);
    const target: Target = {
      kind: first.is,
      name: first.name,
      position: first.position === null ? null : at(first.position),
    };
    const positions = places.flatMap(([s]) => (s?.position == null ? [] : [at(s.position)])).sort(byPosition);
    const refs = (side: 'supports' | 'contradicts'): Ref[] => [
      ...new Map(
        places
          .flat()
          .flatMap((s) => s[side].flatMap((w) => w.ref ?? []))
          .map((r) => [`${r.id}|${r.label}`, r]),
      ).values(),
    ];
    const confidence: Confidence = d.decided && Math.min(...places.map(shareOf)) >= CERTAIN ? 'certain' : 'probable';
    return [
      {
        target,
        positions,
        confidence,
        text: sayFound(target, positions, true),
        supports: refs('supports'),
        against: refs('contradicts'),
      },
    ];
  });
}

/**
 * What is only left over convicts nobody: something must contradict good parts. What is inside a control unit
 * is convicted last, when all else is decided against.
 */
function mayBeFound(at: readonly Suspect[], d: Diagnosis): boolean {
  if (!at.some((s) => s.contradictsGood)) return false;
  return at.some((s) => s.isUnit) ? d.decided && shareOf(at) >= CERTAIN : shareOf(at) >= BELIEVED;
}

/** All ways in which one thing fails together; two of them at once count once. */
const shareOf = (suspects: readonly Suspect[]): number =>
  Math.min(
    1,
    suspects.reduce((sum, s) => sum + s.probability, 0),
  );

/**
 * Two proposals about the same kind of thing as one: what one of them only suspects, the other may convict.
 */
function join(a: ProposedFinding, b: ProposedFinding, known: Known): ProposedFinding {
  const isConvicted = (p: ProposedFinding): boolean => p.confidence !== 'possible';
  const convicted = [a, b].filter(isConvicted);
  const counting = convicted.length ? convicted : [a, b];
  const positions = [...new Set(counting.flatMap((p): Position[] => [...p.positions]))].sort(byPosition);
  const surest = counting.toSorted((x, y) => RANK[x.confidence] - RANK[y.confidence])[0] ?? a;
  const disputed = known.contradictions.some((c) => c.target.kind === a.target.kind && c.target.name === a.target.name);
  return {
    target: a.target,
    positions,
    confidence: disputed && surest.confidence === 'certain' ? 'probable' : surest.confidence,
    text: sayFound(a.target, positions, convicted.length > 0),
    supports: union(a.supports, b.supports),
    against: union(a.against, b.against),
  };
}

/** One reading counts once, however it is labelled. */
const union = (a: readonly Ref[], b: readonly Ref[]): Ref[] => {
  const has = new Set(a.map((r) => r.id));
  return [...a, ...b.filter((r) => !has.has(r.id))];
};
