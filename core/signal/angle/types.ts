import type { FindingBase } from '../finding-base';

/**
 * Relative height of one compression. `cylinder`: `null` without a channel that tells which; `position`: 1..
 * in order of time.
 */
export interface Compression extends FindingBase {
  readonly kind: 'compression';
  readonly cylinder: number | null;
  readonly position: number;
  /** 1 is the mean of all. */
  readonly relative: number;
  /** Standard error of `relative`, from cycle to cycle. */
  readonly uncertainty: number;
  /** The highest value of its peak, in the channel's unit. */
  readonly peak: number;
}
export interface Cranking extends FindingBase {
  readonly kind: 'cranking';
  readonly speed_rpm: number;
  /** In the channel's unit; of a battery `null`. */
  readonly meanCurrent: number | null;
  readonly peakCurrent: number | null;
  readonly even: boolean;
  /** It turns slowly while the battery is low. Absent in captures of an earlier version. */
  readonly lowSupply?: boolean;
}
export interface WheelFound extends FindingBase {
  readonly kind: 'wheel';
  readonly teeth: number;
  /** At each gap. */
  readonly missing: number;
  /** In a turn; absent: one. */
  readonly gaps?: number;
  readonly speed_rpm: number;
}
export interface CamEdge extends FindingBase {
  readonly kind: 'cam-edge';
  /** 0 to 720, from the first tooth after the gap. */
  readonly angle_deg: number;
  readonly uncertainty_deg: number;
  readonly edge: 'rising' | 'falling';
}
export interface Timing extends FindingBase {
  readonly kind: 'timing';
  /** Of the cam against the crank, later is positive; `null`: the patterns are not those of one family. */
  readonly shift_deg: number | null;
  readonly uncertainty_deg: number;
  /** The shift in teeth of the crank wheel. */
  readonly teeth: number | null;
  readonly inTime: boolean | null;
}
/** A cylinder's pulse in the common supply. */
export interface FiringPulse extends FindingBase {
  readonly kind: 'pulse';
  readonly cylinder: number | null;
  readonly position: number;
  /** From the pulse of cylinder 1, 0 to 720. `null`: missing. */
  readonly angle_deg: number | null;
  /** From the grid of equal angles, later is positive. */
  readonly offset_deg: number | null;
  readonly uncertainty_deg: number;
  readonly peak: number | null;
  /** Time integral over the pulse, unit · seconds. */
  readonly charge: number | null;
  readonly missing: boolean;
  /** Share of the cycles in which there is none. */
  readonly share: number;
}
export interface Contribution extends FindingBase {
  readonly kind: 'contribution';
  readonly cylinder: number | null;
  readonly position: number;
  /** 1 is the mean of all. */
  readonly relative: number;
  readonly uncertainty: number;
  /** Share of its cycles. */
  readonly misfires: number;
  /** Cycles that were looked at. Absent in captures of an earlier version. */
  readonly cycles?: number;
}
export interface Knock extends FindingBase {
  readonly kind: 'knock';
  readonly cylinder: number | null;
  readonly position: number;
  /** Band energy to the median of the others of its bank. */
  readonly ratio: number;
}
/** Something of the connection that is not as it should be: it is taken out where it can be. */
export interface Connection extends FindingBase {
  readonly kind: 'connection';
  readonly problem: 'turned round' | 'not zeroed' | 'rate too low' | 'swapped';
  /** What was taken out, in the channel's unit; else 0. */
  readonly offset: number;
}
/**
 * A number of this capture beside the same number of another one: a known good, an earlier one, idle against
 * load.
 */
export interface Change extends FindingBase {
  readonly kind: 'change';
  /** Which finding the number is of. */
  readonly of: 'contribution' | 'compression' | 'knock' | 'pulse' | 'cranking';
  readonly quantity: 'relative' | 'misfires' | 'ratio' | 'offset_deg' | 'speed_rpm' | 'meanCurrent' | 'peakCurrent';
  /** `null`: of the whole engine. */
  readonly cylinder: number | null;
  readonly position?: number;
  readonly now: number;
  readonly before: number;
  readonly difference: number;
  /** Standard error of the difference. */
  readonly uncertainty: number;
}
export type AngleFinding =
  Compression | Cranking | WheelFound | CamEdge | Timing | FiringPulse | Contribution | Knock | Connection | Change;
