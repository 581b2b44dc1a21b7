import { quantileInPlace } from '../numerics/select';
import type { Level } from './course';
import type { RawPulse } from './pulses';

/** A stretch of samples that is far noisier than the channel is otherwise. `rms`, `peak`: of the residual. */
export interface NoisyPart {
  readonly first: number;
  readonly last: number;
  readonly rms: number;
  readonly peak: number;
}

/** Noise is looked at in pieces of about this length, of this many samples at least. */
const PIECE_s = 0.5;
const FEWEST = 48;
const SLOWEST_s = 0.025;
/** So many times the usual noise is a burst. Common practice, no source. */
const BURST = 5;
/** Of the recording; what is noisy for longer is how the channel is. */
const MOST_SHARE = 0.2;

/**
 * Bursts of noise in a stretch, from the residual of the finest level. Empty for what is too short to have a
 * usual noise.
 */
export function noisyParts(level: Level, period_s: number, step: number): NoisyPart[] {
  const { values, course } = level;
  const size = Math.max(FEWEST, Math.round(PIECE_s / period_s));
  const pieces = Math.floor(values.length / size);
  // What a slow recording does between two samples is how the engine moves.
  if (pieces < 8 || period_s > SLOWEST_s) return [];
  const rms = new Float64Array(pieces);
  for (let p = 0; p < pieces; p++) rms[p] = robustRms(values, course, p * size, (p + 1) * size);
  const usual = quantileInPlace(Float64Array.from(rms), 0.5);
  const upper = quantileInPlace(Float64Array.from(rms), 0.8);
  const limit = Math.max(BURST * usual, 3 * upper, 3 * step, 1e-12);
  const parts: NoisyPart[] = [];
  let noisy = 0;
  for (let p = 0; p < pieces; p++) {
    if (!((rms[p] ?? 0) > limit)) continue;
    let end = p;
    while (end + 1 < pieces && (rms[end + 1] ?? 0) > limit / 2) end++;
    noisy += end - p + 1;
    parts.push(measured(values, course, p * size, (end + 1) * size - 1));
    p = end;
  }
  return noisy > MOST_SHARE * pieces ? [] : parts;
}

/**
 * Of normal noise this share of the deviations is below `0.8416` standard deviations. A dropout alone does
 * not reach it.
 */
const SHARE = 0.6;
const SHARE_IN_SIGMA = 0.8416;

function robustRms(values: Float64Array, course: Float64Array, from: number, to: number): number {
  const off = new Float64Array(to - from);
  for (let i = from; i < to; i++) off[i - from] = Math.abs((values[i] ?? NaN) - (course[i] ?? NaN));
  return quantileInPlace(off, SHARE) / SHARE_IN_SIGMA;
}

function measured(values: Float64Array, course: Float64Array, first: number, last: number): NoisyPart {
  let sum = 0;
  let peak = 0;
  for (let i = first; i <= last; i++) {
    const off = Math.abs((values[i] ?? NaN) - (course[i] ?? NaN));
    sum += off * off;
    if (off > peak) peak = off;
  }
  return { first, last, rms: Math.sqrt(sum / (last - first + 1)), peak };
}

/** Pulses that are more than the noise around them: a burst is one finding, not hundreds. */
export const outsideOf = (pulses: readonly RawPulse[], parts: readonly NoisyPart[]): RawPulse[] =>
  pulses.filter((p) => !parts.some((n) => p.first <= n.last && p.last >= n.first && p.depth < 6 * n.rms));
