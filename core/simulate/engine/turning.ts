import { normalFrom } from '../../numerics/random';

/** What makes the crank turn, per cylinder in the order of firing; 1 is a good one. */
export interface Cylinders {
  readonly compression: readonly number[];
  /** Torque of combustion. */
  readonly push: readonly number[];
  /** Share of its cycles in which it does not fire. */
  readonly misfires: readonly number[];
  /** Degrees by which combustion comes later than it should. */
  readonly late_deg: readonly number[];
}

/** A crank that turned: moments at even steps of angle, and its speed there. */
export interface Turning {
  readonly step_deg: number;
  readonly times_s: Float64Array;
  readonly speed_rpm: Float64Array;
  /** Firings in order: angle of top dead centre, place in the order, whether it fired. */
  readonly firings: readonly { readonly top_deg: number; readonly slot: number; readonly fired: boolean }[];
}

export interface TurningSettings {
  readonly cylinders: number;
  readonly rpm: number;
  readonly turns: number;
  /**
   * How far gas and combustion swing the speed, as shares of the mean kinetic energy for one cylinder.
   * Invented.
   */
  readonly gas: number;
  readonly combustion: number;
  /** Of what one firing gives, from cycle to cycle. */
  readonly jitter: number;
  readonly parts: Cylinders;
}

const STEP_deg = 1;
/** Crank radius over length of the rod. Usual of such engines; invented here. */
const ROD = 0.27;
/** Ratio of volumes, and the exponent of compression. Handbook values, from memory. */
const [RATIO, EXPONENT] = [17, 1.32];

/**
 * The torque of gas that is compressed and let out again by a slider crank, over the angle from top dead
 * centre, largest value
 * 1. Volume and lever of the slider crank: handbook geometry, from memory.
 */
function gasTorque(from_top_deg: number): number {
  const x = (from_top_deg * Math.PI) / 180;
  const volume = 1 / (RATIO - 1) + 0.5 * (1 - Math.cos(x)) + 0.25 * ROD * Math.sin(x) ** 2;
  const lever = Math.sin(x) * (1 + ROD * Math.cos(x));
  return ((1 + 1 / (RATIO - 1)) / volume) ** EXPONENT * lever;
}

/** The torque of a firing over the angle from top dead centre: quick up, slowly down. Invented shape. */
const firingTorque = (after_deg: number): number =>
  after_deg <= 0 || after_deg > 160 ? 0 : (after_deg / 22) * Math.exp(1 - after_deg / 22);

/**
 * Turns the crank: kinetic energy goes with the torque over angle; the load takes what a turn gives on the
 * average.
 */
export function turnCrank(s: TurningSettings, random: () => number): Turning {
  const count = Math.round((s.turns * 360) / STEP_deg);
  const torque = new Float64Array(count);
  const spacing = 720 / s.cylinders;
  const largest = Math.max(...Array.from({ length: 180 }, (_, a) => gasTorque(a)));
  const firings: Turning['firings'][number][] = [];
  for (let k = -1; k * spacing < s.turns * 360 + spacing; k++) {
    const slot = ((k % s.cylinders) + s.cylinders) % s.cylinders;
    const top_deg = k * spacing;
    const fired = random() >= (s.parts.misfires[slot] ?? 0);
    const push = fired ? (s.parts.push[slot] ?? 1) * (1 + s.jitter * normalFrom(random)) : 0;
    firings.push({ top_deg, slot, fired });
    const gas = (s.gas * (s.parts.compression[slot] ?? 1)) / largest;
    const late = s.parts.late_deg[slot] ?? 0;
    for (let a = -180; a <= 180; a += STEP_deg) {
      const i = Math.round((top_deg + a) / STEP_deg);
      if (i < 0 || i >= count) continue;
      torque[i] = (torque[i] ?? 0) + gas * gasTorque(a) + s.combustion * push * firingTorque(a - late);
    }
  }
  const load = torque.reduce((sum, t) => sum + t, 0) / count;
  const times_s = new Float64Array(count);
  const speed_rpm = new Float64Array(count);
  let [energy, t] = [1, 0];
  for (let i = 0; i < count; i++) {
    times_s[i] = t;
    const rpm = s.rpm * Math.sqrt(Math.max(0.04, energy));
    speed_rpm[i] = rpm;
    t += STEP_deg / (6 * rpm);
    // A governor of idle, and the starter's own fall of torque, hold the mean.
    energy += (((torque[i] ?? 0) - load) * STEP_deg * Math.PI) / 180 - 0.0004 * (energy - 1);
  }
  return { step_deg: STEP_deg, times_s, speed_rpm, firings };
}
