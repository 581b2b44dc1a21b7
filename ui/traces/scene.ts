import type { DriveEvent } from '../../core/signal/drive';
import type { Finding } from '../../core/signal/types';
import type { TraceNoteBody } from '../../formats/requests/traces';
import type { TraceData } from './trace-data';

export interface Window_s {
  readonly from_s: number;
  readonly to_s: number;
}
/** What is drawn beside the samples. */
export interface Marked {
  readonly findings: readonly Finding[];
  readonly selected: Finding | null;
  readonly marks: readonly TraceNoteBody[];
  readonly cursor_s: number | null;
  /** The lane that is drawn larger; `null`: all alike. */
  readonly large: number | null;
  /** What the drive did. */
  readonly events: readonly DriveEvent[];
}

const COLOURS = [
  'ink',
  'soft',
  'line',
  'channel',
  'edge',
  'estuary',
  'rust',
  'ochre',
  'post',
  'card',
  'panel',
] as const;
export type Colours = Readonly<Record<(typeof COLOURS)[number], string>>;
/** What the shapes of a recording are made from. */
export interface Scene {
  readonly data: TraceData;
  readonly window_s: Window_s;
  readonly marked: Marked;
  readonly colours: Colours;
}

/** The colours of the light that is on. */
export function coloursOf(element: HTMLElement): Colours {
  const style = getComputedStyle(element);
  return Object.fromEntries(COLOURS.map((c) => [c, style.getPropertyValue(`--${c}`).trim()])) as Colours;
}
