import { seededRandom } from '../core/numerics/random';
import { findTest } from '../core/catalogue/catalogue';
import { FastSolver } from '../core/solver/fast';
import { solveCircuit } from '../core/solver/solve';
import { CIRCUITS } from '../core/circuits/library';
import { expandElements, expandProbes, expandSuspects, type PlacedSuspect } from '../core/circuits/expand';
import type { LibraryCircuit } from '../core/circuits/types';
import { measureCircuit } from '../core/solver/measure';
import type { Element, Fault } from '../core/solver/types';
import { diagnose, prepare, type Prepared } from '../core/diagnosis/diagnose';
import { decisionOf } from '../core/diagnosis/hypotheses';
import type { DiagnosticReading } from '../core/diagnosis/types';
import { percentile, report } from './measure';

/**
 * Faults drawn at random, readings by the plain solver with tolerances and meter errors of their own: it
 * shares the netlist with the diagnosis, nothing else.
 */

const CYLINDERS = 6;
const MOST_TESTS = 25;

interface Patient {
  readonly circuit: LibraryCircuit;
  /** What is to be changed or mended. */
  readonly decision: string;
  readonly read: (test: string, position: number | string) => DiagnosticReading;
}

/**
 * One fault drawn at random by how often what fails, of any size between the smallest and the largest of the
 * suspect, not only those on its grid.
 */
function drawFault(suspects: readonly PlacedSuspect[], random: () => number): { suspect: PlacedSuspect; fault: Fault } {
  let at = random() * suspects.reduce((sum, k) => sum + k.prior, 0);
  const suspect = suspects.find((k) => (at -= k.prior) <= 0) ?? suspects[0];
  if (!suspect) throw new Error('a circuit without suspects');
  const { element, sizes = [0] } = suspect;
  const [low, high] = [Math.log(Math.max(1e-3, Math.min(...sizes))), Math.log(Math.max(1e-3, ...sizes))];
  const ohms = Math.exp(low + random() * (high - low));
  return {
    suspect,
    fault: suspect.fault === 'open' ? { element, kind: 'open' } : { element, kind: suspect.fault, ohms },
  };
}

const steadySuspects = (circuit: LibraryCircuit): PlacedSuspect[] =>
  expandSuspects(circuit, { cylinders: CYLINDERS }).filter((s) => !s.intermittent);

function patient(circuit: LibraryCircuit, random: () => number): Patient {
  const { suspect, fault } = drawFault(steadySuspects(circuit), random);
  return { circuit, decision: decisionOf(suspect), read: readerOf(circuit, [fault], random) };
}

/** What a technician would read in a circuit whose good parts lie somewhere within their tolerance. */
function readerOf(circuit: LibraryCircuit, hidden: readonly Fault[], random: () => number): Patient['read'] {
  const gauss = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const all = expandElements(circuit, { cylinders: CYLINDERS });
  const values = new Map(
    all.map((e) => {
      const v = circuit.values[e.value];
      return [
        e.id,
        (v?.value ?? 0) * (v?.unit === 'V' ? 1 + v.spread * gauss() : Math.exp((v?.spread ?? 0) * gauss())),
      ];
    }),
  );
  const probes = expandProbes(circuit, { cylinders: CYLINDERS });
  return (test, position) => {
    const probe = probes.find((p) => p.test === test && p.position === position);
    if (!probe) throw new Error(`no probe for ${test}`);
    const elements = all.map((e): Element => {
      const ends = { id: e.id, from: e.from, to: e.to };
      if (e.kind === 'source') return { ...ends, kind: 'voltage', volts: values.get(e.id) ?? 0 };
      const open = (e.closedIn && !e.closedIn.includes(probe.state)) ?? false;
      return { ...ends, kind: 'resistor', ohms: open ? 1e12 : (values.get(e.id) ?? 0) };
    });
    const faults: Fault[] = [...hidden, ...(probe.opened ?? []).map((o): Fault => ({ element: o, kind: 'open' }))];
    const done = measureCircuit({ reference: circuit.reference, elements }, faults, [
      probe.mode === 'current'
        ? { id: 'm', mode: 'current', element: probe.element ?? '' }
        : {
            id: 'm',
            mode: probe.mode,
            red: probe.red ?? '',
            black: probe.black ?? '',
            ...(probe.mode === 'voltage' ? { meter_ohm: 10e6 } : { overload_ohm: 2e7 }),
          },
    ]);
    if (!done.ok) throw new Error(JSON.stringify(done.error));
    const shown = done.value[0]?.value ?? null;
    const value = shown === null ? null : shown * (probe.scale ?? 1);
    const plain = { test, position };
    // One reading in a hundred is a bad contact: overload in ohms, nothing in volts.
    if (random() < 0.01)
      return probe.mode === 'resistance'
        ? { ...plain, kind: 'overload', value: 0, u: 0 }
        : { ...plain, kind: 'value', value: 0, u: 0.01 };
    if (value === null) return { ...plain, kind: 'overload', value: 0, u: 0 };
    const noisy =
      probe.mode === 'resistance'
        ? value * (1 + 0.008 * gauss()) + Math.abs(0.05 * gauss())
        : value * (1 + 0.005 * gauss()) + 0.005 * gauss();
    return { ...plain, kind: 'value', value: noisy, u: 0.03 };
  };
}

interface Course {
  readonly right: boolean;
  readonly top: string;
  readonly tests: number;
  readonly minutes: number;
  readonly share: number;
}
type Chooser = (
  left: readonly { test: string; position: number | string }[],
  next: readonly { test: string; position: number | string }[],
) => { test: string; position: number | string } | undefined;

function follow(p: Patient, prepared: Prepared, choose: Chooser): Course {
  const measured: DiagnosticReading[] = [];
  let minutes = 0;
  const open = new Set<string>();
  for (;;) {
    const d = diagnose({ circuit: p.circuit, cylinders: CYLINDERS, measured, observed: [], coded: [] }, prepared);
    const left = prepared.predictions.instances.filter(
      (i) => !measured.some((m) => m.test === i.test && m.position === i.position),
    );
    const step = d.decided || measured.length >= MOST_TESTS ? undefined : choose(left, d.next);
    if (!step) {
      const byElement = new Map<string, number>();
      for (const s of d.suspects) byElement.set(decisionOf(s), (byElement.get(decisionOf(s)) ?? 0) + s.probability);
      const [top, share] = [...byElement].sort((a, b) => b[1] - a[1])[0] ?? ['', 0];
      return { right: top === p.decision, top, tests: measured.length, minutes, share };
    }
    measured.push(p.read(step.test, step.position));
    const whole = findTest(step.test)?.minutes ?? 5;
    minutes +=
      (open.has(step.test) ? 0 : whole * 0.6) +
      (whole * 0.4) / prepared.predictions.instances.filter((i) => i.test === step.test).length;
    open.add(step.test);
  }
}

/**
 * The simulated trial: share of right convictions, tests and minutes, against the order of the data and a
 * random order; how far shares can be trusted.
 */
export function benchTrial(patients = Number(process.env.MUDFLAT_TRIAL ?? 2000)): void {
  const random = seededRandom(20261123);
  const ready = new Map(CIRCUITS.map((c) => [c.id, prepare({ circuit: c, cylinders: CYLINDERS })]));
  const orders: Record<string, Chooser> = {
    Next: (_, next) => next[0],
    'the rule order': (left) => left[0],
    'a random order': (left) => left[Math.floor(random() * left.length)],
  };
  const wrong = new Map<string, number>();
  const all = Array.from({ length: patients }, (_, i) =>
    patient(CIRCUITS[i % CIRCUITS.length] as LibraryCircuit, seededRandom(i + 1)),
  );
  const wanted = process.env.MUDFLAT_ORDERS === 'next' ? ['Next'] : Object.keys(orders);
  for (const [name, choose] of Object.entries(orders)) {
    if (!wanted.includes(name)) continue;
    const courses = all.map((p) => follow(p, ready.get(p.circuit.id) as Prepared, choose));
    const right = courses.filter((c) => c.right).length / courses.length;
    report(`${patients} faults, ${name}: right`, 100 * right, '%', name === 'Next' ? 97 : null, false);
    report(
      `  median tests`,
      percentile(
        courses.map((c) => c.tests),
        0.5,
      ),
      '',
      null,
    );
    report(
      `  median minutes`,
      percentile(
        courses.map((c) => c.minutes),
        0.5,
      ),
      'min',
      null,
    );
    if (name !== 'Next') continue;
    for (const [i, c] of courses.entries())
      if (!c.right) {
        const key = `${all[i]?.decision.replace(/\d+/, 'n') ?? ''} taken for ${c.top.replace(/\d+/, 'n')}`;
        wrong.set(key, (wrong.get(key) ?? 0) + 1);
      }
    for (const [key, n] of [...wrong].sort((a, b) => b[1] - a[1]).slice(0, 6)) report(`  ${key}`, n, 'times', null);
    for (const [from, to] of [
      [0.2, 0.5],
      [0.5, 0.8],
      [0.8, 0.95],
      [0.95, 1.01],
    ] as const) {
      const own = courses.filter((c) => c.share >= from && c.share < to);
      if (own.length)
        report(
          `  given ${Math.round(100 * from)} to ${Math.round(Math.min(100, 100 * to))} % (${own.length}): right`,
          (100 * own.filter((c) => c.right).length) / own.length,
          '%',
          null,
        );
    }
    for (const c of CIRCUITS) {
      const own = courses.filter((_, i) => all[i]?.circuit === c);
      report(`  ${c.id}: right`, (100 * own.filter((x) => x.right).length) / own.length, '%', null);
    }
  }
}

/** A 40-node ladder solved again and again with other values; the plain solver beside it. */
export function benchSolver(): void {
  const nodes = Array.from({ length: 41 }, (_, i) => `n${i}`);
  const elements = nodes.slice(1).flatMap((n, i): Element[] => [
    { id: `s${i}`, kind: 'resistor', from: nodes[i] ?? '', to: n, ohms: 0.1 + i / 100 },
    { id: `g${i}`, kind: 'resistor', from: n, to: nodes[Math.max(0, i - 6)] ?? '', ohms: 5 + i },
  ]);
  const index = new Map(nodes.map((n, i) => [n, i]));
  const fast = new FastSolver(
    {
      nodes,
      from: Int32Array.from(elements, (e) => index.get(e.from) ?? 0),
      to: Int32Array.from(elements, (e) => index.get(e.to) ?? 0),
    },
    new Map([[0, 0]]),
    40,
    1,
  );
  const conductance_S = Float64Array.from(elements, (e) => 1 / (e.kind === 'resistor' ? e.ohms : 1));
  const rounds = 20_000;
  let best = Infinity;
  for (let r = 0; r < 5; r++) {
    const start = performance.now();
    for (let i = 0; i < rounds; i++) {
      conductance_S[i % conductance_S.length] = 1 / (0.1 + (i % 50));
      fast.solve(conductance_S);
    }
    best = Math.min(best, performance.now() - start);
  }
  report('40-node solves', (1000 * rounds) / best, 'per s', 20_000, false);
  const start = performance.now();
  for (let i = 0; i < 300; i++)
    solveCircuit({
      reference: 'n0',
      elements: [...elements, { id: 'i', kind: 'current', from: 'n0', to: 'n40', amperes: 1 }],
    });
  report('40-node solves by the plain solver', 300_000 / (performance.now() - start), 'per s', null);
}

/** After a reading: suspects and next test of a V8, glow and injector circuits together, predictions kept. */
export function benchDiagnosis(): void {
  const circuits = CIRCUITS.filter((c) => c.id === 'glow-relay' || c.id === 'injectors-common');
  const start = performance.now();
  const ready = circuits.map((circuit) => ({ circuit, prepared: prepare({ circuit, cylinders: 8 }) }));
  report('predictions of a V8, glow and injectors, once', performance.now() - start, 'ms', null);
  const measured: DiagnosticReading[] = [0.7, 0.6, 201, 0.7, 0.7].map((value, i) => ({
    test: i < 5 ? 'glow-plug-resistance' : '',
    position: i + 1,
    kind: 'value',
    value,
    u: 0.03,
  }));
  const times: number[] = [];
  for (let r = 0; r < 15; r++) {
    const from = performance.now();
    for (const { circuit, prepared } of ready)
      diagnose(
        { circuit, cylinders: 8, measured: circuit.id === 'glow-relay' ? measured : [], observed: [], coded: [] },
        prepared,
      );
    times.push(performance.now() - from);
  }
  report('suspects and next test after a reading, median', percentile(times, 0.5), 'ms', 100);
}

const SETS = ['glow-relay', 'glow-unit', 'injectors-common', 'injectors-paired', 'injectors-piezo'];

/**
 * Sets of which two to five parts are bad, every position read in every test: how often all bad ones are
 * found, and nothing else is accused.
 */
export function benchSets(each = 60): void {
  for (const circuit of CIRCUITS.filter((c) => SETS.includes(c.id))) {
    const prepared = prepare({ circuit, cylinders: CYLINDERS });
    let right = 0;
    for (let i = 0; i < each; i++) {
      const random = seededRandom(5000 + i);
      const positions = Array.from({ length: CYLINDERS }, (_, n) => n + 1).filter(() => random() < 0.55);
      const bad = (positions.length > 1 ? positions : [1, 4]).slice(0, CYLINDERS - 1).map((position) =>
        drawFault(
          steadySuspects(circuit).filter((s) => s.is === 'part' && s.position === position),
          random,
        ),
      );
      const read = readerOf(
        circuit,
        bad.map((b) => b.fault),
        random,
      );
      const measured = prepared.predictions.instances
        .filter((x) => typeof x.position === 'number')
        .map((x) => read(x.test, x.position));
      const d = diagnose({ circuit, cylinders: CYLINDERS, measured, observed: [], coded: [] }, prepared);
      const shares = new Map<string, number>();
      for (const s of d.suspects) shares.set(decisionOf(s), (shares.get(decisionOf(s)) ?? 0) + s.probability);
      const accused = [...shares].filter(([, share]) => share >= 0.8).map(([key]) => key);
      const truth = bad.map((b) => decisionOf(b.suspect));
      if (accused.length === truth.length && truth.every((t) => accused.includes(t))) right++;
    }
    report(`${each} sets mostly bad, ${circuit.id}: all found, nothing else`, (100 * right) / each, '%', null);
  }
}
