import { decodeBlock } from '../../core/signal/block-codec';
import type { Clock } from '../../core/signal/clock';
import { type Floor, floorFor, floorsOver } from '../../core/signal/pyramid';
import { PYRAMID_BASE } from '../../core/signal/block-codec';
import { BLOCK_SAMPLES, Samples, storedSample } from '../../core/signal/samples';
import { clockFrom, samplesIn } from '../../application/traces/stored';
import type { TraceView } from '../../application/views';
import type { TraceChannel } from '../../formats/requests/traces';

/** So many blocks stay in memory: a screen of raw samples needs a few. */
const KEPT_BLOCKS = 96;

/**
 * What a lane draws: for each column of pixels from left to right the moment, lowest and highest; NaN breaks
 * the line.
 */
export interface Drawn {
  readonly t: Float64Array;
  readonly low: Float64Array;
  readonly high: Float64Array;
  readonly count: number;
  /** Samples as they are; else lowest and highest of several. */
  readonly isRaw: boolean;
}

interface Lane {
  readonly channel: TraceChannel;
  readonly clock: Clock;
  readonly floors: readonly Floor[];
  readonly scale: number;
}

/**
 * The samples of a recording as far as a screen needs them: the pyramid at once, blocks when somebody looks
 * closely.
 */
export class TraceData {
  readonly lanes: readonly Lane[];
  readonly from_s: number;
  readonly to_s: number;
  /** Blocks that have come so far. */
  arrived = 0;
  private readonly blocks = new Map<string, Int32Array | Float64Array>();
  private readonly asked = new Set<string>();
  private readonly buffers = new Map<string, { t: Float64Array; low: Float64Array; high: Float64Array }>();

  private constructor(
    private readonly view: TraceView,
    lanes: readonly Lane[],
    private readonly onArrived: () => void,
  ) {
    this.lanes = lanes;
    this.from_s = Math.min(...lanes.map((l) => l.clock.at(0)));
    this.to_s = Math.max(...lanes.map((l) => l.clock.at(l.clock.count - 1)));
  }

  /** Fetches clocks and pyramids. Rejects where the server does not answer. */
  static async open(view: TraceView, onArrived: () => void): Promise<TraceData> {
    const { head } = view;
    const streams = new Map<number, Samples>();
    for (const clock of head.clocks)
      if ('stream' in clock) streams.set(clock.stream, await wholeStream(view, clock.stream));
    const clocks = head.clocks.map((c) => clockFrom(c, streams));
    const lanes = await Promise.all(
      head.channels.map(async (channel): Promise<Lane> => {
        const stream = head.streams[channel.stream];
        if (!stream) throw new RangeError('a channel has no stream');
        const scale = stream.scale * channel.factor * (stream.wide ? 1 : 10 ** -stream.decimals);
        const pairs = new Float32Array(await bytesOf(`/api/traces/${view.id}/pyramid?stream=${channel.stream}`));
        const base = { span: PYRAMID_BASE, pairs: scaledPairs(pairs, scale) };
        return { channel, clock: clocks[channel.clock] as Clock, floors: floorsOver(base), scale };
      }),
    );
    return new TraceData(view, lanes, onArrived);
  }

  /** Lowest and highest value of a lane in the whole recording. */
  range(lane: number): readonly [number, number] {
    const top = this.lanes[lane]?.floors.at(-1)?.pairs;
    const [low = 0, high = 1] = [top?.[0], top?.[1]];
    return Number.isFinite(low + high) ? [low, high] : [0, 1];
  }

  /**
   * What a lane draws between two moments on so many pixels. Blocks that are needed and not here are fetched.
   */
  drawn(lane: number, from_s: number, to_s: number, pixels: number): Drawn {
    const l = this.lanes[lane];
    if (!l)
      return { t: new Float64Array(0), low: new Float64Array(0), high: new Float64Array(0), count: 0, isRaw: true };
    const first = Math.max(0, l.clock.before(from_s) - 1);
    const last = Math.min(l.clock.count - 1, l.clock.before(to_s) + 2);
    const samples = last - first + 1;
    const floor = floorFor(l.floors, samples, pixels);
    const out = this.buffer(lane, 3 * pixels + 8);
    if (samples <= 2 * pixels || !floor) {
      const raw = this.raw(lane, first, last, Math.max(1, Math.ceil(samples / (2 * pixels))), out);
      if (raw) return raw;
    }
    return this.fromFloor(l, floor ?? (l.floors[0] as Floor), first, last, pixels, out);
  }

  /** A lane's value at a moment, where its block is here; NaN otherwise. */
  valueAt(lane: number, t_s: number): number {
    const l = this.lanes[lane];
    if (!l) return NaN;
    const i = l.clock.before(t_s);
    if (i < 0) return NaN;
    const block = this.blockAt(l.channel.stream, Math.floor(i / BLOCK_SAMPLES));
    return block ? storedSample(block, i % BLOCK_SAMPLES, l.scale) : NaN;
  }

  private fromFloor(
    l: Lane,
    floor: Floor,
    first: number,
    last: number,
    pixels: number,
    out: Drawn & { t: Float64Array },
  ): Drawn {
    const [p0, p1] = [
      Math.floor(first / floor.span),
      Math.min(floor.pairs.length / 2 - 1, Math.floor(last / floor.span)),
    ];
    const group = Math.max(1, Math.ceil((p1 - p0 + 1) / pixels));
    let count = 0;
    for (let p = p0; p <= p1; p += group) {
      let [low, high] = [Infinity, -Infinity];
      for (let q = p; q < Math.min(p + group, p1 + 1); q++) {
        const [a, b] = [floor.pairs[2 * q] ?? NaN, floor.pairs[2 * q + 1] ?? NaN];
        if (a < low) low = a;
        if (b > high) high = b;
      }
      out.t[count] = l.clock.at(Math.min(l.clock.count - 1, p * floor.span));
      out.low[count] = low <= high ? low : NaN;
      out.high[count] = low <= high ? high : NaN;
      count++;
    }
    return { ...out, count, isRaw: false };
  }

  /** Samples as they are, lowest and highest of every `group`; `null`: a block is not here yet. */
  private raw(
    lane: number,
    first: number,
    last: number,
    group: number,
    out: Drawn & { t: Float64Array },
  ): Drawn | null {
    const l = this.lanes[lane] as Lane;
    let isThere = true;
    for (let b = Math.floor(first / BLOCK_SAMPLES); b <= Math.floor(last / BLOCK_SAMPLES); b++)
      if (!this.blockAt(l.channel.stream, b)) isThere = false;
    if (!isThere) return null;
    let count = 0;
    for (let i = first; i <= last; i += group) {
      let [low, high] = [Infinity, -Infinity];
      for (let k = i; k < Math.min(i + group, last + 1); k++) {
        const block = this.blocks.get(`${l.channel.stream} ${Math.floor(k / BLOCK_SAMPLES)}`) as Int32Array;
        const v = storedSample(block, k % BLOCK_SAMPLES, l.scale);
        if (v < low) low = v;
        if (v > high) high = v;
      }
      out.t[count] = l.clock.at(i);
      out.low[count] = low <= high ? low : NaN;
      out.high[count] = low <= high ? high : NaN;
      count++;
    }
    return { ...out, count, isRaw: group === 1 };
  }

  private buffer(lane: number, size: number): Drawn & { t: Float64Array } {
    const key = String(lane);
    let kept = this.buffers.get(key);
    if (!kept || kept.t.length < size) {
      kept = { t: new Float64Array(size), low: new Float64Array(size), high: new Float64Array(size) };
      this.buffers.set(key, kept);
    }
    return { ...kept, count: 0, isRaw: false };
  }

  private blockAt(stream: number, number: number): Int32Array | Float64Array | null {
    const key = `${stream} ${number}`;
    const here = this.blocks.get(key);
    if (here) return here;
    if (!this.asked.has(key)) {
      this.asked.add(key);
      void blockOf(this.view, stream, number)
        .then((block) => {
          if (this.blocks.size >= KEPT_BLOCKS) {
            const [oldest = ''] = this.blocks.keys();
            this.blocks.delete(oldest);
            this.asked.delete(oldest);
          }
          this.blocks.set(key, block);
          this.arrived++;
          this.onArrived();
        })
        // Asked for again when somebody looks there again.
        .catch(() => this.asked.delete(key));
    }
    return null;
  }
}

function scaledPairs(pairs: Float32Array, scale: number): Float64Array {
  const out = new Float64Array(pairs.length);
  for (let i = 0; i < pairs.length; i += 2) {
    const [a, b] = [(pairs[i] ?? NaN) * scale, (pairs[i + 1] ?? NaN) * scale];
    out[i] = scale < 0 ? b : a;
    out[i + 1] = scale < 0 ? a : b;
  }
  return out;
}

async function bytesOf(path: string): Promise<ArrayBuffer> {
  const answer = await fetch(path);
  if (!answer.ok) throw new Error(`The server answered ${answer.status}.`);
  return answer.arrayBuffer();
}

async function blockOf(view: TraceView, stream: number, number: number): Promise<Int32Array | Float64Array> {
  const packed = await bytesOf(`/api/traces/${view.id}/blocks?stream=${stream}&number=${number}`);
  const inflated = new Blob([packed]).stream().pipeThrough(new DecompressionStream('deflate-raw'));
  const declared = view.head.streams[stream];
  const block =
    declared && decodeBlock(new Uint8Array(await new Response(inflated).arrayBuffer()), samplesIn(declared, number));
  if (!block) throw new Error('A block cannot be read.');
  return block;
}

async function wholeStream(view: TraceView, stream: number): Promise<Samples> {
  const declared = view.head.streams[stream];
  if (!declared) throw new RangeError('a clock has no stream');
  const blocks = await Promise.all(declared.blocks.map((_, number) => blockOf(view, stream, number)));
  return Samples.of(blocks, declared.count, declared.decimals);
}
