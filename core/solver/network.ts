import { tr } from '../locale/translate';
import { fail, ok, type Problem, type Result } from '../foundation/result';
import type { Circuit, Element, Fault } from './types';

/**
 * A circuit prepared for solving. Ideal ties (voltage sources without inner resistance, closed switches,
 * wires of 0 ohm) join nodes into groups whose members differ by known voltages; between groups there are
 * only conductances and pushed currents.
 */
export interface Network {
  readonly nodes: readonly string[];
  /** Of each node: its group, and its voltage above the group's. */
  readonly group: Int32Array;
  readonly offset_V: Float64Array;
  readonly groups: number;
  /** Group of the reference. */
  readonly ground: number;
  readonly branches: readonly Branch[];
  /** Ties that join the groups, as a forest: their currents follow from what flows at their ends. */
  readonly ties: readonly Tie[];
}

/** i = (v_from - v_to - emf_V) * conductance_S + pushed_A, from `from` to `to`. */
export interface Branch {
  readonly id: string;
  readonly from: number;
  readonly to: number;
  readonly conductance_S: number;
  readonly emf_V: number;
  readonly pushed_A: number;
}

export interface Tie {
  readonly id: string;
  readonly from: number;
  readonly to: number;
  readonly volts: number;
  /** Closes a loop of wires of 0 ohm: its current cannot be known, it is given none. */
  readonly redundant: boolean;
}

/** An element as it conducts with its faults: nothing at all, a tie, or a branch. */
interface Effective {
  readonly element: Element;
  readonly open: boolean;
  readonly ohms: number;
  readonly emf_V: number;
  readonly pushed_A: number;
}

/**
 * Applies faults and joins what is ideally tied. Errors: unknown names, impossible values, loops of ideal
 * sources. Paths as in a circuit file.
 */
export function makeNetwork(circuit: Circuit, faults: readonly Fault[] = []): Result<Network> {
  const problems = checkCircuit(circuit, faults);
  if (problems.length) return fail(problems);
  const effective = circuit.elements.map((e) =>
    effect(
      e,
      faults.filter((f) => f.element === e.id),
    ),
  );
  const nodes = [...new Set([circuit.reference, ...circuit.elements.flatMap((e) => [e.from, e.to])])];
  const index = new Map(nodes.map((n, i) => [n, i]));
  const at = (name: string): number => index.get(name) ?? 0;
  const sets = new OffsetSets(nodes.length);
  const ties: Tie[] = [];
  const loops: Problem[] = [];
  for (const { element: e, open, ohms, emf_V } of effective) {
    if (open || ohms > 0 || e.kind === 'current') continue;
    const [from, to] = [at(e.from), at(e.to)];
    const joined = sets.join(from, to, emf_V);
    const members = joined ? [] : loopOf(ties, from, to);
    // A loop of wires alone is harmless; a source in it is not, even one that happens to fit.
    if (
      !joined &&
      (e.kind === 'voltage' || members.some((m) => circuit.elements.find((o) => o.id === m)?.kind === 'voltage'))
    ) {
      loops.push({
        path: `/elements/${circuit.elements.indexOf(e)}`,
        message: `${[e.id, ...members].join(', ')} form a loop of ideal sources: nothing limits its current.`,
      });
    }
    ties.push({ id: e.id, from, to, volts: emf_V, redundant: !joined });
  }
  if (loops.length) return fail(loops);
  const group = new Int32Array(nodes.length);
  const offset_V = new Float64Array(nodes.length);
  const numbers = new Map<number, number>();
  for (let i = 0; i < nodes.length; i++) {
    const { root, offset } = sets.find(i);
    group[i] = numbers.get(root) ?? numbers.size;
    numbers.set(root, group[i] ?? 0);
    offset_V[i] = offset;
  }
  const branches = effective.flatMap(({ element: e, open, ohms, emf_V, pushed_A }): Branch[] => {
    if (open) return [];
    const ends = { id: e.id, from: at(e.from), to: at(e.to) };
    if (e.kind === 'current') return [{ ...ends, conductance_S: 0, emf_V: 0, pushed_A }];
    return ohms > 0 ? [{ ...ends, conductance_S: 1 / ohms, emf_V, pushed_A: 0 }] : [];
  });
  return ok({ nodes, group, offset_V, groups: numbers.size, ground: group[0] ?? 0, branches, ties });
}

function effect(e: Element, faults: readonly Fault[]): Effective {
  const base = {
    element: e,
    open: e.kind === 'switch' && !e.closed,
    ohms: e.kind === 'resistor' ? e.ohms : 0,
    emf_V: e.kind === 'voltage' ? e.volts : 0,
    pushed_A: e.kind === 'current' ? e.amperes : 0,
  };
  return faults.reduce<Effective>((now, f) => {
    switch (f.kind) {
      case 'open':
        return { ...now, open: true };
      // Bridged by a wire: what it did is done no more.
      case 'short':
        return { ...now, element: wire(e), open: false, ohms: 0, emf_V: 0, pushed_A: 0 };
      case 'resistance':
        return { ...now, element: wire(e), open: false, ohms: f.ohms, emf_V: 0, pushed_A: 0 };
      case 'series':
        return { ...now, ohms: now.ohms + f.ohms };
    }
  }, base);
}
const wire = (e: Element): Element => ({ id: e.id, from: e.from, to: e.to, kind: 'resistor', ohms: 0 });

function checkCircuit(circuit: Circuit, faults: readonly Fault[]): Problem[] {
  const problems: Problem[] = [];
  const seen = new Set<string>();
  for (const [i, e] of circuit.elements.entries()) {
    const say = (field: string, message: string): void =>
      void problems.push({ path: `/elements/${i}/${field}`, message });
    if (seen.has(e.id)) say('id', tr`There are two elements "${e.id}".`);
    seen.add(e.id);
    const value =
      e.kind === 'resistor' ? e.ohms : e.kind === 'voltage' ? e.volts : e.kind === 'current' ? e.amperes : 0;
    if (!Number.isFinite(value)) say(e.kind, 'It must be a finite number.');
    if (e.kind === 'resistor' && value < 0) say('ohms', 'A resistance cannot be below zero.');
    if (e.from === e.to && e.kind === 'voltage' && e.volts !== 0)
      say('to', tr`The source "${e.id}" is joined to itself.`);
  }
  if (
    circuit.elements.length > 0 &&
    !circuit.elements.some((e) => e.from === circuit.reference || e.to === circuit.reference)
  )
    problems.push({ path: '/reference', message: tr`No element is joined to "${circuit.reference}".` });
  for (const [i, f] of faults.entries()) {
    const e = circuit.elements.find((o) => o.id === f.element);
    if (!e) problems.push({ path: `/faults/${i}/element`, message: tr`There is no element "${f.element}".` });
    else if (f.kind === 'resistance' && (e.kind === 'voltage' || e.kind === 'current'))
      problems.push({
        path: `/faults/${i}/kind`,
        message: tr`"${f.element}" is a source: it has no resistance to replace; use "series".`,
      });
    if ('ohms' in f && !(Number.isFinite(f.ohms) && f.ohms >= 0))
      problems.push({ path: `/faults/${i}/ohms`, message: 'It must be a finite number of 0 or more.' });
  }
  return problems;
}

/** Sets of nodes that differ by known voltages (union-find with offsets). */
class OffsetSets {
  private readonly parent: Int32Array;
  /** Voltage above the parent. */
  private readonly above: Float64Array;

  constructor(size: number) {
    this.parent = Int32Array.from({ length: size }, (_, i) => i);
    this.above = new Float64Array(size);
  }

  find(i: number): { root: number; offset: number } {
    let [root, offset] = [i, 0];
    while (this.parent[root] !== root) {
      offset += this.above[root] ?? 0;
      root = this.parent[root] ?? root;
    }
    return { root, offset };
  }

  /** Ties `from` at `volts` above `to`; false where they are tied already. */
  join(from: number, to: number, volts: number): boolean {
    const [a, b] = [this.find(from), this.find(to)];
    if (a.root === b.root) return false;
    this.parent[a.root] = b.root;
    this.above[a.root] = b.offset + volts - a.offset;
    return true;
  }
}

/** The ties between two nodes that are tied already. */
function loopOf(ties: readonly Tie[], from: number, to: number): string[] {
  const cameBy = new Map<number, { tie: Tie; before: number } | null>([[from, null]]);
  const queue = [from];
  for (let node = queue.shift(); node !== undefined; node = queue.shift()) {
    for (const tie of ties) {
      if (tie.redundant) continue;
      const next = tie.from === node ? tie.to : tie.to === node ? tie.from : -1;
      if (next >= 0 && !cameBy.has(next)) {
        cameBy.set(next, { tie, before: node });
        queue.push(next);
      }
    }
  }
  const members: string[] = [];
  for (let step = cameBy.get(to); step; step = cameBy.get(step.before)) members.push(step.tie.id);
  return members;
}
