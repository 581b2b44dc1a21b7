import { type ReadEntry, readEntry } from '../limits/entry';
import type { Instrument } from '../metrology/instrument';
import type { Problem } from '../foundation/result';
import type { Position, ReadingIn, TestSet } from './types';

/** One entry as it was parsed, with its text. */
export interface ParsedEntry extends ReadEntry {
  /** Verbatim. */
  readonly text: string;
}

/** A reading of a set with its entries parsed: parsed once, here, and carried from then on. */
export interface ParsedReading extends ParsedEntry {
  readonly position: Position;
  /** With which instrument; `null` for none. */
  readonly instrument: Instrument | null;
  /** What the same position showed before, oldest first. */
  readonly earlier: readonly ParsedEntry[];
}

/** A set with its readings parsed. */
export interface ParsedSet extends Omit<TestSet, 'readings'> {
  readonly readings: readonly ParsedReading[];
}

/** Parses all entries of a set. What cannot be read is said with its path, and is not among the readings. */
export function parseReadings(set: TestSet): {
  readonly readings: readonly ParsedReading[];
  readonly problems: Problem[];
} {
  const problems: Problem[] = [];
  const readings = set.readings.flatMap((reading, i) => {
    const parsed = parseReading(reading, i, set, problems);
    return parsed ? [parsed] : [];
  });
  return { readings, problems };
}

function parseReading(reading: ReadingIn, i: number, set: TestSet, problems: Problem[]): ParsedReading | null {
  const instrument = reading.instrument === undefined ? set.instrument : reading.instrument;
  const clamp = instrument?.clamp_mVperA ?? null;
  const parse = (text: string, path: string): ParsedEntry | null => {
    const read = readEntry(text, set.limits, clamp);
    if (!read.ok) problems.push({ path: `/readings/${i}/${path}`, message: read.error });
    return read.ok ? { text, ...read.value } : null;
  };
  const own = parse(reading.entry, 'entry');
  const earlier = (reading.earlier ?? []).flatMap((text, k) => parse(text, `earlier/${k}`) ?? []);
  return own && { ...own, position: reading.position, instrument, earlier };
}
