import { cell, floatAt as floatOf } from '../numerics/cell';
import { groupBy } from '../foundation/collections';
import { decisionOf } from './hypotheses';
import type { CircuitPredictor } from './predict';
import type { Predictions } from './predictions';
import type { DiagnosisInputs, Hypothesis, Member } from './types';
import { setsPlaceByPlace } from './whole-sets';
import { logSharesBeside, timesSeen, type Usable, type Weighing } from './weigh';

// Called most of all; see cell.ts.
const floatAt = floatOf;

/** That a second, independent fault is there as well. */
const PAIR_SHARE = 0.03;
/** Parts of one kind have one age: a second bad one is less of a surprise. */
const SAME_AGE = 0.3;
/**
 * How much the weights of the data are worth in a set: one that is as likely as the mean of twenty suspects
 * costs its share alone.
 */
const SPREAD = 20;
const CANDIDATES = { few: 20, copies: 14 } as const;
const SEEDS = 3;
const MOST_AT_ONCE = 9;
/** Growing on, or taking away from, is worth it only from sets that have taken over. */
const TAKEN_OVER = 0.02;

/**
 * Several faults at once. What explains some evidence far better than a healthy circuit does is a candidate;
 * from the best candidates sets are grown, one fault at a time, as long as one more explains what is left;
 * all of one kind of part are tried together. What was taken in early may be explained by what came later: of
 * the best sets each member is tried without. `null`: nothing but single faults is in question.
 */
export function severalAtOnce(
  inputs: DiagnosisInputs,
  evidence: Usable,
  singles: Weighing,
  kept: KeptSets,
): Predictions | null {
  const all = candidatesOf(singles);
  const candidates = all.slice(0, inputs.circuit.perCylinder.length ? CANDIDATES.copies : CANDIDATES.few);
  const whole = setsPlaceByPlace(inputs, singles, evidence);
  if (candidates.length < 2 && whole.length === 0) return null;
  const total = singles.hypotheses.reduce((s, h) => s + h.weight, 0);
  const weightOf = new Map([...singles.hypotheses, ...all].map((h) => [h.members[0], h.weight]));
  const asSet = (members: readonly Member[]): Hypothesis =>
    setOf(members, total, (m) => (weightOf.get(m) ?? 0) / total);
  const tried = new Tried(inputs, evidence, singles, kept);
  let seeds: readonly Hypothesis[] = candidates.slice(0, SEEDS);
  for (let size = 2; size <= MOST_AT_ONCE && seeds.length; size++)
    seeds = tried.add(seeds.flatMap((a) => candidates.flatMap((b) => withOneMore(a, b, asSet))));
  tried.add(wholeKinds(all, asSet));
  tried.add(whole.map(asSet));
  for (let size = 0; size < 2; size++)
    tried.add(tried.best().flatMap((a) => candidates.flatMap((b) => withOneMore(a, b, asSet))));
  for (let left = tried.best(), size = MOST_AT_ONCE; left.length && size > 1; size--)
    left = tried.add(left.flatMap((a) => withOneLess(a, asSet)));
  return tried.predictions();
}

/** The sets that were tried: each is predicted and weighed once. */
class Tried {
  private readonly sets = new Map<string, { readonly set: Hypothesis; readonly logShare: number }>();
  private readonly parts: Predictions[] = [];

  constructor(
    private readonly inputs: DiagnosisInputs,
    private readonly evidence: Usable,
    private readonly singles: Weighing,
    private readonly kept: KeptSets,
  ) {}

  /** Tries those that are new; gives back those of them that have taken over, best first. */
  add(sets: readonly Hypothesis[]): Hypothesis[] {
    const fresh = [...new Map(sets.filter((h) => !this.sets.has(h.key)).map((h) => [h.key, h])).values()];
    if (fresh.length === 0) return [];
    const part = this.kept.predict(this.singles.predictions, fresh);
    this.parts.push(part);
    const logs = logSharesBeside(this.singles, this.inputs, withHealthy(this.singles.predictions, part), this.evidence);
    for (const [i, set] of fresh.entries()) this.sets.set(set.key, { set, logShare: cell(logs, i) });
    return this.best(fresh);
  }

  /** Of these, or of all: the sets that have taken over, best first. */
  best(among: readonly Hypothesis[] = [...this.sets.values()].map((x) => x.set)): Hypothesis[] {
    const top = Math.max(0, ...[...this.sets.values()].map((x) => x.logShare));
    const all = Math.exp(-top) + [...this.sets.values()].reduce((sum, x) => sum + Math.exp(x.logShare - top), 0);
    return among
      .map((h) => ({ h, share: Math.exp((this.sets.get(h.key)?.logShare ?? -Infinity) - top) / all }))
      .filter((x) => x.share > TAKEN_OVER)
      .sort((x, y) => y.share - x.share)
      .slice(0, SEEDS)
      .map((x) => x.h);
  }

  /** Of single faults and of all sets that were tried. */
  predictions(): Predictions {
    return this.parts.reduce(joined, this.singles.predictions);
  }
}

/** What sets of faults predict depends on no evidence: kept beside the predictions of their circuit. */
export class KeptSets {
  private readonly made = new Map<string, { readonly mean: Float64Array; readonly sd: Float64Array }>();

  constructor(
    private readonly predictor: CircuitPredictor,
    private readonly most = 4000,
  ) {}

  /** Predictions of these sets alone. */
  predict(singles: Predictions, sets: readonly Hypothesis[]): Predictions {
    const n = singles.instances.length;
    const missing = sets.filter((h) => !this.made.has(exactly(h)));
    if (missing.length) {
      if (this.made.size + missing.length > this.most) this.made.clear();
      const p = this.predictor.predict(missing);
      const row = (all: Float64Array, i: number): Float64Array => all.slice(i * n, (i + 1) * n);
      for (const [i, h] of missing.entries()) this.made.set(exactly(h), { mean: row(p.mean, i), sd: row(p.sd, i) });
      // What was thrown away a moment ago may be among those that were asked for.
      if (sets.some((h) => !this.made.has(exactly(h)))) return this.predict(singles, sets);
    }
    const at = new Map(
      singles.hypotheses.flatMap((h, i) => (h.members.length === 1 ? [[h.members[0], i] as const] : [])),
    );
    const empty = (): Float64Array => new Float64Array(sets.length * n);
    const out = { mean: empty(), sd: empty(), below: empty(), above: empty(), loose: empty() };
    for (const [i, h] of sets.entries()) {
      const own = this.made.get(exactly(h));
      if (!own) throw new Error(`the set "${h.key}" was not predicted`);
      out.mean.set(own.mean, i * n);
      out.sd.set(own.sd, i * n);
      const rows = h.members.map((m) => (at.get(m) ?? 0) * n);
      for (let k = 0; k < n; k++) {
        // What lies between the sizes of all of them; and it wanders where one of them by itself does.
        out.below[i * n + k] = Math.hypot(...rows.map((row) => floatAt(singles.below, row + k)));
        out.above[i * n + k] = Math.hypot(...rows.map((row) => floatAt(singles.above, row + k)));
        out.loose[i * n + k] = Math.max(...rows.map((row) => floatAt(singles.loose, row + k)));
      }
    }
    return { ...singles, hypotheses: sets, ...out };
  }
}

/** With the sizes of its faults. */
const exactly = (h: Hypothesis): string => h.members.map((m) => `${m.key}|${m.ohms}`).join(' + ');

/** These predictions behind those of the healthy circuit. */
const withHealthy = (all: Predictions, part: Predictions): Predictions => {
  const n = all.instances.length;
  const first = (v: Float64Array): Float64Array => v.slice(0, n);
  return joined(
    {
      ...all,
      hypotheses: all.hypotheses.slice(0, 1),
      mean: first(all.mean),
      sd: first(all.sd),
      below: first(all.below),
      above: first(all.above),
      loose: first(all.loose),
    },
    part,
  );
};

function joined(a: Predictions, b: Predictions): Predictions {
  const join = (x: Float64Array, y: Float64Array): Float64Array => {
    const out = new Float64Array(x.length + y.length);
    out.set(x);
    out.set(y, x.length);
    return out;
  };
  return {
    ...a,
    hypotheses: [...a.hypotheses, ...b.hypotheses],
    mean: join(a.mean, b.mean),
    sd: join(a.sd, b.sd),
    below: join(a.below, b.below),
    above: join(a.above, b.above),
    loose: join(a.loose, b.loose),
  };
}

/** One thing is bad once, in whatever way. */
const isSame = (a: Member, b: Member): boolean => a.element === b.element || decisionOf(a) === decisionOf(b);

function withOneMore(
  a: Hypothesis,
  { members: [more] }: Hypothesis,
  asSet: (m: readonly Member[]) => Hypothesis,
): Hypothesis[] {
  return !more || a.members.some((m) => isSame(m, more)) ? [] : [asSet([...a.members, more])];
}

/**
 * A set of parts can be mostly bad: one fault in what they share explains most of it and would be grown on
 * first. All suspects of one kind of part at once, if three or more.
 */
const wholeKinds = (candidates: readonly Hypothesis[], asSet: (m: readonly Member[]) => Hypothesis): Hypothesis[] =>
  [
    ...groupBy(
      // Of each part the way to fail that explains most: it comes first.
      candidates
        .flatMap((h) => h.members)
        .filter((m, i, all) => m.is === 'part' && all.findIndex((o) => isSame(o, m)) === i),
      (m) => m.name,
    ).values(),
  ]
    .filter((kind) => kind.length >= 3)
    .map(asSet);

/** The set without each of its members in turn; single faults are weighed already. */
const withOneLess = (a: Hypothesis, asSet: (m: readonly Member[]) => Hypothesis): Hypothesis[] =>
  a.members.length < 3 ? [] : a.members.map((m) => asSet(a.members.filter((o) => o !== m)));

/** Faults that are there at the same time. Its weight does not depend on their order. */
function setOf(members: readonly Member[], total: number, shareOf: (m: Member) => number): Hypothesis {
  const sorted = members.toSorted((x, y) => (x.key < y.key ? -1 : 1));
  const kinds = new Set<string>();
  // A set of one would weigh what the fault weighs by itself.
  let weight = total / SPREAD;
  for (const [i, m] of sorted.entries()) {
    const kind = m.is === 'part' ? m.name : m.key;
    weight *= shareOf(m) * SPREAD * (i === 0 ? 1 : kinds.has(kind) ? SAME_AGE : PAIR_SHARE);
    kinds.add(kind);
  }
  return { key: sorted.map((m) => m.key).join(' + '), members: sorted, weight };
}

/**
 * What explains some evidence far better than a healthy circuit does; of each way in which an element fails
 * the size that explains most, weighing what all of its sizes do that fit about as well.
 */
function candidatesOf({ hypotheses, evidence }: Weighing): Hypothesis[] {
  const seen = [...timesSeen(evidence)];
  const sums = (of: (gain: number) => number): number[] =>
    hypotheses.map((_, h) =>
      seen.reduce((sum, [{ log }, times]) => sum + times * of(floatAt(log, h) - floatAt(log, 0)), 0),
    );
  const [gains, fits] = [sums((g) => Math.max(0, g)), sums((g) => g)];
  const gain = (h: number): number => cell(gains, h);
  const bestOf = new Map<string, number>();
  for (const [h, x] of hypotheses.entries()) {
    const [m] = x.members;
    if (!m || gain(h) < 2) continue;
    const known = bestOf.get(x.key);
    if (known === undefined || gain(h) > gain(known)) bestOf.set(x.key, h);
  }
  const sizesOf = groupBy(
    hypotheses.map((x, h) => ({ x, h })),
    ({ x }) => x.key,
  );
  return inTurns(
    [...bestOf.values()].sort((a, b) => gain(b) - gain(a) || a - b),
    (h) => placeOf(hypotheses[h] as Hypothesis),
  ).map((best) => {
    const own = hypotheses[best] as Hypothesis;
    const weight = (sizesOf.get(own.key) ?? []).reduce(
      (sum, { x, h }) => sum + x.weight * Math.exp(Math.min(0, cell(fits, h) - cell(fits, best))),
      0,
    );
    return { ...own, weight };
  });
}

/** Where a single fault is: a cylinder, or what it is called. */
const placeOf = ({ members: [m] }: Hypothesis): string => (m ? String(m.position ?? m.name) : '');

/** The best of each place first, then the second best of each: no place crowds out another. */
function inTurns(sorted: readonly number[], placeOf: (h: number) => string): number[] {
  const turns: number[][] = [];
  for (const all of groupBy(sorted, placeOf).values())
    for (const [turn, h] of all.entries()) (turns[turn] ??= []).push(h);
  return turns.flatMap((turn) => turn.sort((a, b) => sorted.indexOf(a) - sorted.indexOf(b)));
}
