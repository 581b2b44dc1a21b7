import { normalFrom } from '../numerics/random';

/** What the engine does, at equal distances of time. Invented, but in the order of a drive. */
export interface Journey {
  readonly rate_Hz: number;
  /** 0 to 1. */
  readonly pedal: Float64Array;
  readonly speed_rpm: Float64Array;
  /** 0 to 1 of what each sensor measures. */
  readonly airflow: Float64Array;
  readonly rail: Float64Array;
  readonly boost: Float64Array;
  readonly coolant: Float64Array;
  readonly battery_V: Float64Array;
  /** 1 while the controller gives its reference. */
  readonly keyOn: Uint8Array;
}

const [KEY_s, CRANK_s, IDLE_rpm] = [4, 6, 680];

/**
 * A cold start, idle, snaps of the throttle, hills and stops, until the last seconds, in which the key goes
 * off. Every quantity follows the one before it with a lag of its own: pedal, speed, air, boost; rail at
 * once; coolant over minutes.
 */
export function journey(seconds: number, rate_Hz: number, random: () => number): Journey {
  const count = Math.round(seconds * rate_Hz);
  const dt = 1 / rate_Hz;
  const lists = Array.from({ length: 7 }, () => new Float64Array(count));
  const [pedal, speed, airflow, rail, boost, coolant, battery] = lists as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  const keyOn = new Uint8Array(count);
  const off_s = seconds - 5;
  let [rpm, air, fuel, charge, heat, wanted, until, ramp] = [0, 0, 0, 0, 0.08, 0, 20, 0];
  for (let i = 0; i < count; i++) {
    const t = i * dt;
    const isOn = t > KEY_s && t < off_s;
    const isRunning = t > CRANK_s + 1.4 && t < off_s;
    const isCranking = t > CRANK_s && !isRunning && isOn;
    if (isRunning && t >= until) [wanted, ramp, until] = nextWish(t, random);
    const foot: number = isRunning ? (pedal[i - 1] ?? 0) + clamp(wanted - (pedal[i - 1] ?? 0), -4 * dt, ramp * dt) : 0;
    pedal[i] = foot;
    rpm += ((isRunning ? IDLE_rpm + 1750 * foot : isCranking ? 190 : 0) - rpm) * share(dt, isRunning ? 0.35 : 0.25);
    const load = isRunning ? foot : 0;
    air += ((rpm / 2430) * (0.25 + 0.75 * load) - air) * share(dt, 0.07);
    fuel += ((isRunning ? 0.16 + 0.72 * load : isCranking ? 0.1 : 0) - fuel) * share(dt, 0.1);
    charge += (load * (rpm / 2430) * 0.8 - charge) * share(dt, 0.8);
    heat += (isRunning ? (0.85 - heat) * share(dt, 480) : 0) - (isOn ? 0 : heat * share(dt, 9000));
    speed[i] = rpm + (isRunning ? 6 * normalFrom(random) : isCranking ? 25 * Math.sin(40 * t) : 0);
    airflow[i] = clamp(air, 0, 1);
    rail[i] = clamp(fuel, 0, 1);
    boost[i] = clamp(0.1 + charge, 0, 1);
    coolant[i] = heat;
    battery[i] = isCranking ? 10 + 0.35 * Math.sin(40 * t) : isRunning ? 14.1 - 0.15 * load : 12.5;
    keyOn[i] = isOn ? 1 : 0;
  }
  return { rate_Hz, pedal, speed_rpm: speed, airflow, rail, boost, coolant, battery_V: battery, keyOn };
}

/** What the driver wants next: where the pedal goes, how quickly (a second's worth), and until when. */
function nextWish(t: number, random: () => number): [wanted: number, ramp: number, until: number] {
  const kind = random();
  if (kind < 0.2) return [1, 5, t + 0.5 + random()];
  if (kind < 0.45) return [0, 3, t + 4 + 14 * random()];
  if (kind < 0.65) return [0.7 + 0.3 * random(), 0.3, t + 15 + 40 * random()];
  return [0.15 + 0.5 * random(), 0.6, t + 5 + 20 * random()];
}

const share = (dt: number, tau_s: number): number => dt / (tau_s + dt);
const clamp = (v: number, low: number, high: number): number => Math.min(high, Math.max(low, v));
