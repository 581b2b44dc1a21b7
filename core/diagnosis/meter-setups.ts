import { expandElements, expandProbes, type PlacedElement, type Wiring } from '../circuits/expand';
import type { LibraryCircuit } from '../circuits/types';
import { floatAt, intAt } from '../numerics/cell';
import { possibleLeaks } from './unlisted';
import { FastSolver, type Pattern } from '../solver/fast';
import type { Instance } from './predictions';

/** A circuit of one engine as the solver takes it. */
export interface Net {
  readonly resistors: readonly PlacedElement[];
  readonly sources: readonly PlacedElement[];
  readonly pattern: Pattern;
  /** From here on resistors are leaks that a good circuit has not. */
  readonly leaksFrom: number;
  /** Place of each resistor, by its id. */
  readonly index: ReadonlyMap<string, number>;
  readonly nodeOf: (name: string) => number;
  /** Of a source, as this engine's system voltage has it. */
  readonly volts: (source: PlacedElement) => number;
  readonly reference: number;
}

export function netOf(circuit: LibraryCircuit, wiring: Wiring): Net {
  const elements = expandElements(circuit, wiring);
  const { systemVoltage_V } = wiring;
  const parts = elements.filter((e) => e.kind !== 'source');
  const supply = elements.find((e) => e.kind === 'source')?.from;
  const leaks = possibleLeaks(circuit, elements).flatMap(({ id, node, to, position }): PlacedElement[] => {
    const end = to === 'ground' ? circuit.reference : supply;
    if (end === undefined) return [];
    const of = { id, kind: 'resistor', from: node, to: end, value: '', label: id, symbol: 'leak' } as const;
    return [{ ...of, position, of, place: null }];
  });
  const resistors = [...parts, ...leaks];
  const nodes = [...new Set([circuit.reference, ...elements.flatMap((e) => [e.from, e.to])])];
  const nodeOf = (name: string): number => nodes.indexOf(name);
  const scale = circuit.follows && systemVoltage_V ? systemVoltage_V / 12 : 1;
  return {
    resistors,
    leaksFrom: parts.length,
    sources: elements.filter((e) => e.kind === 'source'),
    pattern: {
      nodes,
      from: Int32Array.from(resistors, (e) => nodeOf(e.from)),
      to: Int32Array.from(resistors, (e) => nodeOf(e.to)),
    },
    index: new Map(resistors.map((e, i) => [e.id, i])),
    nodeOf,
    volts: (source) => (circuit.values[source.value]?.value ?? 0) * scale,
    reference: nodeOf(circuit.reference),
  };
}

/** Where a meter's probes are: between two nodes, or around an element. */
export interface Probes {
  /** Number of the instance that is read here. */
  readonly instance: number;
  /** Nodes; -1 where an element is read. */
  readonly red: number;
  readonly black: number;
  /** Resistor whose current is read; -1 where it is between nodes. */
  readonly element: number;
  readonly scale: number;
}

/**
 * One state of the circuit with all that is read in it at once. In ohms the meter drives the circuit itself:
 * each reading is a setup of its own.
 */
export interface MeterSetup {
  readonly solver: FastSolver;
  /** Resistors taken off for it. */
  readonly opened: readonly number[];
  readonly state: string;
  readonly read: readonly Probes[];
  readonly isOhms: boolean;
}

export function setupsOf(
  circuit: LibraryCircuit,
  wiring: Wiring,
  net: Net,
): { readonly instances: readonly Instance[]; readonly setups: readonly MeterSetup[] } {
  const instances: Instance[] = [];
  const setups: MeterSetup[] = [];
  const inVolts = new Map<string, Probes[]>();
  for (const p of expandProbes(circuit, wiring)) {
    const opened = (p.opened ?? []).map((o) => net.index.get(o) ?? -1);
    const probes: Probes = {
      instance: instances.length,
      red: p.red ? net.nodeOf(p.red) : -1,
      black: p.black ? net.nodeOf(p.black) : -1,
      element: p.element ? (net.index.get(p.element) ?? -1) : -1,
      scale: p.scale ?? 1,
    };
    instances.push({ test: p.test, position: p.position, mode: p.mode });
    const setup = { opened, state: p.state };
    if (p.mode === 'resistance') {
      setups.push({ ...setup, solver: ohmsSolver(net, probes), read: [probes], isOhms: true });
      continue;
    }
    const key = `${p.state}|${opened.join()}`;
    const together = inVolts.get(key);
    if (together) together.push(probes);
    else {
      const read = [probes];
      inVolts.set(key, read);
      setups.push({ ...setup, solver: voltsSolver(net), read, isOhms: false });
    }
  }
  return { instances, setups };
}

/** The meter pushes one ampere from the black probe to the red one: volts are ohms. */
const ohmsSolver = (net: Net, { red, black }: Probes): FastSolver =>
  new FastSolver(net.pattern, new Map([[black, 0]]), red, 1);

const voltsSolver = (net: Net): FastSolver =>
  new FastSolver(
    net.pattern,
    new Map([[net.reference, 0], ...net.sources.map((s) => [net.nodeOf(s.from), net.volts(s)] as const)]),
    -1,
    0,
  );

/** Volts across a resistor, from its first end to its second. RangeError for an element that is not there. */
export const across = (net: Net, nodeVolts: Float64Array, element: number): number =>
  floatAt(nodeVolts, intAt(net.pattern.from, element)) - floatAt(nodeVolts, intAt(net.pattern.to, element));
