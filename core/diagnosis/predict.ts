import { cell } from '../numerics/cell';
import { FastSolver, type Pattern } from '../solver/fast';
import {
  expandElements,
  expandProbes,
  expandSuspects,
  type PlacedElement,
  type Wiring,
} from '../circuits/expand';
import type { LibraryCircuit, LibraryElement } from '../circuits/types';
import { deviation, DRAWS } from './tolerance-samples';
import type { Instance, Predictions } from './predictions';
import { evenly, looseAt, reachOf } from './prediction-spread';
import type { Hypothesis, Member } from './types';

/** Ohms above which a meter shows overload. */
export const OVERLOAD_ohm = 2e7;
const TINY_ohm = 1e-5;
/** Of the largest voltage there is: less across an element is none. */
const IDLE = 1e-8;
/** What is not joined to the meter’s other lead stands far above: its height says nothing. */
const FLOATING_V = 1e5;

/** All single suspects and sizes. Their weights are those of the data, shared among sizes. */
export function singleHypotheses(circuit: LibraryCircuit, wiring: Wiring): Hypothesis[] {
  return expandSuspects(circuit, wiring).flatMap((s): Hypothesis[] => {
    const sizes = circuit.perCylinder.length === 0 ? refined(s.sizes ?? [0]) : (s.sizes ?? [0]);
    const key = `${s.element}: ${s.words}`;
    return sizes.map((ohms) => ({
      key,
      weight: s.prior / sizes.length,
      members: [
        {
          key,
          element: s.element,
          position: s.position,
          fault: s.fault,
          ohms,
          intermittent: s.intermittent ?? false,
          when: s.when ?? [],
          is: s.is,
          name: s.name,
          words: s.words,
        },
      ],
    }));
  });
}

/** Sizes no further apart than this, where there are few suspects: with copies per cylinder it would double the time and decide nothing more. */
const STEP = 2;

/**
 * The same sizes with others between them, evenly by their logarithm. What lies between two sizes blurs each reading by itself; but a fault has one size, and readings
 * along a wire that agree in it prove it together.
 */
function refined(sizes: readonly number[]): number[] {
  return sizes.flatMap((size, i) => {
    const next = sizes[i + 1];
    if (next === undefined || !(size > 0 && next > size)) return [size];
    const steps = Math.ceil(Math.log(next / size) / Math.log(STEP) - 1e-9);
    return Array.from({ length: steps }, (_, k) => size * (next / size) ** (k / steps));
  });
}

/** What would be changed or mended: two ways in which one sensor fails are one decision. */
export const decisionOf = (m: Pick<Member, 'is' | 'name' | 'position'>): string =>
  `${m.is}|${m.name}|${m.position ?? ''}`;

/** All that a hypothesis would have changed or mended; empty for a cause outside the circuit. */
export const decisionsOf = (h: Pick<Hypothesis, 'members'>): string =>
  [...new Set(h.members.map(decisionOf))].sort().join(' + ');

/** "plug 3", "battery": as a person calls it. */
export const calledOf = (m: Pick<Member, 'element' | 'name' | 'position'>): string =>
  m.position === null ? m.name : m.element;

export const OUTSIDE: Hypothesis = { key: 'outside', members: [], weight: 0 };

interface Setup {
  readonly solver: FastSolver;
  readonly opened: readonly number[];
  readonly state: string;
  readonly read: readonly {
    readonly instance: number;
    readonly red: number;
    readonly black: number;
    readonly element: number;
    readonly scale: number;
  }[];
  readonly isOhms: boolean;
}

/** Predicts every probe of the circuit under every hypothesis. Depends on no evidence: worth keeping. */
export function predictAll(circuit: LibraryCircuit, wiring: Wiring, hypotheses: readonly Hypothesis[]): Predictions {
  const elements = expandElements(circuit, wiring);
  const { systemVoltage_V } = wiring;
  const sources = elements.filter((e) => e.kind === 'source');
  const resistors = elements.filter((e) => e.kind !== 'source');
  const nodes = [...new Set([circuit.reference, ...elements.flatMap((e) => [e.from, e.to])])];
  const at = (node: string): number => nodes.indexOf(node);
  const index = new Map(resistors.map((e, i) => [e.id, i]));
  const volts = (e: LibraryElement): number =>
    (circuit.values[e.value]?.value ?? 0) * (circuit.follows && systemVoltage_V ? systemVoltage_V / 12 : 1);
  const pattern: Pattern = {
    nodes,
    from: Int32Array.from(resistors, (e) => at(e.from)),
    to: Int32Array.from(resistors, (e) => at(e.to)),
  };
  const instances: Instance[] = [];
  const setups: Setup[] = [];
  const shared = new Map<string, { setup: Setup; read: Setup['read'][number][] }>();
  for (const p of expandProbes(circuit, wiring)) {
    const instance = instances.length;
    instances.push({ test: p.test, position: p.position, mode: p.mode });
    const opened = (p.opened ?? []).map((o) => index.get(o) ?? -1);
    const one = {
      instance,
      red: p.red ? at(p.red) : -1,
      black: p.black ? at(p.black) : -1,
      element: p.element ? (index.get(p.element) ?? -1) : -1,
      scale: p.scale ?? 1,
    };
    if (p.mode === 'resistance') {
      setups.push({
        solver: new FastSolver(pattern, new Map([[one.black, 0]]), one.red, 1),
        opened,
        state: p.state,
        read: [one],
        isOhms: true,
      });
      continue;
    }
    const key = `${p.state}|${opened.join()}`;
    const known = shared.get(key);
    if (known) {
      known.read.push(one);
      continue;
    }
    const read = [one];
    const setup: Setup = {
      solver: new FastSolver(
        pattern,
        new Map([[at(circuit.reference), 0], ...sources.map((s) => [at(s.from), volts(s)] as const)]),
        -1,
        0,
      ),
      opened,
      state: p.state,
      read,
      isOhms: false,
    };
    shared.set(key, { setup, read });
    setups.push(setup);
  }
  const draws = tolerances(circuit, resistors);
  const mean = new Float64Array(hypotheses.length * instances.length);
  const sd = new Float64Array(mean.length);
  const good: { mean: number; sd: number }[] = instances.map(() => ({ mean: 0, sd: 0 }));
  const conductance_S = new Float64Array(resistors.length);
  for (const setup of setups) {
    const solve = (d: number, members: readonly Member[]): Float64Array => {
      fillConductances(conductance_S, draws[d] as Float64Array, resistors, setup, members, index);
      return setup.solver.solve(conductance_S);
    };
    const across = (v: Float64Array, element: number): number =>
      cell(v, cell(pattern.from, element)) - cell(v, cell(pattern.to, element));
    const shown = (v: Float64Array, one: Setup['read'][number]): number =>
      one.scale *
      (one.element >= 0
        ? across(v, one.element) * cell(conductance_S, one.element)
        : cell(v, one.red) - cell(v, one.black));
    const momentsOf = (
      members: readonly Member[],
      keepVolts?: (v: Float64Array) => void,
    ): (readonly [number, number])[] => {
      const all = setup.read.map(() => new Float64Array(DRAWS));
      for (let d = 0; d < DRAWS; d++) {
        const v = solve(d, members);
        keepVolts?.(v);
        for (const [r, one] of setup.read.entries()) (all[r] as Float64Array)[d] = shown(v, one);
      }
      return all.map((values) => (setup.isOhms ? momentsOfLog(values) : moments(values)));
    };
    const healthyVolts: Float64Array[] = [];
    const healthy = momentsOf([], (v) => {
      healthyVolts.push(v.slice());
    });
    for (const [r, [middle, spread]] of healthy.entries())
      good[setup.read[r]?.instance ?? 0] = { mean: middle, sd: spread };
    // In ohms the meter's own current tells: what carries none of it can change without being seen. (In volts an open wire leaves a point to nobody, and is seen.)
    const isIdle = (element: number): boolean =>
      setup.isOhms &&
      element >= 0 &&
      healthyVolts.every(
        (v) =>
          Math.abs(across(v, element)) <=
          IDLE *
            Math.min(
              FLOATING_V,
              v.reduce((m, x) => Math.max(m, Math.abs(x)), 0),
            ),
      );
    const idle = new Map<string, boolean>();
    for (const [h, { members }] of hypotheses.entries()) {
      const changesNothing = members.every((m) => {
        const known = idle.get(m.element) ?? isIdle(index.get(m.element) ?? -1);
        idle.set(m.element, known);
        return known;
      });
      for (const [r, [middle, spread]] of (changesNothing ? healthy : momentsOf(members)).entries()) {
        const k = h * instances.length + (setup.read[r]?.instance ?? 0);
        mean[k] = middle;
        sd[k] = spread;
      }
    }
  }
  const even = evenly(instances, good);
  for (let k = 0; k < sd.length; k++) sd[k] = cell(sd, k) * cell(even, k % instances.length);
  return {
    instances,
    hypotheses,
    mean,
    sd,
    ...reachOf(hypotheses, mean, instances.length),
    loose: looseAt(hypotheses, mean, sd, instances.length),
    volts: Math.max(1, ...sources.map(volts)),
    sourceSpread: Math.max(0, ...sources.map((e) => circuit.values[e.value]?.spread ?? 0)),
  };
}

function fillConductances(
  conductance_S: Float64Array,
  ohms: Float64Array,
  resistors: readonly PlacedElement[],
  setup: Setup,
  members: readonly Member[],
  index: ReadonlyMap<string, number>,
): void {
  for (let i = 0; i < conductance_S.length; i++) {
    const closedIn = (resistors[i] as PlacedElement).closedIn;
    conductance_S[i] = closedIn && !closedIn.includes(setup.state) ? 0 : 1 / cell(ohms, i);
  }
  for (const m of members) {
    const i = index.get(m.element);
    if (i === undefined) continue;
    const now = cell(conductance_S, i);
    if (m.fault === 'open') conductance_S[i] = 0;
    else if (m.fault === 'resistance')
      conductance_S[i] =
        now === 0 && (resistors[i] as PlacedElement).kind === 'switch' ? 0 : 1 / Math.max(TINY_ohm, m.ohms);
    else if (now > 0) conductance_S[i] = 1 / (1 / now + m.ohms);
  }
  for (const o of setup.opened) if (o >= 0) conductance_S[o] = 0;
}

/** Resistances of each draw, good parts within their tolerance. */
function tolerances(circuit: LibraryCircuit, resistors: readonly PlacedElement[]): Float64Array[] {
  return Array.from({ length: DRAWS }, (_, d) =>
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
  if (cell(values, 0) > OVERLOAD_ohm) return [Infinity, 0];
  return moments(values.map((v) => Math.log(Math.max(1e-3, v))));
}
