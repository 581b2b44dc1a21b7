import { findTest } from '../core/catalogue/catalogue';
import { CIRCUITS } from '../core/circuit/library/library';
import type { LibraryCircuit } from '../core/circuit/library/types';
import { diagnose, prepare, type Prepared } from '../core/diagnosis/diagnose';
import { shownPrediction } from '../core/diagnosis/shown';
import type { Measured } from '../core/diagnosis/types';
import type { Engine } from '../core/engine/layout';
import type { Evidence, MeasuredRun } from '../core/evidence/types';
import { CORE_VERSION } from '../core/version';
import { measuredOf } from '../formats/evidence';
import type { CircuitView } from '../formats/views';

/** Predictions of a circuit depend on no evidence: kept per circuit, revision, engine and core. */
const kept = new Map<string, Prepared>();
const MOST_KEPT = 60;

function prepared(circuit: LibraryCircuit, cylinders: number, systemVoltage_V: number | undefined): Prepared {
  const key = [circuit.id, circuit.revision, cylinders, systemVoltage_V, CORE_VERSION].join('|');
  const known = kept.get(key);
  if (known) return known;
  const made = prepare({ circuit, cylinders, systemVoltage_V });
  if (kept.size >= MOST_KEPT) kept.delete(kept.keys().next().value ?? '');
  kept.set(key, made);
  return made;
}

export interface JobEvidence {
  readonly engine: Engine;
  readonly runs: readonly MeasuredRun[];
  readonly observed: readonly Evidence[];
  readonly coded: readonly number[];
  /** Areas of the catalogue that codes and complaint point at. */
  readonly areas: readonly string[];
}

const AREAS: Readonly<Record<string, string>> = { 'glow-relay': 'Glow plugs', 'injectors-common': 'Injectors', 'module-input': 'Injector module', 'sensor-pull-down': 'Sensors' };

/** The circuits of a job: those that something was measured in, else those that the codes point at. */
export function viewCircuits(job: JobEvidence): CircuitView[] {
  const measured = job.runs.flatMap((r) => measuredOf(r.definition.id, r.judgement.limits.unit, r.definition.quantity, r.judgement.readings));
  const found = CIRCUITS.flatMap((circuit) => {
    const own = measured.filter((m) => circuit.probes.some((p) => p.test === m.test && (p.position === '{}' ? typeof m.position === 'number' : p.position === m.position)));
    // What only the battery is read with says nothing of a circuit by itself.
    const telling = own.filter((m) => m.test !== 'battery-at-rest').length;
    return [{ circuit, own, telling }];
  });
  const most = found.some((f) => f.telling > 0) ? found.filter((f) => f.telling > 0) : found.filter((f) => job.areas.includes(AREAS[f.circuit.id] ?? '')).slice(0, 1);
  // Of the two ways in which an input can pull, the one in which more was measured.
  const sensors = most.filter((f) => f.circuit.id.startsWith('sensor-')).sort((a, b) => b.telling - a.telling).slice(1);
  return most.filter((f) => !sensors.includes(f)).map((f) => viewCircuit(f.circuit, f.own, job));
}

function viewCircuit(circuit: LibraryCircuit, measured: readonly Measured[], { engine, observed, coded }: JobEvidence): CircuitView {
  const ready = prepared(circuit, engine.cylinders, engine.systemVoltage_V);
  const named = new Set(circuit.suspects.map((s) => s.name));
  const relevant = observed.filter((e) => !('part' in e) || named.has(e.part));
  const diagnosis = diagnose({ circuit, cylinders: engine.cylinders, systemVoltage_V: engine.systemVoltage_V, measured, observed: circuit.perCylinder.length ? relevant.filter((e) => e.kind !== 'cut-out' || circuit.id.startsWith('injectors')) : relevant.filter((e) => e.kind !== 'cut-out' && e.kind !== 'swap'), coded }, ready);
  const expected = diagnosis.next.slice(0, 3).map((n) => ({
    test: n.test, name: findTest(n.test)?.name ?? n.test, position: n.position,
    readings: [{ when: 'if all is well', shown: shownPrediction(ready.predictions, n, null) }, ...diagnosis.suspects.slice(0, 3).map((s) => ({ when: `if ${s.words}`, shown: shownPrediction(ready.predictions, n, s.key) }))],
  }));
  return { circuit, cylinders: engine.cylinders, systemVoltage_V: engine.systemVoltage_V ?? null, diagnosis, expected };
}
