/** Lowest and highest of every so many samples. */
export interface Floor {
  /** Samples of one pair. */
  readonly span: number;
  /** Pairs of lowest and highest. */
  readonly pairs: Float64Array;
}

/** Each floor has a quarter of the pairs of the one below. */
const FACTOR = 4;

/**
 * All floors over a lowest one, finest first, until one pair is left: every extreme of one sample is on each
 * of them.
 */
export function floorsOver(base: Floor): Floor[] {
  const floors = [base];
  for (let below = base; below.pairs.length > 2;) {
    const count = Math.ceil(below.pairs.length / 2 / FACTOR);
    const pairs = new Float64Array(2 * count);
    for (let p = 0; p < count; p++) {
      let low = NaN;
      let high = NaN;
      const end = Math.min(below.pairs.length / 2, (p + 1) * FACTOR);
      for (let i = p * FACTOR; i < end; i++) {
        const [a, b] = [below.pairs[2 * i] ?? NaN, below.pairs[2 * i + 1] ?? NaN];
        if (!(a >= low)) low = Number.isNaN(a) ? low : a;
        if (!(b <= high)) high = Number.isNaN(b) ? high : b;
      }
      pairs[2 * p] = low;
      pairs[2 * p + 1] = high;
    }
    below = { span: below.span * FACTOR, pairs };
    floors.push(below);
  }
  return floors;
}

/**
 * The coarsest floor that still has at least `points` pairs between two samples; `null`: not even the finest
 * has.
 */
export function floorFor(floors: readonly Floor[], samples: number, points: number): Floor | null {
  let best: Floor | null = null;
  for (const floor of floors) if (samples / floor.span >= points) best = floor;
  return best;
}
