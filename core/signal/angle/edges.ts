import { quantile } from '../../numerics/select';
import { thin } from '../pulses';
import type { Channel } from '../types';

/** Crossings of a position signal, in order of time. */
export interface Edges {
  readonly kind: 'hall' | 'coil';
  readonly rising: Float64Array;
  readonly falling: Float64Array;
  readonly low: number;
  readonly high: number;
  /** Median slope at crossings of either kind, unit per second. */
  readonly slope: { readonly rising: number; readonly falling: number };
}

/** Of the span: samples this near to one of two levels are at it. */
const NEAR = 0.15;
/** A signal of which so many samples are at one of two levels switches. */
const SWITCHING = 0.7;
/** Half the hysteresis of a switching signal, of its span. */
const HYSTERESIS = 0.2;
/** Of the envelope: a coil's half wave counts when it reaches this. */
const COIL_SHARE = 0.25;
/** Of the largest half waves: less is noise. */
const COIL_LEAST = 0.04;

/**
 * The crossings of a Hall or coil signal; `null` where it does neither. Times in seconds, between samples by
 * a straight line.
 */
export function edgesOf(channel: Channel): Edges | null {
  const some = Float64Array.from(thin(channel.values)).filter((v) => Number.isFinite(v));
  if (some.length < 30) return null;
  const [low, high] = [quantile(some, 0.003), quantile(some, 0.997)];
  const span = high - low;
  if (!(span > 4 * channel.step) || !(span > 0)) return null;
  let near = 0;
  for (const v of some) if (Math.abs(v - low) < NEAR * span || Math.abs(v - high) < NEAR * span) near++;
  const isHall = near > SWITCHING * some.length && !isAroundZero(some, low, high);
  return isHall ? hallEdges(channel, low, high) : coilEdges(channel, some);
}

/** A coil rests at its middle; what switches is never there for long. */
function isAroundZero(some: Float64Array, low: number, high: number): boolean {
  const middle = (low + high) / 2;
  let there = 0;
  for (const v of some) if (Math.abs(v - middle) < 0.12 * (high - low)) there++;
  return there > 0.12 * some.length;
}

function hallEdges(channel: Channel, low: number, high: number): Edges {
  const middle = (low + high) / 2;
  const reach = HYSTERESIS * (high - low);
  return crossings(channel, 'hall', low, high, middle, () => reach);
}

function coilEdges(channel: Channel, some: Float64Array): Edges {
  const middle = quantile(some, 0.5);
  const large = quantile(
    some.map((v) => Math.abs(v - middle)),
    0.98,
  );
  // The envelope follows the speed: it falls by half within some waves, whose length the first count tells.
  const rough = crossings(channel, 'coil', -large, large, middle, () => 0.15 * large);
  const waves = Math.max(1, rough.rising.length);
  const samplesPerWave = channel.values.length / waves;
  const decay = 0.5 ** (1 / Math.max(4, 8 * samplesPerWave));
  let envelope = large;
  const reach = (v: number): number => {
    envelope = Math.max(Math.abs(v - middle), envelope * decay);
    return Math.max(COIL_SHARE * envelope, COIL_LEAST * large);
  };
  return crossings(channel, 'coil', -large, large, middle, reach);
}

function crossings(
  { values, clock }: Channel,
  kind: Edges['kind'],
  low: number,
  high: number,
  middle: number,
  reachOf: (v: number) => number,
): Edges {
  const rising: number[] = [];
  const falling: number[] = [];
  const [up, down]: [number[], number[]] = [[], []];
  let state = 0;
  let [crossedUp, crossedDown, slopeUp, slopeDown] = [NaN, NaN, 0, 0];
  let before = NaN;
  for (let i = 0; i < values.length; i++) {
    const v = values[i] ?? NaN;
    if (!Number.isFinite(v)) continue;
    const reach = reachOf(v);
    if (before < middle && v >= middle) [crossedUp, slopeUp] = crossing(clock, i, before, v, middle);
    if (before >= middle && v < middle) [crossedDown, slopeDown] = crossing(clock, i, before, v, middle);
    if (v > middle + reach) {
      if (state < 0 && Number.isFinite(crossedUp)) {
        rising.push(crossedUp);
        up.push(slopeUp);
      }
      state = 1;
    } else if (v < middle - reach) {
      if (state > 0 && Number.isFinite(crossedDown)) {
        falling.push(crossedDown);
        down.push(slopeDown);
      }
      state = -1;
    }
    before = v;
  }
  return {
    kind,
    low,
    high,
    rising: Float64Array.from(rising),
    falling: Float64Array.from(falling),
    slope: { rising: quantile(up, 0.5), falling: quantile(down, 0.5) },
  };
}

function crossing(
  clock: Channel['clock'],
  i: number,
  before: number,
  v: number,
  middle: number,
): readonly [number, number] {
  const [a, b] = [clock.at(i - 1), clock.at(i)];
  return [a + ((middle - before) / (v - before)) * (b - a), Math.abs(v - before) / Math.max(b - a, 1e-12)];
}
