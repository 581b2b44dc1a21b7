import { type Engine } from '../core/engine/layout';
import type { Evidence } from '../core/evidence/types';
import type { Limits } from '../core/limits/types';
import type { Position } from '../core/judge/types';
import { schema } from './schemas';
import { EVIDENCE_BODY } from './requests/evidence';

/** `mudflat/evidence` in, `mudflat/diagnosis` out. */
export interface EvidenceDocument {
  readonly format: 'mudflat/evidence';
  readonly version: 1;
  readonly circuit: string;
  readonly engine: Engine;
  readonly measurements: readonly {
    readonly test: string;
    readonly position: Position;
    readonly entry: string;
    readonly leadZero?: string;
    readonly condition?: object;
  }[];
  /** Limits of tests for these parts; values of the circuit that name the test take them over. */
  readonly limits?: readonly { readonly test: string; readonly limits: Limits }[];
  /** By name of a value of the circuit: what good parts of this vehicle have, in its unit. */
  readonly healthy?: Readonly<Record<string, { readonly value: number; readonly spread?: number }>>;
  readonly observations?: readonly unknown[];
  readonly codes?: readonly string[];
}

export const check = schema<EvidenceDocument>('urn:mudflat:evidence:1');
export const checkObservation = schema<Evidence>(EVIDENCE_BODY);
