import type { Engine } from '../core/engine/layout';
import type { Condition, Judgement, JudgedReading, Limits, Position } from '../core/judge/types';
import type { AccuracyRange } from '../core/metrology/instrument';

/** What the server shows and the screens draw. Times are ISO 8601 in UTC. */

export interface UnitView {
  readonly id: string;
  readonly fleetNumber: string;
  readonly kind: string;
  readonly depot: string;
  readonly timeZone: string;
  readonly family: string;
  readonly engine: Engine;
}

export interface RunBrief {
  readonly id: string;
  readonly test: string;
  readonly startedAt: string;
  readonly startedBy: string;
  readonly judgement: Judgement | null;
}

export interface JobBrief {
  readonly id: string;
  readonly number: number;
  readonly complaint: string;
  readonly openedAt: string;
  readonly openedBy: string;
  readonly closed: boolean;
  readonly odometer_km: number | null;
  readonly hours: number | null;
  readonly runs: readonly RunBrief[];
}

export interface YardView {
  readonly units: readonly (UnitView & { readonly jobs: readonly JobBrief[] })[];
  readonly depots: readonly { readonly id: string; readonly name: string }[];
  readonly families: readonly { readonly id: string; readonly code: string; readonly engine: Engine }[];
}

export interface JobView {
  readonly job: JobBrief;
  readonly unit: UnitView;
  readonly earlier: readonly JobBrief[];
}

export interface InstrumentView {
  readonly id: string;
  readonly name: string;
  readonly kind: string;
  readonly accuracy: readonly AccuracyRange[];
  readonly calibrationDue: string | null;
}

export interface SpecificationView {
  readonly id: string;
  readonly revision: number;
  readonly source: string;
  readonly status: 'draft' | 'approved' | 'rule-of-thumb';
  readonly limits: Limits;
  /** Code of the engine family that it is for; `null` for a general rule. */
  readonly family: string | null;
}

export interface ReadingView {
  readonly id: string;
  readonly position: Position;
  readonly entry: string;
  readonly supersedes: string | null;
  readonly why: string | null;
  readonly takenAt: string;
  readonly takenBy: string;
  readonly leadZero: string | null;
  /** As judged when it was stored. */
  readonly judged: JudgedReading;
  readonly coreVersion: string;
}

export interface CircumstanceView {
  readonly instrumentId: string | null;
  readonly leadZero: string | null;
  readonly states: readonly string[];
  readonly condition: Condition;
}

export interface RunView {
  readonly id: string;
  readonly test: string;
  readonly startedAt: string;
  readonly startedBy: string;
  readonly unit: UnitView;
  readonly job: JobBrief;
  readonly specification: SpecificationView;
  readonly circumstance: CircumstanceView;
  readonly instruments: readonly InstrumentView[];
  /** All of them in the order in which they were stored, superseded ones too. */
  readonly readings: readonly ReadingView[];
  readonly judgement: Judgement;
}

export interface PersonView {
  readonly name: string;
  readonly role: string;
  readonly depot: string;
}

/** Of a line of readings, those that no later one supersedes, in the order in which they were stored. */
export function currentReadings<R extends { readonly id: string; readonly supersedes: string | null }>(readings: readonly R[]): R[] {
  const superseded = new Set(readings.map((r) => r.supersedes));
  return readings.filter((r) => !superseded.has(r.id));
}
