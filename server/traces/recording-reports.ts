import { tr } from '../../core/locale/translate';
import { inflateRawSync } from 'node:zlib';
import {
  MOST_LANES,
  type PictureLane,
  type RecordingReport,
  recordingLines,
  shownFinding,
  type TracePicture,
  windowAround,
} from '../../application/traces/picture';
import { clockFrom, samplesIn } from '../../application/traces/stored';
import type { TraceView } from '../../application/views';
import { decodeBlock } from '../../core/signal/block-codec';
import { BLOCK_SAMPLES, Samples, storedSample } from '../../core/signal/samples';
import type { Clock } from '../../core/signal/clock';
import type { Finding } from '../../core/signal/types';
import { moment } from '../../core/signal/words';
import type { TraceChannel } from '../../formats/requests/traces';
import type { Db } from '../db/connection';
import { blockBytes, tracesOf } from './traces';

/**
 * A lane on paper has this many points at most: the lowest and the highest of what falls on one place are
 * kept.
 */
const MOST_POINTS = 1200;

/** The recordings of a job as its report tells of them, each with a picture of what was found. */
export async function recordingReports(db: Db, jobId: string): Promise<RecordingReport[]> {
  const views = await tracesOf(db, jobId);
  const out: RecordingReport[] = [];
  for (const view of views) {
    const finding = view.missing.length ? null : shownFinding(view);
    out.push({
      id: view.id,
      name: view.name,
      lines: recordingLines(view),
      isEvidence: view.notes.some((n) => n.body.kind === 'evidence'),
      picture: finding && (await pictureOf(db, view, finding)),
    });
  }
  return out;
}

async function pictureOf(db: Db, view: TraceView, finding: Finding): Promise<TracePicture> {
  const { from_s, to_s } = windowAround(finding);
  const read = new BlockReader(db, view);
  const meant = view.head.channels.find((c) => c.column === finding.channel);
  // The lane that it is about, what it is compared with, and others while there is room.
  const rest = view.head.channels.filter((c) => c !== meant);
  const chosen = new Set([...(meant ? [meant] : []), ...rest.slice(0, MOST_LANES - 1)]);
  const lanes: PictureLane[] = [];
  for (const channel of view.head.channels.filter((c) => chosen.has(c)))
    lanes.push({
      name: channel.name,
      unit: channel.unit,
      points: await read.points(channel, from_s, to_s),
      isMeant: channel === meant,
      ...(channel.judgedBy?.lower === undefined ? {} : { lower: channel.judgedBy.lower }),
      ...(channel.judgedBy?.upper === undefined ? {} : { upper: channel.judgedBy.upper }),
    });
  const caption = tr`${view.name}, ${meant?.name ?? finding.channel} at ${moment(finding.from_s)}. ${finding.reasons[0] ?? ''}`;
  return { from_s, to_s, marked: { from_s: finding.from_s, to_s: finding.to_s }, lanes, caption };
}

/** Reads only the blocks that a window needs. */
class BlockReader {
  private readonly blocks = new Map<string, Int32Array | Float64Array | null>();
  private readonly clocks = new Map<number, Clock>();

  constructor(
    private readonly db: Db,
    private readonly view: TraceView,
  ) {}

  async points(channel: TraceChannel, from_s: number, to_s: number): Promise<readonly (readonly [number, number])[]> {
    const clock = await this.clock(channel.clock);
    const stream = this.view.head.streams[channel.stream];
    if (!clock || !stream) return [];
    const scale = stream.scale * channel.factor * (stream.wide ? 1 : 10 ** -stream.decimals);
    const first = Math.max(0, clock.before(from_s));
    const last = Math.min(clock.count - 1, clock.before(to_s) + 1);
    const points: (readonly [number, number])[] = [];
    for (let i = first; i <= last; i++) {
      const block = await this.block(channel.stream, Math.floor(i / BLOCK_SAMPLES));
      points.push([clock.at(i), block ? storedSample(block, i % BLOCK_SAMPLES, scale) : NaN]);
    }
    return thinned(points);
  }

  private async clock(index: number): Promise<Clock | null> {
    const known = this.clocks.get(index);
    if (known) return known;
    const declared = this.view.head.clocks[index];
    if (!declared) return null;
    const times = new Map<number, Samples>();
    if ('stream' in declared) {
      const stream = this.view.head.streams[declared.stream];
      const whole = new Samples();
      for (const number of stream?.blocks.keys() ?? []) {
        const block = await this.block(declared.stream, number);
        if (!block || !stream) return null;
        const scale = stream.wide ? 1 : 10 ** -stream.decimals;
        for (let i = 0; i < block.length; i++) whole.addReal(storedSample(block, i, scale));
      }
      times.set(declared.stream, whole);
    }
    const clock = clockFrom(declared, times);
    this.clocks.set(index, clock);
    return clock;
  }

  private async block(stream: number, number: number): Promise<Int32Array | Float64Array | null> {
    const key = `${stream} ${number}`;
    const known = this.blocks.get(key);
    if (known !== undefined) return known;
    const declared = this.view.head.streams[stream];
    const bytes = declared && (await blockBytes(this.db, this.view.id, stream, number));
    const block = bytes
      ? decodeBlock(inflateRawSync(bytes, { maxOutputLength: 9 * BLOCK_SAMPLES }), samplesIn(declared, number))
      : null;
    this.blocks.set(key, block);
    return block;
  }
}

/** Lowest and highest of each group where there are more points than paper shows. */
function thinned(points: readonly (readonly [number, number])[]): readonly (readonly [number, number])[] {
  if (points.length <= MOST_POINTS) return points;
  const group = Math.ceil(points.length / (MOST_POINTS / 2));
  const out: (readonly [number, number])[] = [];
  for (let i = 0; i < points.length; i += group) {
    const part = points.slice(i, i + group).filter(([, v]) => Number.isFinite(v));
    const [one] = part;
    if (!one) {
      out.push([points[i]?.[0] ?? NaN, NaN]);
      continue;
    }
    const low = part.reduce((a, b) => (b[1] < a[1] ? b : a), one);
    const high = part.reduce((a, b) => (b[1] > a[1] ? b : a), one);
    out.push(...(low[0] <= high[0] ? [low, high] : [high, low]));
  }
  return out;
}
