import { cell, floatAt } from '../numerics/cell';
import type { TestDefinition } from '../catalogue/types';
import { after, costOf, type Setting } from './cost';
import { spreadShown } from './likelihood';
import { decisionsOf } from './hypotheses';
import type { Predictions } from './predictions';

/** Predictions so many standard deviations apart are told apart by one reading. */
const APART = 3.5;
/** Looking ahead, what is this unlikely is left out, and so is what is behind so many likelier ones. */
const LIKELY = 1e-3;
const MOST = 120;
/** An outcome this unlikely is counted on as the others are. */
const RARE = 0.02;
const DEEPEST = 8;
const DECIDED = 0.97;
const WORTH_bits = 0.02;

/** A point of measurement, as far as looking ahead needs it. */
interface Point {
  readonly test: TestDefinition | undefined;
  readonly positions: number;
  /** The hypotheses in the order of what they would show here. */
  readonly order: readonly Shown[];
}

interface Shown {
  readonly k: number;
  readonly mean: number;
  readonly sd: number;
}

/**
 * What it would cost to come to a decision: each reading is taken to show which group of hypotheses is true,
 * without errors, and after the first one the point that tells most per cost is read, again and again, in the
 * state that the engine is in by then. The method is known as rollout: Bertsekas, Tsitsiklis and Wu, Rollout
 * algorithms for combinatorial optimization, 1997 (from memory).
 */
export class Ahead {
  private readonly weight: Float64Array;
  private readonly decision: Uint16Array;
  private readonly decisions: number;
  private readonly points: readonly Point[];
  private readonly known = new Map<string, number>();
  private readonly shares: Float64Array;
  private readonly left: Uint8Array;

  constructor(p: Predictions, posterior: Float64Array, tests: readonly (TestDefinition | undefined)[]) {
    const kept = [...posterior.keys()]
      .filter((h) => floatAt(posterior, h) >= LIKELY)
      .sort((a, b) => floatAt(posterior, b) - floatAt(posterior, a) || a - b)
      .slice(0, MOST);
    const ids = new Map<string, number>();
    this.weight = Float64Array.from(kept, (h) => floatAt(posterior, h));
    this.decision = Uint16Array.from(kept, (h) => {
      const key = decisionsOf(p.hypotheses[h] ?? { members: [] });
      const id = ids.get(key) ?? ids.size;
      ids.set(key, id);
      return id;
    });
    this.decisions = ids.size;
    this.points = p.instances.map((x, i) => ({
      test: tests[i],
      positions: p.instances.filter((o) => o.test === x.test).length,
      order: orderAt(p, kept, i),
    }));
    this.shares = new Float64Array(this.decisions);
    this.left = new Uint8Array(kept.length);
  }

  /** Expected cost until it is decided, if this point is read first. `read`: what cannot be read again. */
  costFrom(first: number, read: ReadonlySet<number>, setting: Setting): number {
    return this.through(first, Uint16Array.from(this.weight.keys()), read, setting, 0);
  }

  private through(point: number, set: Uint16Array, read: ReadonlySet<number>, s: Setting, depth: number): number {
    const { test, positions } = this.points[point] as Point;
    const next = test ? after(s, test) : s;
    const parts = this.partsOf(point, set);
    const [all, done] = [this.sum(set), new Set([...read, point])];
    let [seen, costAhead] = [0, 0];
    for (const part of parts) {
      const share = this.sum(part) / all;
      if (share < RARE && parts.length > 1) continue;
      seen += share;
      costAhead += share * this.fromHere(Uint16Array.from(part).sort(), done, next, depth + 1);
    }
    return costOf(test, positions, s).cost + (seen > 0 ? costAhead / seen : 0);
  }

  /** Going on with the point that tells most per cost. */
  private fromHere(set: Uint16Array, read: ReadonlySet<number>, s: Setting, depth: number): number {
    if (depth >= DEEPEST || this.isDecided(set)) return 0;
    const key = `${[...read].sort((a, b) => a - b).join()}|${set.join()}`;
    const known = this.known.get(key);
    if (known !== undefined) return known;
    const bits = this.points.map((_, i) => (read.has(i) ? 0 : this.information(i, set)));
    let [best, most] = [-1, 0];
    for (const [i, { test, positions }] of this.points.entries()) {
      const own = cell(bits, i);
      if (own < WORTH_bits) continue;
      const { cost, setUp } = costOf(test, positions, s);
      const value = own / (cost - setUp * (1 - 1 / this.sharing(i, bits)));
      if (value > most) {
        best = i;
        most = value;
      }
    }
    const cost = best < 0 ? 0 : this.through(best, set, read, s, depth);
    this.known.set(key, cost);
    return cost;
  }

  /** How many positions of the same test would tell nearly as much: what is set up for one serves them. */
  private sharing(i: number, bits: readonly number[]): number {
    const { test } = this.points[i] as Point;
    return Math.max(
      1,
      Math.min(SHARING, this.points.filter((o, k) => o.test === test && cell(bits, k) >= 0.4 * cell(bits, i)).length),
    );
  }

  private sum(set: Iterable<number>): number {
    let sum = 0;
    for (const k of set) sum += floatAt(this.weight, k);
    return sum;
  }

  private isDecided(set: Uint16Array): boolean {
    const shares = this.shares.fill(0);
    let [all, top] = [0, 0];
    for (const k of set) {
      const w = floatAt(this.weight, k);
      const d = cell(this.decision, k);
      all += w;
      shares[d] = floatAt(shares, d) + w;
      top = Math.max(top, shares[d]);
    }
    return top >= DECIDED * all;
  }

  /** The groups of those that a reading cannot tell apart, among those that are left. */
  private partsOf(point: number, set: Uint16Array): number[][] {
    this.left.fill(0);
    for (const k of set) this.left[k] = 1;
    const parts: number[][] = [];
    let before: Shown | null = null;
    for (const x of (this.points[point] as Point).order) {
      if (!this.left[x.k]) continue;
      if (before && (x.mean === before.mean || x.mean - before.mean <= APART * Math.hypot(x.sd, before.sd)))
        parts.at(-1)?.push(x.k);
      else parts.push([x.k]);
      before = x;
    }
    return parts;
  }

  /** Bits that the reading tells of what to do. */
  private information(point: number, set: Uint16Array): number {
    const parts = this.partsOf(point, set);
    return parts.length < 2
      ? 0
      : this.entropy(set) - parts.reduce((sum, part) => sum + this.sum(part) * this.entropy(part), 0) / this.sum(set);
  }

  private entropy(set: ArrayLike<number>): number {
    const shares = this.shares.fill(0);
    let all = 0;
    for (let i = 0; i < set.length; i++) {
      const k = cell(set, i);
      const w = floatAt(this.weight, k);
      const d = cell(this.decision, k);
      all += w;
      shares[d] = floatAt(shares, d) + w;
    }
    let bits = 0;
    for (const w of shares) bits -= plogp(w / all);
    return bits;
  }
}

/** At most so many positions are counted on: not all of them will still be worth reading. */
export const SHARING = 3;

const plogp = (p: number): number => (p > 0 ? p * Math.log2(p) : 0);

function orderAt(p: Predictions, kept: readonly number[], instance: number): Shown[] {
  const mode = p.instances[instance]?.mode ?? 'voltage';
  return kept
    .map((h, k) => {
      const at = h * p.instances.length + instance;
      const mean = floatAt(p.mean, at);
      return { k, mean, sd: mean === Infinity ? 0 : spreadShown(p, mode, mean, floatAt(p.sd, at)) };
    })
    .sort((a, b) => a.mean - b.mean || a.k - b.k);
}
