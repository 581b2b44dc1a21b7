import { createHash } from 'node:crypto';
import { deflateRawSync } from 'node:zlib';
import { encodeBlock } from '../core/signal/block-codec';
import { rateClock } from '../core/signal/clock';
import { Samples } from '../core/signal/samples';
import type { ChannelRole } from '../core/signal/types';
import { type EngineFault, type EngineSignal, simulateEngine } from '../core/simulate/engine/engine';
import { isThere } from './recordings';
import { blocksOf, type ColumnChoice, toStored } from '../application/traces/stored';
import type { ReadRecording } from '../formats/trace/types';
import type { Standing, TraceCapture } from '../formats/requests/traces';
import type { Db } from '../server/db/connection';
import { markCapture } from '../server/traces/captures';
import { keepBlock, keepTrace } from '../server/traces/traces';
import { FAMILIES } from './fleet';

interface DemoCapture {
  readonly key: string;
  readonly unit: string;
  readonly family: keyof typeof FAMILIES;
  readonly by: string;
  readonly name: string;
  readonly condition: TraceCapture['condition'];
  readonly temperature?: TraceCapture['temperature'];
  readonly signals: readonly EngineSignal[];
  readonly faults: readonly EngineFault[];
  readonly standing?: { readonly as: Standing; readonly by: string; readonly why: string };
}

const CRANKING: readonly EngineSignal[] = ['crank', 'cam', 'starter', 'injector 1'];
const IDLING: readonly EngineSignal[] = ['crank', 'injectors', 'injector 1', 'knock'];
const GOOD = { as: 'known good', by: 'Odile Brandt', why: 'after the service, nothing to complain of' } as const;

/**
 * Everything invented: a drag, a cam that is out, a leaking injector with victims, each with a known good of
 * its family.
 */
const CAPTURES: readonly DemoCapture[] = [
  {
    key: 'good-cranking',
    unit: 'PL-16',
    family: 'L4-20',
    by: 'Ines Varga',
    name: 'Cranking after the service',
    condition: 'cranking',
    signals: CRANKING,
    faults: [],
    standing: GOOD,
  },
  {
    key: 'drag',
    unit: 'PL-14',
    family: 'L4-20',
    by: 'Tobin Marsh',
    name: 'Cranking, slow',
    condition: 'cranking',
    signals: CRANKING,
    faults: [{ kind: 'drag' }],
  },
  {
    key: 'tooth-out',
    unit: 'PL-08',
    family: 'L4-20',
    by: 'Tobin Marsh',
    name: 'Cranking, does not start',
    condition: 'cranking',
    signals: CRANKING,
    faults: [{ kind: 'timing', shift_deg: 16 }],
  },
  {
    key: 'good-idle',
    unit: 'PL-30',
    family: 'L6-109',
    by: 'Ines Varga',
    name: 'Idle, warm',
    condition: 'idle',
    temperature: 'hot',
    signals: IDLING,
    faults: [],
    standing: GOOD,
  },
  {
    key: 'leak',
    unit: 'PL-19',
    family: 'L6-109',
    by: 'Ines Varga',
    name: 'Idle, knocks and misses',
    condition: 'idle',
    temperature: 'hot',
    signals: IDLING,
    faults: [{ kind: 'leaking injector', cylinder: 5, victims: [3, 2] }],
  },
];

const RATE_Hz = 15_000;
const ROLES: Readonly<Record<EngineSignal, readonly [ChannelRole, string]>> = {
  crank: ['crank', 'V'],
  cam: ['cam', 'V'],
  starter: ['starter-current', 'A'],
  battery: ['battery', 'V'],
  injectors: ['injector-current', 'A'],
  'injector 1': ['injector-current', 'A'],
  knock: ['knock', 'V'],
};

type Must = (what: string, command: ReturnType<typeof keepTrace>) => Promise<void>;

/** Takes the captures in as the screen does, and lets a lead say which are known good. */
export async function loadCaptures(db: Db, idOf: (...name: (string | number)[]) => string, must: Must): Promise<void> {
  for (const [i, c] of CAPTURES.entries()) {
    const engine = FAMILIES[c.family];
    if (!engine) throw new Error(`there is no family ${c.family}`);
    const id = idOf('trace', c.unit, c.key);
    if (await isThere(db, id)) continue;
    const read = recorded(c, i);
    const choices = c.signals.map((s): ColumnChoice => {
      const [role, unit] = ROLES[s];
      return { column: s, name: s, unit, role, factor: 1, ...(s === 'injector 1' ? { cylinder: 1 } : {}) };
    });
    const sha256 = (content: Uint8Array | string): string => createHash('sha256').update(content).digest('hex');
    const original = { name: `${c.key}.csv`, size: 1_000_000 + i, sha256: sha256(c.key) };
    const asked = { engine, condition: c.condition, ...(c.temperature ? { temperature: c.temperature } : {}) };
    const { head, streams } = toStored(read, choices, original, (b) => sha256(encodeBlock(b)), undefined, { asked });
    await must(c.name, keepTrace(db, idOf('job', c.unit), { id, by: c.by, name: c.name, head }));
    for (const [stream, samples] of streams.entries())
      for (const [number, block] of blocksOf(samples).entries())
        await must(c.name, keepBlock(db, id, stream, number, deflateRawSync(encodeBlock(block))));
    if (c.standing) {
      const { as, by, why } = c.standing;
      await must(c.name, markCapture(db, id, { id: idOf('standing', c.key), by, standing: as, why }));
    }
  }
}

/** A simulated capture as a reader would give it. */
function recorded(c: DemoCapture, seed: number): ReadRecording {
  const engine = FAMILIES[c.family];
  const { channels } = simulateEngine({
    cylinders: engine?.cylinders ?? 4,
    firingOrder: engine?.firingOrder ?? [],
    condition: c.condition,
    seconds: 2.4,
    rate_Hz: RATE_Hz,
    wheel: { teeth: 60, missing: 2, kind: 'hall' },
    cam: [
      [30, 110],
      [380, 420],
    ],
    faults: c.faults,
    seed: 40 + seed,
  });
  const columns = c.signals.map((s) => {
    const samples = new Samples();
    for (const v of channels[s]) samples.add(Math.round(v * 100), 2);
    return { name: s, unit: ROLES[s][1], samples, scale: 1, clock: rateClock(RATE_Hz, samples.count) };
  });
  // One clock for all of them.
  const [first] = columns;
  return {
    kind: 'csv',
    columns: columns.map((k) => ({ ...k, clock: first?.clock ?? k.clock })),
    codes: [],
    began_s: null,
    notes: [],
  };
}
