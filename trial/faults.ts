import { expandSuspects, type PlacedElement } from '../core/circuits/expand';
import type { LibraryCircuit } from '../core/circuits/types';
import { WIRING } from './patient';
import type { Random } from './random';

/** What is wrong with a vehicle of the trial. */
export interface HiddenFault {
  readonly kind: 'open' | 'series' | 'resistance' | 'leak-to-ground' | 'leak-to-supply' | 'low-source';
  /** Id of an element; of a leak, a node. */
  readonly at: string;
  /** Ohms; of a source, the share of its volts that is left. */
  readonly size: number;
  /** It comes and goes. */
  readonly wanders: boolean;
  /** Elements that a finding may name: the faulty one, and those that share a node with it. */
  readonly stretch: readonly string[];
  readonly position: number | null;
  /** Where the library names it: kind, name and position of what is to be changed or mended. */
  readonly named: string | null;
}

const PARTS: ReadonlySet<string> = new Set(['plug', 'coil', 'module', 'input']);
const GROUND_LIKE = /^(battery -|ground|engine|body)$/;

/** Those that share a node with it, but not only the common ground. */
function stretchOf(elements: readonly PlacedElement[], nodes: readonly string[], itself: string): string[] {
  const own = nodes.filter((n) => !GROUND_LIKE.test(n));
  return [itself, ...elements.filter((e) => own.includes(e.from) || own.includes(e.to)).map((e) => e.id)];
}

/** A fault that the library lists, of a size between and a little beyond those that it weighs. */
export function listedFault(circuit: LibraryCircuit, elements: readonly PlacedElement[], r: Random): HiddenFault {
  const suspects = expandSuspects(circuit, WIRING);
  let at = r.even() * suspects.reduce((sum, s) => sum + s.prior, 0);
  const s = suspects.find((x) => (at -= x.prior) <= 0) ?? r.pick(suspects);
  const sizes = s.sizes ?? [1];
  const e = elements.find((x) => x.id === s.element);
  return {
    kind: s.fault,
    at: s.element,
    size: r.sized(Math.min(...sizes) * 0.8, Math.max(...sizes) * 1.6),
    wanders: s.intermittent ?? false,
    stretch: e ? stretchOf(elements, [e.from, e.to], e.id) : [s.element],
    position: s.position,
    named: `${s.is}|${s.name}|${s.position ?? ''}`,
  };
}

/** A part of one kind fails: of a set that is all bad but one. */
export function partFault(
  circuit: LibraryCircuit,
  elements: readonly PlacedElement[],
  position: number,
  r: Random,
): HiddenFault {
  for (;;) {
    const f = listedFault(circuit, elements, r);
    if (f.position !== null && f.named?.startsWith('part|') && !f.wanders) {
      const at = f.at.replace(String(f.position), String(position));
      return { ...f, at, position, named: f.named.replace(/\|\d+$/, `|${position}`), stretch: [at] };
    }
  }
}

/** A fault that the library does not list where it is. */
export function unlistedFault(circuit: LibraryCircuit, elements: readonly PlacedElement[], r: Random): HiddenFault {
  const listed = new Set(expandSuspects(circuit, WIRING).map((s) => `${s.element}|${s.fault}`));
  const leaking = new Set(elements.filter((e) => e.symbol === 'leak').flatMap((e) => [e.from, e.to]));
  const seen = elements.filter(
    (e) => e.kind !== 'source' && e.symbol !== 'hidden' && e.symbol !== 'leak' && e.id !== 'jumper',
  );
  const nodes = [...new Set(seen.flatMap((e) => [e.from, e.to]))].filter(
    (n) => !GROUND_LIKE.test(n) && !n.endsWith('emf'),
  );
  const wanders = r.chance(0.25);
  const whole = (f: Omit<HiddenFault, 'wanders' | 'named'>): HiddenFault => ({ ...f, wanders, named: null });
  for (;;) {
    const kind = r.pick([
      'series',
      'series',
      'series',
      'open',
      'leak-to-ground',
      'leak-to-supply',
      'drift',
      'low-source',
    ] as const);
    if (kind === 'leak-to-ground' || kind === 'leak-to-supply') {
      const node = r.pick(nodes);
      if (kind === 'leak-to-ground' && leaking.has(node)) continue;
      const own = seen.find((e) => e.from === node || e.to === node);
      return whole({
        kind,
        at: node,
        size: r.sized(0.5, 300),
        stretch: stretchOf(elements, [node], node),
        position: own?.position ?? null,
      });
    }
    if (kind === 'low-source') {
      const e = elements.find((x) => x.kind === 'source');
      if (!e) continue;
      return whole({
        kind,
        at: e.id,
        size: r.between(0.55, 0.9),
        stretch: stretchOf(elements, [e.from, e.to], e.id),
        position: null,
      });
    }
    const e = r.pick(seen);
    // A wire or a contact that is better than others is no fault.
    if (kind === 'drift' && !PARTS.has(e.symbol ?? '')) continue;
    const fault = kind === 'drift' ? 'resistance' : kind;
    if (listed.has(`${e.id}|${fault}`)) continue;
    const healthy = circuit.values[e.value]?.value ?? 1;
    const size =
      fault === 'series'
        ? r.sized(Math.max(0.2, healthy), Math.max(60, 60 * healthy))
        : r.chance(0.5)
          ? healthy * r.between(0.05, 0.5)
          : healthy * r.between(2, 8);
    return whole({
      kind: fault,
      at: e.id,
      size,
      stretch: stretchOf(elements, [e.from, e.to], e.id),
      position: e.position,
    });
  }
}
