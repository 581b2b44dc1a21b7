import type { PlacedElement, Wiring } from '../circuits/expand';
import type { LibraryCircuit } from '../circuits/types';
import { cell, floatAt } from '../numerics/cell';
import { across, type MeterSetup, type Net, netOf, setupsOf, shownBy } from './meter-setups';
import { evenly, looseAt, reachOf } from './prediction-spread';
import type { Predictions } from './predictions';
import { deviation, SAMPLES } from './tolerance-samples';
import type { Hypothesis, Member } from './types';

/** Ohms above which a meter shows overload. */
export const OVERLOAD_ohm = 2e7;
const TINY_ohm = 1e-5;
/** Of the largest voltage there is: less across an element is none. */
const IDLE = 1e-8;
/** What is not joined to the meter’s other lead stands far above: its height says nothing. */
const FLOATING_V = 1e5;

/** Mean and standard deviation of a reading over the samples; of ohms, of their logarithm. */
type Moments = readonly [mean: number, sd: number];

/** Predicts every probe of the circuit under every hypothesis. Depends on no evidence: worth keeping. */
export function predictAll(circuit: LibraryCircuit, wiring: Wiring, hypotheses: readonly Hypothesis[]): Predictions {
  const net = netOf(circuit, wiring);
  const { instances, setups } = setupsOf(circuit, wiring, net);
  const n = instances.length;
  const samples = tolerances(circuit, net.resistors);
  const mean = new Float64Array(hypotheses.length * n);
  const sd = new Float64Array(mean.length);
  const good = instances.map(() => ({ mean: 0, sd: 0 }));
  for (const setup of setups) {
    const predictor = new SetupPredictor(setup, net, samples);
    setup.read.forEach((probes, r) => {
      const [middle, spread] = cell(predictor.healthy, r);
      good[probes.instance] = { mean: middle, sd: spread };
    });
    for (const [h, { members }] of hypotheses.entries()) {
      const predicted = predictor.predict(members);
      setup.read.forEach((probes, r) => {
        [mean[h * n + probes.instance], sd[h * n + probes.instance]] = cell(predicted, r);
      });
    }
  }
  const even = evenly(instances, good);
  for (let k = 0; k < sd.length; k++) sd[k] = floatAt(sd, k) * cell(even, k % n);
  return {
    instances,
    hypotheses,
    mean,
    sd,
    ...reachOf(hypotheses, mean, n),
    loose: looseAt(hypotheses, mean, sd, n),
    volts: Math.max(1, ...net.sources.map(net.volts)),
    sourceSpread: Math.max(0, ...net.sources.map((e) => circuit.values[e.value]?.spread ?? 0)),
  };
}

/** One setup of the meter, solved for good parts and for faults, over all samples of tolerances. */
class SetupPredictor {
  readonly healthy: readonly Moments[];
  private readonly conductance_S: Float64Array;
  private readonly healthyVolts: Float64Array[] = [];
  private readonly idle = new Map<string, boolean>();

  constructor(
    private readonly setup: MeterSetup,
    private readonly net: Net,
    private readonly samples: readonly Float64Array[],
  ) {
    this.conductance_S = new Float64Array(net.resistors.length);
    this.healthy = this.solveAll([], (v) => {
      this.healthyVolts.push(v.slice());
    });
  }

  /** By reading of the setup. */
  predict(members: readonly Member[]): readonly Moments[] {
    return members.every((m) => this.changesNothing(m.element)) ? this.healthy : this.solveAll(members);
  }

  private solveAll(members: readonly Member[], keepVolts?: (v: Float64Array) => void): readonly Moments[] {
    const { setup, net, conductance_S } = this;
    const all = setup.read.map(() => new Float64Array(SAMPLES));
    for (const [d, ohms] of this.samples.entries()) {
      fillConductances(conductance_S, ohms, net, setup, members);
      const v = setup.solver.solve(conductance_S);
      keepVolts?.(v);
      setup.read.forEach((probes, r) => {
        cell(all, r)[d] = shownBy(probes, net, v, conductance_S);
      });
    }
    return all.map((values) => (setup.isOhms ? momentsOfLog(values) : moments(values)));
  }

  private changesNothing(element: string): boolean {
    const known = this.idle.get(element) ?? this.isIdle(this.net.index.get(element) ?? -1);
    this.idle.set(element, known);
    return known;
  }

  /**
   * In ohms the meter's own current tells: what carries none of it can change without being seen. (In volts
   * an open wire leaves a point to nobody, and is seen.)
   */
  private isIdle(element: number): boolean {
    if (!this.setup.isOhms || element < 0) return false;
    return this.healthyVolts.every((v) => {
      const most = v.reduce((m, x) => Math.max(m, Math.abs(x)), 0);
      return Math.abs(across(this.net, v, element)) <= IDLE * Math.min(FLOATING_V, most);
    });
  }
}

function fillConductances(
  conductance_S: Float64Array,
  ohms: Float64Array,
  { resistors, index }: Net,
  setup: MeterSetup,
  members: readonly Member[],
): void {
  for (let i = 0; i < conductance_S.length; i++) {
    const closedIn = cell(resistors, i).closedIn;
    conductance_S[i] = closedIn && !closedIn.includes(setup.state) ? 0 : 1 / floatAt(ohms, i);
  }
  for (const m of members) {
    const i = index.get(m.element);
    if (i === undefined) continue;
    const now = floatAt(conductance_S, i);
    if (m.fault === 'open') conductance_S[i] = 0;
    else if (m.fault === 'resistance')
      conductance_S[i] = now === 0 && cell(resistors, i).kind === 'switch' ? 0 : 1 / Math.max(TINY_ohm, m.ohms);
    else if (now > 0) conductance_S[i] = 1 / (1 / now + m.ohms);
  }
  for (const o of setup.opened) if (o >= 0) conductance_S[o] = 0;
}

/** Resistances of each draw, good parts within their tolerance. */
function tolerances(circuit: LibraryCircuit, resistors: readonly PlacedElement[]): Float64Array[] {
  return Array.from({ length: SAMPLES }, (_, d) =>
    Float64Array.from(resistors, (e, i) => {
      const { value = 1, spread = 0 } = circuit.values[e.value] ?? {};
      return Math.max(TINY_ohm, value * Math.exp(spread * deviation(i, d)));
    }),
  );
}

function moments(values: Float64Array): [number, number] {
  let [sum, squares] = [0, 0];
  for (const v of values) {
    sum += v;
    squares += v * v;
  }
  const m = sum / values.length;
  return [m, Math.sqrt(Math.max(0, squares / values.length - m * m))];
}

function momentsOfLog(values: Float64Array): [number, number] {
  if (floatAt(values, 0) > OVERLOAD_ohm) return [Infinity, 0];
  return moments(values.map((v) => Math.log(Math.max(1e-3, v))));
}
