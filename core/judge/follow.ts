import { limitsAt, predict } from '../limits/at';
import type { LimitsInForce } from '../limits/types';
import { entryToBase } from '../quantity/entry';
import { fromBase, type ScaledUnit, spanFromBase, toBase } from '../quantity/units';
import type { EnteredValue, UnitValue } from '../quantity/values';
import { above } from './compare';
import { temperatureOf } from './measure';
import type { ParsedReading, ParsedSet } from './parse';
import { type JudgedReading, type Limits, type Position, type Reason, SEVERITY, type Verdict } from './types';

const add = (r: JudgedReading, verdict: Verdict, reason: Reason): JudgedReading => ({
  ...r,
  verdict,
  severity: SEVERITY[verdict],
  reasons: [reason, ...r.reasons],
});

/**
 * A sweep or a decay: each reading against the one before it in the order of the positions. One that falls
 * back by more than a step of its digits, or jumps by more than allowed, is `unsteady`: the track or the
 * contact behind it is not sound there. A reading that fails its own limits already keeps that verdict.
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
    .filter((r): r is Measurable => isMeasurable(r) && rank.has(r.position))
    .toSorted((a, b) => (rank.get(a.position) ?? 0) - (rank.get(b.position) ?? 0));
  const still = standsStill(row, order, sequence.leastChange);
  // All too low, or all too high, is told by that.
  const isOneFault = row.every((r) => r.severity === 'fail' && r.verdict === row[0]?.verdict);
  if (still && !isOneFault) return readings.map((r) => (isMeasurable(r) ? add(r, 'failed', still) : r));
  const found = new Map<Position, Reason>();
  const direction = sequence.direction === 'either' ? directionOf(row) : sequence.direction;
  // One that falls back is no company for the next: that is held against the one before, over as many steps
  // more.
  let sound = row[0];
  for (const r of row.slice(1)) {
    const steps = (rank.get(r.position) ?? 0) - (rank.get(sound?.position ?? '') ?? 0);
    const reason = sound ? breaks(sound, r, direction, sequence.maxStep, steps) : null;
    if (reason) found.set(r.position, reason);
    if (reason?.rule !== 'falls-back') sound = r;
  }
  return readings.map((r) => {
    const reason = found.get(r.position);
    return reason && r.severity !== 'fail' ? add(r, 'unsteady', reason) : r;
  });
}

type Measurable = JudgedReading & { readonly corrected: UnitValue };
const isMeasurable = (r: JudgedReading): r is Measurable => r.corrected !== null;

/** Of the readings as a whole: from the first to the last. */
const directionOf = (row: readonly Measurable[]): 'rising' | 'falling' =>
  (row.at(-1)?.corrected ?? 0) >= (row[0]?.corrected ?? 0) ? 'rising' : 'falling';

/** All positions are read and hardly differ: what should have moved did not. */
function standsStill(
  row: readonly Measurable[],
  order: readonly Position[],
  leastChange: number | undefined,
): Reason | null {
  if (leastChange === undefined || row.length < 2 || row.length < order.length) return null;
  const values = row.map((r) => r.corrected);
  const moved = Math.max(...values) - Math.min(...values);
  return above(leastChange, moved) ? { rule: 'does-not-move', moved, asked: leastChange } : null;
}

function breaks(
  before: Measurable,
  r: Measurable,
  direction: 'rising' | 'falling',
  maxStep: number | undefined,
  steps: number,
): Reason | null {
  const [was, now] = [before.corrected, r.corrected];
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
 * Repeats at one position that differ by more than it may wander: the contact, not the part. The verdict
 * stays; a pass becomes one to check again. All are compared as they were parsed, in the unit of the limits;
 * with a transfer function as far as each is from what its own stimulus predicts.
 */
export function compareRepeats(
  r: JudgedReading,
  reading: ParsedReading,
  limits: Limits,
  asked: ScaledUnit,
): JudgedReading {
  const { earlier } = reading;
  if (earlier.length === 0) return r;
  const agreed = { ...r, agreed: earlier.length };
  if (r.corrected === null)
    return r.verdict === 'open' && earlier.every((e) => e.entry.kind === 'overload') ? agreed : r;
  const own = limitsAt(limits, r.position);
  const all = [...earlier, reading].map((p) => boundsOf(p, own, asked));
  const allowed = Math.max(own.steadyWithin ?? 0, 2 * Math.max(...all.map((b) => b.step)));
  const spread = Math.max(...all.map((b) => b.reached)) - Math.min(...all.map((b) => b.fellTo));
  if (spread !== Infinity && !above(spread, allowed)) return agreed;
  return add(r, r.severity === 'pass' || r.verdict === 'no-limit' ? 'recheck' : r.verdict, {
    rule: 'repeats-differ',
    entries: [...earlier.map((e) => e.text), reading.text],
  });
}

/** The highest and the lowest value that an entry shows for certain, in the unit of the limits. */
interface Bounds {
  readonly reached: number;
  readonly fellTo: number;
  /** One step of its digits. */
  readonly step: number;
}

/**
 * A number reached itself and no more. A wander reached its high end and fell to its low one. ">20M" reached
 * 20 M and may never have fallen to it.
 */
function boundsOf(
  { entry, at }: Pick<ParsedReading, 'entry' | 'at'>,
  limits: LimitsInForce,
  asked: ScaledUnit,
): Bounds {
  const expected = (at && limits.transfer && predict(limits, at.value)?.expected) ?? 0;
  const inUnit = (value: EnteredValue, unit: ScaledUnit | null): number =>
    fromBase(toBase(value, unit ?? asked), asked) - expected;
  switch (entry.kind) {
    case 'number':
    case 'beyond': {
      const value = inUnit(entry.value, entry.unit);
      const step = spanFromBase(entryToBase(entry, asked).resolution, asked);
      return { reached: value, fellTo: entry.kind === 'beyond' ? Infinity : value, step };
    }
    case 'wander': {
      const step = spanFromBase(entryToBase({ ...entry, value: entry.low }, asked).resolution, asked);
      const reached = entry.high === null ? Infinity : inUnit(entry.high, entry.unit);
      return { reached, fellTo: inUnit(entry.low, entry.unit), step };
    }
    case 'overload':
      return { reached: Infinity, fellTo: Infinity, step: 0 };
    case 'seen':
    case 'nothing':
      return { reached: -Infinity, fellTo: Infinity, step: 0 };
  }
}

/** Parts more than this apart in temperature are not compared without a word. Common practice, no source. */
const SAME_TEMPERATURE_K = 10;

/** Marks readings taken much hotter or colder than most of their set. */
export function flagTemperatures(readings: readonly JudgedReading[], set: ParsedSet): readonly JudgedReading[] {
  const { limits, condition } = set;
  if (limits.quantity !== 'resistance' || limits.transfer || !set.readings.some((r) => r.at)) return readings;
  const warmth = new Map(set.readings.map((r) => [r.position, temperatureOf({ condition, at: r.at, limits })]));
  const known = [...warmth.values()].filter((t) => t !== undefined).toSorted((a, b) => a - b);
  const middle = known[known.length >> 1];
  if (middle === undefined) return readings;
  return readings.map((r) => {
    const own = warmth.get(r.position);
    if (own === undefined || Math.abs(own - middle) <= SAME_TEMPERATURE_K) return r;
    const reason: Reason = { rule: 'other-temperature', temperature_degC: own, others_degC: middle };
    return { ...r, reasons: [...r.reasons, reason] };
  });
}
