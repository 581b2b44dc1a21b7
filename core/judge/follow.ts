import { readEntry } from '../limits/entry';
import { limitsAt } from '../limits/at';
import { above } from './compare';
import { temperatureOf } from './measure';
import {
  type JudgedReading,
  type Limits,
  type Position,
  type ReadingIn,
  type Reason,
  SEVERITY,
  type TestSet,
  type Verdict,
} from './types';

const add = (r: JudgedReading, verdict: Verdict, reason: Reason): JudgedReading => ({
  ...r,
  verdict,
  severity: SEVERITY[verdict],
  reasons: [reason, ...r.reasons],
});

/**
 * A sweep or a decay: each reading against the one before it in the order of the positions. One that falls back by more than
 * a step of its digits, or jumps by more than allowed, is `unsteady`: the track or the contact behind it is not sound there. A
 * reading that fails its own limits already keeps that verdict.
 */
export function followSequence(
  readings: readonly JudgedReading[],
  order: readonly Position[],
  limits: Limits,
): readonly JudgedReading[] {
  const { sequence } = limits;
  if (!sequence) return readings;
  const rank = new Map(order.map((p, i) => [p, i]));
  const row = readings
    .filter((r) => r.corrected !== null && rank.has(r.position))
    .toSorted((a, b) => (rank.get(a.position) ?? 0) - (rank.get(b.position) ?? 0));
  const found = new Map<Position, Reason>();
  // One that falls back is no company for the next: that is held against the one before, over as many steps more.
  let sound = row[0];
  for (const r of row.slice(1)) {
    const steps = (rank.get(r.position) ?? 0) - (rank.get(sound?.position ?? '') ?? 0);
    const reason = sound ? breaks(sound, r, sequence, steps) : null;
    if (reason) found.set(r.position, reason);
    if (reason?.rule !== 'falls-back') sound = r;
  }
  return readings.map((r) => {
    const reason = found.get(r.position);
    return reason && r.severity !== 'fail' ? add(r, 'unsteady', reason) : r;
  });
}

function breaks(
  before: JudgedReading,
  r: JudgedReading,
  { direction, maxStep }: NonNullable<Limits['sequence']>,
  steps: number,
): Reason | null {
  const [was, now] = [before.corrected as number, r.corrected as number];
  const back = direction === 'rising' ? was - now : now - was;
  if (above(back, Math.max(before.resolution ?? 0, r.resolution ?? 0))) {
    return { rule: 'falls-back', value: now, before: was, after: before.position, direction };
  }
  const allowed = maxStep === undefined ? Infinity : maxStep * Math.max(1, steps);
  return above(Math.abs(now - was), allowed)
    ? { rule: 'jumps', value: now, before: was, after: before.position, allowed }
    : null;
}

/**
 * Repeats at one position that differ by more than it may wander: the contact, not the part. The verdict stays; a
 * pass becomes one to check again.
 */
export function compareRepeats(r: JudgedReading, reading: ReadingIn, limits: Limits): JudgedReading {
  const { earlier = [] } = reading;
  if (earlier.length === 0 || r.corrected === null) return r;
  const own = limitsAt(limits, r.position);
  const values = [...earlier, reading.entry].map((entry) => plainValue(entry, limits));
  const numbers = values.filter((v) => v !== null);
  const opened = values.length !== numbers.length;
  const allowed = Math.max(own.steadyWithin ?? 0, 2 * (r.resolution ?? 0));
  const spread = Math.max(...numbers) - Math.min(...numbers);
  if (!opened && !above(spread, allowed)) return r;
  return add(r, r.severity === 'pass' ? 'recheck' : r.verdict, {
    rule: 'repeats-differ',
    entries: [...earlier, reading.entry],
  });
}

/** An entry's number in its base unit; `null` for an overload. */
function plainValue(entry: string, limits: Limits): number | null {
  const read = readEntry(entry, limits);
  if (!read.ok || read.value.entry.kind !== 'number') return null;
  const { value, unit } = read.value.entry;
  return unit ? value * unit.scale * unit.unit.factor : value;
}

/** Parts more than this apart in temperature are not compared without a word. Common practice, no source. */
const SAME_TEMPERATURE_K = 10;

/** Marks readings taken much hotter or colder than most of their set. */
export function flagTemperatures(readings: readonly JudgedReading[], set: TestSet): readonly JudgedReading[] {
  if (set.limits.quantity !== 'resistance' || set.limits.transfer || !set.readings.some((r) => r.entry.includes('@')))
    return readings;
  const warmth = new Map(
    set.readings.map((r) => {
      const read = readEntry(r.entry, set.limits);
      return [
        r.position,
        temperatureOf({ condition: set.condition, at: read.ok ? read.value.at : null, limits: set.limits }),
      ];
    }),
  );
  const known = [...warmth.values()].filter((t) => t !== undefined).toSorted((a, b) => a - b);
  const middle = known[known.length >> 1];
  if (middle === undefined) return readings;
  return readings.map((r) => {
    const own = warmth.get(r.position);
    return own === undefined || Math.abs(own - middle) <= SAME_TEMPERATURE_K
      ? r
      : {
          ...r,
          reasons: [...r.reasons, { rule: 'other-temperature' as const, temperature_degC: own, others_degC: middle }],
        };
  });
}
