import { floatAt as floatOf, intAt as intOf } from '../numerics/cell';

// Called most of all; see cell.ts.
const floatAt = floatOf;
const intAt = intOf;

/**
 * Sparse L·D·Lᵀ of the conductance matrix of a network: symmetric, diagonally dominant, nothing positive
 * beside the diagonal. Such a matrix needs no pivoting and loses no small conductance beside a large one (the
 * diagonal is only ever reduced by what its neighbours carry). Circuits are nearly trees: eliminated from the
 * leaves inwards (minimum degree) hardly anything fills in.
 */
export interface Elimination {
  readonly size: number;
  /** In the order of elimination. */
  readonly order: Int32Array;
  /** Of each eliminated node: where its neighbours start in `neighbour`. */
  readonly start: Int32Array;
  /** Neighbours that are eliminated later. */
  readonly neighbour: Int32Array;
  /** Slot of the pair in `pairs`. */
  readonly slot: Int32Array;
  /** For each pair of neighbours of a node: the slot that fills in; laid out per node after `fillStart`. */
  readonly fillStart: Int32Array;
  readonly fill: Int32Array;
  /** Slot of each given pair of nodes. */
  readonly slotOf: (a: number, b: number) => number;
  readonly slots: number;
}

/**
 * Finds the order of elimination and every place that fills in, for a pattern of joined pairs. Done once per
 * pattern.
 */
export function planElimination(size: number, pairs: readonly (readonly [number, number])[]): Elimination {
  const joined: Set<number>[] = Array.from({ length: size }, () => new Set<number>());
  const slots = new Map<number, number>();
  const key = (a: number, b: number): number => (a < b ? a * size + b : b * size + a);
  const slotFor = (a: number, b: number): number => {
    const k = key(a, b);
    const known = slots.get(k);
    if (known !== undefined) return known;
    slots.set(k, slots.size);
    return slots.size - 1;
  };
  for (const [a, b] of pairs) {
    if (a === b) continue;
    joined[a]?.add(b);
    joined[b]?.add(a);
    slotFor(a, b);
  }
  const left = new Set(Array.from({ length: size }, (_, i) => i));
  const order: number[] = [];
  const [start, neighbour, slot, fillStart, fill]: [number[], number[], number[], number[], number[]] = [
    [0],
    [],
    [],
    [0],
    [],
  ];
  while (left.size) {
    let [best, degree] = [-1, Infinity];
    for (const i of left) {
      const d = joined[i]?.size ?? 0;
      if (d < degree) [best, degree] = [i, d];
    }
    left.delete(best);
    order.push(best);
    const next = [...(joined[best] ?? [])];
    for (const [i, a] of next.entries()) {
      neighbour.push(a);
      slot.push(slotFor(best, a));
      joined[a]?.delete(best);
      for (const b of next.slice(i + 1)) {
        joined[a]?.add(b);
        joined[b]?.add(a);
        fill.push(slotFor(a, b));
      }
    }
    start.push(neighbour.length);
    fillStart.push(fill.length);
  }
  return {
    size,
    order: Int32Array.from(order),
    start: Int32Array.from(start),
    neighbour: Int32Array.from(neighbour),
    slot: Int32Array.from(slot),
    fillStart: Int32Array.from(fillStart),
    fill: Int32Array.from(fill),
    slotOf: (a, b) => slots.get(key(a, b)) ?? -1,
    slots: slots.size,
  };
}

/**
 * Factors in place and solves for one right side. `toGround` is what each node conducts to ground, `between`
 * the conductance of each slot (positive); both are overwritten. `x` holds the right side and receives the
 * voltages. A node that nothing joins to ground gets 0.
 *
 * The diagonal is kept as the conductance to ground plus the sum of the conductances to the neighbours that
 * are left: nothing is ever subtracted, so small stays exact beside large (after Grassmann, Taksar and
 * Heyman; written from memory).
 */
export function eliminate(e: Elimination, toGround: Float64Array, between: Float64Array, x: Float64Array): void {
  const { order, start, neighbour, slot, fillStart, fill, size } = e;
  for (let k = 0; k < size; k++) {
    const i = intAt(order, k);
    const [from, to] = [intAt(start, k), intAt(start, k + 1)];
    let diagonal = floatAt(toGround, i);
    for (let n = from; n < to; n++) diagonal += floatAt(between, intAt(slot, n));
    if (diagonal <= 0) {
      x[i] = 0;
      continue;
    }
    const inverse = 1 / diagonal;
    const rightSide = floatAt(x, i);
    const ground = floatAt(toGround, i) * inverse;
    let f = intAt(fillStart, k);
    for (let n = from; n < to; n++) {
      const a = intAt(neighbour, n);
      const g = floatAt(between, intAt(slot, n));
      toGround[a] = floatAt(toGround, a) + g * ground;
      x[a] = floatAt(x, a) + g * inverse * rightSide;
      for (let m = n + 1; m < to; m++, f++) {
        const s = intAt(fill, f);
        between[s] = floatAt(between, s) + g * inverse * floatAt(between, intAt(slot, m));
      }
    }
  }
  backwards(e, toGround, between, x);
}

/** Solves for another right side with what `eliminate` has left in `toGround` and `between`; those stay. */
export function substitute(e: Elimination, toGround: Float64Array, between: Float64Array, x: Float64Array): void {
  const { order, start, neighbour, slot, size } = e;
  for (let k = 0; k < size; k++) {
    const i = intAt(order, k);
    const rightSide = floatAt(x, i);
    if (rightSide === 0) continue;
    const [from, to] = [intAt(start, k), intAt(start, k + 1)];
    let diagonal = floatAt(toGround, i);
    for (let n = from; n < to; n++) diagonal += floatAt(between, intAt(slot, n));
    if (diagonal <= 0) {
      x[i] = 0;
      continue;
    }
    for (let n = from; n < to; n++) {
      const a = intAt(neighbour, n);
      x[a] = floatAt(x, a) + (floatAt(between, intAt(slot, n)) / diagonal) * rightSide;
    }
  }
  backwards(e, toGround, between, x);
}

function backwards(e: Elimination, toGround: Float64Array, between: Float64Array, x: Float64Array): void {
  const { order, start, neighbour, slot, size } = e;
  for (let k = size - 1; k >= 0; k--) {
    const i = intAt(order, k);
    let [diagonal, sum] = [floatAt(toGround, i), floatAt(x, i)];
    for (let n = intAt(start, k); n < intAt(start, k + 1); n++) {
      const g = floatAt(between, intAt(slot, n));
      diagonal += g;
      sum += g * floatAt(x, intAt(neighbour, n));
    }
    x[i] = diagonal > 0 ? sum / diagonal : 0;
  }
}
