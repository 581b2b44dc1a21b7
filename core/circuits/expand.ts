import { arrange, type Engine } from '../engine/layout';
import type { LibraryCircuit, LibraryElement, Probe, SuspectKind } from './types';

/** An engine as its circuits need it: which cylinders share a bank, and which a pair of drivers. */
export interface Wiring {
  readonly cylinders: number;
  readonly systemVoltage_V?: number | undefined;
  /** Of cylinder 1, 2, …: numbered from 1. */
  readonly banks?: readonly number[] | undefined;
  readonly pairs?: readonly number[] | undefined;
}

/** What the placeholders stand for at one place: `{}` a cylinder, `{bank}` its bank, `{pair}` its pair. */
export interface Place {
  readonly cylinder: number | null;
  readonly bank: number;
  readonly pair: number;
}

/**
 * Pairs share a driver if they fire half a cycle apart; without a firing order neighbours are taken. Common
 * practice, no source.
 */
export function wiringOf(engine: Engine): Wiring {
  const n = engine.cylinders;
  const banks = Array.from({ length: n }, () => 1);
  for (const [i, row] of arrange(engine)
    .filter((r) => r.bank !== 'inline')
    .sort((a, b) => Math.min(...a.cylinders) - Math.min(...b.cylinders))
    .entries())
    for (const c of row.cylinders) banks[c - 1] = i + 1;
  const order = engine.firingOrder;
  const pairs = Array.from({ length: n }, (_, i) =>
    order && n % 2 === 0 ? (order.indexOf(i + 1) % (n / 2)) + 1 : (i >> 1) + 1,
  );
  return { cylinders: n, systemVoltage_V: engine.systemVoltage_V, banks, pairs };
}

export const named = (text: string, place: Place | null): string =>
  place === null
    ? text
    : text
        .replaceAll('{}', String(place.cylinder ?? ''))
        .replaceAll('{bank}', String(place.bank))
        .replaceAll('{pair}', String(place.pair));

function placesOf(w: Wiring): { cylinders: Place[]; banks: Place[]; pairs: Place[] } {
  const cylinders = Array.from({ length: w.cylinders }, (_, i): Place => ({
    cylinder: i + 1,
    bank: w.banks?.[i] ?? 1,
    pair: w.pairs?.[i] ?? (i >> 1) + 1,
  }));
  const once = (key: 'bank' | 'pair'): Place[] =>
    [...new Map(cylinders.map((c) => [c[key], { ...c, cylinder: null }])).values()].sort((a, b) => a[key] - b[key]);
  return { cylinders, banks: once('bank'), pairs: once('pair') };
}

/** Where something whose names are these is there: once per cylinder, bank or pair, or once. */
function placesFor(names: string, circuit: LibraryCircuit, w: Wiring): readonly (Place | null)[] {
  const all = placesOf(w);
  if (names.includes('{}')) return circuit.perCylinder.length ? all.cylinders : [];
  return names.includes('{bank}') ? all.banks : names.includes('{pair}') ? all.pairs : [null];
}

export interface PlacedElement extends LibraryElement {
  readonly position: number | null;
  /** As the data has it, and where this copy is. */
  readonly of: LibraryElement;
  readonly place: Place | null;
}

/** Every element with its copies. */
export function expandElements(circuit: LibraryCircuit, w: Wiring): PlacedElement[] {
  return [...circuit.elements, ...circuit.perCylinder].flatMap((e) =>
    placesFor(e.id, circuit, w).map((p) => ({
      ...e,
      id: named(e.id, p),
      from: named(e.from, p),
      to: named(e.to, p),
      label: named(e.label, p),
      position: p?.cylinder ?? null,
      of: e,
      place: p,
      ...(e.closedIn ? { closedIn: e.closedIn.map((s) => named(s, p)) } : {}),
    })),
  );
}

/** A suspect, or the copy of it at one cylinder. */
export interface PlacedSuspect extends SuspectKind {
  readonly position: number | null;
}

/** Every suspect with its copies. */
export function expandSuspects(circuit: LibraryCircuit, w: Wiring): PlacedSuspect[] {
  return circuit.suspects.flatMap((s) =>
    placesFor(s.element, circuit, w).map((p) => ({
      ...s,
      element: named(s.element, p),
      name: named(s.name, p),
      position: p?.cylinder ?? null,
    })),
  );
}

export interface PlacedProbe extends Omit<Probe, 'position'> {
  readonly position: number | string;
}

/** Every probe with its copies. */
export function expandProbes(circuit: LibraryCircuit, w: Wiring): PlacedProbe[] {
  const places = (position: string): readonly (Place | null)[] => placesFor(position, circuit, w);
  return circuit.probes.flatMap((p) =>
    places(p.position).map((at): PlacedProbe => ({
      ...p,
      position: at?.cylinder ?? p.position,
      state: named(p.state, at),
      ...(p.red === undefined ? {} : { red: named(p.red, at) }),
      ...(p.black === undefined ? {} : { black: named(p.black, at) }),
      ...(p.element === undefined ? {} : { element: named(p.element, at) }),
      ...(p.opened ? { opened: p.opened.map((o) => named(o, at)) } : {}),
    })),
  );
}
