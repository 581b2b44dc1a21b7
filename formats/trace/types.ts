import type { Clock } from '../../core/signal/clock';
import type { Samples } from '../../core/signal/samples';
import { type Said, sayingOf } from '../../core/locale/said';
import { tr } from '../../core/locale/translate';

/** One column of a recording as it was read. */
export interface ReadColumn {
  /** As the file calls it; of a CAN log the signal with its parameter number. */
  readonly name: string;
  /** As the file states it; `null`: it does not. */
  readonly unit: string | null;
  readonly samples: Samples;
  /** What a sample is multiplied with to be in its unit: 1, or of a WAV file one over full scale. */
  readonly scale: number;
  readonly clock: Clock;
}

/** A code that a control unit sent of itself (DM1 of SAE J1939-73). */
export interface ReadCode {
  readonly spn: number;
  readonly fmi: number;
  readonly count: number;
  /** Source address on the bus. */
  readonly source: number;
  readonly first_s: number;
  readonly last_s: number;
}

export interface ReadRecording {
  readonly kind: 'csv' | 'wav' | 'can';
  readonly columns: readonly ReadColumn[];
  readonly codes: readonly ReadCode[];
  /** Seconds since 1970-01-01 of time 0, by the clock of the recorder; `null`: the file does not say. */
  readonly began_s: number | null;
  /** What was left out or guessed, in sentences. */
  readonly notes: readonly string[];
}

/** Reads a file in pieces. Problems come as a `Problem` in `TraceProblem`. */
export interface TraceReader {
  readonly push: (chunk: Uint8Array) => void;
  readonly end: () => ReadRecording;
}

/**
 * The file cannot be read: why, and where. Files are read where nobody's language is known: the message is
 * plain English, and `said` holds what it is made of, so that whoever shows it can say it again for its
 * reader (`sayerOf`).
 */
export class TraceProblem extends Error {
  readonly path: string;
  readonly said: Said;

  /** `path`: see `placeIn`. `words` makes the message, with `tr`. */
  constructor(path: string, words: () => string) {
    const { result, said } = sayingOf(words, (text) => [text]);
    super(result);
    this.name = 'TraceProblem';
    this.path = path;
    this.said = said;
  }
}

/** A path of a file of lines, `/line 12/column 3` or `/line 12`, for people; `''` for the whole file. */
export function placeIn(path: string): string {
  const [, line, column] = /^\/line (\d+)(?:\/column (\d+))?$/.exec(path) ?? [];
  if (line === undefined) return path.slice(1);
  return column === undefined ? tr`line ${line}` : tr`line ${line}, column ${column}`;
}

/**
 * A text of the file, as it stands there: not a number and not a word that a reader would want in another
 * form.
 */
export const quoted = (text: string): string => `"${text}"`;

/** A file with more columns is no log of a few wires. */
export const MOST_COLUMNS = 128;
/** Samples of all columns together: a day of four channels at 100 Hz is 34.56 million. */
export const MOST_SAMPLES = 80_000_000;
