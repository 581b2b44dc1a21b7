/**
 * Numbers from 0 to below 1, the same for the same seed: mulberry32, in the public domain; from memory. Of
 * the seed the lowest 32 bits of its whole part count; NaN is 0.
 */
export function seededRandom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/**
 * A number of the standard normal distribution from two of `random`, each from 0 to below 1 (Box and Muller,
 * Ann. Math. Stat. 29, 1958, 610). Finite for every such pair.
 */
export const normalFrom = (random: () => number): number =>
  Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
