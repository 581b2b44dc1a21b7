import { cell } from '../numerics/cell';
/** How often a circuit is drawn to learn how much good parts differ. */
export const SAMPLES = 6;

/**
 * Deviations of a third of all parts each, in standard deviations: the middles of three equal strata of the
 * half-normal distribution (0.2104, 0.6745, 1.3830), stretched so that their mean square is 1. Each is drawn
 * to both sides.
 */
const DEVIATIONS = [0.23465, 0.75225, 1.54242] as const;
const ORDERS = [
  [0, 1, 2],
  [1, 2, 0],
  [2, 0, 1],
  [0, 2, 1],
  [1, 0, 2],
  [2, 1, 0],
] as const;

/**
 * How far good part number `part` deviates in draw number `draw`, in standard deviations; both are whole
 * numbers from 0, and a draw beyond the last is a RangeError. Over the draws
 * every part has mean 0 and standard deviation 1; which parts deviate together differs from draw to draw.
 * Always the same: a Latin hypercube (McKay, Beckman and Conover, 1979; from memory) whose orders and signs
 * come from the part's number. The draws come in mirrored pairs, so that the mean is that of the nominal
 * circuit.
 */
export function deviation(part: number, draw: number): number {
  const mixed = mix(part);
  const pair = draw >> 1;
  const order = ORDERS[mixed % ORDERS.length] ?? ORDERS[0];
  const isFlipped = ((mixed >>> (8 + pair)) & 1) === 1;
  const size = cell(DEVIATIONS, cell(order, pair));
  return isFlipped === (draw % 2 === 1) ? size : -size;
}

/** Scatters small whole numbers over 32 bits (the finalizer of MurmurHash3; from memory). */
function mix(n: number): number {
  let h = n + 0x9e3779b9;
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return (h ^ (h >>> 16)) >>> 0;
}
