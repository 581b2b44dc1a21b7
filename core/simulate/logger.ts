import { normalFrom, seededRandom } from '../numerics/random';
import { type Journey, journey } from './journey';
import { type PinTable, pinTable, type Place } from './sensor-pin';

/** The signals that the simulated logger watches, with what it calls them. */
export const SIGNALS = ['airflow', 'rail', 'boost', 'coolant'] as const;
export type Signal = (typeof SIGNALS)[number];

/** Something wrong in the circuit of one signal, from a moment on for some time. */
export interface SimulatedFault {
  readonly signal: Signal;
  readonly place: Place;
  readonly at_s: number;
  readonly seconds: number;
  /** Ohms in series; `null`: open. */
  readonly ohms: number | null;
}

export interface LoggerSettings {
  readonly seconds: number;
  readonly rate_Hz: number;
  readonly seed: number;
  /** Standard deviation of a sample, volts. */
  readonly noise_V: number;
  /** What the converter's last step is worth, volts. */
  readonly step_V: number;
  readonly faults: readonly SimulatedFault[];
  /** How often the scan tool asks, and how much later it shows; `null`: there is none. */
  readonly scan: { readonly rate_Hz: number; readonly delay_s: number } | null;
}

export interface SimulatedRecording {
  readonly settings: LoggerSettings;
  readonly journey: Journey;
  /** Volts at the pins. */
  readonly pins: Readonly<Record<Signal, Float64Array>>;
  /** Volts of the battery. */
  readonly battery: Float64Array;
  /**
   * What the controller believes, in volts behind its inputs, as the scan tool shows it; with the moment of
   * each.
   */
  readonly scan: { readonly t_s: Float64Array; readonly values: Readonly<Record<Signal, Float64Array>> } | null;
}

/**
 * Of each quantity, how its sensor's share of the reference follows: from, and how much more at full scale.
 * Invented.
 */
const SENSORS: Readonly<Record<Signal, readonly [at0: number, span: number]>> = {
  airflow: [0.18, 0.78],
  rail: [0.1, 0.8],
  boost: [0.16, 0.7],
  coolant: [0.72, -0.55],
};

/**
 * A journey recorded by a logger at the controller's pins, with faults put in at stated moments; the same
 * seed gives the same samples. It shares nothing with the search but the numbers that it writes.
 */
export function simulateLogger(settings: LoggerSettings): SimulatedRecording {
  const random = seededRandom(settings.seed);
  const drive = journey(settings.seconds, settings.rate_Hz, random);
  const good = pinTable(null);
  const pins = {} as Record<Signal, Float64Array>;
  const seen = {} as Record<Signal, Float64Array>;
  for (const signal of SIGNALS) {
    const own = settings.faults.filter((f) => f.signal === signal).map((f) => ({ ...f, table: pinTable(f) }));
    const [at0, span] = SENSORS[signal];
    const source = drive[signal];
    const pin = new Float64Array(source.length);
    const behind = new Float64Array(source.length);
    for (let i = 0; i < source.length; i++) {
      const t = i / settings.rate_Hz;
      const ratio = at0 + span * (source[i] ?? 0);
      const fault = own.find((f) => t >= f.at_s && t < f.at_s + f.seconds);
      const table: PinTable = fault ? fault.table : good;
      const isOn = drive.keyOn[i] === 1;
      pin[i] = recorded(isOn ? table.pin(ratio) : 0, settings, random);
      behind[i] = isOn ? table.seen(ratio) : 0;
    }
    pins[signal] = pin;
    seen[signal] = behind;
  }
  const battery = drive.battery_V.map((v) =>
    recorded(v, { ...settings, noise_V: 2 * settings.noise_V, step_V: 4 * settings.step_V }, random),
  );
  return {
    settings,
    journey: drive,
    pins,
    battery,
    scan: settings.scan && scanned(settings, settings.scan, seen, random),
  };
}

function recorded(
  volts: number,
  { noise_V, step_V }: Pick<LoggerSettings, 'noise_V' | 'step_V'>,
  random: () => number,
): number {
  return Math.max(0, Math.round((volts + noise_V * normalFrom(random)) / step_V) * step_V);
}

/**
 * The scan tool asks at uneven times and shows what the controller had a little before, to a hundredth of a
 * volt.
 */
function scanned(
  { seconds, rate_Hz }: LoggerSettings,
  { rate_Hz: asked_Hz, delay_s }: { readonly rate_Hz: number; readonly delay_s: number },
  seen: Readonly<Record<Signal, Float64Array>>,
  random: () => number,
): SimulatedRecording['scan'] {
  const times: number[] = [];
  for (let t = 1; t < seconds - 1; t += (0.8 + 0.4 * random()) / asked_Hz) times.push(Math.round(t * 1000) / 1000);
  const t_s = Float64Array.from(times);
  const values = Object.fromEntries(
    SIGNALS.map((s) => [
      s,
      t_s.map((t) => Math.round((seen[s][Math.max(0, Math.round((t - delay_s) * rate_Hz))] ?? 0) * 100) / 100),
    ]),
  ) as Record<Signal, Float64Array>;
  return { t_s, values };
}
