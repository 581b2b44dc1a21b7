import { grouped } from '../locale/numbers';
import { tr } from '../locale/translate';
import { quantile } from '../numerics/select';
import { driveEvents, keyOffTimes } from './drive';
import { thin } from './pulses';
import { type ChannelSearch, searchChannel } from './search';
import type { Channel, Finding, Pulse, Searched, Stuck } from './types';
import { joinAnd } from '../quantity/print';
import { moment, say, span } from './words';

export interface Search {
  readonly findings: readonly Finding[];
  readonly searched: readonly Searched[];
  /** In sentences. */
  readonly summary: string;
}

/** All channels that fall together for at least this long were switched off. Common practice, no source. */
const SWITCHED_OFF_s = 1;
/** What is left of a channel that is switched off. */
const OFF_SHARE = 0.08;
/** Of its usual noise: a channel below this rests. */
const RESTING = 0.35;

/**
 * Searches a recording: each channel by itself, then all of them beside each other. What leaves its course in
 * several channels at one moment names them; what rests while the others rest too was not stuck, and what all
 * channels lose for long was switched off. `progress`: called with the share that is done.
 */
export function searchRecording(channels: readonly Channel[], progress?: (share: number) => void): Search {
  const each = channels.map((c, i) => {
    const one = searchChannel(c);
    progress?.((i + 1) / channels.length);
    return one;
  });
  const paired = each.map((one) => one.pulses.map((p) => withTogether(p, one, each)));
  const pulses = paired.flatMap((own, i) => {
    const one = each[i] as ChannelSearch;
    return own.filter((p) => !isSwitchedOff(p, one, each, paired) && !isTheEngine(p, one, each));
  });
  const stuck = each.flatMap((one) => one.stuck.filter((s) => !isRestOfAll(s, one, each)));
  const off = keyOffTimes(driveEvents(channels));
  // While the key is off no sensor has to be within its limits.
  const rest = each.flatMap((one) => one.rest.filter((f) => f.kind !== 'out-of-limits' || !isWithin(f, off)));
  const findings: Finding[] = [...pulses, ...stuck, ...rest].sort(
    (a, b) => RANK[a.severity] - RANK[b.severity] || a.from_s - b.from_s,
  );
  const searched = each.map(({ searched: s }) => ({
    ...s,
    found: findings.filter((f) => f.channel === s.channel).length,
  }));
  return { findings, searched, summary: summaryOf(channels, findings, searched) };
}

/** A sensor takes this long to rise and to fall with its supply. Common practice, no source. */
const SUPPLY_s = 0.5;
const isWithin = (f: Finding, times: ReturnType<typeof keyOffTimes>): boolean =>
  times.some((t) => f.from_s >= t.from_s - SUPPLY_s && f.to_s <= t.to_s + SUPPLY_s);

const RANK = { fail: 0, attention: 1, undecided: 2, none: 3, pass: 4 } as const;

/** Two stretches of time that touch, to within the distance of two samples. */
const touch = (a: Finding, b: Finding, slack_s: number): boolean =>
  a.from_s <= b.to_s + slack_s && b.from_s <= a.to_s + slack_s;

function withTogether(pulse: Pulse, one: ChannelSearch, each: readonly ChannelSearch[]): Pulse {
  const others = each.filter((other) => other !== one && other.searched.wouldFind !== null);
  const same = others.filter((other) =>
    other.pulses.some((p) => touch(p, pulse, Math.max(one.channel.clock.period_s, other.channel.clock.period_s) / 2)),
  );
  if (!others.length) return pulse;
  const together = same.map((other) => other.channel.id);
  const reason =
    same.length === 0
      ? 'No other channel that could be searched left its course at that moment: what they share is hardly the cause.'
      : same.length === others.length
        ? 'All channels that could be searched left their course at the same moment: the common ground, a shared supply or the recorder’s own lead.'
        : tr`At the same moment: ${joinAnd(same.map((s) => s.channel.name))}. Look at what these share.`;
  return { ...pulse, together, reasons: [...pulse.reasons, reason] };
}

/** Whether most channels went to nothing together and for long: the key, no contact. */
function isSwitchedOff(
  pulse: Pulse,
  one: ChannelSearch,
  each: readonly ChannelSearch[],
  paired: readonly (readonly Pulse[])[],
): boolean {
  const isOff = (p: Pulse): boolean =>
    p.kind === 'dropout' && p.to_s - p.from_s > SWITCHED_OFF_s && Math.abs(p.level) < OFF_SHARE * Math.abs(p.course);
  if (!isOff(pulse) || each.length < 2) return false;
  const others = each.filter((o) => o !== one);
  const same = each.filter(
    (o, i) => o !== one && (paired[i] ?? []).some((p) => isOff(p) && touch(p, pulse, o.channel.clock.period_s)),
  );
  return same.length * 3 >= others.length * 2;
}

/** Shorter than this, no engine comes and goes. Common practice, no source. */
const SHORTEST_MOVE_s = 0.12;
/** Of its span: less is no move of a channel. */
const LEAST_MOVE = 0.08;

/**
 * Whether a longer pulse that does not end at nothing is a blip of the throttle: another channel moves with
 * it and is not broken off itself.
 */
function isTheEngine(pulse: Pulse, one: ChannelSearch, each: readonly ChannelSearch[]): boolean {
  if (pulse.to_s - pulse.from_s < SHORTEST_MOVE_s || pulse.together.length) return false;
  // Edges of a contact down to less than half: no throttle does that.
  if (pulse.kind === 'dropout' && Math.abs(pulse.level) < 0.5 * Math.abs(pulse.course)) return false;
  // Nor up to where the channel never is otherwise.
  const own = thin(one.channel.values);
  const [low, high] = [quantile(own, 0.01), quantile(own, 0.995)];
  if (pulse.kind === 'spike' && pulse.level > high + 0.05 * (high - low)) return false;
  return each.some(({ channel }) => {
    if (channel === one.channel) return false;
    const part = (from_s: number, to_s: number): Float64Array =>
      channel.values.slice(Math.max(0, channel.clock.before(from_s)), channel.clock.before(to_s) + 1);
    const before = part(pulse.from_s - 1, pulse.from_s - 0.02);
    const during = part(pulse.from_s, pulse.to_s + 0.3);
    const range = (values: Float64Array): number => quantile(values, 0.95) - quantile(values, 0.05);
    const span = quantile(thin(channel.values), 0.99) - quantile(thin(channel.values), 0.01);
    return range(during) > Math.max(LEAST_MOVE * span, 3 * range(before));
  });
}

/** Whether at least half of the others rest in the same stretch of time. */
function isRestOfAll(stuck: Stuck, one: ChannelSearch, each: readonly ChannelSearch[]): boolean {
  const others = each.filter((o) => o !== one && o.channel.values.length > 0);
  if (!others.length) return false;
  const resting = others.filter((o) => isResting(o.channel, stuck.from_s, stuck.to_s));
  return resting.length * 2 >= others.length;
}

/** Whether a channel moves far less between two samples in a stretch of time than it does otherwise. */
function isResting({ clock, values }: Channel, from_s: number, to_s: number): boolean {
  const [from, to] = [Math.max(0, clock.before(from_s)), clock.before(to_s)];
  if (to - from < 4) return false;
  const usual = typicalMove(values, 0, values.length);
  return typicalMove(values, from, to) < RESTING * usual;
}

/** Usual distance of neighbours, of at most some thousand pairs. */
function typicalMove(values: Float64Array, from: number, to: number): number {
  const stride = Math.max(1, Math.floor((to - from) / 4000));
  const moves: number[] = [];
  for (let i = from + 1; i < to; i += stride) moves.push(Math.abs((values[i] ?? NaN) - (values[i - 1] ?? NaN)));
  return quantile(moves, 0.5);
}

function summaryOf(channels: readonly Channel[], findings: readonly Finding[], searched: readonly Searched[]): string {
  const longest = Math.max(...searched.map((s) => s.seconds));
  const samples = searched.reduce((n, s) => n + s.samples, 0);
  const head = tr`${span(longest)}, ${grouped(samples)} samples on ${channels.length} ${channels.length === 1 ? 'channel' : 'channels'}.`;
  const bad = findings.filter((f) => f.severity === 'fail' || f.severity === 'attention');
  const list = bad.slice(0, 8).map((f) => lineOf(f, channels));
  const more = bad.length > 8 ? [tr`And ${bad.length - 8} more.`] : [];
  const power = searched.map((s) => powerLine(s, channels));
  return [head, ...(bad.length ? list : ['Nothing left its course.']), ...more, ...power].join(' ');
}

/** What would have been found in one channel, as a sentence. */
export function powerLine(s: Searched, channels: readonly Channel[]): string {
  const channel = channels.find((c) => c.id === s.channel);
  const name = channel?.name ?? s.channel;
  if (!s.wouldFind || !channel) return tr`${name} could not be searched: ${s.why ?? ''}`;
  return tr`${name}: a dropout of one sample and ${say(s.wouldFind.depth, channel)} ${channel.unit} would have been found with ${Math.round(s.wouldFind.probability * 100)} %.`;
}

/** One finding as a sentence. */
export function lineOf(f: Finding, channels: readonly Channel[]): string {
  const channel = channels.find((c) => c.id === f.channel);
  const name = channel?.name ?? f.channel;
  return tr`${name} at ${moment(f.from_s)}: ${f.reasons[0] ?? f.kind}`;
}
