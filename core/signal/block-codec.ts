import { BLOCK_SAMPLES, MISSING } from './samples';

/** So many samples are one pair of the pyramid's lowest floor. */
export const PYRAMID_BASE = 64;

/**
 * A block as bytes. Whole numbers: a 0, then the differences of neighbours, signs folded (0, -1, 1, -2 …),
 * seven bits a byte, as Protocol Buffers write them (from memory). What is missing is marked by the value
 * that no difference has. Double precision: a 1, then the numbers, little-endian.
 */
export function encodeBlock(block: Int32Array | Float64Array): Uint8Array {
  if (block instanceof Float64Array) {
    const out = new Uint8Array(1 + 8 * block.length);
    const view = new DataView(out.buffer);
    out[0] = 1;
    for (let i = 0; i < block.length; i++) view.setFloat64(1 + 8 * i, block[i] ?? NaN, true);
    return out;
  }
  const out = new Uint8Array(1 + 6 * block.length);
  let at = 1;
  let before = 0;
  for (let i = 0; i < block.length; i++) {
    const v = block[i] ?? MISSING;
    // One is added, so that 0 is free for what is missing.
    let folded = 0;
    if (v !== MISSING) {
      const d = v - before;
      folded = (d < 0 ? -2 * d - 1 : 2 * d) + 1;
      before = v;
    }
    while (folded > 127) {
      out[at++] = (folded % 128) + 128;
      folded = Math.floor(folded / 128);
    }
    out[at++] = folded;
  }
  return out.slice(0, at);
}

/** The samples of a block; `null` where the bytes are none, or of another number of samples. */
export function decodeBlock(bytes: Uint8Array, count: number): Int32Array | Float64Array | null {
  if (count < 1 || count > BLOCK_SAMPLES) return null;
  if (bytes[0] === 1) {
    if (bytes.length !== 1 + 8 * count) return null;
    const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    return Float64Array.from({ length: count }, (_, i) => view.getFloat64(1 + 8 * i, true));
  }
  if (bytes[0] !== 0) return null;
  const out = new Int32Array(count);
  let at = 1;
  let before = 0;
  for (let i = 0; i < count; i++) {
    let folded = 0;
    let scale = 1;
    for (;;) {
      const byte = bytes[at++];
      if (byte === undefined || scale > 2 ** 36) return null;
      folded += (byte & 127) * scale;
      if (byte < 128) break;
      scale *= 128;
    }
    if (folded === 0) {
      out[i] = MISSING;
      continue;
    }
    const unfolded = folded - 1;
    before += unfolded % 2 ? -(unfolded + 1) / 2 : unfolded / 2;
    if (!(before > MISSING && before <= 0x7fffffff)) return null;
    out[i] = before;
  }
  return at === bytes.length ? out : null;
}

/**
 * Lowest and highest sample of every 64, in turn; NaN for both where none is there. In the whole numbers of
 * the block.
 */
export function pyramidOf(block: Int32Array | Float64Array): Float64Array {
  const pairs = Math.ceil(block.length / PYRAMID_BASE);
  const out = new Float64Array(2 * pairs);
  for (let p = 0; p < pairs; p++) {
    let low = Infinity;
    let high = -Infinity;
    const end = Math.min(block.length, (p + 1) * PYRAMID_BASE);
    for (let i = p * PYRAMID_BASE; i < end; i++) {
      const v = block[i] ?? NaN;
      if (v === MISSING) continue;
      if (v < low) low = v;
      if (v > high) high = v;
    }
    out[2 * p] = low <= high ? low : NaN;
    out[2 * p + 1] = low <= high ? high : NaN;
  }
  return out;
}
