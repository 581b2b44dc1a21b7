import type { TestDefinition } from '../catalogue/types';
import type { Known } from '../evidence/types';
import type { Pattern } from '../foundation/vocabulary';

/** What a technician changed. `move` puts a test before another one, or last. */
export type PlanChange =
  | { readonly kind: 'add'; readonly test: string }
  | { readonly kind: 'skip'; readonly test: string; readonly because: string }
  | { readonly kind: 'unskip'; readonly test: string }
  | { readonly kind: 'move'; readonly test: string; readonly before: string | null };

export interface PlanInputs {
  readonly tests: readonly TestDefinition[];
  /** Areas that the codes point at, most telling first. */
  readonly areas: readonly string[];
  readonly complaint: string;
  /** Chips of the complaint. */
  readonly conditions: readonly string[];
  /** What was measured, in order. */
  readonly done: readonly { readonly test: string; readonly pattern: Pattern }[];
  readonly known: Known;
  /** Tests that this unit's earlier jobs found a fault with. */
  readonly before: readonly string[];
  readonly changes: readonly PlanChange[];
  /** What the circuit behind the readings asks for, best first; empty where no circuit is known. */
  readonly next?: readonly { readonly test: string; readonly why: string }[];
}

export interface PlanStep {
  readonly test: string;
  readonly name: string;
  readonly area: string;
  readonly minutes: number;
  readonly people: number;
  /** Why it is here, in a sentence. */
  readonly why: string;
  /** What it shares with the step before it: a cover, a second person. */
  readonly with: string | null;
  readonly state: 'to do' | 'done' | 'skipped';
  /** Why it was skipped. */
  readonly because: string | null;
}

export interface Plan {
  readonly steps: readonly PlanStep[];
  /** Of the steps to do. */
  readonly minutes: number;
  readonly next: string | null;
}
