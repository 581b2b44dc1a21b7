import { floatAt as floatOf, intAt as intOf } from '../numerics/cell';
import { eliminate, type Elimination, planElimination, substitute } from './ldl';

// Called most of all; see cell.ts.
const floatAt = floatOf;
const intAt = intOf;

/**
 * The same pattern solved again and again with other values: the order of elimination is found once, a
 * solution allocates nothing. For networks of resistors with fixed nodes (ideal sources against the
 * reference) and one pushed current; `solveCircuit` is the slow, obvious one it is held against.
 */
export interface Pattern {
  readonly nodes: readonly string[];
  /** Ends of each resistor, as node numbers. */
  readonly from: Int32Array;
  readonly to: Int32Array;
}

/** Conductance from every node to the reference, so that nothing floats; far below what any meter sees. */
const LEAK_S = 1e-13;

/** A network with its conductances, ready for more right sides. */
export interface Factored {
  readonly toGround: Float64Array;
  readonly between: Float64Array;
}

export class FastSolver {
  private readonly plan: Elimination;
  private readonly free: Int32Array;
  private readonly slot: Int32Array;
  private readonly toGround: Float64Array;
  private readonly between: Float64Array;
  private readonly x: Float64Array;
  /** Volts of each node after `solve`. */
  readonly volts: Float64Array;

  /** `fixed`: node number and volts; the reference is one of them. `pushed_A` flows into node `into`. */
  constructor(
    private readonly pattern: Pattern,
    fixed: ReadonlyMap<number, number>,
    private readonly into: number,
    private readonly pushed_A: number,
  ) {
    const size = pattern.nodes.length;
    const number_ = new Int32Array(size).fill(-1);
    let count = 0;
    for (let i = 0; i < size; i++) if (!fixed.has(i)) number_[i] = count++;
    this.free = number_;
    const pairs: [number, number][] = [];
    for (let k = 0; k < pattern.from.length; k++) {
      const [a, b] = [intAt(number_, intAt(pattern.from, k)), intAt(number_, intAt(pattern.to, k))];
      if (a >= 0 && b >= 0 && a !== b) pairs.push([a, b]);
    }
    this.plan = planElimination(count, pairs);
    this.slot = Int32Array.from(pattern.from, (f, k) => {
      const [a, b] = [intAt(number_, f), intAt(number_, intAt(pattern.to, k))];
      return a >= 0 && b >= 0 && a !== b ? this.plan.slotOf(a, b) : -1;
    });
    this.toGround = new Float64Array(count);
    this.between = new Float64Array(this.plan.slots);
    this.x = new Float64Array(count);
    this.volts = new Float64Array(size);
    for (const [i, v] of fixed) this.volts[i] = v;
  }

  /**
   * Solves for these conductances, one per resistor (0 is open). The result stands in `volts` until the next
   * call.
   */
  solve(conductance_S: Float64Array): Float64Array {
    const { toGround, between, x, free, slot, volts } = this;
    const { from, to } = this.pattern;
    toGround.fill(LEAK_S);
    between.fill(0);
    x.fill(0);
    for (let k = 0; k < conductance_S.length; k++) {
      const g = floatAt(conductance_S, k);
      const s = intAt(slot, k);
      if (s >= 0) {
        between[s] = floatAt(between, s) + g;
        continue;
      }
      const [f, t] = [intAt(from, k), intAt(to, k)];
      const [a, b] = [intAt(free, f), intAt(free, t)];
      const own = a >= 0 ? a : b;
      if (own < 0 || a === b) continue;
      toGround[own] = floatAt(toGround, own) + g;
      x[own] = floatAt(x, own) + g * floatAt(volts, a >= 0 ? t : f);
    }
    const at = free[this.into] ?? -1;
    if (at >= 0) x[at] = floatAt(x, at) + this.pushed_A;
    eliminate(this.plan, toGround, between, x);
    for (let i = 0; i < volts.length; i++) if (intAt(free, i) >= 0) volts[i] = floatAt(x, intAt(free, i));
    return volts;
  }

  /** What the last `solve` was made with, to be kept. */
  factored(): Factored {
    return { toGround: this.toGround.slice(), between: this.between.slice() };
  }

  /**
   * Volts of each node, every fixed node at 0, where one ampere is pushed in at node `a` and drawn at node
   * `b`. A new array.
   */
  perAmpere(f: Factored, a: number, b: number): Float64Array {
    const { x, free } = this;
    x.fill(0);
    const [into, out] = [intAt(free, a), intAt(free, b)];
    if (into >= 0) x[into] = 1;
    if (out >= 0) x[out] = floatAt(x, out) - 1;
    return this.substituted(f);
  }

  /** Volts of each node where the fixed node `at` has `volts` and every other one 0. A new array. */
  perSource(f: Factored, conductance_S: Float64Array, at: number, volts: number): Float64Array {
    const { x, free } = this;
    const { from, to } = this.pattern;
    x.fill(0);
    for (let k = 0; k < conductance_S.length; k++) {
      const [a, b] = [intAt(from, k), intAt(to, k)];
      const own = a === at ? intAt(free, b) : b === at ? intAt(free, a) : -1;
      if (own >= 0) x[own] = floatAt(x, own) + floatAt(conductance_S, k) * volts;
    }
    const out = this.substituted(f);
    out[at] = volts;
    return out;
  }

  private substituted({ toGround, between }: Factored): Float64Array {
    substitute(this.plan, toGround, between, this.x);
    return Float64Array.from(this.free, (own) => (own >= 0 ? floatAt(this.x, own) : 0));
  }
}
