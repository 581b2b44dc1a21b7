import { tr } from '../locale/translate';
import { expandSuspects, type Wiring } from '../circuits/expand';
import type { LibraryCircuit } from '../circuits/types';
import type { Hypothesis, Member } from './types';

/** All single suspects and sizes. Their weights are those of the data, shared among sizes. */
export function singleHypotheses(circuit: LibraryCircuit, wiring: Wiring): Hypothesis[] {
  return expandSuspects(circuit, wiring).flatMap((s): Hypothesis[] => {
    const sizes = circuit.perCylinder.length === 0 || s.position === null ? refined(s.sizes ?? [0]) : (s.sizes ?? [0]);
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

/**
 * Sizes no further apart than this, where there are few suspects: of those that are there once per cylinder
 * it would double the time and decide nothing more.
 */
const STEP = 2;

/**
 * The same sizes with others between them, evenly by their logarithm. What lies between two sizes blurs each
 * reading by itself; but a fault has one size, and readings along a wire that agree in it prove it together.
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
export const calledOf = (m: Pick<Member, 'element' | 'name' | 'position' | 'called'>): string =>
  m.called ?? (m.position === null ? m.name : LEAK.test(m.element) ? tr`${m.name} ${m.position}` : m.element);
/** Elements that stand for what leaks are named by where to. */
const LEAK = /^to /;

export const OUTSIDE: Hypothesis = { key: 'outside', members: [], weight: 0 };
