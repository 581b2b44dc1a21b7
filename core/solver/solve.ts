import { floatAt, intAt } from '../numerics/cell';
import { groupBy } from '../foundation/collections';
import { fail, ok, type Problem, type Result } from '../foundation/result';
import { eliminate, planElimination } from './ldl';
import { makeNetwork, type Network, type Tie } from './network';
import type { Circuit, CircuitSolution, Fault } from './types';

/**
 * DC solution of a circuit with faults: volts of each node against the reference, amperes of each branch from
 * `from` to `to`. A floating part reads 0 V and is named. Fails, with the path of what contradicts itself,
 * for loops of ideal sources and currents that are pushed where nothing takes them. Nodal analysis; checked
 * against ngspice on random circuits (`ngspice.test.ts`).
 */
export function solveCircuit(circuit: Circuit, faults: readonly Fault[] = []): Result<CircuitSolution> {
  const network = makeNetwork(circuit, faults);
  return network.ok ? solveNetwork(circuit, network.value) : network;
}

export function solveNetwork(circuit: Circuit, network: Network): Result<CircuitSolution> {
  const { nodes, group, offset_V, branches } = network;
  const part = partsOf(network);
  const stuck = stuckCurrents(circuit, network, part);
  if (stuck.length) return fail(stuck);
  const volts = groupVoltages(network, part);
  const at = (node: number): number => floatAt(volts, intAt(group, node)) + floatAt(offset_V, node);
  const currents = new Map<string, number>(circuit.elements.map((e) => [e.id, 0]));
  for (const b of branches) currents.set(b.id, (at(b.from) - at(b.to) - b.emf_V) * b.conductance_S + b.pushed_A);
  for (const [id, current] of tieCurrents(network, currents)) currents.set(id, current);
  const grounded = part[network.ground];
  return ok({
    nodes: Object.fromEntries(nodes.map((n, i) => [n, at(i)])),
    branches: Object.fromEntries(currents),
    floating: nodes.filter((_, i) => part[intAt(group, i)] !== grounded).sort(),
  });
}

/** Whether anything that conducts joins two nodes; false for a node that is not there. */
export function areJoined(circuit: Circuit, faults: readonly Fault[], a: string, b: string): boolean {
  const network = makeNetwork(circuit, faults);
  if (!network.ok) return false;
  const { nodes, group } = network.value;
  const part = partsOf(network.value);
  const partAt = (node: string): number => part[group[nodes.indexOf(node)] ?? -1] ?? -1;
  return partAt(a) >= 0 && partAt(a) === partAt(b);
}

/**
 * Of each group: the part of the circuit that it belongs to; parts are not joined by anything that conducts.
 */
function partsOf({ groups, branches, group }: Network): Int32Array {
  const parent = Int32Array.from({ length: groups }, (_, i) => i);
  const find = (i: number): number => {
    let root = i;
    while (parent[root] !== root) root = intAt(parent, root);
    return root;
  };
  for (const b of branches) if (b.conductance_S > 0) parent[find(intAt(group, b.from))] = find(intAt(group, b.to));
  return parent.map((_, i) => find(i));
}

/**
 * A current source between two parts pushes where nothing comes back, unless the currents into a part cancel.
 */
function stuckCurrents(circuit: Circuit, { branches, group }: Network, part: Int32Array): Problem[] {
  const into = new Map<number, { sum: number; size: number; ids: string[] }>();
  for (const b of branches) {
    if (b.conductance_S > 0) continue;
    const [from, to] = [intAt(part, intAt(group, b.from)), intAt(part, intAt(group, b.to))];
    if (from === to) continue;
    for (const [p, current] of [
      [from, -b.pushed_A],
      [to, b.pushed_A],
    ] as const) {
      const all = into.get(p) ?? { sum: 0, size: 0, ids: [] };
      into.set(p, { sum: all.sum + current, size: all.size + Math.abs(current), ids: [...all.ids, b.id] });
    }
  }
  const names = new Set([...into.values()].filter((v) => Math.abs(v.sum) > 1e-12 * v.size).flatMap((v) => v.ids));
  if (names.size === 0) return [];
  const first = circuit.elements.findIndex((e) => names.has(e.id));
  return [
    {
      path: `/elements/${first}`,
      message: `${[...names].join(', ')} ${names.size === 1 ? 'pushes' : 'push'} current into a part of the circuit from which it cannot return.`,
    },
  ];
}

/** Voltage of each group against the reference; in a part that floats, against the first node of it. */
function groupVoltages({ groups, ground, group, offset_V, branches, nodes }: Network, part: Int32Array): Float64Array {
  // Where each part stands: the group of the reference, or that of the first node of a part that floats, put
  // at 0 V there.
  const anchors = new Map<number, { group: number; volts: number }>();
  anchors.set(intAt(part, ground), { group: ground, volts: -floatAt(offset_V, 0) });
  for (let i = 0; i < nodes.length; i++) {
    const g = intAt(group, i);
    const p = intAt(part, g);
    if (!anchors.has(p)) anchors.set(p, { group: g, volts: -floatAt(offset_V, i) });
  }
  const fixed = new Map([...anchors.values()].map((a) => [a.group, a.volts]));
  const toGround = new Float64Array(groups);
  const x = new Float64Array(groups);
  const live = branches.filter((b) => group[b.from] !== group[b.to]);
  const free = live.filter(
    (b) => b.conductance_S > 0 && !fixed.has(intAt(group, b.from)) && !fixed.has(intAt(group, b.to)),
  );
  const plan = planElimination(
    groups,
    free.map((b) => [intAt(group, b.from), intAt(group, b.to)] as const),
  );
  const between = new Float64Array(plan.slots);
  for (const b of live) {
    const [f, t] = [intAt(group, b.from), intAt(group, b.to)];
    // Pushed out of `from`, into `to`, when both groups stand at 0.
    const push = b.pushed_A + b.conductance_S * (floatAt(offset_V, b.from) - floatAt(offset_V, b.to) - b.emf_V);
    for (const [own, other, into] of [
      [f, t, -push],
      [t, f, push],
    ] as const) {
      if (fixed.has(own)) continue;
      x[own] = floatAt(x, own) + into;
      const volts = fixed.get(other);
      if (volts === undefined) continue;
      toGround[own] = floatAt(toGround, own) + b.conductance_S;
      x[own] = x[own] + b.conductance_S * volts;
    }
  }
  for (const b of free) {
    const s = plan.slotOf(intAt(group, b.from), intAt(group, b.to));
    between[s] = floatAt(between, s) + b.conductance_S;
  }
  eliminate(plan, toGround, between, x);
  for (const [g, volts] of fixed) x[g] = volts;
  return x;
}

/** Currents of ideal ties by what flows at their ends, from the leaves of each tree inwards. */
function tieCurrents({ ties, branches, nodes }: Network, currents: ReadonlyMap<string, number>): [string, number][] {
  if (ties.length === 0) return [];
  const tree = ties.filter((t) => !t.redundant);
  // Current that must come into each node through its ties.
  const wants = new Float64Array(nodes.length);
  for (const b of branches) {
    const i = currents.get(b.id) ?? 0;
    wants[b.from] = floatAt(wants, b.from) + i;
    wants[b.to] = floatAt(wants, b.to) - i;
  }
  const byNode = groupBy(
    tree.flatMap(
      (t) =>
        [
          [t.from, t],
          [t.to, t],
        ] as [number, Tie][],
    ),
    ([n]) => n,
  );
  const left = new Map([...byNode].map(([n, of]) => [n, new Set(of.map(([, t]) => t))]));
  const out = new Map<string, number>(ties.map((t) => [t.id, 0]));
  const leaves = [...left].filter(([, of]) => of.size === 1).map(([n]) => n);
  for (let node = leaves.pop(); node !== undefined; node = leaves.pop()) {
    const [tie] = left.get(node) ?? [];
    if (!tie) continue;
    // Positive from `from` to `to` through the tie: into a leaf at `to`, out of a leaf at `from`.
    const into = floatAt(wants, node);
    out.set(tie.id, tie.to === node ? into : -into);
    const other = tie.to === node ? tie.from : tie.to;
    wants[other] = floatAt(wants, other) + into;
    left.get(node)?.delete(tie);
    const rest = left.get(other);
    rest?.delete(tie);
    if (rest?.size === 1) leaves.push(other);
  }
  return [...out];
}
