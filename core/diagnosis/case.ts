import { currentLocale, localeKey } from '../locale/locale';
import { tr } from '../locale/translate';
import { findTest } from '../catalogue/catalogue';
import { groupBy } from '../foundation/collections';
import type { Wiring } from '../circuits/expand';
import type { LibraryCircuit } from '../circuits/types';
import { CORE_VERSION } from '../foundation/version';
import type { Position } from '../judge/types';
import { diagnose, prepare, type Prepared } from './diagnose';
import { isCalled, momentsOf } from '../evidence/kinds/supposition';
import { type History, priorFactorsFrom } from './priors';
import { readAsShown, shownPrediction } from './predicted-readings';
import type { Diagnosis, DiagnosticReading, Observed, Suspect } from './types';
import { pointOf } from './weigh';

/** All that a job knows, ready to be weighed against circuits. Plain data: it travels to a worker. */
export interface Case {
  readonly wiring: Wiring;
  /** The engine family's own before those for any. */
  readonly circuits: readonly LibraryCircuit[];
  readonly measured: readonly DiagnosticReading[];
  readonly observed: readonly Observed[];
  readonly coded: readonly number[];
  /** Areas of the catalogue that codes and complaint point at. */
  readonly areas: readonly string[];
  readonly history: History;
  /** The engine has run in this job, and not long ago. */
  readonly warm: boolean;
}

/** What of a case is about each of its circuits. */
export type CaseContext = Pick<Case, 'wiring' | 'observed' | 'coded' | 'history' | 'warm'>;

/** A circuit with its suspects by what was measured in it. */
export interface WeighedCircuit {
  readonly circuit: LibraryCircuit;
  readonly wiring: Wiring;
  readonly diagnosis: Diagnosis;
  /** What was taken into account before anything was measured. */
  readonly before: readonly string[];
  /** What the next tests would show, healthy and under the leading suspects. */
  readonly expected: readonly ExpectedReading[];
  /** The same beside what was read, of the points that tell most. */
  readonly compared: readonly ComparedReading[];
}

export interface ExpectedReading {
  readonly test: string;
  readonly name: string;
  readonly position: Position;
  readonly readings: readonly { readonly when: string; readonly shown: string }[];
}

export interface ComparedReading extends ExpectedReading {
  /** As the meter showed it: "201", "OL". */
  readonly read: string;
}

/**
 * Predictions depend on no evidence: kept by all of what they are made from, which is the content of the
 * circuit, the engine and the core. What was weighed is kept by the evidence too: a job is looked at more
 * often than something is read in it.
 */
export class PredictionCache {
  private readonly made: RecentlyUsed<Prepared>;
  private readonly weighed: RecentlyUsed<WeighedCircuit>;

  constructor(most = 60, mostWeighed = 200) {
    this.made = new RecentlyUsed(most);
    this.weighed = new RecentlyUsed(mostWeighed);
  }

  /** Names of suspects are words: what was made for one reader is not shown to another. */
  of(circuit: LibraryCircuit, wiring: Wiring): Prepared {
    return this.made.get(JSON.stringify([circuit, wiring, CORE_VERSION, localeKey(currentLocale())]), () =>
      prepare({ circuit, ...wiring }),
    );
  }

  /** What `weigh` gives for this question, which says all that it depends on. */
  weighedOnce(question: unknown, weigh: () => WeighedCircuit): WeighedCircuit {
    return this.weighed.get(JSON.stringify([question, CORE_VERSION, localeKey(currentLocale())]), weigh);
  }
}

/** The newest so many of what was made. */
class RecentlyUsed<T> {
  private readonly all = new Map<string, T>();

  constructor(private readonly most: number) {}

  get(key: string, make: () => T): T {
    const known = this.all.get(key);
    const value = known ?? make();
    // Used last, dropped last.
    this.all.delete(key);
    if (this.all.size >= this.most) this.all.delete(this.all.keys().next().value ?? '');
    this.all.set(key, value);
    return value;
  }
}

/** A circuit with what was measured in it. */
export interface InQuestion {
  readonly circuit: LibraryCircuit;
  readonly own: readonly DiagnosticReading[];
}

/** What is measured in many circuits says of none that it is the one in question. */
const GENERAL: ReadonlySet<string> = new Set(['Harness', 'Energy first', 'Controller', 'Sensors']);

/** Tests that circuits of several areas have, as the battery: that they were done accuses none of them. */
function readInMany(circuits: readonly LibraryCircuit[]): ReadonlySet<string> {
  const areas = new Map<string, Set<string>>();
  for (const c of circuits)
    for (const { test } of c.probes) areas.set(test, (areas.get(test) ?? new Set()).add(c.area));
  return new Set([...areas].flatMap(([test, own]) => (own.size > 2 ? [test] : [])));
}

/** Measured at a point of the circuit. */
function ownOf(circuit: LibraryCircuit, measured: readonly DiagnosticReading[]): DiagnosticReading[] {
  const points = groupBy(circuit.probes, (p) => p.test);
  return measured.filter(
    (m) =>
      points
        .get(m.test)
        ?.some((p) => (p.position === '{}' ? typeof m.position === 'number' : p.position === m.position)) ?? false,
  );
}

/**
 * The circuits in question: of each area the one in which most was measured, among equals the one that comes
 * first. Where nothing was measured in any, the first one that codes or complaint point at.
 */
export function circuitsInQuestion(c: Case): InQuestion[] {
  const areaOf = new Map([...new Set(c.measured.map((m) => m.test))].map((test) => [test, findTest(test)?.area]));
  const common = readInMany(c.circuits);
  const found = c.circuits.map((circuit) => {
    const own = ownOf(circuit, c.measured);
    const telling = own.filter((m) => {
      const area = areaOf.get(m.test) ?? circuit.area;
      return !common.has(m.test) && (area === circuit.area || !GENERAL.has(area));
    }).length;
    return { circuit, own, telling };
  });
  const areas = [...new Set(found.filter((f) => f.telling > 0).map((f) => f.circuit.area))];
  const best = areas.flatMap((area) =>
    found
      .filter((f) => f.circuit.area === area && f.telling > 0)
      .toSorted((a, b) => b.telling - a.telling)
      .slice(0, 1),
  );
  return best.length ? best : found.filter((f) => c.areas.includes(f.circuit.area)).slice(0, 1);
}

/** What is about each circuit of the case, without the circuits themselves and what was measured in them. */
export const contextOf = ({ wiring, observed, coded, history, warm }: Case): CaseContext => ({
  wiring,
  observed,
  coded,
  history,
  warm,
});

/** Weighs a job's evidence in every circuit in question. */
export const weighCase = (c: Case, kept: PredictionCache): WeighedCircuit[] => {
  const context = contextOf(c);
  return circuitsInQuestion(c).map((q) => weighOne(q, context, kept));
};

/** Read again and again, a point says little more than the newest times it was read. */
const NEWEST = 3;

function newestOf(measured: readonly DiagnosticReading[]): DiagnosticReading[] {
  const seen = new Map<string, number>();
  return measured
    .toSorted((a, b) => (a.at === b.at ? 0 : (a.at ?? NOW) > (b.at ?? NOW) ? -1 : 1))
    .filter((m) => {
      const key = pointOf(m);
      const n = (seen.get(key) ?? 0) + 1;
      seen.set(key, n);
      return n <= NEWEST;
    });
}
/** After every moment that is written down. */
const NOW = '~';

/** Weighs one circuit in question; what was asked before is answered as it was then. */
export const weighOne = (q: InQuestion, context: CaseContext, kept: PredictionCache): WeighedCircuit =>
  kept.weighedOnce([q, context], () => weighAnew(q, context, kept));

function weighAnew({ circuit, own }: InQuestion, c: CaseContext, kept: PredictionCache): WeighedCircuit {
  const ready = kept.of(circuit, c.wiring);
  const priorFactors = priorFactorsFrom(circuit, c.history);
  const diagnosis = diagnose(
    {
      circuit,
      ...c.wiring,
      measured: newestOf(own),
      observed: observedIn(circuit, c.observed),
      coded: c.coded,
      priorFactors,
      shows: momentsOf(c.history.conditions),
      warm: c.warm,
    },
    ready,
  );
  const leading = diagnosis.suspects.slice(0, LEADING);
  const expectedAt = (at: Pick<DiagnosticReading, 'test' | 'position'>): ExpectedReading => ({
    test: at.test,
    name: findTest(at.test)?.name ?? at.test,
    position: at.position,
    readings: [
      { when: tr`if all is well`, shown: shownPrediction(ready.predictions, at, null) },
      ...leading.map((s) => ({ when: tr`if ${s.words}`, shown: shownPrediction(ready.predictions, at, s.key) })),
    ],
  });
  return {
    circuit,
    wiring: c.wiring,
    diagnosis,
    before: priorFactors.map((o) => o.why),
    expected: diagnosis.next.slice(0, LEADING).map(expectedAt),
    compared: tellingMost(newestOf(own), leading).map((m) => ({
      ...expectedAt(m),
      read: readAsShown(ready.predictions, m),
    })),
  };
}

/** Suspects, and next tests, that are shown side by side. */
const LEADING = 3;
const COMPARED = 8;

/** The newest reading of each point, those first that speak loudest for or against the leading suspects. */
function tellingMost(newest: readonly DiagnosticReading[], leading: readonly Suspect[]): DiagnosticReading[] {
  const loudness = new Map<string, number>();
  for (const w of leading.flatMap((s) => [...s.supports, ...s.contradicts]))
    if (w.point !== null) loudness.set(w.point, Math.max(loudness.get(w.point) ?? 0, Math.abs(w.nats)));
  const points = new Map(newest.toReversed().map((m) => [pointOf(m), m]));
  return [...points.values()]
    .map((m) => ({ m, loud: loudness.get(pointOf(m)) ?? 0 }))
    .sort((a, b) => b.loud - a.loud)
    .slice(0, COMPARED)
    .map((x) => x.m);
}

/** Observations that concern the circuit: of its parts, at its cylinders. */
function observedIn(circuit: LibraryCircuit, observed: readonly Observed[]): Observed[] {
  const parts = [...new Set(circuit.suspects.map((s) => s.name))];
  return observed.filter(({ body: e }) => {
    if ('part' in e && !parts.some((name) => isCalled(name, e.part))) return false;
    if (e.kind === 'cut-out') return circuit.area === 'Injectors';
    return e.kind !== 'swap' || typeof e.from !== 'number' || circuit.perCylinder.length > 0;
  });
}
