import type { ListPlan } from './list-plan';
import type { BeforeAfter } from '../core/repair/proof';
import type { LifeFrom, StartInputs } from '../core/repair/suggest';
import { type ProofCheck, type Recorded } from '../core/repair/types';
import type { KeepServiceData, ServiceBody } from '../formats/requests/service-data';

/** Service data that holds for an engine. */
export interface ServiceLine {
  readonly kind: KeepServiceData['kind'];
  readonly key: string;
  readonly body: ServiceBody;
  readonly source: string;
  readonly family: string | null;
}

/** All of a workshop's service data, as its own screen lists them. */
export interface ServiceDataView {
  /** Codes of all engine families. */
  readonly families: readonly string[];
  readonly lines: readonly (ServiceLine & {
    readonly by: string;
    readonly at: string;
    /** How often it was entered. */
    readonly revision: number;
  })[];
}

/** What a list of fitting values would do, or has done. */
export type FittingPlan = ListPlan<{ readonly what: string }>;

/** From finding to release, as the job's screen needs it. */
export interface RepairView {
  readonly records: readonly Recorded[];
  readonly checks: readonly ProofCheck[];
  readonly pairs: readonly BeforeAfter[];
  readonly service: readonly ServiceLine[];
  /** What the arithmetic would begin with, for each part that was found bad. */
  readonly decisions: readonly {
    readonly finding: string;
    readonly name: string;
    readonly inputs: StartInputs;
    /** Some of a set are bad and some are not: one or the whole set is a question. */
    readonly isChoice: boolean;
    readonly currency: string;
    readonly life: LifeFrom;
    /** Source of the workshop's own costs; `null`: it has none. */
    readonly costsFrom: string | null;
  }[];
  /** What the depot reckons in, ISO 4217. */
  readonly currency: string;
  /** Trim codes as they were before this job, by position. */
  readonly oldCodes: Readonly<Record<string, string>>;
  /** Jobs that came back for the same. */
  readonly comebacks: readonly { readonly id: string; readonly number: number }[];
  /** This one came back from. */
  readonly comebackOf: { readonly id: string; readonly number: number } | null;
}
