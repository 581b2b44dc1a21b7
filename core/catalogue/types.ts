import type { Stimulus } from '../limits/transfer';
import type { Limits } from '../limits/types';
import type { Quantity } from '../quantity/units';
import type { Pattern, Verdict } from '../foundation/vocabulary';

/**
 * A state that must be true before a reading counts. Confirmed by the technician, printed with the result.
 */
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

/**
 * A sentence of advice and when it is given. All that is stated must hold; `{suspects}` is replaced by their
 * names.
 */
export interface Advice {
  readonly pattern?: readonly Pattern[];
  /** Some suspect, or undecided reading, has one of these verdicts. */
  readonly verdict?: readonly Verdict[];
  /** More than half of the readings are suspect. */
  readonly mostlyBad?: boolean;
  readonly connection?: string;
  /** Some suspect reads above this, in the unit of the limits. */
  readonly above?: number;
  /** Nothing is said of a part before this is settled. */
  readonly doubts?: 'meter';
  readonly say: string;
}

/** What the positions of a test are. All of them are posts on the same bench. */
export const LAYOUTS = ['cylinders', 'pins', 'pairs', 'states', 'change', 'sweep', 'places', 'single'] as const;
export type Layout = (typeof LAYOUTS)[number];

/** What it is read with, and how that is set. */
export interface Tool {
  readonly kind:
    | 'multimeter'
    | 'clamp'
    | 'scan tool'
    | 'gauge'
    | 'stopwatch'
    | 'measuring glass'
    | 'feeler gauge'
    | 'logger'
    | 'eye and hand';
  readonly mode: string;
}

/** A default verdict rule: a rule of thumb for when the shelf has nothing better. All of `when` must hold. */
export interface DefaultRule {
  readonly when?: { readonly systemVoltage_V?: number } | undefined;
  readonly limits: Limits;
}

/** A test that a technician can do, as data. */
export interface TestDefinition {
  /** Lower case, digits and hyphens. */
  readonly id: string;
  readonly name: string;
  /** Why it is done, in a sentence. */
  readonly purpose: string;
  /** What stands at a position: "plug", "injector". */
  readonly part: string;
  /** Under which heading it is offered. */
  readonly area: string;
  readonly quantity: Quantity;
  readonly unit: string;
  readonly layout: Layout;
  /** Every cylinder of the engine, or these pins, pairs, states or places in this order. */
  readonly positions: 'cylinders' | readonly string[];
  /** Where to put the probes at single positions. */
  readonly probes?: Readonly<Record<string, string>> | undefined;
  /** Positions that share something, by name. */
  readonly groups?: Readonly<Record<string, readonly string[]>> | undefined;
  /** What all positions share, so that good ones prove it: "feed, relay and ground". */
  readonly shared?: string | undefined;
  readonly tool: Tool;
  /** About how long it takes. */
  readonly minutes: number;
  readonly people: number;
  readonly connection: string;
  readonly condition: { readonly key: string; readonly engine: string };
  readonly states: readonly RequiredState[];
  readonly probe: string;
  readonly steps: readonly string[];
  readonly cautions: readonly Caution[];
  readonly proves: string;
  readonly cannotProve: string;
  readonly advice: readonly Advice[];
  readonly rules: readonly DefaultRule[];
  /**
   * For what is fitted, as "injector: piezo": a unit on which another kind of it was tested is not asked for
   * it.
   */
  readonly hardware?: string | undefined;
  /** A fact about the part that must be known before: asked once of a unit, and said before the steps. */
  readonly asks?:
    | {
        /** As the unit's parts call it: "plug rated voltage". */
        readonly what: string;
        readonly options: readonly string[];
        /** A caution once it is known; `{}` is the answer. */
        readonly say: string;
      }
    | undefined;
  /**
   * Only one of the positions is there: which one is fitted, as a question. It is read, and the others are
   * none.
   */
  readonly alternatives?: string | undefined;
  /** The other instrument that reads the same: what it shows stands behind an at sign. */
  readonly pair?: string | undefined;
  /** What acts on the sensor, to stand behind an at sign although no transfer function is known. */
  readonly stimulus?: Stimulus | undefined;
  /**
   * Planned by itself when codes or complaint point at its area. Default: as the catalogue that ships has it.
   */
  readonly firstLine?: boolean | undefined;
  /** What it uses up, and how many minutes of work that is worth. */
  readonly uses?: readonly { readonly what: string; readonly worth_min: number }[] | undefined;
}
