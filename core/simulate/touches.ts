import type { Display } from '../instrument/touch';
import { normalFrom } from '../numerics/random';

/** One touch of a probe as a display shows it. Everything invented; it shares nothing with what reads it. */
export interface SimulatedTouch {
  /** Moments in seconds and what the display shows. */
  readonly shown: readonly (readonly [t_s: number, display: Display])[];
  readonly contact_s: number;
  readonly lifted_s: number;
  /** From when on the display stays where it ends, within a count. */
  readonly settled_s: number;
  /** What it shows at rest, at a moment: it may drift. */
  readonly atRest: (t_s: number) => number;
}

export interface TouchSettings {
  readonly value: number;
  /** One count of the display. */
  readonly step: number;
  readonly rate_Hz: number;
  /** Contact to rest, seconds. */
  readonly settling_s: number;
  /** Standard deviation of the display at rest, in counts. */
  readonly noise_counts: number;
  /** Per second, in counts. */
  readonly drift_counts: number;
  readonly bounces: number;
  /** Slips once, so long; 0: never. */
  readonly slip_s: number;
  readonly stays_s: number;
  readonly random: () => number;
}

/** Share of the settling that a meter needs to find its range. */
const RANGING = 0.4;

/**
 * Overshoot and creep of several kinds: an exponential, two of them, a range that is changed on the way, a
 * filter of averages.
 */
export function simulateTouch(s: TouchSettings): SimulatedTouch {
  const { random } = s;
  const contact_s = 0.3 + random();
  const kind = Math.floor(4 * random());
  const starts = s.value * (random() < 0.5 ? 1 + 3 * random() : random());
  const reach = Math.max(Math.abs(starts - s.value), s.step);
  // So that it is within one count at `settling_s`.
  const tau = s.settling_s / Math.max(1, Math.log(reach / s.step));
  const drift = s.drift_counts * s.step;
  const atRest = (t: number): number => s.value + drift * Math.max(0, t - contact_s);
  const lifted_s = contact_s + s.stays_s;
  const slipAt = contact_s + s.settling_s * random();
  const shown: [number, Display][] = [];
  const average: number[] = [];
  for (let t = random() / s.rate_Hz; t < lifted_s + 0.6; t += (0.9 + 0.2 * random()) / s.rate_Hz) {
    const x = t - contact_s;
    if (x < 0 || t > lifted_s || bounced(x, s)) {
      shown.push([t, { value: null, step: 0 }]);
      average.length = 0;
      continue;
    }
    let v = atRest(t) + (starts - s.value) * approach(kind, x, tau, s.settling_s);
    if (s.slip_s > 0 && t > slipAt && t < slipAt + s.slip_s) v += s.value * (0.3 + random()) + s.step * 5 * random();
    v += s.noise_counts * s.step * normalFrom(random);
    if (kind === 3) {
      average.push(v);
      if (average.length > 3) average.shift();
      v = average.reduce((a, b) => a + b, 0) / average.length;
    }
    // Until its range is found it shows a digit less.
    const step = kind === 2 && x < RANGING * s.settling_s ? 10 * s.step : s.step;
    shown.push([t, { value: Math.round(v / step) * step, step }]);
  }
  const late = s.slip_s > 0 ? Math.max(s.settling_s, slipAt - contact_s + s.slip_s) : s.settling_s;
  return { shown, contact_s, lifted_s, settled_s: contact_s + late, atRest };
}

const bounced = (x: number, { bounces, random }: TouchSettings): boolean =>
  bounces > 0 && x < 0.06 * bounces && random() < 0.5;

function approach(kind: number, x: number, tau: number, settling: number): number {
  if (kind === 0) return Math.exp(-x / tau);
  if (kind === 1) return 0.7 * Math.exp((-2 * x) / tau) + 0.3 * Math.exp(-x / tau);
  // The range is changed on the way: it stands for a while, then it goes on.
  if (kind === 2) return x < RANGING * settling ? 0.35 : 0.35 * Math.exp((-1.7 * (x - RANGING * settling)) / tau);
  return Math.exp((-1.3 * x) / tau);
}
