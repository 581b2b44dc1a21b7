import type { TestDefinition } from '../catalogue/types';
import type { Engine } from '../engine/layout';
import type { Limits } from '../limits/types';
import type { EnteredValue, UnitValue } from '../quantity/values';
import type { DecisionRule } from '../metrology/conformity';
import type { Instrument } from '../metrology/instrument';
import type { CommandSeen, EngineSeen, Pattern, Severity, Verdict } from '../foundation/vocabulary';

/** A cylinder number, or a name such as "key-on", "cranking", "pin 26". */
export type Position = number | string;

export type { Limits } from '../limits/types';
export { SEVERITY, VERDICTS, type Pattern, type Severity, type Verdict } from '../foundation/vocabulary';

/** What is true of what is measured; the last two as they were seen beside the readings. */
export interface Condition {
  readonly key?: string | undefined;
  readonly engine?: string | undefined;
  readonly partTemperature_degC?: number | undefined;
  readonly connection?: string | undefined;
  readonly note?: string | undefined;
  readonly engineSeen?: EngineSeen | undefined;
  readonly commandSeen?: CommandSeen | undefined;
}

export interface ReadingIn {
  readonly position: Position;
  /** Verbatim. */
  readonly entry: string;
  /** Where this reading was taken with another instrument than the rest; `null` for none. */
  readonly instrument?: Instrument | null | undefined;
  /**
   * What the same position showed before, read again in the same circumstances: tells a contact from a part.
   */
  readonly earlier?: readonly string[] | undefined;
}

export interface TestSet {
  readonly test: string;
  readonly engine: Engine | null;
  readonly condition: Condition;
  /** `null`: the entries are taken as corrected already and only their digits limit them. */
  readonly instrument: Instrument | null;
  readonly limits: Limits;
  readonly readings: readonly ReadingIn[];
  /**
   * All positions that the test has. Default: the engine's cylinders where the readings are of cylinders,
   * else those that were read.
   */
  readonly positions?: readonly Position[] | undefined;
  /** Positions that share something, beside those of the engine and of the test. */
  readonly groups?: Readonly<Record<string, readonly Position[]>> | undefined;
  /** Somebody has seen the meter read a known value right. */
  readonly isMeterProven?: boolean | undefined;
  /** Default: three-way. */
  readonly decision?: DecisionRule | undefined;
  /** Default: the test of that id of the catalogue that ships. */
  readonly definition?: TestDefinition | undefined;
}

/**
 * One step of the reasoning behind a verdict. Numbers are in the unit of the limits unless the name says
 * otherwise.
 */
export type Reason =
  | { readonly rule: 'not-measured' }
  /** Stored by another version, under a name that this one does not know. */
  | { readonly rule: 'other-version'; readonly name: string }
  | { readonly rule: 'overload'; readonly meansAbove: number | null }
  | { readonly rule: 'overload-wrong-range' }
  | { readonly rule: 'overload-above-lower'; readonly limit: number }
  | { readonly rule: 'beyond-range'; readonly moreThan: number }
  | {
      readonly rule: 'wanders';
      readonly low: number;
      readonly high: number | null;
      readonly span: number | null;
      readonly allowed: number;
    }
  | { readonly rule: 'steady'; readonly span: number; readonly allowed: number }
  | { readonly rule: 'below-short'; readonly value: number; readonly limit: number }
  | { readonly rule: 'above-open'; readonly value: number; readonly limit: number }
  | {
      readonly rule: 'above-upper';
      readonly value: number;
      readonly limit: number;
      readonly margin: number;
      readonly source: string | null;
    }
  | {
      readonly rule: 'below-lower';
      readonly value: number;
      readonly limit: number;
      readonly margin: number;
      readonly source: string | null;
    }
  | {
      readonly rule: 'within-limits';
      readonly value: number;
      readonly lower: number | null;
      readonly upper: number | null;
      readonly source: string | null;
    }
  | { readonly rule: 'no-limits' }
  | { readonly rule: 'not-liked-above' | 'not-liked-below'; readonly value: number; readonly limit: number }
  | {
      readonly rule: 'recheck-margin';
      readonly value: number;
      readonly limit: number;
      readonly beyondPercent: number;
      readonly marginPercent: number;
    }
  | {
      readonly rule: 'cannot-tell';
      readonly value: number;
      readonly limit: number;
      readonly expandedUncertainty: number;
      readonly probabilityWithin: number | null;
      readonly remedy: Remedy;
    }
  | { readonly rule: 'seen'; readonly good: boolean; readonly note: string }
  | { readonly rule: 'never' }
  | {
      readonly rule: 'predicted';
      readonly expected: number;
      readonly at: number;
      readonly atUnit: string;
      readonly lower: number;
      readonly upper: number;
    }
  | { readonly rule: 'nothing-predicted'; readonly at: number; readonly atUnit: string }
  | { readonly rule: 'not-proven'; readonly probabilityWithin: number; readonly asked: number }
  | {
      readonly rule: 'falls-back';
      readonly value: number;
      readonly before: number;
      readonly after: Position;
      readonly direction: 'rising' | 'falling';
    }
  | {
      readonly rule: 'jumps';
      readonly value: number;
      readonly before: number;
      readonly after: Position;
      readonly allowed: number;
    }
  | { readonly rule: 'does-not-move'; readonly moved: number; readonly asked: number }
  | { readonly rule: 'repeats-differ'; readonly entries: readonly string[] }
  | { readonly rule: 'other-temperature'; readonly temperature_degC: number; readonly others_degC: number }
  | { readonly rule: 'clamp-zero-subtracted'; readonly clampZero_A: number }
  | { readonly rule: 'lead-zero-subtracted'; readonly leadZero_ohm: number }
  | { readonly rule: 'leads-not-zeroed'; readonly mostLeads_ohm: number }
  | { readonly rule: 'below-lead-zero'; readonly leadZero_ohm: number }
  | {
      readonly rule: 'temperature-corrected';
      readonly from_degC: number;
      readonly to_degC: number;
      readonly coefficient_perK: number;
      readonly factor: number;
    }
  | { readonly rule: 'temperature-unknown'; readonly reference_degC: number; readonly coefficient_perK: number }
  /** Most of the set agree, beyond a general rule of thumb. */
  | { readonly rule: 'rule-of-thumb-doubted'; readonly median: number; readonly among: readonly Position[] }
  | {
      readonly rule: 'neighbours';
      readonly value: number;
      readonly median: number;
      readonly ratio: number | null;
      readonly difference: number;
      readonly maxRatio: number | null;
      readonly maxDifference: number | null;
      readonly among: readonly Position[];
    };

/** What would decide a reading that cannot tell. */
export type Remedy = 'zero-leads' | 'more-digits' | 'finer-range' | 'four-wire' | 'current-instead' | 'better-meter';

export interface JudgedReading {
  readonly position: Position;
  readonly entry: string;
  /** As entered, prefix applied; `null` for an overload or nothing; the middle of a wander. */
  readonly value: EnteredValue | null;
  /** The unit that was entered, or that of the limits. */
  readonly unit: string;
  /** Lead zero subtracted, at the reference temperature, in the unit of the limits. */
  readonly corrected: UnitValue | null;
  /** Of `corrected`, k = 1, in the unit of the limits. */
  readonly standardUncertainty: UnitValue | null;
  readonly probabilityWithin: number | null;
  readonly verdict: Verdict;
  readonly severity: Severity;
  readonly reasons: readonly Reason[];
  /** One step of the typed digits in the unit of the limits; `null` where there is no number. */
  readonly resolution: UnitValue | null;
  /** Corrected ends of a wander; `high` is `null` where it goes into overload. */
  readonly wander: { readonly low: UnitValue; readonly high: UnitValue | null } | null;
  /** How often it was read before with the same result; absent: once only. */
  readonly agreed?: number;
  /** What acted on the sensor, where that was typed and nothing predicts the reading from it. */
  readonly at?: { readonly value: number; readonly unit: string };
  /** The limits of this position where they are not those of the set; `null` where they are. */
  readonly limits: PositionLimits | null;
}

export interface PositionLimits {
  readonly lower: number | null;
  readonly upper: number | null;
}

/** A straight line through readings over their stimulus. */
export interface Fit {
  /** In the unit of the limits for each unit of the stimulus. */
  readonly slope: number;
  /** In the unit of the limits, where the stimulus is 0. */
  readonly intercept: number;
  readonly atUnit: string;
  readonly worst: { readonly position: Position; readonly residual: number };
}

/** What must be settled about a measurement before a reading convicts anybody, in a sentence. */
export interface MeasurementDoubt {
  /** Of the limit: whether parts of this type have another one. */
  readonly kind: 'leads' | 'meter' | 'limit';
  readonly positions: readonly Position[];
  readonly say: string;
}

export interface Judgement {
  readonly format: 'mudflat/judgement';
  readonly version: 1;
  readonly core: string;
  readonly test: string;
  readonly limits: Limits;
  readonly readings: readonly JudgedReading[];
  readonly pattern: Pattern;
  readonly suspects: readonly Position[];
  readonly group: string | null;
  readonly summary: string;
  readonly advice: readonly string[];
  /** Absent in what was judged before version 0.5. */
  readonly doubts?: readonly MeasurementDoubt[];
  /** Readings over what acted on the sensor; absent where no line can be drawn. */
  readonly fit?: Fit;
  /** What the good readings prove about what the positions share. */
  readonly proven: readonly string[];
}
