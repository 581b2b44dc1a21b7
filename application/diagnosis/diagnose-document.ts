import { tr } from '../../core/locale/translate';
import { wiringOf } from '../../core/circuits/expand';
import { withLimits } from '../../core/circuits/with-limits';
import type { CircuitValue, LibraryCircuit } from '../../core/circuits/types';
import { findCircuit } from '../../core/circuits/library';
import { findTest } from '../../core/catalogue/catalogue';
import { decodeCode } from '../../core/codes/decode';
import type { PredictionCache } from '../../core/diagnosis/case';
import { diagnose } from '../../core/diagnosis/diagnose';
import type { Diagnosis, DiagnosticReading, Observed } from '../../core/diagnosis/types';
import { checkEngine } from '../../core/engine/layout';
import { checkLimits } from '../../core/limits/check';
import { readAnyEntry } from '../../core/limits/entry';
import { entryToBase } from '../../core/quantity/entry';
import type { EnteredValue } from '../../core/quantity/values';
import { requireUnit } from '../../core/quantity/units';
import { fail, ok, type Problem, type Result } from '../../core/foundation/result';
import { readLeadZero } from '../../formats/instrument';
import { readJson, validate } from '../../formats/validate';
import { check, type EvidenceDocument, checkObservation } from '../../formats/evidence';

export interface DiagnosisDocument extends Diagnosis {
  readonly format: 'mudflat/diagnosis';
  readonly version: 1;
  readonly circuit: string;
}

export function diagnoseText(text: string): Result<DiagnosisDocument> {
  const json = readJson(text);
  if (!json.ok) return json;
  const document = validate(check, json.value);
  return document.ok ? diagnoseDocument(document.value) : document;
}

/** `kept`: predictions of circuits that were weighed before; without it they are made anew. */
export function diagnoseDocument(d: EvidenceDocument, kept?: PredictionCache): Result<DiagnosisDocument> {
  const circuit = findCircuit(d.circuit);
  if (!circuit.ok) return circuit;
  const problems: Problem[] = checkEngine(d.engine, '/engine');
  const measured = d.measurements.flatMap((m, i): DiagnosticReading[] => {
    const read = readMeasurement(m, `/measurements/${i}`);
    if (read.ok) return read.value ? [read.value] : [];
    problems.push(...read.error);
    return [];
  });
  const observed = (d.observations ?? []).flatMap((o, i): Observed[] => {
    const valid = validate(checkObservation, o);
    if (!valid.ok) problems.push(...valid.error.map((p) => ({ ...p, path: `/observations/${i}${p.path}` })));
    return valid.ok ? [{ body: valid.value }] : [];
  });
  const coded = (d.codes ?? []).flatMap((c, i): number[] => {
    const meaning = decodeCode(c);
    if (!meaning.ok) problems.push({ path: `/codes/${i}`, message: meaning.error });
    return meaning.ok && meaning.value.cylinder !== null ? [meaning.value.cylinder] : [];
  });
  problems.push(...checkVehicle(circuit.value, d));
  if (problems.length) return fail(problems);
  const inputs = { circuit: ofThisVehicle(circuit.value, d), ...wiringOf(d.engine), measured, observed, coded };
  return ok({
    format: 'mudflat/diagnosis',
    version: 1,
    circuit: circuit.value.id,
    ...diagnose(inputs, kept?.of(inputs.circuit, wiringOf(d.engine))),
  });
}

/** Limits and healthy values that nothing takes over, each at its field. */
function checkVehicle(circuit: LibraryCircuit, d: EvidenceDocument): Problem[] {
  const known = Object.keys(circuit.values);
  return [
    ...(d.limits ?? []).flatMap(({ test, limits }, i): Problem[] => [
      ...(findTest(test)
        ? []
        : [{ path: `/limits/${i}/test`, message: tr`There is no test "${test}" in the catalogue.` }]),
      ...checkLimits(limits, `/limits/${i}/limits`),
    ]),
    ...Object.keys(d.healthy ?? {})
      .filter((key) => !known.includes(key))
      .map((key) => ({
        path: `/healthy/${key.replaceAll('~', '~0').replaceAll('/', '~1')}`,
        message: tr`The circuit has no value "${key}"; it has ${known.join(', ')}.`,
      })),
  ];
}

/** The circuit with what is known of good parts of this vehicle. */
function ofThisVehicle(circuit: LibraryCircuit, { limits = [], healthy = {} }: EvidenceDocument): LibraryCircuit {
  const limited = withLimits(circuit, (test) => limits.find((l) => l.test === test)?.limits);
  if (Object.keys(healthy).length === 0) return limited;
  const values = Object.entries(limited.values).map(([key, v]): [string, CircuitValue] => {
    const known = healthy[key];
    return [key, known ? { ...v, value: known.value, spread: known.spread ?? v.spread, types: 0 } : v];
  });
  return { ...limited, values: Object.fromEntries(values) };
}

/** An entry in ohms, volts or amperes; `null` where it says nothing. Errors at the field. */
function readMeasurement(m: EvidenceDocument['measurements'][number], path: string): Result<DiagnosticReading | null> {
  const test = findTest(m.test);
  if (!test) return fail([{ path: `${path}/test`, message: tr`There is no test "${m.test}" in the catalogue.` }]);
  // A pair may stand there as both readings, or as their difference.
  const { pair, stimulus, quantity } = test;
  const limits = {
    quantity,
    unit: test.unit,
    ...(pair && m.entry.includes('@') ? { pair } : {}),
    ...(stimulus ? { stimulus } : {}),
  };
  const read = readAnyEntry(m.entry, limits);
  if (!read.ok) return fail([{ path: `${path}/entry`, message: read.error }]);
  const zero = readLeadZero(m.leadZero ?? '');
  if (!zero.ok) return fail([{ path: `${path}/leadZero`, message: zero.error }]);
  const unit = requireUnit(test.unit, test.quantity);
  if (!unit.ok) return fail([{ path: `${path}/test`, message: unit.error }]);
  const leads = test.quantity === 'resistance' ? (zero.value?.value ?? 0) : 0;
  const { entry } = read.value;
  const plain = { test: m.test, position: m.position };
  if (entry.kind === 'nothing') return ok(null);
  if (entry.kind === 'overload' || entry.kind === 'beyond') return ok({ ...plain, kind: 'overload', value: 0, u: 0 });
  if (entry.kind === 'wander') {
    const inBase = (value: EnteredValue): number => entryToBase({ ...entry, value }, unit.value).value - leads;
    const ends = { low: inBase(entry.low), high: entry.high === null ? null : inBase(entry.high) };
    return ok({ ...plain, kind: 'unsteady', value: 0, u: 0, ends });
  }
  if (entry.kind !== 'number') return ok(null);
  const base = entryToBase(entry, unit.value);
  return ok({
    ...plain,
    kind: 'value',
    value: base.value - leads,
    u: base.resolution / Math.sqrt(12),
  });
}
