import type { PlacedElement, Wiring } from '../circuits/expand';
import type { LibraryCircuit } from '../circuits/types';
import { cell } from '../numerics/cell';
import { type MeterSetup, type Net, netOf, setupsOf } from './meter-setups';
import { evenly, looseAt, reachOf } from './prediction-spread';
import type { Instance, Predictions } from './predictions';
import { SetupPredictor, TINY_ohm } from './setup-predictor';
import { deviation, SAMPLES } from './tolerance-samples';
import type { Hypothesis } from './types';

/** Predicts every probe of the circuit under every hypothesis. Depends on no evidence: worth keeping. */
export const predictAll = (circuit: LibraryCircuit, wiring: Wiring, hypotheses: readonly Hypothesis[]): Predictions =>
  new CircuitPredictor(circuit, wiring).predict(hypotheses);

/**
 * A circuit of one engine, solved for good parts at every probe: asked for one list of faults after another.
 */
export class CircuitPredictor {
  private readonly net: Net;
  private readonly instances: readonly Instance[];
  private readonly setups: readonly MeterSetup[];
  private readonly predictors: readonly SetupPredictor[];
  private readonly batch: Float64Array;
  /** By instance: what makes equal good parts in equal places equally uncertain. */
  private readonly even: readonly number[];

  constructor(
    private readonly circuit: LibraryCircuit,
    wiring: Wiring,
  ) {
    const net = netOf(circuit, wiring);
    const { instances, setups } = setupsOf(circuit, wiring, net);
    const samples = tolerances(circuit, net.resistors);
    this.net = net;
    this.instances = instances;
    this.setups = setups;
    this.predictors = setups.map((setup) => new SetupPredictor(setup, net, samples));
    const good = instances.map(() => ({ mean: 0, sd: 0 }));
    this.eachRead((instance, s, r) => {
      const [mean, sd] = cell(cell(this.predictors, s).healthy, r);
      good[instance] = { mean, sd };
    });
    this.even = evenly(instances, good);
    this.batch = this.shownInOtherType(inOtherType(circuit, net, samples));
  }

  predict(hypotheses: readonly Hypothesis[]): Predictions {
    const { net, instances, even } = this;
    const n = instances.length;
    const mean = new Float64Array(hypotheses.length * n);
    const sd = new Float64Array(mean.length);
    for (const [s, { read }] of this.setups.entries()) {
      const predictor = cell(this.predictors, s);
      for (let h = 0; h < hypotheses.length; h++) {
        const predicted = predictor.predict(cell(hypotheses, h).members);
        for (let r = 0; r < read.length; r++) {
          const { instance } = cell(read, r);
          const [middle, spread] = cell(predicted, r);
          mean[h * n + instance] = middle;
          sd[h * n + instance] = spread * cell(even, instance);
        }
      }
    }
    return {
      instances,
      hypotheses,
      mean,
      sd,
      ...reachOf(hypotheses, mean, n),
      loose: looseAt(hypotheses, mean, sd, n),
      batch: this.batch,
      volts: Math.max(1, ...net.sources.map(net.volts)),
      sourceSpread: Math.max(0, ...net.sources.map((e) => this.circuit.values[e.value]?.spread ?? 0)),
    };
  }

  private eachRead(work: (instance: number, setup: number, read: number) => void): void {
    for (const [s, { read }] of this.setups.entries())
      for (const [r, { instance }] of read.entries()) work(instance, s, r);
  }

  /** By how much all readings of good parts shift together where the parts are of another type. */
  private shownInOtherType(samples: readonly Float64Array[] | null): Float64Array {
    const batch = new Float64Array(this.instances.length);
    if (!samples) return batch;
    const others = this.setups.map((setup) => new SetupPredictor(setup, this.net, samples));
    this.eachRead((instance, s, r) => {
      const [[was], [is]] = [cell(cell(this.predictors, s).healthy, r), cell(cell(others, s).healthy, r)];
      const shift = cell(this.setups, s).isOhms ? is - was : (is - was) / Math.max(Math.abs(was), 0.1);
      batch[instance] = Number.isFinite(shift) ? Math.abs(shift) : 0;
    });
    return batch;
  }
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

/** The same draws with parts of another type wherever types differ; `null` where none does. */
function inOtherType(circuit: LibraryCircuit, net: Net, samples: readonly Float64Array[]): Float64Array[] | null {
  const factors = net.resistors.map((e) => Math.exp(circuit.values[e.value]?.types ?? 0));
  return factors.some((f) => f !== 1) ? samples.map((ohms) => ohms.map((v, i) => v * cell(factors, i))) : null;
}
