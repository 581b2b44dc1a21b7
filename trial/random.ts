/** Random numbers of the trial, from a seed: sfc32 (Doty-Humphrey, PractRand; written from memory). */
export interface Random {
  /** Even over 0 to 1. */
  readonly even: () => number;
  /** Standard normal, by Box and Muller's method. */
  readonly normal: () => number;
  /** Exponential with mean 1: what is never negative and now and then large. */
  readonly exponential: () => number;
  readonly between: (low: number, high: number) => number;
  /** Even by the logarithm. */
  readonly sized: (low: number, high: number) => number;
  readonly chance: (p: number) => boolean;
  /** Throws where there is nothing to pick. */
  readonly pick: <T>(all: readonly T[]) => T;
}

export function randomFrom(seed: number): Random {
  let [a, b, c, d] = [0x9e3779b9 ^ seed, 0x243f6a88, 0xb7e15162 + seed, 1];
  const even = (): number => {
    const t = (((a + b) | 0) + d) | 0;
    d = (d + 1) | 0;
    a = b ^ (b >>> 9);
    b = (c + (c << 3)) | 0;
    c = (c << 21) | (c >>> 11);
    c = (c + t) | 0;
    return (t >>> 0) / 4294967296;
  };
  for (let i = 0; i < 15; i++) even();
  const between = (low: number, high: number): number => low + even() * (high - low);
  return {
    even,
    normal: () => Math.sqrt(-2 * Math.log(1 - even())) * Math.cos(2 * Math.PI * even()),
    exponential: () => -Math.log(1 - even()),
    between,
    sized: (low, high) => Math.exp(between(Math.log(low), Math.log(high))),
    chance: (p) => even() < p,
    pick: (all) => {
      const one = all[Math.floor(even() * all.length)];
      if (one === undefined) throw new Error('nothing to pick from');
      return one;
    },
  };
}
