import type { ValidateFunction } from 'ajv';
import { check as findings } from './compiled/trace-findings';
import { check as question } from './compiled/trace-question';
import type { Engine } from '../core/engine/layout';
import type { Transfer } from '../core/limits/transfer';
import type { DriveEvent } from '../core/signal/drive';
import type { ChannelRole, Finding, Searched } from '../core/signal/types';
import type { TimeUnit } from './trace/dialect';

export type LogAsk = 'search' | 'agreement' | 'order' | 'snap';
export type AngleAsk = 'timing' | 'relative-compression' | 'firing' | 'contribution' | 'knock';
export type TraceAsk = LogAsk | AngleAsk;

/** What the engine did while it was recorded, and how warm it was. */
export type CaptureCondition = 'cranking' | 'idle' | 'load';
export type EngineWarmth = 'cold' | 'hot';

export interface QuestionChannel {
  readonly column: string;
  readonly name?: string;
  readonly unit?: string;
  readonly perVolt?: number;
  readonly role?: ChannelRole;
  readonly of?: string;
  readonly cylinder?: number;
  readonly limits?: { readonly lower?: number; readonly upper?: number };
  readonly transfer?: Transfer;
}

/** `mudflat/trace-question`: a recording, what its channels were connected to, and what is asked of it. */
export interface TraceQuestion {
  readonly format: 'mudflat/trace-question';
  readonly version: 1;
  readonly data: string | { readonly columns: Readonly<Record<string, readonly (number | null)[]>> };
  readonly time?: { readonly column: string; readonly unit?: TimeUnit } | { readonly rate_Hz: number };
  readonly channels: readonly QuestionChannel[];
  readonly engine?: Engine;
  readonly condition?: CaptureCondition;
  readonly temperature?: EngineWarmth;
  readonly wheel?: { readonly teeth: number; readonly missing: number; readonly gaps?: number };
  /** Another question whose capture is the known good: its document, or the path of it. */
  readonly reference?: string | TraceQuestion | null;
  readonly ask: readonly TraceAsk[];
}

/** `mudflat/trace-findings`: what it shows. */
export interface TraceFindings {
  readonly format: 'mudflat/trace-findings';
  readonly version: 1;
  readonly findings: readonly Finding[];
  readonly searched: readonly Searched[];
  /** What the drive did: key, starter, engine. Of a search. */
  readonly events: readonly DriveEvent[];
  /** Cause, victims and next test, of what several answers over angle say together. */
  readonly conclusions: readonly string[];
  /** What was left out or guessed when the file was read. */
  readonly notes: readonly string[];
  readonly summary: string;
}

export const checkQuestion = question as ValidateFunction<TraceQuestion>;
export const checkFindings = findings as ValidateFunction<TraceFindings>;
