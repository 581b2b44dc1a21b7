import type { Quantity } from '../quantity/units';
import type { Pattern, Verdict } from '../vocabulary';

/** A state that must be true before a reading counts. Confirmed by the technician, printed with the result. */
export interface RequiredState {
  readonly id: string;
  /** As the switch on the bench says it. */
  readonly label: string;
  /** Why it matters, one sentence. */
  readonly why: string;
}

export interface Caution {
  readonly id: string;
  readonly text: string;
}

/** A sentence of advice and when it is given. All that is stated must hold; `{suspects}` is replaced by their names. */
export interface Advice {
  readonly pattern?: readonly Pattern[];
  /** Some suspect, or undecided reading, has one of these verdicts. */
  readonly verdict?: readonly Verdict[];
  /** More than half of the readings are suspect. */
  readonly mostlyBad?: boolean;
  readonly connection?: string;
  readonly say: string;
}

/** A test that a technician can do, as data. */
export interface TestDefinition {
  readonly id: string;
  readonly name: string;
  readonly purpose: string;
  /** What stands at a position: "plug", "injector". */
  readonly part: string;
  readonly quantity: Quantity;
  readonly unit: string;
  /** Every cylinder of the engine, or these places or states in this order. */
  readonly positions: 'cylinders' | readonly string[];
  /** Under which heading it is offered. */
  readonly area: string;
  /** About how long it takes. */
  readonly minutes: number;
  readonly connection: string;
  readonly condition: { readonly key: string; readonly engine: string };
  readonly states: readonly RequiredState[];
  readonly probe: string;
  readonly steps: readonly string[];
  readonly cautions: readonly Caution[];
  readonly proves: string;
  readonly cannotProve: string;
  readonly advice: readonly Advice[];
}
