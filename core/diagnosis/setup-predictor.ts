import { cell, floatAt as floatOf, intAt } from '../numerics/cell';
import { across, type MeterSetup, type Net, type Probes } from './meter-setups';
import { SAMPLES } from './tolerance-samples';
import type { Factored } from '../solver/fast';
import type { Member } from './types';

// Called most of all; see cell.ts.
const floatAt = floatOf;

/** Ohms above which a meter shows overload. */
export const OVERLOAD_ohm = 2e7;
export const TINY_ohm = 1e-5;
/** Of the largest voltage there is: less across an element is none. */
const IDLE = 1e-8;
/** What is not joined to the meter’s other lead stands far above: its height says nothing. */
const FLOATING_V = 1e5;
/** Of the meter's own current, pushed as one ampere: what carries all but this much of it carries all. */
const ALL_OF_IT = 1e-9;
/** Below this the change of one element cancels what there was: it is solved anew. */
const CANCELS = 1e-6;

/** Mean and standard deviation of a reading over the samples; of ohms, of their logarithm. */
export type Moments = readonly [mean: number, sd: number];

/** The healthy circuit of one sample of tolerances. */
interface Healthy {
  readonly conductance_S: Float64Array;
  readonly volts: Float64Array;
  readonly factored: Factored;
}

/** What one element does to all nodes of a sample. */
interface Response {
  /** Volts per ampere that is pushed through beside the element, from its first end to its second. */
  readonly perAmpere: Float64Array;
  /** Across the element: of `perAmpere`, and in the healthy circuit. */
  readonly own_ohm: number;
  readonly across_V: number;
}

/**
 * One setup of the meter, solved for good parts and for faults, over all samples of tolerances. A single
 * fault changes one conductance: what it does to every node follows from the healthy circuit and the
 * element's response (the rank-one update of Sherman and Morrison, 1950; from memory). Several at once are
 * solved anew.
 */
export class SetupPredictor {
  readonly healthy: readonly Moments[];
  private readonly samples: readonly Healthy[];
  private readonly idle = new Map<number, boolean>();
  /** Of the element, or the source, that was asked for last: its sizes are asked for one after the other. */
  private response: { readonly element: number; readonly of: readonly Response[] } | null = null;
  private source: { readonly id: string; readonly of: readonly Float64Array[] } | null = null;
  private readonly changed_S: Float64Array;
  private readonly values: readonly Float64Array[];

  constructor(
    private readonly setup: MeterSetup,
    private readonly net: Net,
    samples: readonly Float64Array[],
  ) {
    this.values = setup.read.map(() => new Float64Array(SAMPLES));
    this.changed_S = new Float64Array(net.resistors.length);
    this.samples = samples.map((ohms) => {
      const conductance_S = conductancesOf(ohms, net, setup);
      const volts = setup.solver.solve(conductance_S).slice();
      return { conductance_S, volts, factored: setup.solver.factored() };
    });
    this.healthy = this.momentsWith((s) => ({ volts: s.volts, conductance_S: s.conductance_S }));
  }

  /** By reading of the setup. */
  predict(members: readonly Member[]): readonly Moments[] {
    const [m] = members;
    if (m === undefined) return this.healthy;
    if (m.fault === 'source' && members.length === 1) return this.withSource(m);
    if (members.every((x) => this.changesNothing(x))) return this.healthy;
    return members.length === 1 ? this.withOne(m) : this.solvedAnew(members);
  }

  private momentsWith(
    of: (s: Healthy, sample: number) => { volts: Float64Array; conductance_S: Float64Array },
  ): Moments[] {
    const { setup, net, values, samples } = this;
    for (let d = 0; d < samples.length; d++) {
      const { volts, conductance_S } = of(cell(samples, d), d);
      for (let r = 0; r < values.length; r++)
        cell(values, r)[d] = shownBy(cell(setup.read, r), net, volts, conductance_S);
    }
    return values.map((v) => (setup.isOhms ? momentsOfLog(v) : moments(v)));
  }

  private solvedAnew(members: readonly Member[]): Moments[] {
    const { setup, net } = this;
    const low = setup.isOhms ? [] : members.filter((m) => m.fault === 'source');
    const left = new Map(low.map((m) => [m.element, m.ohms]));
    return this.momentsWith((s) => {
      const conductance_S = this.changed(s, members);
      const volts = setup.solver.solve(conductance_S).slice();
      // Of a linear network: what is missing of a source is missing in proportion everywhere.
      if (left.size) {
        const factored = setup.solver.factored();
        for (const source of net.sources.filter((e) => left.has(e.id))) {
          const own = setup.solver.perSource(
            factored,
            conductance_S,
            net.nodeOf(source.from),
            net.volts(source) * ((left.get(source.id) ?? 1) - 1),
          );
          for (let i = 0; i < volts.length; i++) volts[i] = floatAt(volts, i) + floatAt(own, i);
        }
      }
      return { volts, conductance_S };
    });
  }

  private withSource(m: Member): readonly Moments[] {
    const { setup, net } = this;
    const source = net.sources.find((e) => e.id === m.element);
    if (setup.isOhms || !source) return this.healthy;
    if (this.source?.id !== m.element) {
      const of = this.samples.map((s) =>
        setup.solver.perSource(s.factored, s.conductance_S, net.nodeOf(source.from), net.volts(source)),
      );
      this.source = { id: m.element, of };
    }
    const known = this.source.of;
    return this.momentsWith((s, d) => ({
      conductance_S: s.conductance_S,
      volts: s.volts.map((v, i) => v + (m.ohms - 1) * floatAt(cell(known, d), i)),
    }));
  }

  private withOne(m: Member): readonly Moments[] {
    const element = this.net.index.get(m.element) ?? -1;
    if (element < 0) return this.healthy;
    if (this.response?.element !== element)
      this.response = { element, of: this.samples.map((s) => this.responseOf(s, element)) };
    const responses = this.response.of;
    const { values, setup } = this;
    for (let d = 0; d < this.samples.length; d++) {
      const s = cell(this.samples, d);
      const now = this.faulty(m, element, floatAt(s.conductance_S, element));
      if (!this.sampleWith(s, cell(responses, d), element, now, d)) return this.solvedAnew([m]);
    }
    return values.map((v) => (setup.isOhms ? momentsOfLog(v) : moments(v)));
  }

  /** Notes the readings of one sample; `false`: too much cancels. */
  private sampleWith(s: Healthy, response: Response, element: number, now: number, d: number): boolean {
    const { setup, net, values } = this;
    const was = floatAt(s.conductance_S, element);
    const change = now - was;
    if (setup.isOhms && was > 0 && Math.abs(Math.abs(response.across_V * was) - 1) < ALL_OF_IT) {
      // All of the meter's current goes through it: what it has more is added. What then goes through
      // insulation is left out: half a percent at five megohms.
      cell(values, 0)[d] =
        shownBy(cell(setup.read, 0), net, s.volts, s.conductance_S) + (now > 0 ? 1 / now - 1 / was : OPEN_ohm);
      return true;
    }
    const left = 1 + change * response.own_ohm;
    if (left < CANCELS) return false;
    const by = (-change * response.across_V) / left;
    for (let r = 0; r < values.length; r++)
      cell(values, r)[d] = shownWith(cell(setup.read, r), net, s, response, by, element, now);
    return true;
  }

  private responseOf(s: Healthy, element: number): Response {
    const { pattern } = this.net;
    const [a, b] = [intAt(pattern.from, element), intAt(pattern.to, element)];
    const perAmpere = this.setup.solver.perAmpere(s.factored, a, b);
    return {
      perAmpere,
      own_ohm: floatAt(perAmpere, a) - floatAt(perAmpere, b),
      across_V: across(this.net, s.volts, element),
    };
  }

  /** Conductances with these faults; valid until the next call. */
  private changed({ conductance_S }: Healthy, members: readonly Member[]): Float64Array {
    const changed = this.changed_S;
    changed.set(conductance_S);
    for (const m of members) {
      const i = this.net.index.get(m.element);
      if (i !== undefined) changed[i] = this.faulty(m, i, floatAt(changed, i));
    }
    return changed;
  }

  /** Conductance of element `i` with the fault, where it is `now` without it. */
  private faulty(m: Member, i: number, now: number): number {
    const { net, setup } = this;
    if (setup.opened.includes(i)) return 0;
    const own = cell(net.resistors, i);
    // In ohms the supply is off: what leaks to it leads nowhere.
    if (setup.isOhms && i >= net.leaksFrom && own.to !== groundOf(net)) return now;
    switch (m.fault) {
      case 'open':
        return 0;
      case 'resistance':
        return now === 0 && own.kind === 'switch' ? 0 : 1 / Math.max(TINY_ohm, m.ohms);
      case 'series':
        return now > 0 ? 1 / (1 / now + m.ohms) : now;
      case 'source':
        return now;
    }
  }

  private changesNothing(m: Member): boolean {
    const element = this.net.index.get(m.element) ?? -1;
    const known = this.idle.get(element) ?? this.isIdle(element);
    this.idle.set(element, known);
    return known;
  }

  /**
   * In ohms the meter's own current tells: what carries none of it can change without being seen. (In volts
   * an open wire leaves a point to nobody, and is seen.)
   */
  private isIdle(element: number): boolean {
    if (!this.setup.isOhms || element < 0) return false;
    return this.samples.every(({ volts }) => {
      const most = volts.reduce((m, x) => Math.max(m, Math.abs(x)), 0);
      return Math.abs(across(this.net, volts, element)) <= IDLE * Math.min(FLOATING_V, most);
    });
  }
}

/** What an open adds to a reading in ohms: any meter shows overload. */
const OPEN_ohm = 1e13;

/** Of good parts, in this state of the circuit. */
function conductancesOf(ohms: Float64Array, net: Net, setup: MeterSetup): Float64Array {
  const conductance_S = new Float64Array(net.resistors.length);
  for (let i = 0; i < net.leaksFrom; i++) {
    const { closedIn } = cell(net.resistors, i);
    conductance_S[i] = closedIn && !closedIn.includes(setup.state) ? 0 : 1 / floatAt(ohms, i);
  }
  for (const o of setup.opened) if (o >= 0) conductance_S[o] = 0;
  return conductance_S;
}

const groundOf = (net: Net): string => net.pattern.nodes[net.reference] ?? '';

/** What the meter shows: ohms, volts or amperes. */
const shownBy = (probes: Probes, net: Net, nodeVolts: Float64Array, conductance_S: Float64Array): number =>
  probes.scale *
  (probes.element >= 0
    ? across(net, nodeVolts, probes.element) * floatAt(conductance_S, probes.element)
    : floatAt(nodeVolts, probes.red) - floatAt(nodeVolts, probes.black));

/** The same where every node is higher by `by` times the response, and one conductance is `now`. */
function shownWith(
  probes: Probes,
  net: Net,
  { volts, conductance_S }: Healthy,
  { perAmpere }: Response,
  by: number,
  element: number,
  now: number,
): number {
  if (probes.element >= 0) {
    const g = probes.element === element ? now : floatAt(conductance_S, probes.element);
    return probes.scale * (across(net, volts, probes.element) + by * across(net, perAmpere, probes.element)) * g;
  }
  const [healthy, response] = [
    floatAt(volts, probes.red) - floatAt(volts, probes.black),
    floatAt(perAmpere, probes.red) - floatAt(perAmpere, probes.black),
  ];
  return probes.scale * (healthy + by * response);
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
