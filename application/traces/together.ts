import { fixed } from '../../core/locale/numbers';
import { tr } from '../../core/locale/translate';
import { alignment } from '../../core/signal/align';
import { type Clock, evenClock, listedClock } from '../../core/signal/clock';
import { span } from '../../core/signal/words';
import type { TraceFile } from '../../formats/requests/traces';
import type { ReadColumn, ReadRecording } from '../../formats/trace/types';
import { channelFrom, type OriginalFile } from './stored';

/** One file of a drive, and by how much its clock is moved. */
export interface DrivePart {
  readonly file: OriginalFile;
  readonly read: ReadRecording;
  readonly shift_s: number;
  readonly how: TraceFile['how'];
}

/** How a second file is proposed to lie on the first one's clock. */
export interface ProposedShift {
  readonly shift_s: number;
  readonly how: Exclude<TraceFile['how'], 'first'>;
  /** Why, as a sentence. */
  readonly because: string;
}

/**
 * Time stamps and movement agree where they are no further apart than this: two clocks that somebody has set.
 */
const SAME_CLOCK_s = 3;

/**
 * The shift that is proposed: from what moves in both where that is certain, else from the time stamps, else
 * none, and a person must say it.
 */
export function proposedShift(first: ReadRecording, second: ReadRecording): ProposedShift {
  const stamps = first.began_s !== null && second.began_s !== null ? second.began_s - first.began_s : null;
  const found = alignment(channelsOf(first), channelsOf(second));
  if (found) {
    const [a, b] = found.by;
    const apart = stamps === null ? 0 : Math.abs(stamps - found.shift_s);
    const clocks = apart > SAME_CLOCK_s ? tr` Their clocks differ by ${span(apart)}.` : '';
    return {
      shift_s: found.shift_s,
      how: 'common movement',
      because: tr`${a} and ${b} move alike (correlation ${fixed(found.correlation, 2)}), to within ${span(found.uncertainty_s)}.${clocks}`,
    };
  }
  if (stamps !== null && overlaps(first, second, stamps))
    return {
      shift_s: stamps,
      how: 'time stamps',
      because: 'Both files carry the time of day. Nothing moves in both that would prove it.',
    };
  return {
    shift_s: 0,
    how: 'by hand',
    because: 'Neither time stamps nor what moves tell how they lie: compare one event in both and type the difference.',
  };
}

const channelsOf = (read: ReadRecording) =>
  read.columns.map((c) =>
    channelFrom(
      { column: c.name, name: c.name, unit: c.unit ?? '', role: 'other', factor: 1 },
      c.samples,
      c.scale,
      c.clock,
    ),
  );

function overlaps(first: ReadRecording, second: ReadRecording, shift_s: number): boolean {
  const ends = (r: ReadRecording): readonly [number, number] => [
    Math.min(...r.columns.map((c) => c.clock.at(0))),
    Math.max(...r.columns.map((c) => c.clock.at(c.clock.count - 1))),
  ];
  const [[a, b], [c, d]] = [ends(first), ends(second)];
  return c + shift_s < b && d + shift_s > a;
}

/** A clock that says everything later by `shift_s`. */
export function movedClock(clock: Clock, shift_s: number): Clock {
  if (shift_s === 0) return clock;
  if (clock.runs)
    return evenClock(
      clock.runs.map((r) => ({ ...r, start_s: r.start_s + shift_s })),
      clock.count,
    );
  return listedClock(Float64Array.from({ length: clock.count }, (_, i) => clock.at(i) + shift_s));
}

/**
 * Several files as one recording, on the clock of the first. Columns of equal names get the number of their
 * file.
 */
export function together(parts: readonly DrivePart[]): ReadRecording {
  const [first] = parts;
  if (!first) throw new RangeError('nothing to put together');
  if (parts.length === 1) return first.read;
  const names = columnNames(parts.map((p) => p.read));
  const columns = parts.flatMap(({ read, shift_s }, i): ReadColumn[] => {
    // Columns that share a clock go on sharing it.
    const moved = new Map<Clock, Clock>();
    const on = (clock: Clock): Clock => {
      const known = moved.get(clock) ?? movedClock(clock, shift_s);
      moved.set(clock, known);
      return known;
    };
    return read.columns.map((c, k) => ({ ...c, name: names[i]?.[k] ?? c.name, clock: on(c.clock) }));
  });
  return {
    kind: first.read.kind,
    columns,
    codes: parts.flatMap(({ read, shift_s }) =>
      read.codes.map((c) => ({ ...c, first_s: c.first_s + shift_s, last_s: c.last_s + shift_s })),
    ),
    began_s: first.read.began_s,
    notes: parts.flatMap(({ read, file }) => read.notes.map((n) => `${file.name}: ${n}`)),
  };
}

/** What the columns of several files are called when they are one recording. */
export function columnNames(
  files: readonly { readonly columns: readonly { readonly name: string }[] }[],
): readonly (readonly string[])[] {
  const taken = new Set<string>();
  return files.map(({ columns }, i) =>
    columns.map(({ name }) => {
      let own = name;
      for (let n = i + 1; taken.has(own); n++) own = `${name} (${n})`;
      taken.add(own);
      return own;
    }),
  );
}

/** The whole of several files as one original: their names, all their bytes, and a hash over their hashes. */
export function wholeOf(parts: readonly DrivePart[], hashText: (text: string) => string): OriginalFile {
  const [first] = parts;
  if (!first) throw new RangeError('nothing to put together');
  if (parts.length === 1) return first.file;
  return {
    name: parts
      .map((p) => p.file.name)
      .join(' + ')
      .slice(0, 200),
    size: parts.reduce((n, p) => n + p.file.size, 0),
    // The shifts belong to it: the same files laid otherwise are another recording.
    sha256: hashText(parts.map((p) => `${p.file.sha256} ${p.shift_s}`).join('\n')),
  };
}

/** The files of a recording for its head; nothing for a single one. */
export const filesOf = (parts: readonly DrivePart[]): { readonly files?: readonly TraceFile[] } =>
  parts.length < 2 ? {} : { files: parts.map(({ file, shift_s, how }) => ({ ...file, shift_s, how })) };
