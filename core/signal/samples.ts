/** Samples are kept, stored and sent in blocks of this many. */
export const BLOCK_SAMPLES = 65_536;
/** In a block of whole numbers: nothing was recorded here. */
export const MISSING = -0x80000000;
const LARGEST = 0x7fffffff;

/** One sample of a stored block, times `scale`; NaN where nothing was recorded. */
export function storedSample(block: Int32Array | Float64Array, index: number, scale: number): number {
  const raw = block[index] ?? NaN;
  return raw === MISSING ? NaN : raw * scale;
}

/**
 * The samples of one channel exactly as they were written: whole numbers times a power of ten, so that `0.50`
 * stays the decimal that it is. What does not fit into 32 bits is kept as double precision, which gives back
 * up to fifteen digits.
 */
export class Samples {
  readonly blocks: (Int32Array | Float64Array)[] = [];
  count = 0;
  /** Digits after the point. */
  decimals = 0;
  private isWide = false;
  private block: Int32Array | Float64Array = new Int32Array(0);
  private filled = BLOCK_SAMPLES;
  private factor = 1;

  /** Whether it is kept as double precision instead of whole numbers. */
  get wide(): boolean {
    return this.isWide;
  }

  /** Adds `mantissa` · 10^-`decimals`. `mantissa`: a whole number below 2^53. */
  add(mantissa: number, decimals: number): void {
    if (this.filled === BLOCK_SAMPLES) this.open();
    if (decimals !== this.decimals) this.addOther(mantissa, decimals);
    else if (this.isWide) this.block[this.filled++] = mantissa / this.factor;
    else if (mantissa <= LARGEST && mantissa > MISSING) this.block[this.filled++] = mantissa;
    else this.addOther(mantissa, decimals);
    this.count++;
  }

  /** Adds a number of any kind, as the shortest decimal that is this number. */
  addReal(value: number): void {
    for (let decimals = 0; decimals <= 6; decimals++) {
      const mantissa = Math.round(value * 10 ** decimals);
      if (Math.abs(mantissa) <= LARGEST && mantissa / 10 ** decimals === value) {
        this.add(mantissa, Math.max(decimals, 0));
        return;
      }
    }
    if (this.filled === BLOCK_SAMPLES) this.open();
    if (!this.isWide) this.widen();
    this.decimals = Math.max(this.decimals, 15);
    this.factor = 10 ** this.decimals;
    this.block[this.filled++] = value;
    this.count++;
  }

  addMissing(): void {
    if (this.filled === BLOCK_SAMPLES) this.open();
    this.block[this.filled++] = this.isWide ? NaN : MISSING;
    this.count++;
  }

  /** Takes back the last sample. */
  drop(): void {
    if (this.count === 0) return;
    this.count--;
    if (--this.filled === 0) {
      this.blocks.pop();
      this.block = this.blocks[this.blocks.length - 1] ?? new Int32Array(0);
      this.filled = BLOCK_SAMPLES;
    }
  }

  /** The sample, in the unit of the file; NaN where nothing was recorded. */
  at(index: number): number {
    const raw = this.blocks[Math.floor(index / BLOCK_SAMPLES)]?.[index % BLOCK_SAMPLES] ?? NaN;
    return this.isWide ? raw : raw === MISSING ? NaN : raw / this.factor;
  }

  /** All samples, times `scale`. */
  values(scale = 1): Float64Array {
    const out = new Float64Array(this.count);
    let at = 0;
    for (const block of this.blocks) {
      const count = Math.min(BLOCK_SAMPLES, this.count - at);
      if (this.isWide) for (let i = 0; i < count; i++) out[at + i] = (block[i] ?? NaN) * scale;
      else
        for (let i = 0; i < count; i++) {
          const raw = block[i] ?? MISSING;
          out[at + i] = raw === MISSING ? NaN : (raw / this.factor) * scale;
        }
      at += count;
    }
    return out;
  }

  /**
   * Blocks that came from the store, in order. Throws RangeError where they do not make up `count` samples.
   */
  static of(blocks: readonly (Int32Array | Float64Array)[], count: number, decimals: number): Samples {
    const samples = new Samples();
    samples.decimals = decimals;
    samples.factor = 10 ** decimals;
    samples.isWide = blocks.some((b) => b instanceof Float64Array);
    samples.blocks.push(...blocks);
    samples.count = count;
    if (blocks.reduce((n, b) => n + Math.min(b.length, BLOCK_SAMPLES), 0) < count)
      throw new RangeError('the blocks are fewer than the samples');
    samples.block = blocks[blocks.length - 1] ?? new Int32Array(0);
    samples.filled = BLOCK_SAMPLES;
    return samples;
  }

  private open(): void {
    this.block = this.isWide ? new Float64Array(BLOCK_SAMPLES) : new Int32Array(BLOCK_SAMPLES);
    this.blocks.push(this.block);
    this.filled = 0;
  }

  /** A sample with other digits than those before, or too large for 32 bits. */
  private addOther(mantissa: number, decimals: number): void {
    if (decimals > this.decimals) this.refine(decimals);
    const scaled = mantissa * 10 ** (this.decimals - decimals);
    if (!this.isWide && !(Math.abs(scaled) <= LARGEST)) this.widen();
    this.block[this.filled++] = this.isWide ? mantissa / 10 ** decimals : scaled;
  }

  /**
   * More digits after the point from now on: what is there is multiplied, or widened where it would not fit.
   */
  private refine(decimals: number): void {
    const by = 10 ** (decimals - this.decimals);
    if (!this.isWide && decimals > 12) this.widen();
    if (!this.isWide) {
      const most = LARGEST / by;
      const fits = this.blocks.every((b) => b.every((v) => v === MISSING || Math.abs(v) <= most));
      if (!fits) this.widen();
      else
        for (const b of this.blocks) for (let i = 0; i < b.length; i++) if (b[i] !== MISSING) b[i] = (b[i] ?? 0) * by;
    }
    this.decimals = decimals;
    this.factor = 10 ** decimals;
  }

  private widen(): void {
    const { factor } = this;
    for (let k = 0; k < this.blocks.length; k++) {
      const block = this.blocks[k] ?? new Int32Array(0);
      const wide = new Float64Array(BLOCK_SAMPLES);
      for (let i = 0; i < block.length; i++) wide[i] = block[i] === MISSING ? NaN : (block[i] ?? NaN) / factor;
      this.blocks[k] = wide;
    }
    this.block = this.blocks[this.blocks.length - 1] ?? this.block;
    this.isWide = true;
  }
}
