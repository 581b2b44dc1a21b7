import { expandElements } from '../../core/solver/expand';
import { measureCircuit } from '../../core/solver/measure';
import { solveCircuit } from '../../core/solver/solve';
import type { CircuitSolution, Reading } from '../../core/solver/types';
import { fail, ok, type Result } from '../../core/foundation/result';
import { readJson, validate } from '../../formats/validate';
import { check, type CircuitDocument } from '../../formats/circuit';

export interface SolutionDocument extends CircuitSolution {
  readonly format: 'mudflat/circuit-solution';
  readonly version: 1;
  readonly measures: readonly Reading[];
}

/** Solves the circuit of a file and reads its meters. */
export function solveText(text: string): Result<SolutionDocument> {
  const json = readJson(text);
  if (!json.ok) return json;
  const document = validate(check, json.value);
  return document.ok ? solveDocument(document.value) : document;
}

export function solveDocument({
  reference,
  elements,
  groups = [],
  faults = [],
  measures = [],
}: CircuitDocument): Result<SolutionDocument> {
  const circuit = { reference, elements: expandElements(elements, groups) };
  const solved = solveCircuit(circuit, faults);
  if (!solved.ok) return fail(solved.error);
  const read = measureCircuit(circuit, faults, measures);
  return read.ok ? ok({ format: 'mudflat/circuit-solution', version: 1, ...solved.value, measures: read.value }) : read;
}
