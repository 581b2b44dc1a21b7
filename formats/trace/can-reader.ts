import { grouped } from '../../core/locale/numbers';
import { tr } from '../../core/locale/translate';
import { listedClock } from '../../core/signal/clock';
import { Samples } from '../../core/signal/samples';
import { codesOf, type J1939Signal, J1939_SIGNALS, rawOf } from './j1939-signals';
import {
  MOST_COLUMNS,
  MOST_SAMPLES,
  type ReadCode,
  quoted,
  type ReadColumn,
  type ReadRecording,
  TraceProblem,
  type TraceReader,
} from './types';

/**
 * `(1690000000.123456) can0 18FEF600#0011223344556677`, or with a blank instead of the sign: the text form of
 * candump.
 */
const FRAME =
  /^\((\d{1,12})\.(\d{1,9})\)\s+(\S{1,32})\s+([0-9A-Fa-f]{3}|[0-9A-Fa-f]{8})#(?:([0-9A-Fa-f]{0,16})|R\d?)\s*(?:[RT])?$/;
const OTHER_FRAME = /^\((\d{1,12})\.(\d{1,9})\)\s+\S{1,32}\s+[0-9A-Fa-f]{3,8}##?\S*/;
const LONGEST_LINE = 4096;

const [DM1, TP_CONTROL, TP_DATA] = [65226, 60416, 60160];
const BROADCAST = 32;

interface Signal {
  readonly signal: J1939Signal;
  readonly source: number;
  readonly samples: Samples;
  readonly times: number[];
}
interface Transfer {
  readonly pgn: number;
  readonly data: Uint8Array;
  readonly got: Set<number>;
  readonly packets: number;
}

/**
 * Reads a CAN log in text form and decodes the J1939 signals and trouble codes in it. Frames of other
 * protocols are counted and left out. Times count from the first frame.
 */
export class CanReader implements TraceReader {
  private rest = '';
  private line = 0;
  private frames = 0;
  private others = 0;
  private samples = 0;
  private zero: readonly [seconds: number, fraction: number] | null = null;
  private now = 0;
  private readonly signals = new Map<string, Signal>();
  private readonly codes = new Map<string, ReadCode>();
  private readonly transfers = new Map<number, Transfer>();
  private readonly decoder = new TextDecoder('latin1');

  push(chunk: Uint8Array): void {
    const text = this.rest + this.decoder.decode(chunk, { stream: true });
    const lines = text.split('\n');
    this.rest = lines.pop() ?? '';
    if (this.rest.length > LONGEST_LINE)
      throw new TraceProblem(`/line ${this.line + 1}`, () => tr`The line does not end: this is no CAN log.`);
    for (const line of lines) this.readLine(line);
  }

  end(): ReadRecording {
    if (this.rest.trim() !== '') this.readLine(this.rest);
    if (this.frames === 0) throw new TraceProblem('', () => tr`There is no CAN frame in it.`);
    const isSeveral = new Set([...this.signals.values()].map((s) => s.source)).size > 1;
    const columns = [...this.signals.values()].map((s): ReadColumn => {
      const name = isSeveral ? tr`${s.signal.name} (source ${s.source})` : s.signal.name;
      return {
        name,
        unit: s.signal.unit,
        samples: s.samples,
        scale: 1,
        clock: listedClock(Float64Array.from(s.times)),
      };
    });
    if (columns.length > MOST_COLUMNS)
      throw new TraceProblem(
        '',
        () => tr`There are ${columns.length} signals of different sources; ${MOST_COLUMNS} is the most.`,
      );
    if (!columns.length && !this.codes.size)
      throw new TraceProblem('', () => tr`None of the ${this.frames} frames holds a signal that is known.`);
    const notes = this.others
      ? [tr`${this.others} of ${this.frames} frames hold no signal that is known; they were left out.`]
      : [];
    return {
      kind: 'can',
      columns,
      codes: [...this.codes.values()],
      began_s: this.zero ? this.zero[0] + this.zero[1] : null,
      notes,
    };
  }

  private readLine(raw: string): void {
    this.line++;
    const line = raw.trim();
    if (line === '') return;
    const found = FRAME.exec(line);
    if (!found) {
      if (!OTHER_FRAME.test(line))
        throw new TraceProblem(`/line ${this.line}`, () => tr`${quoted(line.slice(0, 60))} is no frame of a CAN log.`);
      this.frames++;
      this.others++;
      return;
    }
    const [, seconds = '0', fraction = '0', , id = '', hex] = found;
    this.frames++;
    const time: readonly [number, number] = [Number(seconds), Number(`0.${fraction}`)];
    this.zero ??= time;
    // Whole seconds and fractions apart: microseconds of a date are beyond the digits of a double's fraction.
    this.now = time[0] - this.zero[0] + (time[1] - this.zero[1]);
    if (id.length !== 8 || hex === undefined || hex.length % 2 !== 0) {
      this.others++;
      return;
    }
    this.frame(
      parseInt(id, 16),
      Uint8Array.from(hex.match(/../g) ?? [], (h) => parseInt(h, 16)),
    );
  }

  /**
   * The parameter group of an identifier (SAE J1939-21, from memory): below 240 the second byte is a
   * destination.
   */
  private frame(id: number, data: Uint8Array): void {
    const source = id & 0xff;
    const [format, specific] = [(id >>> 16) & 0xff, (id >>> 8) & 0xff];
    const page = (id >>> 24) & 3;
    this.message((page << 16) + (format << 8) + (format >= 240 ? specific : 0), source, data);
  }

  private message(pgn: number, source: number, data: Uint8Array): void {
    if (pgn === DM1) this.takeCodes(source, data);
    else if (pgn === TP_CONTROL) this.openTransfer(source, data);
    else if (pgn === TP_DATA) this.continueTransfer(source, data);
    else {
      const known = J1939_SIGNALS[pgn];
      if (!known) this.others++;
      for (const signal of known ?? []) this.take(signal, source, data);
    }
  }

  private take(signal: J1939Signal, source: number, data: Uint8Array): void {
    const raw = rawOf(signal, data);
    if (raw === null) return;
    const key = `${signal.spn} ${source}`;
    let into = this.signals.get(key);
    if (!into) {
      into = { signal, source, samples: new Samples(), times: [] };
      this.signals.set(key, into);
    }
    into.samples.addReal(raw * signal.perBit + signal.offset);
    into.times.push(this.now);
    if (++this.samples > MOST_SAMPLES / 4)
      throw new TraceProblem(
        `/line ${this.line}`,
        () => tr`There are more than ${grouped(MOST_SAMPLES / 4)} values: cut the file into parts.`,
      );
  }

  private takeCodes(source: number, data: Uint8Array): void {
    for (const { spn, fmi, count } of codesOf(data)) {
      const key = `${spn} ${fmi} ${source}`;
      const before = this.codes.get(key);
      this.codes.set(key, {
        spn,
        fmi,
        count: Math.max(count, before?.count ?? 0),
        source,
        first_s: before?.first_s ?? this.now,
        last_s: this.now,
      });
    }
  }

  /**
   * A message of more than eight bytes is announced to all (SAE J1939-21, broadcast announce; from memory).
   */
  private openTransfer(source: number, data: Uint8Array): void {
    if (data.length < 8 || data[0] !== BROADCAST) return;
    const size = (data[1] ?? 0) + 256 * (data[2] ?? 0);
    const pgn = (data[5] ?? 0) + 256 * (data[6] ?? 0) + 65536 * (data[7] ?? 0);
    const packets = data[3] ?? 0;
    if (size > 1785 || packets * 7 < size) return;
    this.transfers.set(source, { pgn, data: new Uint8Array(size), got: new Set(), packets });
  }

  private continueTransfer(source: number, data: Uint8Array): void {
    const transfer = this.transfers.get(source);
    const number = data[0] ?? 0;
    if (!transfer || number < 1 || number > transfer.packets) return;
    transfer.data.set(
      data.subarray(1, 1 + Math.max(0, Math.min(7, transfer.data.length - 7 * (number - 1)))),
      7 * (number - 1),
    );
    transfer.got.add(number);
    if (transfer.got.size < transfer.packets) return;
    this.transfers.delete(source);
    this.message(transfer.pgn, source, transfer.data);
  }
}
