import type { Shown } from '../numerics/rare-events';
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
  /** Cylinders whose injectors have codes; default: none. */
  readonly codedInjectors?: readonly number[];
  readonly complaint: string;
  /** Chips of the complaint. */
  readonly conditions: readonly string[];
  /** How often a fault that comes and goes has shown itself. */
  readonly shown?: Shown | undefined;
  /** What was measured, in order. */
  readonly done: readonly {
    readonly test: string;
    readonly pattern: Pattern;
    /** The run of it. */
    readonly run?: string;
  }[];
  readonly known: Known;
  /** What the unit has, by kind, as somebody said it: { injector: 'piezo' }; default: nothing is known. */
  readonly fitted?: Readonly<Record<string, string>>;
  /** Tests that were done on this unit in earlier jobs; default: none. */
  readonly doneBefore?: readonly string[];
  /** Tests that this unit's earlier jobs found a fault with. */
  readonly before: readonly string[];
  readonly changes: readonly PlanChange[];
  /** No more tests to do than these, beside what a person put there; default: five. */
  readonly most?: number;
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
  /**
   * The run that goes on: it is not complete, or something of it must be settled first. Absent: a new one.
   */
  readonly run?: string;
  /** What must be settled about its run before anything else, in a sentence. */
  readonly doubt?: string;
}

export interface Plan {
  readonly steps: readonly PlanStep[];
  /** Of the steps to do. */
  readonly minutes: number;
  readonly next: string | null;
  /** What is to be known of the unit before the plan can choose among its tests. */
  readonly asks?: readonly HardwareQuestion[];
}

/** Which of several kinds of a part a unit has: asked once. */
export interface HardwareQuestion {
  /** "injector" */
  readonly kind: string;
  readonly options: readonly string[];
}
