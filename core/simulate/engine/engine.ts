import { normalFrom, seededRandom } from '../../numerics/random';
import {
  camWheel,
  coilWheel,
  hallWheel,
  injectorCurrent,
  knockSensor,
  type Sampled,
  sampled,
  starterCurrent,
} from './signals';
import { type Turning, turnCrank } from './turning';

/** Something wrong with an engine or with how it is recorded. Cylinders by their number. */
export type EngineFault =
  | { readonly kind: 'low compression'; readonly cylinder: number; readonly share: number }
  /** Compressions even, but all of it too hard to turn. */
  | { readonly kind: 'drag' }
  | { readonly kind: 'weak battery' }
  /** The cam against the crank, degrees of the crank. */
  | { readonly kind: 'timing'; readonly shift_deg: number }
  | { readonly kind: 'no injection'; readonly cylinder: number }
  | { readonly kind: 'late injection'; readonly cylinder: number; readonly late_deg: number }
  | { readonly kind: 'misfires'; readonly cylinder: number; readonly share: number }
  /** It knocks, fires early, and its gas starves the others of its bank: they miss. */
  | { readonly kind: 'leaking injector'; readonly cylinder: number; readonly victims: readonly number[] }
  | { readonly kind: 'noisy sensor'; readonly spikes_V: number }
  | { readonly kind: 'weak sensor' }
  | { readonly kind: 'clamp turned round' }
  | { readonly kind: 'clamp not zeroed'; readonly offset_A: number }
  | { readonly kind: 'clipped'; readonly at_A: number };

export interface EngineSettings {
  readonly cylinders: number;
  readonly firingOrder: readonly number[];
  readonly condition: 'cranking' | 'idle' | 'load';
  readonly seconds: number;
  readonly rate_Hz: number;
  readonly wheel: { readonly teeth: number; readonly missing: number; readonly kind: 'hall' | 'coil' };
  /** Degrees of the crank at which the cam is high, pairs in 0 to 720. */
  readonly cam: readonly (readonly [number, number])[];
  readonly faults: readonly EngineFault[];
  readonly seed: number;
}

/** Channels of a simulated capture, each with its unit; all have one rate. */
export interface EngineCapture {
  readonly settings: EngineSettings;
  readonly channels: Readonly<Record<EngineSignal, Float64Array>>;
  readonly speed_rpm: number;
}
export const ENGINE_SIGNALS = ['crank', 'cam', 'starter', 'battery', 'injectors', 'injector 1', 'knock'] as const;
export type EngineSignal = (typeof ENGINE_SIGNALS)[number];

/** Invented, in the order of what such engines do. */
const CONDITIONS = {
  cranking: { rpm: 210, gas: 0.12, combustion: 0, pulse_deg: 6 },
  idle: { rpm: 680, gas: 0.05, combustion: 0.045, pulse_deg: 12 },
  load: { rpm: 1500, gas: 0.012, combustion: 0.03, pulse_deg: 24 },
} as const;

type Of<K extends EngineFault['kind']> = Extract<EngineFault, { kind: K }>;

/**
 * An engine that is cranked or runs, as an oscilloscope would record it; the same seed gives the same
 * samples. It shares nothing with the analysis but the engine's layout.
 */
export function simulateEngine(settings: EngineSettings): EngineCapture {
  const random = seededRandom(settings.seed);
  const { cylinders, faults, firingOrder } = settings;
  const fault = <K extends EngineFault['kind']>(kind: K): Of<K> | undefined =>
    faults.find((f): f is Of<K> => f.kind === kind);
  const usual = CONDITIONS[settings.condition];
  const by = (value: (cylinder: number) => number): number[] => firingOrder.map(value);
  const low = fault('low compression');
  const leak = fault('leaking injector');
  const missing = fault('no injection');
  const late = fault('late injection');
  const misfires = fault('misfires');
  const compression = by((c) => (low?.cylinder === c ? low.share : 1) * (1 + 0.015 * normalFrom(random)));
  const slow = (fault('drag') ? 0.62 : 1) * (fault('weak battery') ? 0.55 : 1);
  const many = Math.min(1, 4 / cylinders);
  const turning = turnCrank(
    {
      cylinders,
      rpm: usual.rpm * slow,
      turns: Math.ceil((settings.seconds * usual.rpm * slow) / 60 + 6),
      gas: usual.gas * many,
      combustion: usual.combustion * many,
      jitter: 0.03,
      parts: {
        compression,
        push: by((c) => (leak?.cylinder === c ? 1.15 : 1) * (1 + 0.02 * normalFrom(random))),
        misfires: by((c) =>
          missing?.cylinder === c ? 1 : misfires?.cylinder === c ? misfires.share : leak?.victims.includes(c) ? 0.6 : 0,
        ),
        late_deg: by((c) => (late?.cylinder === c ? late.late_deg : leak?.cylinder === c ? -12 : 0)),
      },
    },
    random,
  );
  // The recording begins anywhere.
  const s = sampled(turning, settings.rate_Hz, (2 * 60 * random()) / (usual.rpm * slow), settings.seconds);
  const channels = channelsOf(s, turning, settings, compression, fault, random);
  return { settings, channels, speed_rpm: usual.rpm * slow };
}

function channelsOf(
  s: Sampled,
  turning: Turning,
  { wheel, cam, firingOrder, condition }: EngineSettings,
  compression: readonly number[],
  fault: <K extends EngineFault['kind']>(kind: K) => Of<K> | undefined,
  random: () => number,
): EngineCapture['channels'] {
  const noisy = (values: Float64Array, sigma: number): Float64Array =>
    values.map((v) => v + sigma * normalFrom(random));
  const usual = CONDITIONS[condition];
  const [missing, late, leak] = [fault('no injection'), fault('late injection'), fault('leaking injector')];
  const pulse = {
    height_A: 11,
    long_deg: usual.pulse_deg,
    before_deg: 8,
    late_deg: firingOrder.map((c) => (missing?.cylinder === c ? null : late?.cylinder === c ? late.late_deg : 0)),
  };
  const one = {
    ...pulse,
    late_deg: firingOrder.map((_, i) => pulse.late_deg[i] ?? null),
    only: firingOrder.indexOf(1),
  };
  const current = clamped(noisy(injectorCurrent(s, turning, { ...pulse, only: null }), 0.12), fault);
  const isCranking = condition === 'cranking';
  const starter = {
    mean_A: isCranking ? (fault('drag') ? 560 : fault('weak battery') ? 130 : 190) : 0,
    swing_A: isCranking ? (fault('drag') ? 150 : fault('weak battery') ? 60 : 110) : 0,
    compression,
  };
  const drawn = starterCurrent(s, turning, starter);
  const ohms = fault('weak battery') ? 0.024 : 0.006;
  const rest = condition === 'cranking' ? (fault('weak battery') ? 11.9 : 12.6) : 14.1;
  const position = wheel.kind === 'hall' ? hallWheel : coilWheel;
  const weak = fault('weak sensor') ? 0.12 : 1;
  const crank = position(s, wheel.teeth, wheel.missing, 40).map((v) => weak * v);
  return {
    crank: spiked(noisy(crank, 0.03), fault('noisy sensor')?.spikes_V ?? 0, random),
    cam: noisy(camWheel(s, cam, fault('timing')?.shift_deg ?? 0), 0.03),
    starter: clamped(noisy(drawn, 5), fault),
    battery: noisy(
      drawn.map((a) => rest - ohms * a),
      0.02,
    ),
    injectors: current,
    'injector 1': noisy(injectorCurrent(s, turning, one), 0.12),
    knock: noisy(
      knockSensor(s, turning, {
        frequency_Hz: Math.min(6500, 0.35 * s.rate_Hz),
        loud: firingOrder.map((c) => (leak?.cylinder === c ? 4 : 1)),
        random,
      }),
      0.01,
    ),
  };
}

/** As a clamp shows it that is turned round, not zeroed, or whose range ends. */
function clamped(
  values: Float64Array,
  fault: <K extends EngineFault['kind']>(kind: K) => Of<K> | undefined,
): Float64Array {
  const sign = fault('clamp turned round') ? -1 : 1;
  const offset = fault('clamp not zeroed')?.offset_A ?? 0;
  const most = fault('clipped')?.at_A ?? Infinity;
  return values.map((v) => Math.max(-most, Math.min(most, sign * v + offset)));
}

/** Single samples that are off, some in each ten thousand. */
function spiked(values: Float64Array, height_V: number, random: () => number): Float64Array {
  return height_V === 0
    ? values
    : values.map((v) => (random() < 0.0004 ? v + height_V * (random() < 0.5 ? 1 : -1) : v));
}
