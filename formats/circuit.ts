import { type CopiedElements, expandElements } from '../core/circuit/expand';
import { measureCircuit } from '../core/circuit/measure';
import { solveCircuit } from '../core/circuit/solve';
import type { CircuitSolution, Element, Fault, Measure, Reading } from '../core/circuit/types';
import { fail, ok, type Result } from '../core/result';
import { readJson, schema, validate } from './validate';

/** `mudflat/circuit`: a netlist, faults put into it, and what is measured. */
export interface CircuitDocument {
  readonly format: 'mudflat/circuit';
  readonly version: 1;
  readonly reference: string;
  readonly elements: readonly Element[];
  readonly groups?: readonly CopiedElements[];
  readonly faults?: readonly Fault[];
  readonly measures?: readonly Measure[];
}

export interface SolutionDocument extends CircuitSolution {
  readonly format: 'mudflat/circuit-solution';
  readonly version: 1;
  readonly measures: readonly Reading[];
}

const check = schema<CircuitDocument>('urn:mudflat:circuit:1');

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
