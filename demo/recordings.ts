import { createHash } from 'node:crypto';
import { deflateRawSync } from 'node:zlib';
import { encodeBlock } from '../core/signal/block-codec';
import { simulateLogger, type SimulatedFault } from '../core/simulate/logger';
import { blocksOf, type ColumnChoice, toStored } from '../application/traces/stored';
import { readTrace } from '../formats/trace/read';
import { type WrittenDialect, writeSimulated } from '../formats/trace/write-simulated';
import type { Db } from '../server/db/connection';
import { keepBlock, keepTrace } from '../server/traces/traces';

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

const pin = (column: string, role: ColumnChoice['role'], lead: string): ColumnChoice => ({
  column,
  name: column,
  unit: 'V',
  role,
  factor: 1,
  lead,
});

/** Everything invented: a rare dropout of a wire on the road, and a pin that the scan tool does not follow. */
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
      pin('boost sensor', 'boost', 'blue, pin 9'),
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

/** Takes the recordings in as the screen does: read, searched, kept block by block. */
export async function loadRecordings(
  db: Db,
  idOf: (...name: (string | number)[]) => string,
  must: Must,
): Promise<void> {
  for (const r of RECORDINGS) {
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
    const id = idOf('trace', r.unit);
    await must(r.name, keepTrace(db, idOf('job', r.unit), { id, by: r.by, name: r.name, head }));
    for (const [stream, samples] of streams.entries())
      for (const [number, block] of blocksOf(samples).entries())
        await must(r.name, keepBlock(db, id, stream, number, deflateRawSync(encodeBlock(block))));
  }
}
