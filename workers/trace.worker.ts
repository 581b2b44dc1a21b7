import type { Said } from '../core/locale/said';
import { tr } from '../core/locale/translate';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { expose } from 'comlink';
import {
  type AskedCapture,
  blocksOf,
  type ColumnChoice,
  type StoredTrace,
  toStored,
} from '../application/traces/stored';
import { encodeBlock } from '../core/signal/block-codec';
import { HEAD_BYTES } from '../formats/trace/csv-reader';
import { type Dialect, understand } from '../formats/trace/dialect';
import { readerFor } from '../formats/trace/read';
import { type ReadCode, type ReadRecording, TraceProblem } from '../formats/trace/types';
import {
  type DrivePart,
  filesOf,
  type ProposedShift,
  proposedShift,
  together,
  wholeOf,
} from '../application/traces/together';
import type { TraceFile, TraceHead } from '../formats/requests/traces';

/** What a file was understood to be, before all of it is read. */
export interface Understood {
  readonly kind: 'csv' | 'wav' | 'can';
  /** Of a table. */
  readonly dialect: Dialect | null;
  /** Names of the columns, with the unit that the file states; empty where only reading tells. */
  readonly columns: readonly { readonly name: string; readonly unit: string | null }[];
}
export interface Taken {
  readonly head: TraceHead;
  readonly codes: readonly ReadCode[];
}
/** A further file of the same drive, as it was understood. */
export interface Joined {
  readonly columns: readonly { readonly name: string; readonly unit: string | null }[];
  readonly kind: 'csv' | 'wav' | 'can';
  readonly proposed: ProposedShift;
}
/** A further file of the drive, and where a person has laid it. */
export interface FurtherFile {
  readonly file: File;
  readonly shift_s: number;
  readonly how: TraceFile['how'];
}
export type Answer<T> =
  | { readonly ok: true; readonly value: T }
  /** `message` in plain English, and what it is made of. */
  | { readonly ok: false; readonly path: string; readonly message: string; readonly said: Said };

/** So much of the progress is reading, the rest searching. */
const READING_SHARE = 0.6;
const PIECE = 4 << 20;

interface WholeFile {
  readonly file: File;
  readonly recording: ReadRecording;
  readonly sha256: string;
  /** What it was read as: another correction reads it again. */
  readonly as: string;
}
/** What was read of the first file, and of the others. */
const kept = new Map<File, WholeFile>();
let stored: StoredTrace | null = null;
let isCancelled = false;

async function answered<T>(work: () => Promise<T> | T): Promise<Answer<T>> {
  try {
    return { ok: true, value: await work() };
  } catch (error) {
    const known = error instanceof TraceProblem ? error : unreadable(error);
    if (!known) throw error;
    return { ok: false, path: known.path, message: known.message, said: known.said };
  }
}

/** What the browser itself says when it cannot read a file; `null` for any other error. */
function unreadable(error: unknown): TraceProblem | null {
  if (!(error instanceof RangeError || (error instanceof Error && error.name === 'NotReadableError'))) return null;
  return new TraceProblem('', () => tr`The file cannot be read: ${error.message}.`);
}

async function readAll(
  file: File,
  dialect: Partial<Dialect> | null,
  onShare: (share: number) => void,
): Promise<WholeFile> {
  const as = JSON.stringify(dialect);
  const there = kept.get(file);
  if (there?.as === as) return there;
  const head = new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer());
  const reader = readerFor(head, dialect ? { dialect } : {});
  const hash = sha256.create();
  for (let at = 0; at < file.size; at += PIECE) {
    if (isCancelled) throw new TraceProblem('', () => tr`Cancelled.`);
    const piece = new Uint8Array(await file.slice(at, at + PIECE).arrayBuffer());
    hash.update(piece);
    reader.push(piece);
    onShare(Math.min(1, (at + piece.length) / file.size));
  }
  const recording = reader.end();
  const whole = { file, recording, sha256: bytesToHex(hash.digest()), as };
  kept.set(file, whole);
  return whole;
}

const partOf = ({ file, recording, sha256: hash }: WholeFile, shift_s: number, how: TraceFile['how']): DrivePart => ({
  file: { name: file.name, size: file.size, sha256: hash },
  read: recording,
  shift_s,
  how,
});

/**
 * Reads and searches recordings beside the page. The files of one drive at a time; what was read stays until
 * the next.
 */
const api = {
  /** Looks at the beginning of a file. WAV and CAN logs are read whole: they say what they hold only so. */
  look: (file: File): Promise<Answer<Understood>> =>
    answered(async () => {
      if (file.size === 0) throw new TraceProblem('', () => tr`The file is empty.`);
      isCancelled = false;
      kept.clear();
      stored = null;
      const head = new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer());
      const start = new TextDecoder('latin1').decode(head.subarray(0, 64));
      const isTable = !start.startsWith('RIFF') && !/^\s*\(\d+\.\d+\)/.test(start);
      if (isTable) {
        readerFor(head);
        const dialect = understand(head, file.size <= HEAD_BYTES);
        return {
          kind: 'csv',
          dialect,
          columns: dialect.columns.filter((c) => c.kind === 'value').map(({ name, unit }) => ({ name, unit })),
        };
      }
      const { kind, columns } = (await readAll(file, null, () => undefined)).recording;
      return { kind, dialect: null, columns: columns.map(({ name, unit }) => ({ name, unit })) };
    }),

  /** Reads a further file of the same drive and says how it is proposed to lie on the clock of the first. */
  join: (first: File, dialect: Partial<Dialect> | null, further: File): Promise<Answer<Joined>> =>
    answered(async () => {
      if (further.size === 0) throw new TraceProblem('', () => tr`The file is empty.`);
      isCancelled = false;
      const one = await readAll(first, dialect, () => undefined);
      const { recording } = await readAll(further, null, () => undefined);
      return {
        kind: recording.kind,
        columns: recording.columns.map(({ name, unit }) => ({ name, unit })),
        proposed: proposedShift(one.recording, recording),
      };
    }),

  /**
   * Reads the files with what a person corrected, searches them as one, and keeps the blocks here to be sent.
   */
  take: (
    file: File,
    dialect: Partial<Dialect> | null,
    further: readonly FurtherFile[],
    choices: readonly ColumnChoice[],
    asked: AskedCapture | null,
    onShare: (share: number) => void,
  ): Promise<Answer<Taken>> =>
    answered(async () => {
      isCancelled = false;
      const first = await readAll(file, dialect, (s) => onShare(s * READING_SHARE));
      const parts: DrivePart[] = [partOf(first, 0, 'first')];
      for (const f of further) parts.push(partOf(await readAll(f.file, null, () => undefined), f.shift_s, f.how));
      const recording = together(parts);
      const original = wholeOf(parts, (text) => bytesToHex(sha256(new TextEncoder().encode(text))));
      const hash = (block: Int32Array | Float64Array): string => bytesToHex(sha256(encodeBlock(block)));
      const searching = (s: number): void => onShare(READING_SHARE + s * (1 - READING_SHARE));
      stored = toStored(recording, choices, original, hash, searching, { ...filesOf(parts), asked });
      if (stored.head.channels.length === 0) throw new TraceProblem('', () => tr`No column was chosen.`);
      return { head: stored.head, codes: recording.codes };
    }),

  /** One block as it is sent. */
  block: async (stream: number, number: number): Promise<Uint8Array> => {
    const samples = stored?.streams[stream];
    const block = samples && blocksOf(samples)[number];
    if (!block) throw new RangeError(`there is no block ${number} in stream ${stream}`);
    const packed = new Blob([encodeBlock(block) as Uint8Array<ArrayBuffer>])
      .stream()
      .pipeThrough(new CompressionStream('deflate-raw'));
    return new Uint8Array(await new Response(packed).arrayBuffer());
  },

  cancel: (): void => {
    isCancelled = true;
  },
};
export type TraceWorker = typeof api;

expose(api);
