import type { AngleFinding } from './angle/types';
import type { FindingBase } from './finding-base';
import type { Clock } from './clock';

/** What a channel of a recording was connected to. */
export const ROLES = [
  'crank',
  'cam',
  'starter-current',
  'battery',
  'injector-current',
  'knock',
  'airflow',
  'rail-pressure',
  'boost',
  'temperature',
  'sensor',
  'scan-tool',
  'other',
] as const;
export type ChannelRole = (typeof ROLES)[number];

/** One channel of a recording in its unit. `values`: a sample each; NaN where nothing was recorded. */
export interface Channel {
  /** As findings name it: the column of the file. */
  readonly id: string;
  readonly name: string;
  readonly unit: string;
  readonly role: ChannelRole;
  readonly clock: Clock;
  readonly values: Float64Array;
  /** The smallest step that the recording can show, in the unit; 0: not known. */
  readonly step: number;
  /** Of a scan tool's value: id of the channel that it reports. */
  readonly of?: string | undefined;
  readonly limits?: { readonly lower?: number | undefined; readonly upper?: number | undefined } | undefined;
}

/** Away from its course and back. `depth`: how far, in the channel's unit, always positive. */
export interface Pulse extends FindingBase {
  readonly kind: 'dropout' | 'spike';
  readonly depth: number;
  readonly samples: number;
  /** From where to where. */
  readonly course: number;
  readonly level: number;
  /** Other channels that left their course at the same moment. */
  readonly together: readonly string[];
}
export interface Stuck extends FindingBase {
  readonly kind: 'stuck';
  readonly level: number;
}
export interface Clipped extends FindingBase {
  readonly kind: 'clipped';
  readonly level: number;
  readonly samples: number;
}
export interface OutOfLimits extends FindingBase {
  readonly kind: 'out-of-limits';
  /** The value furthest out. */
  readonly level: number;
}
export interface Noise extends FindingBase {
  readonly kind: 'noise';
  readonly rms: number;
  readonly peak: number;
}
export interface Gap extends FindingBase {
  readonly kind: 'gap';
  readonly missing: number;
}
/** What a scan tool shows wanders against its pin. `perHour`: in the unit. */
export interface Drift extends FindingBase {
  readonly kind: 'drift';
  readonly perHour: number;
}
export interface Agreement extends FindingBase {
  readonly kind: 'agreement';
  readonly of: string;
  readonly agrees: boolean | null;
  readonly offset: number;
  /** `null`: the signal did not move enough to tell. */
  readonly gain: number | null;
  readonly delay_s: number | null;
  readonly rmsResidual: number;
}
/** The scan tool's value and the pin part from each other for a while. */
export interface Apart extends FindingBase {
  readonly kind: 'apart';
  readonly of: string;
  /** The greatest difference, in the unit of the scan tool's channel. */
  readonly difference: number;
}
export interface Onset extends FindingBase {
  readonly kind: 'onset';
  readonly event: number;
  readonly at_s: number;
  readonly uncertainty_s: number;
  /** How far it moved, with sign. */
  readonly move: number;
}
export interface Snap extends FindingBase {
  readonly kind: 'snap';
  readonly event: number;
  readonly peak: number;
  readonly rise_s: number;
}
export interface Shape extends FindingBase {
  readonly kind: 'shape';
  readonly event: number;
  readonly of: string;
  readonly correlation: number;
  readonly delay_s: number;
}
export type Finding =
  Pulse | Stuck | Clipped | OutOfLimits | Noise | Gap | Drift | Agreement | Apart | Onset | Snap | Shape | AngleFinding;

/** What a search of one channel was able to find. */
export interface Searched {
  readonly channel: string;
  readonly samples: number;
  readonly seconds: number;
  readonly found: number;
  /** Typical deviation of one sample from its course, in the unit. */
  readonly noise: number;
  /**
   * A dropout of so many samples and of this depth would have been found with this probability; `null` where
   * the channel cannot be searched, with the reason in `why`.
   */
  readonly wouldFind: {
    readonly samples: number;
    readonly depth: number;
    readonly probability: number;
  } | null;
  readonly why: string | null;
}
