import { tr } from '../locale/translate';
import { capital } from '../foundation/text';
import type { Position } from '../judge/types';
import { joinAnd } from '../quantity/print';
import type { Known, Ref, Statement, Target } from './types';
import { targetKey, targetWords } from './known';

export const CONFIDENCES = ['certain', 'probable', 'possible'] as const;
export type Confidence = (typeof CONFIDENCES)[number];

/** What was found, as a person signs it. */
export type FindingBody =
  | {
      readonly kind: 'found';
      readonly what: 'part' | 'path' | 'shared' | 'input' | 'mechanics';
      readonly name: string;
      readonly positions: readonly Position[];
      readonly confidence: Confidence;
      readonly text: string;
      readonly supports: readonly Ref[];
      readonly against: readonly Ref[];
      readonly ruledOut: readonly RuledOut[];
      /** What is advised, remembered at the next visit until it is done. */
      readonly advice: string;
    }
  | {
      readonly kind: 'not-found';
      readonly text: string;
      readonly ruledOut: readonly RuledOut[];
      readonly ifReturns: string;
    };

export interface RuledOut {
  readonly what: string;
  readonly by: string;
}

/** A finding that the evidence would bear, to be confirmed or changed by a person. */
export interface ProposedFinding {
  readonly target: Target;
  readonly positions: readonly Position[];
  readonly confidence: Confidence;
  readonly text: string;
  readonly supports: readonly Ref[];
  readonly against: readonly Ref[];
}

/**
 * What the evidence would bear, most certain first. One proposal per kind of thing: three bad plugs are one
 * finding. Certain: two independent pieces of evidence convict and none clears. Probable: one convicts.
 * Possible: only accused.
 */
export function proposeFindings(known: Known): ProposedFinding[] {
  // What only a doubted measurement accuses of is no finding: the meter comes first.
  const doubted = new Set(known.doubts.flatMap((d) => (d.kind === 'limit' ? [] : [d.run])));
  const accused = known.statements.filter(
    (s) => s.stand === 'bad' || (s.stand === 'suspect' && !s.from.every((r) => doubted.has(r.id))),
  );
  const groups = new Map<string, Statement[]>();
  for (const s of accused) {
    const key = `${s.target.kind}|${s.target.name}`;
    groups.set(key, [...(groups.get(key) ?? []), s]);
  }
  return [...groups.values()]
    .map((statements) => propose(statements, known))
    .toSorted((a, b) => RANK[a.confidence] - RANK[b.confidence]);
}

/** How sure: lower is surer. */
export const RANK: Readonly<Record<Confidence, number>> = { certain: 0, probable: 1, possible: 2 };

function propose(statements: readonly Statement[], known: Known): ProposedFinding {
  const convicted = statements.filter((s) => s.stand === 'bad');
  const own = convicted.length ? convicted : statements;
  const [first] = own;
  if (!first) throw new Error('a proposal needs a statement');
  const keys = new Set(own.map((s) => targetKey(s.target)));
  const against = known.statements
    .filter((s) => s.stand === 'cleared' && keys.has(targetKey(s.target)))
    .flatMap((s) => s.from);
  const independent = Math.min(
    ...[...keys].map((k) => new Set(convicted.filter((s) => targetKey(s.target) === k).map((s) => s.rule)).size),
  );
  const positions = [...new Set(own.flatMap((s) => (s.target.position === null ? [] : [s.target.position])))].toSorted(
    byPosition,
  );
  const confidence: Confidence =
    convicted.length === 0 ? 'possible' : independent > 1 && against.length === 0 ? 'certain' : 'probable';
  return {
    target: first.target,
    positions,
    confidence,
    text: sayFound(first.target, positions, convicted.length > 0),
    supports: own.flatMap((s) => s.from),
    against,
  };
}

/** "The plugs of cylinders 2 and 4 are bad" */
export function sayFound(target: Target, positions: readonly Position[], convicted: boolean): string {
  const many = positions.length > 1;
  const [only = null] = positions;
  const words = many ? targetsWords(target, positions) : targetWords({ ...target, position: only });
  const verb = convicted ? (many ? 'are bad' : 'is bad') : many ? 'are suspected' : 'is suspected';
  return tr`${capital(words)} ${verb}`;
}

/** "the plugs of cylinders 2, 4 and 6" */
export function targetsWords(target: Target, positions: readonly Position[]): string {
  const of = positions.every((p) => typeof p === 'number')
    ? tr`of cylinders ${joinAnd([...positions])}`
    : tr`at ${joinAnd([...positions])}`;
  const name = target.kind === 'part' ? `${target.name}s` : target.name;
  return tr`${targetWords({ ...target, name, position: null })} ${of}`;
}

/** Cylinders in their order, then places by name. */
export const byPosition = (a: Position, b: Position): number =>
  typeof a === 'number' && typeof b === 'number' ? a - b : String(a).localeCompare(String(b));

/** What is ruled out, and by what. */
export const ruledOutBy = (known: Known): RuledOut[] => [
  ...new Map(
    known.statements
      .filter((s) => s.stand === 'cleared')
      .map((s) => [targetKey(s.target), { what: targetWords(s.target), by: s.from.map((r) => r.label).join('; ') }]),
  ).values(),
];

/** "certain: the plug of cylinder 3" */
export const findingWords = (f: FindingBody): string => (f.kind === 'found' ? f.text : tr`Not found yet: ${f.text}`);
