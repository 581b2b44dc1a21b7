import type { Arbitrary } from 'fast-check';
import fc from 'fast-check';
import type { Circuit, Element, Fault } from './types';

/**
 * Random circuits for tests: a tree of resistors that reaches every node, more resistors across, sources with
 * inner resistance, switches, faults.
 */
export interface RandomCircuit {
  readonly circuit: Circuit;
  readonly faults: readonly Fault[];
}

/** From a milliohm to ten megohms, even on a logarithmic scale. */
const ohms = fc.double({ min: -3, max: 7, noNaN: true }).map((e) => 10 ** e);

export function randomCircuits(most = 12): Arbitrary<RandomCircuit> {
  return fc.integer({ min: 2, max: most }).chain((n) => {
    const node = fc.integer({ min: 0, max: n - 1 });
    const tree = fc.tuple(...Array.from({ length: n - 1 }, (_, i) => fc.tuple(fc.integer({ min: 0, max: i }), ohms)));
    const across = fc.array(fc.tuple(node, node, ohms), { maxLength: n });
    const sources = fc.array(fc.tuple(node, node, fc.double({ min: -24, max: 24, noNaN: true }), ohms), {
      minLength: 1,
      maxLength: 3,
    });
    const pushed = fc.array(fc.tuple(node, node, fc.double({ min: -2, max: 2, noNaN: true })), { maxLength: 2 });
    const switches = fc.array(fc.tuple(node, node, fc.boolean()), { maxLength: 3 });
    const faults = fc.array(
      fc.tuple(
        fc.integer({ min: 0, max: 40 }),
        fc.constantFrom('short' as const, 'series' as const, 'resistance' as const, 'open' as const),
        ohms,
      ),
      { maxLength: 2 },
    );
    return fc
      .tuple(tree, across, sources, pushed, switches, faults)
      .map(([t, a, u, p, s, f]) => build(n, t, a, u, p, s, f));
  });
}

type Two = readonly [number, number, number];

function build(
  n: number,
  tree: readonly (readonly [number, number])[],
  across: readonly Two[],
  sources: readonly (readonly [number, number, number, number])[],
  pushed: readonly Two[],
  switches: readonly (readonly [number, number, boolean])[],
  faults: readonly (readonly [number, 'short' | 'series' | 'resistance' | 'open', number])[],
): RandomCircuit {
  const name = (i: number): string => (i === 0 ? 'gnd' : `n${i}`);
  const elements: Element[] = [
    ...tree.map(([to, r], i): Element => ({ id: `T${i}`, kind: 'resistor', from: name(i + 1), to: name(to), ohms: r })),
    ...across.map(([a, b, r], i): Element => ({ id: `A${i}`, kind: 'resistor', from: name(a), to: name(b), ohms: r })),
    ...sources.flatMap(([a, b, v, r], i): Element[] => [
      { id: `U${i}`, kind: 'voltage', from: `u${i}`, to: name(a), volts: v },
      { id: `RU${i}`, kind: 'resistor', from: `u${i}`, to: name(b), ohms: r },
    ]),
    ...pushed.map(([a, b, amperes], i): Element => ({
      id: `I${i}`,
      kind: 'current',
      from: name(a),
      to: name(b),
      amperes,
    })),
    ...switches
      .filter(([a, b]) => a !== b)
      .map(([a, b, closed], i): Element => ({ id: `S${i}`, kind: 'switch', from: name(a), to: name(b), closed })),
  ];
  // Only what is not needed to reach a node may be opened: a circuit that falls apart is tested by itself.
  const hit = faults.flatMap(([at, kind, r]): Fault[] => {
    const e = elements[at % elements.length];
    if (e?.kind !== 'resistor' || e.id.startsWith('RU') || n < 2) return [];
    if (kind === 'open') return e.id.startsWith('A') ? [{ element: e.id, kind }] : [];
    return kind === 'short' ? [{ element: e.id, kind }] : [{ element: e.id, kind, ohms: r }];
  });
  return {
    circuit: { reference: 'gnd', elements },
    faults: hit.filter((f, i) => hit.findIndex((o) => o.element === f.element) === i),
  };
}
