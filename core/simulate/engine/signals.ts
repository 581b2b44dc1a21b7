import type { Turning } from './turning';

/** A turning crank as a recorder meets it: the angle and the speed at each of its samples. */
export interface Sampled {
  readonly rate_Hz: number;
  readonly angle_deg: Float64Array;
  readonly speed_rpm: Float64Array;
}

/** Samples a turning crank evenly from `from_s` on for at most `seconds`. */
export function sampled(turning: Turning, rate_Hz: number, from_s: number, seconds: number): Sampled {
  const { times_s, speed_rpm, step_deg } = turning;
  const last = times_s[times_s.length - 1] ?? 0;
  const count = Math.max(0, Math.floor(Math.min(seconds, last - from_s) * rate_Hz));
  const [angle_deg, speed] = [new Float64Array(count), new Float64Array(count)];
  let k = 0;
  for (let i = 0; i < count; i++) {
    const t = from_s + i / rate_Hz;
    while (k + 2 < times_s.length && (times_s[k + 1] ?? Infinity) <= t) k++;
    const [a, b] = [times_s[k] ?? 0, times_s[k + 1] ?? 1];
    angle_deg[i] = (k + (t - a) / (b - a)) * step_deg;
    speed[i] = speed_rpm[k] ?? 0;
  }
  return { rate_Hz, angle_deg, speed_rpm: speed };
}

const within = (angle: number, turn: number): number => ((angle % turn) + turn) % turn;

/** A Hall sensor on a wheel: 5 V at a tooth. `from_deg`: the first tooth after the gap. */
export const hallWheel = (s: Sampled, teeth: number, missing: number, from_deg: number): Float64Array =>
  s.angle_deg.map((a) => {
    const tooth = within(a - from_deg, 360) / (360 / teeth);
    return tooth < teeth - missing && tooth % 1 < 0.5 ? 5 : 0;
  });

/** A coil on a wheel: a wave for each tooth, as high as the crank is quick; 1 V at 200 rpm. */
export const coilWheel = (s: Sampled, teeth: number, missing: number, from_deg: number): Float64Array =>
  s.angle_deg.map((a, i) => {
    const tooth = within(a - from_deg, 360) / (360 / teeth);
    return tooth < teeth - missing ? (-Math.sin(2 * Math.PI * tooth) * (s.speed_rpm[i] ?? 0)) / 200 : 0;
  });

/** A Hall sensor on the cam: 5 V from the first to the second of each pair, degrees of the crank. */
export const camWheel = (
  s: Sampled,
  windows: readonly (readonly [number, number])[],
  shift_deg: number,
): Float64Array =>
  s.angle_deg.map((a) => {
    const at = within(a - shift_deg, 720);
    return windows.some(([from, to]) => at >= from && at < to) ? 5 : 0;
  });

/**
 * What an injector's driver draws, amperes: a pulse of `long_deg` from `before_deg` before each top dead
 * centre that is asked for.
 */
export function injectorCurrent(
  s: Sampled,
  turning: Turning,
  pulse: {
    readonly height_A: number;
    readonly long_deg: number;
    readonly before_deg: number;
    /** Degrees later, by place in the order; `null`: no pulse at all. */
    readonly late_deg: readonly (number | null)[];
    /** Of one place only; `null`: of all. */
    readonly only: number | null;
  },
): Float64Array {
  const out = new Float64Array(s.angle_deg.length);
  let k = 0;
  const starts = turning.firings.flatMap(({ top_deg, slot }) => {
    const late = pulse.late_deg[slot];
    return late === null || late === undefined || (pulse.only !== null && pulse.only !== slot)
      ? []
      : [top_deg - pulse.before_deg + late];
  });
  for (let i = 0; i < out.length; i++) {
    const a = s.angle_deg[i] ?? 0;
    while (k + 1 < starts.length && (starts[k + 1] ?? Infinity) <= a) k++;
    const since = a - (starts[k] ?? Infinity);
    if (since >= 0 && since < pulse.long_deg) out[i] = pulse.height_A * (1 - Math.exp((-4 * since) / pulse.long_deg));
  }
  return out;
}

/** A starter's current, amperes: what it takes to turn, more with each compression, and the inrush. */
export function starterCurrent(
  s: Sampled,
  turning: Turning,
  starter: { readonly mean_A: number; readonly swing_A: number; readonly compression: readonly number[] },
): Float64Array {
  const out = new Float64Array(s.angle_deg.length).fill(starter.mean_A);
  const wide = (720 / starter.compression.length) * 0.3;
  // Each compression is felt by the samples near it only.
  let from = 0;
  for (const { top_deg, slot } of turning.firings) {
    while (from < out.length && (s.angle_deg[from] ?? 0) < top_deg - 3 * wide) from++;
    for (let i = from; i < out.length && (s.angle_deg[i] ?? 0) < top_deg + 3 * wide; i++) {
      const x = ((s.angle_deg[i] ?? 0) - top_deg + 12) / wide;
      out[i] = (out[i] ?? 0) + starter.swing_A * (starter.compression[slot] ?? 1) * Math.exp(-x * x);
    }
  }
  return out.map((v, i) => v + 1.6 * starter.mean_A * Math.exp(-i / s.rate_Hz / 0.05));
}

/** An accelerometer, volts: a short ringing after each top dead centre, so high as each place knocks. */
export function knockSensor(
  s: Sampled,
  turning: Turning,
  ring: { readonly frequency_Hz: number; readonly loud: readonly number[]; readonly random: () => number },
): Float64Array {
  const out = new Float64Array(s.angle_deg.length);
  let i = 0;
  for (const { top_deg, slot, fired } of turning.firings) {
    while (i < out.length && (s.angle_deg[i] ?? 0) < top_deg + 10) i++;
    const loud = 0.05 * (ring.loud[slot] ?? 1) * (fired ? 1 : 0.4) * (0.8 + 0.4 * ring.random());
    const most = Math.min(out.length, i + Math.round(0.005 * s.rate_Hz));
    for (let k = i; k < most; k++) {
      const t = (k - i) / s.rate_Hz;
      out[k] = (out[k] ?? 0) + loud * Math.exp(-t / 0.001) * Math.sin(2 * Math.PI * ring.frequency_Hz * t);
    }
  }
  return out;
}
