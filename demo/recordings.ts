import { createHash } from 'node:crypto';
import { deflateRawSync } from 'node:zlib';
import type { Lead, LeadMap } from '../core/signal/lead-map';
import { encodeBlock } from '../core/signal/block-codec';
import { simulateLogger, type SimulatedFault } from '../core/simulate/logger';
import { blocksOf, type ColumnChoice, toStored } from '../application/traces/stored';
import { readTrace } from '../formats/trace/read';
import { type WrittenDialect, writeSimulated } from '../formats/trace/write-simulated';
import type { Db } from '../server/db/connection';
import type { JudgedBy } from '../formats/requests/traces';
import { writeLeads } from '../server/traces/leads';
import { keepBlock, keepTrace, viewTrace } from '../server/traces/traces';

interface DemoRecording {
  readonly unit: string;
  readonly by: string;
  readonly name: string;
  readonly file: string;
  readonly seconds: number;
  readonly dialect: WrittenDialect;
  readonly faults: readonly SimulatedFault[];
  readonly columns: readonly ColumnChoice[];
}

const pin = (column: string, role: ColumnChoice['role'], lead: string, judgedBy?: JudgedBy): ColumnChoice => ({
  ...(judgedBy ? { judgedBy } : {}),
  column,
  name: column,
  unit: 'V',
  role,
  factor: 1,
  lead,
});

/** Invented, as the sheet of an invented engine would have it. */
const BOOST: JudgedBy = {
  test: 'Boost sensor, signal over pressure',
  source: 'Pellmarsh workshop book, sheet 23, invented',
  lower: 0.3,
  upper: 4.7,
  transfer: {
    kind: 'ratiometric',
    stimulus: { quantity: 'pressure', unit: 'kPa' },
    supply_V: 5,
    low: { at: 0, ratio: 0.1 },
    high: { at: 300, ratio: 0.9 },
  },
};
const lead = (name: string, signal: string, role: ColumnChoice['role'], pinOf: string, colour: string): Lead => ({
  lead: name,
  signal,
  role,
  connector: 'Controller B',
  pin: pinOf,
  colour,
});
const LEADS: LeadMap = {
  ground: 'battery negative post',
  leads: [
    lead('yellow', 'air flow', 'airflow', '14', 'yellow'),
    lead('green', 'rail sensor', 'rail-pressure', '26', 'green'),
    lead('blue', 'boost sensor', 'boost', '9', 'blue'),
    lead('red', 'battery supply', 'battery', '1', 'red'),
  ],
};

/**
 * Everything invented: a rare dropout of a wire on the road, and a pin that the scan tool does not follow.
 */
export const RECORDINGS: readonly DemoRecording[] = [
  {
    unit: 'PL-22',
    by: 'Ines Varga',
    name: 'Sluice road and back',
    file: 'sluice-road.csv',
    seconds: 1500,
    dialect: 'comma',
    faults: [
      { signal: 'boost', place: 'signal wire', at_s: 741.2, seconds: 0.02, ohms: null },
      { signal: 'boost', place: 'signal wire', at_s: 1213.5, seconds: 0.09, ohms: null },
    ],
    columns: [
      pin('air flow', 'airflow', 'yellow, pin 14'),
      pin('rail sensor', 'rail-pressure', 'green, pin 26'),
      pin('boost sensor', 'boost', 'blue, pin 9', BOOST),
      pin('battery', 'battery', 'red, pin 1'),
    ],
  },
  {
    unit: 'PL-08',
    by: 'Tobin Marsh',
    name: 'Pin and scan tool',
    file: 'pin-and-scan-tool.csv',
    seconds: 420,
    dialect: 'scan',
    faults: [{ signal: 'rail', place: 'input', at_s: 0, seconds: 420, ohms: 40_000 }],
    columns: [
      { ...pin('rail sensor at the pin', 'rail-pressure', 'green, pin 26') },
      {
        column: 'rail sensor by scan tool',
        name: 'by scan tool',
        unit: 'V',
        role: 'scan-tool',
        factor: 1,
        of: 'rail sensor at the pin',
      },
    ],
  },
];

type Must = (what: string, command: ReturnType<typeof keepTrace>) => Promise<void>;

/** A recording of which nothing is missing need not be simulated and searched again. */
export async function isThere(db: Db, traceId: string): Promise<boolean> {
  return (await viewTrace(db, traceId))?.missing.length === 0;
}

/** Takes the recordings in as the screen does: read, searched, kept block by block. */
export async function loadRecordings(
  db: Db,
  idOf: (...name: (string | number)[]) => string,
  must: Must,
): Promise<void> {
  const of = { id: idOf('leads', 'PL-22'), by: 'Ines Varga' };
  await must('leads', writeLeads(db, idOf('job', 'PL-22'), { ...of, ...LEADS }));
  for (const r of RECORDINGS) {
    const id = idOf('trace', r.unit);
    if (await isThere(db, id)) continue;
    const settings = {
      seconds: r.seconds,
      rate_Hz: 50,
      seed: 8,
      noise_V: 0.004,
      step_V: 0.002,
      faults: r.faults,
      scan: { rate_Hz: 3, delay_s: 0.35 },
    };
    const bytes = writeSimulated(simulateLogger(settings), r.dialect);
    const sha256 = (content: Uint8Array): string => createHash('sha256').update(content).digest('hex');
    const original = { name: r.file, size: bytes.length, sha256: sha256(bytes) };
    const { head, streams } = toStored(readTrace(bytes), r.columns, original, (b) => sha256(encodeBlock(b)));
    await must(r.name, keepTrace(db, idOf('job', r.unit), { id, by: r.by, name: r.name, head }));
    for (const [stream, samples] of streams.entries())
      for (const [number, block] of blocksOf(samples).entries())
        await must(r.name, keepBlock(db, id, stream, number, deflateRawSync(encodeBlock(block))));
  }
}
