import { fixed } from '../locale/numbers';
import { tr } from '../locale/translate';
import { quantile } from '../numerics/select';
import { seededRandom } from '../numerics/random';
import { type ConstantRun, constantRuns, improbableLength, runsOf } from './constant';
import { held, levelsOf } from './course';
import { isBattery, isCranking, isCrankingRipple } from './cranking';
import { noisyParts, outsideOf, type NoisyPart } from './noise';
import { findableDepth } from './power';
import { pulses, type RawPulse, type Stretched, stretched, thin } from './pulses';
import type { Channel, Clipped, Finding, Gap, Noise, OutOfLimits, Pulse, Searched, Stuck } from './types';
import { say, span } from './words';

/** What one channel shows by itself. */
export interface ChannelSearch {
  readonly channel: Channel;
  readonly pulses: readonly Pulse[];
  readonly stuck: readonly Stuck[];
  readonly rest: readonly Finding[];
  readonly searched: Searched;
}

/** A channel of fewer samples has no course. */
const FEWEST = 60;
/** A channel that has only two levels switches: what leaves one is no dropout. */
const SWITCHING_SHARE = 0.9;
const SEED = 20;

/** Searches one channel. The same input gives the same findings. */
export function searchChannel(channel: Channel): ChannelSearch {
  const { clock, values } = channel;
  const seconds = clock.stretches.reduce((sum, { from, to }) => sum + (to - from) * clock.period_s, 0);
  const gaps = gapsOf(channel);
  let valid = 0;
  for (const v of values) if (Number.isFinite(v)) valid++;
  const unable = (why: string): ChannelSearch => ({
    channel,
    pulses: [],
    stuck: [],
    rest: gaps,
    searched: { channel: channel.id, samples: valid, seconds, found: gaps.length, noise: 0, wouldFind: null, why },
  });
  if (valid < FEWEST) return unable(tr`${valid} samples are too few to tell a course.`);
  if (isSwitching(values)) {
    const rest = [...gaps, ...outOfLimits(channel)];
    return { ...unable('It switches between two levels: a dropout cannot be told from that.'), rest };
  }
  const parts = clock.stretches.flatMap(({ from, to }) => searchStretch(channel, from, to));
  const found = parts.flatMap((p) => p.pulses);
  const rest = [...gaps, ...parts.flatMap((p) => p.rest), ...outOfLimits(channel)];
  const stuck = parts.flatMap((p) => p.stuck);
  const power = findableDepth(
    parts.flatMap((p) => (p.stretched ? [p.stretched] : [])),
    seededRandom(SEED),
  );
  return {
    channel,
    pulses: found,
    stuck,
    rest,
    searched: {
      channel: channel.id,
      samples: valid,
      seconds,
      found: found.length + rest.length + stuck.length,
      noise: typicalNoise(parts),
      wouldFind: power && { samples: 1, ...power },
      why: power === null ? 'It moves so quickly between two samples that a dropout cannot be told from that.' : null,
    },
  };
}

interface StretchSearch {
  readonly pulses: readonly Pulse[];
  readonly stuck: readonly Stuck[];
  readonly rest: readonly Finding[];
  readonly stretched: Stretched | null;
}

function searchStretch(channel: Channel, from: number, to: number): StretchSearch {
  const { clock, step } = channel;
  const values = to - from < FEWEST / 3 ? null : held(channel.values, from, to);
  if (!values) return { pulses: [], stuck: [], rest: [], stretched: null };
  const levels = levelsOf(values, clock.period_s, step, channel.values.length);
  const [finest] = levels;
  const constant = constantRuns(values, clock.period_s);
  if (!finest) return { pulses: [], stuck: constant.map((r) => stuckOf(channel, from, r)), rest: [], stretched: null };
  const s = stretched(values, levels, clock.period_s, step);
  const mayCrank = isBattery(channel);
  const noisy = noisyParts(finest, clock.period_s, step).filter((n) => !(mayCrank && isCrankingRipple(n, values)));
  const raw = outsideOf(pulses(s), noisy).filter(
    (p) => isRecorded(channel, from, p) && !(mayCrank && isCranking(p, clock.period_s)),
  );
  const clipped = clippedParts(channel, from, values, raw);
  const still = constant.filter(
    (r) =>
      !raw.some((p) => r.first <= p.last && r.last >= p.first) &&
      !clipped.some((c) => c.from_s === clock.at(from + r.first)),
  );
  return {
    pulses: raw.map((p) => pulseFinding(channel, from, p)),
    stuck: still.map((r) => stuckOf(channel, from, r)),
    rest: [...noisy.map((n) => noiseFinding(channel, from, n)), ...clipped],
    stretched: s,
  };
}

/** Whether a pulse rests on samples that are there: a missing one repeats the last, and is none. */
const isRecorded = (channel: Channel, from: number, p: RawPulse): boolean => {
  for (let i = p.first; i <= p.last; i++) if (Number.isFinite(channel.values[from + i] ?? NaN)) return true;
  return false;
};

function pulseFinding(channel: Channel, from: number, p: RawPulse): Pulse {
  const { clock, unit } = channel;
  const samples = p.last - p.first + 1;
  const [from_s, to_s] = [clock.at(from + p.first), clock.at(from + p.last) + clock.period_s];
  const isDown = p.sign < 0;
  const length = span(samples * clock.period_s);
  return {
    kind: isDown ? 'dropout' : 'spike',
    channel: channel.id,
    from_s,
    to_s,
    severity: 'fail',
    confidence: Math.min(0.99, 1 - 0.3 / Math.max(p.clearness, 1) ** 2),
    depth: p.depth,
    samples,
    course: p.course,
    level: p.level,
    together: [],
    reasons: [
      tr`For ${length} (${samples} ${samples === 1 ? 'sample' : 'samples'}) it ${isDown ? 'fell' : 'rose'} from ${say(p.course, channel)} to ${say(p.level, channel)} ${unit} and came back.`,
      tr`As far as these samples tell, both edges are as quick as a contact's; and it is ${fixed(p.clearness, 1)} times what chance and the engine's own moves reach here.`,
    ],
  };
}

const stuckOf = (channel: Channel, from: number, r: ConstantRun): Stuck => ({
  kind: 'stuck',
  channel: channel.id,
  from_s: channel.clock.at(from + r.first),
  to_s: channel.clock.at(from + r.last),
  severity: 'attention',
  confidence: 0.8,
  level: r.level,
  reasons: [
    tr`It stayed at exactly ${say(r.level, channel)} ${channel.unit} for ${span((r.last - r.first) * channel.clock.period_s)}: with the noise that it has otherwise that is no chance.`,
  ],
});

function extremes(values: Float64Array): readonly [number, number] {
  let low = Infinity;
  let high = -Infinity;
  for (const v of values) {
    if (v < low) low = v;
    if (v > high) high = v;
  }
  return [low, high];
}

/**
 * Where it rests at its highest or lowest value to the last digit although it is noisy otherwise: the range
 * ended there.
 */
function clippedParts(channel: Channel, from: number, values: Float64Array, raw: readonly RawPulse[]): Clipped[] {
  const needed = Math.max(3, Math.min(improbableLength(values), 60));
  const [low, high] = extremes(values);
  const runs = runsOf(values, needed).filter(
    (r) =>
      (r.level === low || r.level === high) &&
      low < high &&
      // A recorder that knows no negative volts rests at nothing while the key is off.
      Math.abs(r.level) > 0.02 * (high - low) &&
      !raw.some((p) => r.first <= p.last + 1 && r.last >= p.first - 1) &&
      isReachedOnTheMove(values, r, channel.step, high - low),
  );
  return runs.map((r) => ({
    kind: 'clipped',
    channel: channel.id,
    from_s: channel.clock.at(from + r.first),
    to_s: channel.clock.at(from + r.last),
    severity: 'attention',
    confidence: 0.8,
    level: r.level,
    samples: r.last - r.first + 1,
    reasons: [
      tr`It rests at its ${r.level === high ? 'highest' : 'lowest'} value, exactly ${say(r.level, channel)} ${channel.unit}: the range of the recorder or of the sensor ended there, and what went further is not in the file.`,
    ],
  }));
}

/** A flat top is cut off where the samples beside it are on the move. */
function isReachedOnTheMove(values: Float64Array, r: ConstantRun, step: number, whole: number): boolean {
  const near = 4;
  const before = Math.abs((values[Math.max(0, r.first - near)] ?? r.level) - r.level);
  const after = Math.abs((values[Math.min(values.length - 1, r.last + near)] ?? r.level) - r.level);
  return Math.max(before, after) > Math.max(3 * step, 0.02 * whole);
}

const noiseFinding = (channel: Channel, from: number, n: NoisyPart): Noise => ({
  kind: 'noise',
  channel: channel.id,
  from_s: channel.clock.at(from + n.first),
  to_s: channel.clock.at(from + n.last),
  severity: 'attention',
  confidence: 0.8,
  rms: n.rms,
  peak: n.peak,
  reasons: [
    tr`For ${span((n.last - n.first + 1) * channel.clock.period_s)} it was far noisier than otherwise: ${say(n.rms, channel)} ${channel.unit} rms, up to ${say(n.peak, channel)} ${channel.unit}.`,
  ],
});

/** Jumps of the clock, and samples that hold nothing. */
export function gapsOf(channel: Channel): Gap[] {
  const { clock, values, id } = channel;
  const jumps = clock.jumps.map((j): Gap => ({
    kind: 'gap',
    channel: id,
    from_s: Math.min(j.from_s, j.to_s),
    to_s: Math.max(j.from_s, j.to_s),
    severity: 'attention',
    confidence: 0.99,
    missing: j.missing,
    reasons: [
      j.to_s < j.from_s
        ? tr`The clock steps back by ${span(j.from_s - j.to_s)}.`
        : tr`${j.missing} samples are missing: nothing is known of ${span(j.to_s - j.from_s)}.`,
    ],
  }));
  const blanks: Gap[] = [];
  for (let i = 0; i < values.length; i++) {
    if (!Number.isNaN(values[i] ?? NaN)) continue;
    let end = i;
    while (end + 1 < values.length && Number.isNaN(values[end + 1] ?? NaN)) end++;
    blanks.push({
      kind: 'gap',
      channel: id,
      from_s: clock.at(i),
      to_s: clock.at(end) + clock.period_s,
      severity: 'attention',
      confidence: 0.99,
      missing: end - i + 1,
      reasons: [tr`${end - i + 1} samples hold no number.`],
    });
    i = end;
  }
  return [...jumps, ...blanks].sort((a, b) => a.from_s - b.from_s);
}

/** Parts outside the stated limits; parts that are closer than a tenth of a second are one. */
function outOfLimits(channel: Channel): OutOfLimits[] {
  const { limits, values, clock } = channel;
  if (!limits || (limits.lower === undefined && limits.upper === undefined)) return [];
  const [lower, upper] = [limits.lower ?? -Infinity, limits.upper ?? Infinity];
  const near = Math.max(1, Math.round(0.1 / clock.period_s));
  const found: OutOfLimits[] = [];
  for (let i = 0; i < values.length; i++) {
    const v = values[i] ?? NaN;
    if (!(v < lower || v > upper)) continue;
    let last = i;
    let level = v;
    for (let k = i + 1; k < values.length && k - last <= near; k++) {
      const w = values[k] ?? NaN;
      if (!(w < lower || w > upper)) continue;
      // Beyond the other limit is another matter.
      if (w < lower !== v < lower) break;
      last = k;
      if (Math.max(lower - w, w - upper) > Math.max(lower - level, level - upper)) level = w;
    }
    const limit = level < lower ? lower : upper;
    found.push({
      kind: 'out-of-limits',
      channel: channel.id,
      from_s: clock.at(i),
      to_s: clock.at(last) + clock.period_s,
      severity: 'fail',
      confidence: 0.95,
      level,
      reasons: [
        tr`It reached ${say(level, channel)} ${channel.unit}; the limit is ${say(limit, channel)} ${channel.unit}.`,
      ],
    });
    i = last;
  }
  return found;
}

/** Nearly all samples close to one of two levels, and both are used. */
function isSwitching(values: Float64Array): boolean {
  const [low, high] = [quantile(thin(values), 0.03), quantile(thin(values), 0.97)];
  const span = high - low;
  if (!(span > 0)) return false;
  let near = 0;
  let count = 0;
  let changes = 0;
  let side = 0;
  for (const v of values) {
    if (Number.isNaN(v)) continue;
    count++;
    const now = Math.abs(v - low) < 0.12 * span ? -1 : Math.abs(v - high) < 0.12 * span ? 1 : 0;
    if (now === 0) continue;
    near++;
    if (now !== side) changes++;
    side = now;
  }
  return near > SWITCHING_SHARE * count && changes > Math.max(10, count / 400);
}

const typicalNoise = (parts: readonly StretchSearch[]): number =>
  quantile(
    parts.flatMap((p) => Array.from(p.stretched?.levels[0]?.sigma ?? [])),
    0.5,
  );
