import { closeSync, createReadStream, mkdtempSync, openSync, readSync, rmSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parse } from 'csv-parse';
import { decodeBlock, encodeBlock, pyramidOf, PYRAMID_BASE } from '../core/signal/block-codec';
import { floorsOver } from '../core/signal/pyramid';
import { searchChannel } from '../core/signal/search';
import type { Samples } from '../core/signal/samples';
import { seededRandom } from '../core/numerics/random';
import { SIGNALS, simulateLogger } from '../core/simulate/logger';
import { CsvReader } from '../formats/trace/csv-reader';
import { readTrace } from '../formats/trace/read';
import { type ReadRecording, TraceProblem } from '../formats/trace/types';
import { DIALECTS, writeSimulated } from '../formats/trace/write-simulated';
import { report } from './measure';
import { traceTrial } from './trace-trial';

export const HOURS = Number(process.env.MUDFLAT_TRACE_h ?? 24);
const LOGS = Number(process.env.MUDFLAT_TRACE_LOGS ?? 200);
const DAMAGED = Number(process.env.MUDFLAT_TRACE_DAMAGED ?? 5000);
const SEED = Number(process.env.MUDFLAT_SEED ?? 11);
const PIECE = 4 << 20;
/** Whole day's share of the targets, which are for 24 h of four channels at 100 Hz. */
const SHARE = HOURS / 24;

/** Recordings: reading, pyramid, search, what the search finds in simulated logs, and damaged files. */
export async function benchTrace(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'mudflat-bench-'));
  try {
    await benchReading(join(folder, 'day.csv'));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
  benchFinding();
  benchDamaged();
}

async function benchReading(file: string): Promise<void> {
  writeDay(file);
  const scan = timed(() => scanLines(file));
  const begun = process.memoryUsage().rss;
  let recording: ReadRecording | null = null;
  const reading = timed(() => void (recording = readWhole(file)));
  const { columns } = recording as unknown as ReadRecording;
  const samples = columns.reduce((n, c) => n + c.samples.count, 0);
  report(
    `reading of ${(samples / 1e6).toFixed(1)} million samples (${HOURS} h)`,
    (reading - scan) / 1000,
    's',
    3 * SHARE,
  );
  report('… to finding line ends only', reading / scan, 'x', null);
  report('… memory while reading', (process.memoryUsage().rss - begun) / 1e6, 'MB', 300);
  const other = await timedAsync(() => parseWithPackage(file));
  report('… to a common package for tables', other / reading, 'x faster', null);
  const [first] = columns;
  if (!first) return;
  report(
    'pyramid of all channels',
    timed(() => columns.forEach((c) => pyramidOfAll(c.samples))) / 1000,
    's',
    0.8 * SHARE,
  );
  const values = first.samples.values();
  const channel = { id: 'a', name: 'a', unit: 'V', role: 'sensor' as const, clock: first.clock, values, step: 0.001 };
  report('search of one channel', timed(() => searchChannel(channel)) / 1000, 's', 4 * SHARE);
  const encoded = first.samples.blocks.map((b) => encodeBlock(b));
  report('encoded', encoded.reduce((n, b) => n + b.length, 0) / first.samples.count, 'bytes a sample', null);
  report(
    'decoding of one channel',
    timed(() => encoded.forEach((b, i) => decodeBlock(b, first.samples.blocks[i]?.length ?? 0))) / 1000,
    's',
    null,
  );
}

/**
 * A day in pieces of an hour: the same drive again and again would be no day, so each hour has a seed of its
 * own.
 */
export function writeDay(file: string): void {
  const out = openSync(file, 'w');
  writeSync(out, 't (s),a (V),b (V),c (V),d (V)\r\n');
  for (let h = 0; h < Math.ceil(HOURS); h++) {
    const r = simulateLogger({
      seconds: Math.min(3600, (HOURS - h) * 3600),
      rate_Hz: 100,
      seed: SEED + h,
      noise_V: 0.005,
      step_V: 0.001,
      faults: [],
      scan: null,
    });
    const pins = SIGNALS.map((s) => r.pins[s]);
    let text = '';
    for (let i = 0; i < r.battery.length; i++) {
      text += `${(h * 3600 + i / 100).toFixed(2)},${pins.map((p) => (p[i] ?? 0).toFixed(3)).join(',')}\r\n`;
      if (text.length > 1 << 20) {
        writeSync(out, text);
        text = '';
      }
    }
    writeSync(out, text);
  }
  closeSync(out);
}

function eachPiece(file: string, take: (piece: Uint8Array) => void): void {
  const from = openSync(file, 'r');
  const buffer = new Uint8Array(PIECE);
  for (let n = readSync(from, buffer); n > 0; n = readSync(from, buffer)) take(buffer.subarray(0, n));
  closeSync(from);
}

function scanLines(file: string): number {
  let lines = 0;
  eachPiece(file, (piece) => {
    for (const byte of piece) if (byte === 10) lines++;
  });
  return lines;
}

export function readWhole(file: string): ReadRecording {
  const reader = new CsvReader();
  eachPiece(file, (piece) => reader.push(piece));
  return reader.end();
}

/** The package that the application reads its small tables with, asked for numbers. */
async function parseWithPackage(file: string): Promise<void> {
  const rows = createReadStream(file).pipe(parse({ from_line: 2, cast: (v) => Number(v) }));
  const kept = Array.from({ length: 5 }, () => new Float64Array(Math.ceil(HOURS * 360_000) + 1));
  let n = 0;
  for await (const row of rows as AsyncIterable<number[]>) {
    for (let c = 0; c < 5; c++) (kept[c] as Float64Array)[n] = row[c] ?? NaN;
    n++;
  }
}

function pyramidOfAll(samples: Samples): void {
  const pairs = samples.blocks.map((b) => pyramidOf(b));
  const all = new Float64Array(pairs.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const p of pairs) {
    all.set(p, at);
    at += p.length;
  }
  floorsOver({ span: PYRAMID_BASE, pairs: all });
}

function benchFinding(): void {
  const t = traceTrial(LOGS, SEED);
  report(`simulated logs, half of them clean: hours`, t.hours, 'h', null);
  report('dropouts as large as stated that were found', (100 * t.statedFound) / t.stated, '%', 99, false);
  report('all that were planted, found', (100 * t.found) / t.planted, '%', null);
  report('false findings in ten hours of four channels', (10 * t.falseFindings) / t.hours, '', 1);
}

/** Files of every reader with bytes changed, cut out, doubled and cut off. */
function benchDamaged(): void {
  const random = seededRandom(SEED);
  const r = simulateLogger({
    seconds: 12,
    rate_Hz: 20,
    seed: SEED,
    noise_V: 0.005,
    step_V: 0.001,
    faults: [],
    scan: { rate_Hz: 4, delay_s: 0.2 },
  });
  for (const dialect of DIALECTS) {
    const whole = writeSimulated(r, dialect);
    let [slowest, wrong] = [0, 0];
    for (let k = 0; k < DAMAGED; k++) {
      const data = damaged(whole, random);
      const began = performance.now();
      try {
        readTrace(data, {}, 1 + Math.floor(random() * 5000));
      } catch (error) {
        if (!(error instanceof TraceProblem)) wrong++;
      }
      slowest = Math.max(slowest, performance.now() - began);
    }
    report(`${DAMAGED} damaged files, ${dialect}: neither result nor reason`, wrong, '', null);
    report('… slowest', slowest, 'ms', 1000);
  }
}

function damaged(whole: Uint8Array, random: () => number): Uint8Array {
  const at = (length: number): number => Math.floor(random() * length);
  let data = whole.slice(0, random() < 0.3 ? 1 + at(whole.length) : whole.length);
  for (let n = 1 + at(8); n > 0; n--) {
    const kind = at(4);
    const i = at(data.length);
    if (kind === 0) data[i] = at(256);
    else if (kind === 1) data[i] = [0, 10, 13, 34, 44, 46, 59, 101][at(8)] ?? 0;
    else if (kind === 2) data = data.slice(0, Math.max(1, i));
    else data.copyWithin(i, at(data.length), Math.min(data.length, i + at(400)));
  }
  return data;
}

function timed(work: () => void): number {
  const began = performance.now();
  work();
  return performance.now() - began;
}

async function timedAsync(work: () => Promise<void>): Promise<number> {
  const began = performance.now();
  await work();
  return performance.now() - began;
}
