import { fixed } from '../locale/numbers';
import { tr } from '../locale/translate';
import { quantile, robustDeviation } from '../numerics/select';
import { listedClock } from './clock';
import { bestLag } from './correlate';
import { onGrid, sharedTime, valueAt } from './grid';
import { type Line, robustLine } from './line';
import type { Agreement, Apart, Channel, Drift } from './types';
import { say, span } from './words';

/** A scan tool answers within this. Common practice, no source. */
const LONGEST_DELAY_s = 5;
/**
 * So far off, of the largest value, is still the same signal: a converter, a filter and rounding. Common
 * practice, no source.
 */
const TOLERANCE = 0.02;
/** A signal that moves by less than this times what is left over tells no gain. */
const LEAST_MOVE = 6;
const MOST_PAIRS = 20_000;
const MOST_GRID = 60_000;

/**
 * What a scan tool shows (`shown`) beside what the pin carries (`pin`), both in one unit where they are to
 * agree: the line scan(t) = offset + gain · pin(t − delay), how much is left over, and where the two part for
 * a while. `isSameUnit`: `false` where no transfer function of the shelf leads from one to the other; then
 * only the line is told.
 */
export function agreement(shown: Channel, pin: Channel, isSameUnit: boolean): (Agreement | Apart | Drift)[] {
  const scan = updatesOf(shown);
  const shared = sharedTime(scan, pin);
  if (!shared) return [undecided(scan, pin, 'The two share no time.')];
  const times = sampleTimes(scan, shared.from_s, shared.to_s);
  const delay = delayOf(scan, pin, shared, times);
  const pairs = pairsAt(scan, pin, times, delay ?? 0);
  if (pairs.x.length < 8) return [undecided(scan, pin, 'There are too few values of both at the same time.')];
  const moved = quantile(pairs.x, 0.98) - quantile(pairs.x, 0.02);
  const line = robustLine(pairs.x, pairs.y);
  const differences = pairs.y.map((v, i) => v - (pairs.x[i] ?? NaN));
  const flat = flatLine(differences);
  const tells = line !== null && moved > LEAST_MOVE * Math.max(line.rms, scan.step, pin.step) && moved > 0;
  const used = tells ? line : flat;
  const verdict = isSameUnit ? judged(used, pairs.x, scan, pin) : null;
  const parted = apart(scan, pin, times, delay ?? 0, used, tells, scan.unit);
  const agrees = verdict === null ? null : verdict.agrees && parted.length === 0;
  const main: Agreement = {
    kind: 'agreement',
    channel: scan.id,
    of: pin.id,
    from_s: shared.from_s,
    to_s: shared.to_s,
    severity: agrees === null ? 'undecided' : agrees ? 'pass' : 'fail',
    confidence: agrees === null ? 0.5 : (verdict?.confidence ?? 0.5),
    agrees,
    offset: used.offset,
    gain: tells ? used.gain : null,
    delay_s: tells ? delay : null,
    rmsResidual: used.rms,
    reasons: [
      tells
        ? tr`It shows ${say(used.offset, scan)} ${scan.unit} + ${fixed(used.gain, 3)} × ${pin.name}${delay === null ? '' : tr`, ${span(Math.abs(delay))} ${delay < 0 ? 'earlier' : 'later'}`}; ${say(used.rms, scan)} ${scan.unit} rms is left over.`
        : tr`The signal moved too little to tell gain and delay; the two differ by ${say(used.offset, scan)} ${scan.unit} in the middle.`,
      ...(verdict ? [verdict.reason] : ['No transfer function leads from one to the other: only the line is told.']),
      ...(parted.length ? [tr`They part ${parted.length} ${parted.length === 1 ? 'time' : 'times'}.`] : []),
    ],
  };
  const drifted = isSameUnit ? driftOf(scan, pin, pairs, used, tells) : null;
  return [main, ...parted, ...(drifted ? [drifted] : [])];
}

/** More equal neighbours than this: each value is written again and again until the next one comes. */
const HELD_SHARE = 0.6;

/**
 * A scan tool's channel without the repeats of each value: in a table of a quicker recorder it stands still
 * between two answers, and says nothing new of the pin meanwhile.
 */
function updatesOf(scan: Channel): Channel {
  const { values, clock } = scan;
  const kept: number[] = [];
  for (let i = 0; i < values.length; i++)
    if (i === 0 || (values[i] !== values[i - 1] && Number.isFinite(values[i] ?? NaN))) kept.push(i);
  if (values.length < 50 || kept.length > (1 - HELD_SHARE) * values.length || kept.length < 12) return scan;
  return {
    ...scan,
    values: Float64Array.from(kept, (i) => values[i] ?? NaN),
    clock: listedClock(Float64Array.from(kept, (i) => clock.at(i))),
  };
}

function undecided(scan: Channel, pin: Channel, why: string): Agreement {
  return {
    kind: 'agreement',
    channel: scan.id,
    of: pin.id,
    from_s: scan.clock.at(0),
    to_s: scan.clock.at(scan.values.length - 1),
    severity: 'undecided',
    confidence: 0,
    agrees: null,
    offset: 0,
    gain: null,
    delay_s: null,
    rmsResidual: 0,
    reasons: [why],
  };
}

/** Moments at which the scan tool's channel has a value, thinned evenly where they are very many. */
function sampleTimes(scan: Channel, from_s: number, to_s: number): number[] {
  const stride = Math.max(1, Math.floor(scan.values.length / MOST_PAIRS));
  const times: number[] = [];
  for (let i = 0; i < scan.values.length; i += stride) {
    const t = scan.clock.at(i);
    if (t >= from_s && t <= to_s && Number.isFinite(scan.values[i] ?? NaN)) times.push(t);
  }
  return times;
}

function pairsAt(
  scan: Channel,
  pin: Channel,
  times: readonly number[],
  delay: number,
): { readonly x: Float64Array; readonly y: Float64Array } {
  const x: number[] = [];
  const y: number[] = [];
  for (const t of times) {
    const [a, b] = [valueAt(pin, t - delay), valueAt(scan, t)];
    if (!(Number.isFinite(a) && Number.isFinite(b))) continue;
    x.push(a);
    y.push(b);
  }
  return { x: Float64Array.from(x), y: Float64Array.from(y) };
}

/**
 * How much later the scan tool shows it: by cross-correlation on a grid, then by the least that is left over.
 */
function delayOf(
  scan: Channel,
  pin: Channel,
  shared: { readonly from_s: number; readonly to_s: number },
  times: readonly number[],
): number | null {
  const length = shared.to_s - shared.from_s;
  const finest = Math.max(pin.clock.period_s, scan.clock.period_s / 4);
  const most_s = Math.min(LONGEST_DELAY_s, length / 4);
  const piece = livelyPiece(scan, shared.from_s, Math.min(length, finest * MOST_GRID), shared.to_s);
  const count = Math.floor((piece.to_s - piece.from_s) / finest);
  const most = Math.ceil(most_s / finest);
  if (count < 8 || most < 1) return null;
  const first = onGrid(pin, piece.from_s, finest, count).values;
  const second = onGrid(scan, piece.from_s, finest, count).values;
  const best = bestLag(first, second, Math.min(most, Math.floor(count / 3)));
  if (!best || best.correlation < 0.3) return null;
  return leastLeft(scan, pin, times, best.lag * finest, 1.5 * finest);
}

/** Of a long recording, the piece of the given length in which the scan tool's value moves most. */
function livelyPiece(scan: Channel, from_s: number, length_s: number, end_s: number): { from_s: number; to_s: number } {
  let best = { from_s, to_s: Math.min(end_s, from_s + length_s) };
  let most = -1;
  for (let t = from_s; t + length_s <= end_s + 1e-9; t += length_s) {
    const values = Array.from({ length: 200 }, (_, i) => valueAt(scan, t + (i * length_s) / 200));
    const range = quantile(values, 0.9) - quantile(values, 0.1);
    if (range > most) {
      most = range;
      best = { from_s: t, to_s: t + length_s };
    }
  }
  return best;
}

/** Golden-section search for the delay that leaves least over, in the middle of the deviations. */
function leastLeft(scan: Channel, pin: Channel, times: readonly number[], around: number, reach: number): number {
  const thin = times.filter((_, i) => i % Math.max(1, Math.floor(times.length / 3000)) === 0);
  const left = (delay: number): number => {
    const { x, y } = pairsAt(scan, pin, thin, delay);
    return robustLine(x, y)?.rms ?? Infinity;
  };
  const ratio = (Math.sqrt(5) - 1) / 2;
  let [a, b] = [around - reach, around + reach];
  let [c, d] = [b - ratio * (b - a), a + ratio * (b - a)];
  let [fc, fd] = [left(c), left(d)];
  for (let n = 0; n < 18; n++) {
    if (fc < fd) {
      [b, d, fd] = [d, c, fc];
      c = b - ratio * (b - a);
      fc = left(c);
    } else {
      [a, c, fc] = [c, d, fd];
      d = a + ratio * (b - a);
      fd = left(d);
    }
  }
  return (a + b) / 2;
}

function flatLine(differences: Float64Array): Line {
  const offset = quantile(differences, 0.5);
  const rms = robustDeviation(differences);
  return { offset, gain: 1, offsetError: rms / Math.sqrt(differences.length), gainError: 0, rms };
}

/** Whether the line stays close enough to *the same* over all that was seen. */
function judged(
  line: Line,
  x: Float64Array,
  scan: Channel,
  pin: Channel,
): { readonly agrees: boolean; readonly confidence: number; readonly reason: string } {
  const [low, high] = [quantile(x, 0.02), quantile(x, 0.98)];
  const largest = Math.max(Math.abs(low), Math.abs(high), Math.abs(high - low));
  const tolerance = Math.max(TOLERANCE * largest, scan.step, pin.step);
  const off = (at: number): number => Math.abs(line.offset + (line.gain - 1) * at);
  const worst = Math.max(off(low), off(high));
  const error = Math.hypot(line.offsetError, line.gainError * largest);
  const agrees = worst <= tolerance;
  const clear = Math.abs(worst - tolerance) / Math.max(error, tolerance / 20);
  return {
    agrees,
    confidence: Math.min(0.99, 0.5 + clear / 8),
    reason: agrees
      ? tr`Over all that was seen they differ by ${say(worst, scan)} ${scan.unit} at most; ${say(tolerance, scan)} is usual.`
      : tr`They differ by up to ${say(worst, scan)} ${scan.unit}; ${say(tolerance, scan)} would be usual. The wire’s end, its ground or the controller’s input sees something else than the pin.`,
  };
}

/**
 * Whether what is left over wanders from the first quarter of the recording to the last: by more than half of
 * what is usual between pin and scan tool, and by more than its own noise.
 */
function driftOf(
  scan: Channel,
  pin: Channel,
  { x, y }: { readonly x: Float64Array; readonly y: Float64Array },
  line: Line,
  isLine: boolean,
): Drift | null {
  const quarter = x.length >> 2;
  const seconds = (scan.clock.at(scan.values.length - 1) - scan.clock.at(0)) * 0.75;
  if (quarter < 20 || !(seconds > 30)) return null;
  const left = y.map((v, i) => v - line.offset - (isLine ? line.gain : 1) * (x[i] ?? NaN));
  const moved = quantile(left.slice(-quarter), 0.5) - quantile(left.slice(0, quarter), 0.5);
  const largest = Math.max(Math.abs(quantile(x, 0.02)), Math.abs(quantile(x, 0.98)));
  if (Math.abs(moved) < Math.max(0.5 * TOLERANCE * largest, 2 * scan.step, (6 * line.rms) / Math.sqrt(quarter)))
    return null;
  return {
    kind: 'drift',
    channel: scan.id,
    from_s: scan.clock.at(0),
    to_s: scan.clock.at(scan.values.length - 1),
    severity: 'attention',
    confidence: 0.8,
    perHour: (moved / seconds) * 3600,
    reasons: [
      tr`Against ${pin.name} it wandered by ${say(moved, scan)} ${scan.unit} from the first quarter of the recording to the last: heat, or a contact that goes on getting worse.`,
    ],
  };
}

/** Where the scan tool's value is outside of all that the pin carried about that time. */
function apart(
  scan: Channel,
  pin: Channel,
  times: readonly number[],
  delay: number,
  line: Line,
  isLine: boolean,
  unit: string,
): Apart[] {
  const reach = Math.max(scan.clock.period_s, pin.clock.period_s) * 1.2;
  const largest = Math.max(...[0.02, 0.98].map((q) => Math.abs(quantile(scan.values, q))));
  const allowed = Math.max(TOLERANCE * 2 * largest, 6 * line.rms, 3 * scan.step);
  const gain = isLine ? line.gain : 1;
  const found: Apart[] = [];
  let open: { from: number; to: number; most: number } | null = null;
  const close = (): void => {
    if (open) found.push(apartFinding(scan, pin, open, unit));
    open = null;
  };
  for (const t of times) {
    const value = valueAt(scan, t);
    const around = envelope(pin, t - delay - reach, t - delay + reach);
    if (!around) continue;
    const ends = [line.offset + gain * around[0], line.offset + gain * around[1]];
    const off = Math.max(Math.min(...ends) - value, value - Math.max(...ends));
    if (off > allowed) {
      if (open && t - open.to > 3 * scan.clock.period_s) close();
      open = open ? { from: open.from, to: t, most: Math.max(open.most, off) } : { from: t, to: t, most: off };
    }
  }
  close();
  return found;
}

function apartFinding(
  scan: Channel,
  pin: Channel,
  part: { readonly from: number; readonly to: number; readonly most: number },
  unit: string,
): Apart {
  const { period_s } = scan.clock;
  return {
    kind: 'apart',
    channel: scan.id,
    of: pin.id,
    from_s: part.from,
    to_s: part.to + period_s,
    severity: 'fail',
    confidence: 0.85,
    difference: part.most,
    reasons: [
      tr`For ${span(part.to - part.from + period_s)} it was up to ${say(part.most, scan)} ${unit} away from anything that ${pin.name} carried then.`,
    ],
  };
}

/**
 * Lowest and highest value of a channel in a stretch of time, with the straight lines to its ends; `null`:
 * not all of it was recorded.
 */
function envelope(pin: Channel, from_s: number, to_s: number): readonly [number, number] | null {
  if (from_s < pin.clock.at(0) || to_s > pin.clock.at(pin.values.length - 1)) return null;
  let low = Infinity;
  let high = -Infinity;
  const take = (v: number): void => {
    if (v < low) low = v;
    if (v > high) high = v;
  };
  take(valueAt(pin, from_s));
  take(valueAt(pin, to_s));
  const last = pin.clock.before(to_s);
  for (let i = Math.max(0, pin.clock.before(from_s) + 1); i <= last; i++) take(pin.values[i] ?? NaN);
  return low <= high ? [low, high] : null;
}
