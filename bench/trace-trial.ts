import { searchRecording } from '../core/signal/recording';
import { rateClock } from '../core/signal/clock';
import { stepOf } from '../core/signal/step';
import type { Channel, ChannelRole } from '../core/signal/types';
import { normalFrom, seededRandom } from '../core/numerics/random';
import { type Signal, SIGNALS, type SimulatedFault, simulateLogger } from '../core/simulate/logger';
import { PLACES } from '../core/simulate/sensor-pin';

/** What the search has found in simulated logs. */
export interface TraceTrial {
  readonly logs: number;
  readonly hours: number;
  readonly planted: number;
  /** As large as the power statement says, and of those, found. */
  readonly stated: number;
  readonly statedFound: number;
  readonly found: number;
  readonly falseFindings: number;
}

const ROLES: Readonly<Record<Signal, ChannelRole>> = {
  airflow: 'airflow',
  rail: 'rail-pressure',
  boost: 'boost',
  coolant: 'temperature',
};

/**
 * Half of the logs clean, half with dropouts of any length and place of the circuit; rates, noise and steps
 * of any logger.
 */
export function traceTrial(logs: number, seed: number): TraceTrial {
  const random = seededRandom(seed);
  let [hours, planted, stated, statedFound, found, falseFindings] = [0, 0, 0, 0, 0, 0];
  for (let n = 0; n < logs; n++) {
    const rate_Hz = [50, 100, 100, 200][Math.floor(4 * random())] ?? 100;
    const seconds = 240 + Math.floor(700 * random());
    const faults = n % 2 ? faultsIn(seconds, rate_Hz, random) : [];
    const settings = {
      seconds,
      rate_Hz,
      seed: Math.floor(2 ** 30 * random()),
      noise_V: 0.001 + 0.01 * random(),
      step_V: random() < 0.5 ? 0.001 : 0.005,
      faults,
      scan: null,
    };
    const r = simulateLogger(settings);
    hours += seconds / 3600;
    const channels = SIGNALS.map((s) =>
      channelOf(s, tailed(r.pins[s], settings.noise_V, random), rate_Hz, settings.step_V),
    );
    const { findings, searched } = searchRecording(channels);
    const explained = new Set<object>();
    for (const f of faults) {
      const hit = findings.filter(
        (p) => p.channel === f.signal && p.from_s <= f.at_s + f.seconds + 0.05 && p.to_s >= f.at_s - 0.05,
      );
      hit.forEach((p) => explained.add(p));
      const isFound = hit.some((p) => p.kind === 'dropout' || p.kind === 'spike');
      const depth = depthOf(r.pins[f.signal], f, rate_Hz);
      const power = searched.find((s) => s.channel === f.signal)?.wouldFind;
      planted++;
      if (isFound) found++;
      if (power && depth >= power.depth) {
        stated++;
        if (isFound) statedFound++;
      }
    }
    falseFindings += findings.filter((f) => !explained.has(f)).length;
  }
  return { logs, hours, planted, stated, statedFound, found, falseFindings };
}

function faultsIn(seconds: number, rate_Hz: number, random: () => number): SimulatedFault[] {
  const places = PLACES.filter((p) => p !== 'input');
  return Array.from({ length: 1 + Math.floor(3 * random()) }, (_, k, count = 3) => ({
    signal: SIGNALS[Math.floor(3 * random())] ?? 'rail',
    place: places[Math.floor(places.length * random())] ?? 'signal wire',
    at_s: 20 + ((seconds - 40) * (k + 0.2 + 0.6 * random())) / count,
    seconds: Math.exp(Math.log(1 / rate_Hz) + random() * Math.log(2 * rate_Hz)),
    ohms: random() < 0.7 ? null : 20_000 + 200_000 * random(),
  }));
}

/** Some loggers have noise with heavy tails; the simulator of the drive has not. */
function tailed(values: Float64Array, noise_V: number, random: () => number): Float64Array {
  if (random() < 0.6) return values;
  return values.map((v) =>
    Math.max(0, v + (noise_V * 0.5 * normalFrom(random)) / Math.max(0.25, Math.abs(normalFrom(random)))),
  );
}

const channelOf = (signal: Signal, values: Float64Array, rate_Hz: number, written: number): Channel => ({
  id: signal,
  name: signal,
  unit: 'V',
  role: ROLES[signal],
  clock: rateClock(rate_Hz, values.length),
  values,
  step: stepOf(values, written),
});

/** How far the pin fell or rose, against the samples beside it. */
function depthOf(pin: Float64Array, f: SimulatedFault, rate_Hz: number): number {
  const [a, b] = [Math.ceil(f.at_s * rate_Hz), Math.ceil((f.at_s + f.seconds) * rate_Hz) - 1];
  if (b < a) return 0;
  const inside = pin.slice(a, b + 1).sort();
  const middle = inside[inside.length >> 1] ?? 0;
  return Math.min(Math.abs((pin[a - 2] ?? 0) - middle), Math.abs((pin[b + 3] ?? 0) - middle));
}
