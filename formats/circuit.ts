import { type CopiedElements } from '../core/solver/expand';
import type { Element, Fault, Measure } from '../core/solver/types';
import { schema } from './schemas';

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

export const check = schema<CircuitDocument>('urn:mudflat:circuit:1');
