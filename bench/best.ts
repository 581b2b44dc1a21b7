import { findTest } from '../core/catalogue/catalogue';
import { CIRCUITS } from '../core/circuits/library';
import type { LibraryCircuit } from '../core/circuits/types';
import { KeptSets } from '../core/diagnosis/multiple-faults';
import { CircuitPredictor } from '../core/diagnosis/predict';
import { diagnose, prepare } from '../core/diagnosis/diagnose';
import { decisionOf } from '../core/diagnosis/hypotheses';
import type { Predictions } from '../core/diagnosis/predictions';
import type { DiagnosticReading } from '../core/diagnosis/types';
import { report } from './measure';

/** Share of faults outside the circuit, and when a decision is made: as the diagnosis has them. */
const OUTSIDE = 0.2;
const DECIDED = 0.97;
/** Predictions this many standard deviations apart are told apart by one reading. */
const APART = 2.5;

interface Shown {
  readonly h: number;
  readonly mean: number;
  readonly sd: number;
}

interface Problem {
  readonly p: Predictions;
  readonly weight: readonly number[];
  readonly decision: readonly string[];
  /** Of each instance: the hypotheses in the order of what they would show there. */
  readonly order: readonly (readonly Shown[])[];
  readonly minutes: (instance: number, done: number) => number;
}

function problemOf(circuit: LibraryCircuit): Problem {
  const { predictions: p } = prepare({ circuit, cylinders: 1 });
  const inside = p.hypotheses.reduce((s, h) => s + h.weight, 0);
  const n = p.instances.length;
  const order = p.instances.map((_, i) => orderAt(p, i));
  const same = (i: number, done: number): boolean =>
    p.instances.some((x, k) => (done & (1 << k)) !== 0 && x.test === p.instances[i]?.test);
  return {
    p,
    order,
    weight: p.hypotheses.map((h) => (h.members.length ? ((1 - OUTSIDE) * h.weight) / inside : OUTSIDE)),
    decision: p.hypotheses.map((h) => (h.members[0] ? decisionOf(h.members[0]) : 'outside')),
    minutes: (i, done) => {
      const id = p.instances[i]?.test ?? '';
      const whole = findTest(id)?.minutes ?? 5;
      return (
        (same(i, done) ? 0 : whole * 0.6) + (whole * 0.4) / p.instances.slice(0, n).filter((x) => x.test === id).length
      );
    },
  };
}

function orderAt(p: Predictions, instance: number): Shown[] {
  const n = p.instances.length;
  const isOhms = p.instances[instance]?.mode === 'resistance';
  return p.hypotheses
    .map((_, h) => {
      const mean = p.mean[h * n + instance] as number;
      return {
        h,
        mean,
        sd:
          mean === Infinity
            ? 0
            : Math.hypot(p.sd[h * n + instance] as number, isOhms ? 0.1 : 0.03, isOhms ? 0 : 0.02 * Math.abs(mean)),
      };
    })
    .sort((a, b) => a.mean - b.mean);
}

/** The groups of those that a reading cannot tell apart, among those that are left. */
function partsOf(order: readonly Shown[], set: ReadonlySet<number>): number[][] {
  const parts: number[][] = [];
  let before: Shown | null = null;
  for (const x of order) {
    if (!set.has(x.h)) continue;
    if (before && (x.mean === before.mean || x.mean - before.mean <= APART * Math.hypot(x.sd, before.sd)))
      parts.at(-1)?.push(x.h);
    else parts.push([x.h]);
    before = x;
  }
  return parts.map((part) => part.sort((a, b) => a - b));
}

const total = (q: Problem, set: readonly number[]): number => set.reduce((s, h) => s + (q.weight[h] as number), 0);

function isDecided(q: Problem, set: readonly number[]): boolean {
  const shares = new Map<string, number>();
  for (const h of set)
    shares.set(q.decision[h] as string, (shares.get(q.decision[h] as string) ?? 0) + (q.weight[h] as number));
  return Math.max(...shares.values()) >= DECIDED * total(q, set);
}

/**
 * Least expected minutes to a decision, over all orders that may depend on what was read: every state is
 * looked at once.
 */
function leastMinutes(q: Problem): number {
  const known = new Map<string, number>();
  const best = (set: readonly number[], done: number): number => {
    if (set.length === 1 || isDecided(q, set)) return 0;
    const key = `${done}|${set.join()}`;
    const found = known.get(key);
    if (found !== undefined) return found;
    let least = Infinity;
    const [left, whole] = [new Set(set), total(q, set)];
    for (const [i, order] of q.order.entries()) {
      if (done & (1 << i)) continue;
      const parts = partsOf(order, left);
      if (parts.length < 2) continue;
      let minutes = q.minutes(i, done);
      for (const part of parts) minutes += (total(q, part) / whole) * best(part, done | (1 << i));
      least = Math.min(least, minutes);
    }
    const value = least === Infinity ? 0 : least;
    known.set(key, value);
    return value;
  };
  return best(
    q.p.hypotheses.map((_, h) => h),
    0,
  );
}

/** Expected minutes of following *Next* on readings without errors, of good parts at their nominal values. */
function minutesOfNext(circuit: LibraryCircuit, q: Problem): number {
  const prepared = { predictions: q.p, sets: new KeptSets(new CircuitPredictor(circuit, { cylinders: 1 })) };
  const n = q.p.instances.length;
  return q.p.hypotheses.reduce((sum, _, h) => {
    const measured: DiagnosticReading[] = [];
    let [minutes, done] = [0, 0];
    for (;;) {
      const d = diagnose({ circuit, cylinders: 1, measured, observed: [], coded: [] }, prepared);
      const [next] = d.next;
      if (d.decided || !next) break;
      const i = q.p.instances.findIndex((x) => x.test === next.test && x.position === next.position);
      minutes += q.minutes(i, done);
      done |= 1 << i;
      const mean = q.p.mean[h * n + i] as number;
      const plain = { test: next.test, position: next.position, u: 0.03 };
      measured.push(
        mean === Infinity
          ? { ...plain, kind: 'overload', value: 0 }
          : { ...plain, kind: 'value', value: q.p.instances[i]?.mode === 'resistance' ? Math.exp(mean) : mean },
      );
    }
    return sum + (q.weight[h] as number) * minutes;
  }, 0);
}

/** On the circuits that are small enough: minutes of *Next* against the best that any order could do. */
export function benchBest(most = 9): void {
  for (const circuit of CIRCUITS.filter((c) => c.perCylinder.length === 0 && c.probes.length <= most)) {
    const q = problemOf(circuit);
    const [next, best] = [minutesOfNext(circuit, q), leastMinutes(q)];
    report(`${circuit.id}: expected minutes following Next`, next, 'min', 1.15 * best);
    report('  best possible, every order looked at', best, 'min', null);
  }
}
