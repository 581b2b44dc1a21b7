import type { DecisionRule } from '../core/metrology/conformity';
import type { Quantity } from '../core/quantity/units';
import type { Clash } from '../core/specifications/clash';
import type { PassedOver } from '../core/specifications/choose';
import type { SpecificationEntry } from '../formats/specifications';

/** A specification on the shelf with its earlier revisions. */
export interface SpecificationLine {
  readonly id: string;
  readonly revision: number;
  readonly status: 'draft' | 'approved' | 'rule-of-thumb' | 'withdrawn';
  readonly entry: SpecificationEntry;
  readonly by: string;
  readonly at: string | null;
  /** Comes with the test; whatever a workshop puts on the shelf goes before it. */
  readonly ships: boolean;
  /** Newest first, without the current one. */
  readonly earlier: readonly {
    readonly id: string;
    readonly revision: number;
    readonly status: string;
    readonly entry: SpecificationEntry;
    readonly by: string;
    readonly at: string;
  }[];
}

export interface SpecificationTest {
  readonly id: string;
  readonly name: string;
  readonly area: string;
  readonly part: string;
  readonly quantity: Quantity;
  readonly unit: string;
}

/** Which specification judges a run, and why not the others. */
export interface ChoiceView {
  readonly runId: string;
  readonly title: string;
  readonly chosen: string | null;
  readonly because: string;
  readonly passedOver: readonly {
    readonly id: string;
    readonly revision: number;
    readonly entry: SpecificationEntry;
    readonly why: PassedOver;
  }[];
}

export interface SpecificationsView {
  readonly lines: readonly SpecificationLine[];
  readonly tests: readonly SpecificationTest[];
  readonly families: readonly string[];
  readonly depots: readonly {
    readonly id: string;
    readonly name: string;
    readonly decision: DecisionRule;
    readonly currency?: string;
    readonly letterhead?: string;
    readonly schools: Readonly<Record<string, string>>;
  }[];
  readonly choice: ChoiceView | null;
}

/** What a file would do to the shelf, or has done, entry by entry. */
export interface SpecificationsPlan {
  readonly rows: readonly {
    readonly entry: SpecificationEntry;
    readonly action: 'new' | 'revision' | 'unchanged';
    /** What the entry meets there, but what says the same. */
    readonly clashes: readonly Clash[];
  }[];
  /** How many were stored; 0 of a look. */
  readonly stored: number;
}
