import { grouped } from '../../core/locale/numbers';
import { tr } from '../../core/locale/translate';
import { rateClock } from '../../core/signal/clock';
import { Samples } from '../../core/signal/samples';
import { MOST_COLUMNS, MOST_SAMPLES, type ReadRecording, TraceProblem, type TraceReader } from './types';

/**
 * Multimedia Programming Interface and Data Specifications 1.0 (1991), and the extensible form of it; from
 * memory.
 */
const [PCM, FLOAT, EXTENSIBLE] = [1, 3, 0xfffe];

interface Layout {
  readonly code: number;
  readonly channels: number;
  readonly rate_Hz: number;
  readonly frame: number;
  readonly bits: number;
}

/**
 * Reads a WAV file in pieces: PCM of 8 to 32 bits and floating point of 32 and 64 bits. A sample is given as
 * the whole number that it is; `scale` makes a share of full scale of it. Samples of floating point are kept
 * as they are.
 */
export class WavReader implements TraceReader {
  private rest: Uint8Array = new Uint8Array(0);
  private layout: Layout | null = null;
  private left = 0;
  private isInData = false;
  private skip = 0;
  private hasBegun = false;
  private columns: Samples[] = [];

  push(chunk: Uint8Array): void {
    let bytes = chunk;
    if (this.rest.length) {
      bytes = new Uint8Array(this.rest.length + chunk.length);
      bytes.set(this.rest);
      bytes.set(chunk, this.rest.length);
    }
    let at = 0;
    for (;;) {
      const next = this.step(bytes, at);
      if (next === at) break;
      at = next;
    }
    this.rest = bytes.slice(at);
  }

  end(): ReadRecording {
    const { layout } = this;
    if (!layout) throw new TraceProblem('', () => tr`This WAV file states no format.`);
    const count = Math.min(...this.columns.map((c) => c.count));
    if (!(count > 0)) throw new TraceProblem('', () => tr`There are no samples in it.`);
    const clock = rateClock(layout.rate_Hz, count);
    const scale = layout.code === FLOAT ? 1 : 2 ** -(layout.bits - 1);
    const columns = this.columns.map((samples, i) => ({ name: String(i + 1), unit: null, samples, scale, clock }));
    const notes = this.left > layout.frame ? ['The file ends before it says that it does.'] : [];
    return { kind: 'wav', columns, codes: [], began_s: null, notes };
  }

  /** Reads one part from `at`; returns where it ended, or `at` where more is needed. */
  private step(bytes: Uint8Array, at: number): number {
    const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    const room = bytes.length - at;
    if (this.skip > 0) {
      const skipped = Math.min(this.skip, room);
      this.skip -= skipped;
      return at + skipped;
    }
    if (this.isInData) return this.readFrames(view, at, room);
    if (!this.hasBegun) {
      if (room < 12) return at;
      if (ascii(bytes, at) !== 'RIFF' || ascii(bytes, at + 8) !== 'WAVE')
        throw new TraceProblem('', () => tr`This is no WAV file.`);
      this.hasBegun = true;
      return at + 12;
    }
    if (room < 8) return at;
    const [id, size] = [ascii(bytes, at), view.getUint32(at + 4, true)];
    if (id === 'fmt ') {
      if (size < 16 || size > 4096) throw new TraceProblem('', () => tr`The format of this WAV file is damaged.`);
      if (room < 8 + size) return at;
      this.layout = layoutOf(view, at + 8, size);
      this.columns = Array.from({ length: this.layout.channels }, () => new Samples());
      return at + 8 + size + (size % 2);
    }
    if (id === 'data') {
      if (!this.layout) throw new TraceProblem('', () => tr`This WAV file has samples before its format.`);
      this.isInData = true;
      this.left = size;
      return at + 8;
    }
    this.skip = size + (size % 2);
    return at + 8;
  }

  private readFrames(view: DataView, at: number, room: number): number {
    const layout = this.layout as Layout;
    const bytes = layout.bits / 8;
    const frames = Math.floor(Math.min(room, this.left) / layout.frame);
    if (frames === 0 && this.left < layout.frame) {
      // What follows the samples is of no concern.
      this.left = 0;
      return at + room;
    }
    let offset = at;
    for (let f = 0; f < frames; f++)
      for (const column of this.columns) {
        put(column, view, offset, layout);
        offset += bytes;
      }
    this.left -= frames * layout.frame;
    if ((this.columns[0]?.count ?? 0) * layout.channels > MOST_SAMPLES)
      throw new TraceProblem(
        '',
        () => tr`There are more than ${grouped(MOST_SAMPLES)} samples: cut the file into parts.`,
      );
    return offset;
  }
}

function layoutOf(view: DataView, at: number, size: number): Layout {
  let code = view.getUint16(at, true);
  const channels = view.getUint16(at + 2, true);
  const rate_Hz = view.getUint32(at + 4, true);
  const bits = view.getUint16(at + 14, true);
  if (code === EXTENSIBLE && size >= 26) code = view.getUint16(at + 24, true);
  const isKnown = (code === PCM && [8, 16, 24, 32].includes(bits)) || (code === FLOAT && [32, 64].includes(bits));
  if (!isKnown)
    throw new TraceProblem(
      '',
      () => tr`WAV of ${bits} bits and code ${code} is not read: only PCM of 8 to 32 bits and floating point.`,
    );
  if (channels < 1 || channels > MOST_COLUMNS)
    throw new TraceProblem('', () => tr`This WAV file says that it has ${channels} channels.`);
  if (rate_Hz < 1) throw new TraceProblem('', () => tr`This WAV file states no sample rate.`);
  return { code, channels, rate_Hz, bits, frame: (channels * bits) / 8 };
}

function put(column: Samples, view: DataView, at: number, { code, bits }: Layout): void {
  if (code === FLOAT) {
    const value = bits === 32 ? view.getFloat32(at, true) : view.getFloat64(at, true);
    if (Number.isFinite(value)) column.addReal(value);
    else column.addMissing();
  } else if (bits === 8) column.add(view.getUint8(at) - 128, 0);
  else if (bits === 16) column.add(view.getInt16(at, true), 0);
  else if (bits === 24) column.add((view.getInt8(at + 2) << 16) | view.getUint16(at, true), 0);
  else column.add(view.getInt32(at, true), 0);
}

const ascii = (bytes: Uint8Array, at: number): string =>
  String.fromCharCode(bytes[at] ?? 0, bytes[at + 1] ?? 0, bytes[at + 2] ?? 0, bytes[at + 3] ?? 0);
