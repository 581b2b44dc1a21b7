import { expandElements, expandProbes, wiringOf } from '../circuits/expand';
import type { LibraryCircuit } from '../circuits/types';
import type { Engine } from '../engine/layout';
import type { Display } from '../instrument/touch';
import { normalFrom } from '../numerics/random';
import { measureCircuit } from '../solver/measure';
import type { Circuit, Element, Fault } from '../solver/types';

/**
 * What a simulated meter measures. Everything invented. It shares the netlist with the judge, and nothing
 * else.
 */
export interface MeterScene {
  readonly circuit: LibraryCircuit;
  readonly engine: Engine;
  readonly faults: readonly Fault[];
  /** Whose positions can be touched. */
  readonly test: string;
  /** Positions whose contact does not come to rest. */
  readonly wanders: readonly (number | string)[];
  readonly random: () => number;
}

export type MeterMode = 'resistance' | 'voltage' | 'current';
/** Where the probes are: on a position, `off` on nothing, or `together` on each other. */
export type ProbePlace = number | string;

const LEADS_ohm = 0.18;
const INPUT_ohm = 1e7;
/** Tops of the ranges in the base unit; each has 6,000 counts. */
const RANGES: Readonly<Record<MeterMode, readonly number[]>> = {
  resistance: [6, 60, 600, 6e3, 6e4, 6e5, 6e6, 4e7],
  voltage: [0.6, 6, 60, 600],
  current: [0.6, 6, 60, 600],
};
const COUNTS = 6000;
const NOISE_counts = 0.35;
const BOUNCE_s = 0.07;

/**
 * A meter with its probes at a circuit: it settles, bounces, looks for its range, and has leads and noise.
 */
export class SimulatedMeter {
  mode: MeterMode = 'resistance';
  isBatteryLow = false;
  private place: ProbePlace = 'off';
  private since_s = 0;
  /** What the display came from. */
  private before = 0;
  private readonly truths = new Map<string, number | null>();

  constructor(private scene: MeterScene) {}

  /** Positions that can be touched, as the test names them. */
  positions(): readonly (number | string)[] {
    return [...new Set(this.probes().map((p) => p.position))];
  }

  /** What this test is read with. */
  testMode(): MeterMode {
    return this.probes()[0]?.mode ?? 'resistance';
  }

  /** Another fault or another test. */
  change(part: Partial<MeterScene>): void {
    this.scene = { ...this.scene, ...part };
    this.truths.clear();
  }

  /** Moves the probes. `false`: the test has no such position. */
  put(place: ProbePlace, t_s: number): boolean {
    if (place !== 'off' && place !== 'together' && !this.positions().includes(place)) return false;
    if (place === this.place) return true;
    const last = this.truth(this.place);
    this.before = last ?? 0;
    this.place = place;
    this.since_s = t_s;
    return true;
  }
  get at(): ProbePlace {
    return this.place;
  }

  /** What the display shows at a moment. */
  show(t_s: number): Display {
    const { random } = this.scene;
    const x = t_s - this.since_s;
    const truth = this.truth(this.place);
    const isBouncing = this.place !== 'off' && x < BOUNCE_s && random() < 0.5;
    if (truth === null || isBouncing) return { value: null, step: 0 };
    const settling = 0.12 + (Math.abs(truth) > 1e5 ? 0.5 : 0);
    let v = truth + (this.before - truth) * Math.exp(-x / settling);
    if (this.scene.wanders.includes(this.place)) v *= 1 + 0.9 * random();
    const step = this.step(v, x);
    v += NOISE_counts * step * normalFrom(random);
    return { value: Number((Math.round(v / step) * step).toPrecision(10)), step };
  }

  /** It looks for its range for a moment. */
  private step(v: number, x: number): number {
    const ranges = RANGES[this.mode];
    const fits = ranges.findIndex((top) => Math.abs(v) <= top);
    const at = Math.min(ranges.length - 1, (fits < 0 ? ranges.length - 1 : fits) + (x < 0.3 ? 1 : 0));
    return 10 ** Math.floor(Math.log10((ranges[at] ?? 1) / COUNTS) + 1e-9);
  }

  private probes() {
    const wiring = wiringOf(this.scene.engine);
    return expandProbes(this.scene.circuit, wiring).filter((p) => p.test === this.scene.test);
  }

  /** What the display would show at rest, in the base unit; `null`: overload. */
  private truth(place: ProbePlace): number | null {
    const key = `${this.mode} ${place}`;
    const known = this.truths.get(key);
    if (known !== undefined) return known;
    const value = this.measured(place);
    const top = RANGES[this.mode].at(-1) ?? Infinity;
    const shown = value !== null && Math.abs(value) > top ? null : value;
    this.truths.set(key, shown);
    return shown;
  }

  private measured(place: ProbePlace): number | null {
    if (place === 'off') return this.mode === 'resistance' ? null : 0;
    if (place === 'together') return this.mode === 'resistance' ? LEADS_ohm : 0;
    const probe = this.probes().find((p) => p.position === place);
    if (!probe) return null;
    const circuit = this.netlist(probe.state);
    const faults = [...this.scene.faults, ...(probe.opened ?? []).map((element): Fault => ({ element, kind: 'open' }))];
    const { red = '', black = '' } = probe;
    const measure =
      this.mode === 'resistance'
        ? ({ id: 'm', mode: 'resistance', red, black, lead_ohm: LEADS_ohm, overload_ohm: 4e7 } as const)
        : this.mode === 'voltage'
          ? ({ id: 'm', mode: 'voltage', red, black, meter_ohm: INPUT_ohm } as const)
          : ({ id: 'm', mode: 'current', element: probe.element ?? '' } as const);
    const read = measureCircuit(circuit, faults, [measure]);
    return read.ok ? (read.value[0]?.value ?? null) : null;
  }

  private netlist(state: string): Circuit {
    const { circuit, engine } = this.scene;
    const perVolt = circuit.follows === 'systemVoltage' ? (engine.systemVoltage_V ?? 12) / 12 : 1;
    const elements = expandElements(circuit, wiringOf(engine)).map((e): Element => {
      const value = circuit.values[e.value]?.value ?? 0;
      const ends = { id: e.id, from: e.from, to: e.to };
      if (e.kind === 'source') return { ...ends, kind: 'voltage', volts: value * perVolt };
      // A closed contact has its own resistance; an open one is next to none.
      if (e.kind === 'switch') return { ...ends, kind: 'resistor', ohms: e.closedIn?.includes(state) ? value : 1e12 };
      return { ...ends, kind: 'resistor', ohms: value };
    });
    return { reference: circuit.reference, elements };
  }
}

/** A value as a meter sends it unasked: "0.612 OHM", "OL OHM", with a prefix where the display has one. */
export function lineOf({ value, step }: Display, mode: MeterMode, flags: readonly string[] = []): string {
  const unit = mode === 'resistance' ? 'OHM' : mode === 'voltage' ? 'V' : 'A';
  const more = [...(mode === 'resistance' ? [] : ['DC']), ...flags];
  if (value === null) return ['OL', unit, ...more].join(' ');
  const [prefix, scale] = Math.abs(value) >= 1e6 ? ['M', 1e6] : Math.abs(value) >= 1e3 ? ['k', 1e3] : ['', 1];
  const decimals = Math.max(0, Math.round(Math.log10(scale / step)));
  return [(value / scale).toFixed(decimals), `${prefix}${unit}`, ...more].join(' ');
}
