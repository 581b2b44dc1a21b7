import { wiringOf } from '../../core/circuits/expand';
import { findCircuit } from '../../core/circuits/library';
import { findTest } from '../../core/catalogue/catalogue';
import { decodeCode } from '../../core/codes/decode';
import { diagnose } from '../../core/diagnosis/diagnose';
import type { Diagnosis, Measured, Observed } from '../../core/diagnosis/types';
import { checkEngine } from '../../core/engine/layout';
import { readEntry } from '../../core/limits/entry';
import { entryToBase } from '../../core/quantity/entry';
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

export function diagnoseDocument(d: EvidenceDocument): Result<DiagnosisDocument> {
  const circuit = findCircuit(d.circuit);
  if (!circuit.ok) return circuit;
  const problems: Problem[] = checkEngine(d.engine, '/engine');
  const measured = d.measurements.flatMap((m, i): Measured[] => {
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
  if (problems.length) return fail(problems);
  const inputs = { circuit: circuit.value, ...wiringOf(d.engine), measured, observed, coded };
  return ok({ format: 'mudflat/diagnosis', version: 1, circuit: circuit.value.id, ...diagnose(inputs) });
}

/** An entry in ohms, volts or amperes; `null` where it says nothing. Errors at the field. */
function readMeasurement(m: EvidenceDocument['measurements'][number], path: string): Result<Measured | null> {
  const test = findTest(m.test);
  if (!test) return fail([{ path: `${path}/test`, message: `There is no test "${m.test}" in the catalogue.` }]);
  const read = readEntry(m.entry, { quantity: test.quantity, unit: test.unit });
  if (!read.ok) return fail([{ path: `${path}/entry`, message: read.error }]);
  const zero = readLeadZero(m.leadZero ?? '');
  if (!zero.ok) return fail([{ path: `${path}/leadZero`, message: zero.error }]);
  const unit = requireUnit(test.unit, test.quantity);
  if (!unit.ok) return fail([{ path: `${path}/test`, message: unit.error }]);
  const { entry } = read.value;
  const plain = { test: m.test, position: m.position };
  if (entry.kind === 'nothing') return ok(null);
  if (entry.kind === 'overload' || entry.kind === 'beyond') return ok({ ...plain, kind: 'overload', value: 0, u: 0 });
  if (entry.kind !== 'number') return ok({ ...plain, kind: 'unsteady', value: 0, u: 0 });
  const base = entryToBase(entry, unit.value);
  return ok({
    ...plain,
    kind: 'value',
    value: base.value - (test.quantity === 'resistance' ? (zero.value?.value ?? 0) : 0),
    u: base.resolution / Math.sqrt(12),
  });
}
