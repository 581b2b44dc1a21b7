import { fixed } from '../locale/numbers';
import { tr } from '../locale/translate';
import { quantile } from '../numerics/select';
import { isBattery } from './cranking';
import { thin } from './pulses';
import type { Channel } from './types';
import { span } from './words';

/** What a drive did, as its channels tell. */
export const DRIVE_KINDS = ['key-on', 'cranking', 'running', 'key-off'] as const;
export interface DriveEvent {
  readonly kind: (typeof DRIVE_KINDS)[number];
  readonly from_s: number;
  readonly to_s: number;
  readonly reasons: readonly string[];
}

/** Channels are looked at on this grid. */
const GRID_s = 0.1;
/** Of its usual height: below this a sensor has no supply. Common practice, no source. */
const OFF_SHARE = 0.04;
/** Shorter than this nobody turns a key. Common practice, no source. */
const SHORTEST_OFF_s = 1;
/** Of the sensors that are ever off: so many must be off together. */
const TOGETHER = 2 / 3;
/**
 * Of its nominal voltage a battery has this while the starter turns, at least and at most. Common practice,
 * no source.
 */
const CRANKING = [0.4, 0.92] as const;
/** From here on it is a 24 V system, in volts. */
const TWO_BATTERIES_V = 18;
/** A starter takes at least this share of what the battery had before. Common practice, no source. */
const LEAST_DIP = 0.06;
const [SHORTEST_CRANK_s, LONGEST_CRANK_s] = [0.25, 30];
/** While the alternator charges, a battery has this much more than at rest. Common practice, no source. */
const CHARGING = 1.04;

/**
 * Key on, cranking, running and key off, from the channels themselves and in order of time. The key from
 * sensors that lose their supply together; starter and alternator from a battery, where one was recorded.
 * What the channels cannot tell is left out.
 */
export function driveEvents(channels: readonly Channel[]): DriveEvent[] {
  const recorded = channels.filter((c) => c.values.length > 10);
  if (!recorded.length) return [];
  const start_s = Math.min(...recorded.map((c) => c.clock.at(0)));
  const end_s = Math.max(...recorded.map((c) => c.clock.at(c.values.length - 1)));
  const count = Math.floor((end_s - start_s) / GRID_s) + 1;
  if (count < 5 || count > 5_000_000) return [];
  const grid = { start_s, count };
  const keys = keyEvents(
    recorded.filter((c) => !isBattery(c) && c.role !== 'scan-tool'),
    grid,
  );
  const battery = recorded.find(isBattery);
  const engine = battery ? engineEvents(battery, grid, keys) : [];
  return [...keys, ...engine].sort((a, b) => a.from_s - b.from_s);
}

/**
 * Stretches of time in which the key was off, as the events tell: from the first sample on where it was only
 * turned on.
 */
export function keyOffTimes(
  events: readonly DriveEvent[],
): readonly { readonly from_s: number; readonly to_s: number }[] {
  const keys = events.filter((e) => e.kind === 'key-on' || e.kind === 'key-off');
  const first = keys[0]?.kind === 'key-on' ? [{ from_s: -Infinity, to_s: keys[0].to_s }] : [];
  const rest = keys.flatMap((e, i) =>
    e.kind === 'key-off' ? [{ from_s: e.from_s, to_s: keys[i + 1]?.to_s ?? Infinity }] : [],
  );
  return [...first, ...rest];
}

interface Grid {
  readonly start_s: number;
  readonly count: number;
}

/**
 * The lowest and the median of each step of the grid would cost more: the sample at its moment is enough for
 * what lasts a second.
 */
function onSteps({ clock, values }: Channel, { start_s, count }: Grid): Float64Array {
  return Float64Array.from({ length: count }, (_, k) => {
    const i = clock.before(start_s + k * GRID_s);
    const some = [i - 1, i, i + 1].map((j) => values[j] ?? NaN).filter((v) => Number.isFinite(v));
    return i < 0 || !some.length ? NaN : quantile(some, 0.5);
  });
}

/** Stretches of steps where a condition holds, first and last step. */
function stretchesWhere(count: number, holds: (k: number) => boolean): (readonly [number, number])[] {
  const out: (readonly [number, number])[] = [];
  let from = -1;
  for (let k = 0; k <= count; k++) {
    const now = k < count && holds(k);
    if (now && from < 0) from = k;
    if (!now && from >= 0) {
      out.push([from, k - 1]);
      from = -1;
    }
  }
  return out;
}

function keyEvents(sensors: readonly Channel[], grid: Grid): DriveEvent[] {
  const least = SHORTEST_OFF_s / GRID_s;
  const offs = sensors.flatMap((c) => {
    const usual = quantile(thin(c.values), 0.9);
    const steps = onSteps(c, grid);
    const off = Uint8Array.from(steps, (v) => (Math.abs(v) < OFF_SHARE * Math.abs(usual) ? 1 : 0));
    return stretchesWhere(off.length, (k) => off[k] === 1).some(([a, b]) => b - a >= least) ? [off] : [];
  });
  // One channel at nothing may as well be broken.
  if (offs.length < 2) return [];
  const isOff = (k: number): boolean => offs.reduce((n, off) => n + (off[k] ?? 0), 0) >= TOGETHER * offs.length;
  const at = (k: number): number => grid.start_s + k * GRID_s;
  const many = tr`${offs.length} channels`;
  return stretchesWhere(grid.count, isOff)
    .filter(([a, b]) => b - a >= least)
    .flatMap(([a, b]) => [
      ...(a > 0
        ? [
            event(
              'key-off',
              at(a - 1),
              at(a),
              tr`${many} fell to nothing and stayed there for ${span((b - a) * GRID_s)}.`,
            ),
          ]
        : []),
      ...(b < grid.count - 1 ? [event('key-on', at(b), at(b + 1), tr`${many} came up from nothing.`)] : []),
    ]);
}

function engineEvents(battery: Channel, grid: Grid, keys: readonly DriveEvent[]): DriveEvent[] {
  const steps = onSteps(battery, grid);
  const nominal_V = quantile(thin(battery.values), 0.5) > TWO_BATTERIES_V ? 24 : 12;
  const at = (k: number): number => grid.start_s + k * GRID_s;
  const low = stretchesWhere(
    grid.count,
    (k) => (steps[k] ?? NaN) > CRANKING[0] * nominal_V && (steps[k] ?? NaN) < CRANKING[1] * nominal_V,
  );
  const cranks = joined(low).filter(([a, b]) => {
    const long_s = (b - a + 1) * GRID_s;
    return long_s >= SHORTEST_CRANK_s && long_s <= LONGEST_CRANK_s;
  });
  return cranks.flatMap(([a, b], i) => {
    const next = cranks[i + 1]?.[0] ?? grid.count;
    const before = quantile(steps.slice(Math.max(0, a - 50), Math.max(1, a - 2)).filter(Number.isFinite), 0.5);
    const dip = quantile(steps.slice(a, b + 1).filter(Number.isFinite), 0.5);
    if (before - dip < LEAST_DIP * before) return [];
    const crank = event(
      'cranking',
      at(a),
      at(b + 1),
      tr`The battery fell from ${fixed(before, 1)} to ${fixed(dip, 1)} ${battery.unit} for ${span((b - a + 1) * GRID_s)}.`,
    );
    const off = keys.find((e) => e.kind === 'key-off' && e.from_s > at(b))?.from_s ?? Infinity;
    const end = Math.min(next, Math.floor((off - grid.start_s) / GRID_s), grid.count - 1);
    const after = quantile(steps.slice(b + 5, end).filter(Number.isFinite), 0.5);
    return after > CHARGING * before
      ? [crank, event('running', at(b + 1), at(end), tr`The battery is charged: ${fixed(after, 1)} ${battery.unit}.`)]
      : [crank];
  });
}

/**
 * Dips that are less than half a second apart are one: the voltage swings from compression to compression.
 */
function joined(parts: readonly (readonly [number, number])[]): (readonly [number, number])[] {
  const out: [number, number][] = [];
  for (const [a, b] of parts) {
    const last = out.at(-1);
    if (last && a - last[1] < 0.5 / GRID_s) last[1] = b;
    else out.push([a, b]);
  }
  return out;
}

const event = (kind: DriveEvent['kind'], from_s: number, to_s: number, reason: string): DriveEvent => ({
  kind,
  from_s,
  to_s,
  reasons: [reason],
});
