import type { Limits, LimitStatus } from '../limits/types';

/** What limits are for: from the most exact to the most general. */
export const SCOPES = ['part', 'family', 'depot', 'general'] as const;
export type Scope = (typeof SCOPES)[number];

/** When limits hold. Absent means that it does not matter. */
export interface When {
  readonly systemVoltage_V?: number | undefined;
  readonly key?: string | undefined;
  readonly engine?: string | undefined;
  readonly connection?: string | undefined;
  readonly fromTemperature_degC?: number | undefined;
  readonly toTemperature_degC?: number | undefined;
}

/** Limits with where they come from and what they are for: one revision of a specification. */
export interface Specification {
  readonly id: string;
  readonly series: string;
  readonly revision: number;
  readonly test: string;
  readonly scope: Scope;
  /** Part code, family code or depot id; `null` for a general rule. */
  readonly of: string | null;
  readonly when: When;
  /** A name that several ways of judging the same part are kept apart by: "strict", "tolerant". */
  readonly school: string | null;
  readonly limits: Limits;
  readonly source: string;
  readonly status: LimitStatus | 'withdrawn';
}

/** What is known of a test when limits are looked for. */
export interface Situation {
  readonly test: string;
  /** Codes of the parts that are fitted, by kind of part: `{ plug: "GP-4" }`. */
  readonly part: string | null;
  readonly family: string;
  readonly depot: string;
  /** The school that the depot has picked for this test. */
  readonly school: string | null;
  readonly systemVoltage_V?: number | undefined;
  readonly key?: string | undefined;
  readonly engine?: string | undefined;
  readonly connection?: string | undefined;
  readonly temperature_degC?: number | undefined;
}
