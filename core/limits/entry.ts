import { tr } from '../locale/translate';
import { type Entry, entryToBase, parseEntry } from '../quantity/entry';
import { fromBase, requireUnit, spanFromBase } from '../quantity/units';
import { baseValue, enteredValue, unitValue, type UnitValue } from '../quantity/values';
import { fail, ok, type Result } from '../foundation/result';
import { beyondBounds } from './bounds';
import { type Stimulus, stimulusOf } from './transfer';
import type { Limits } from './types';

/**
 * What stands behind the at sign, in the unit of the stimulus: what acted on the sensor, or how warm the part
 * was.
 */
export interface At {
  readonly stimulus: Stimulus;
  readonly value: UnitValue;
  /** One step of the typed digits. */
  readonly resolution: UnitValue;
}

export interface ReadEntry {
  /** Of a pair: the difference, own less other. */
  readonly entry: Entry;
  readonly at: At | null;
  /** Of a pair: both, as they were read. */
  readonly pair?: readonly [own: Entry, other: Entry];
}

const TEMPERATURE: Stimulus = { quantity: 'temperature', unit: 'degC' };

/**
 * Reads an entry for a test: the grammar of `parseEntry`, and behind an at sign what belongs to this reading
 * alone, `2.35 @ 150 kPa` for a transfer function, `0.9 @ 60 °C` for a part of another temperature. With a
 * clamp a current may be typed as the voltage that the meter shows: `85 mV`. The failure is a sentence.
 */
export function readEntry(text: string, limits: Limits, clamp_mVperA: number | null = null): Result<ReadEntry, string> {
  const known = READ.get(limits) ?? new Map<string, Result<ReadEntry, string>>();
  const key = `${clamp_mVperA ?? ''}|${text}`;
  const before = known.get(key);
  if (before) return before;
  const read = within(readAnyEntry(text, limits, clamp_mVperA), limits);
  if (known.size >= MOST_KEPT) known.clear();
  // A refusal is a sentence, in the words of whoever reads now.
  if (read.ok) READ.set(limits, known.set(key, read));
  return read;
}

/**
 * What was read under the same limits is not parsed again: bench, slip question and judge ask for the same
 * entry.
 */
const READ = new WeakMap<Limits, Map<string, Result<ReadEntry, string>>>();
const MOST_KEPT = 500;

/** Refuses what no meter shows. */
function within(read: Result<ReadEntry, string>, limits: Limits): Result<ReadEntry, string> {
  const asked = requireUnit(limits.unit, limits.quantity);
  if (!read.ok || !asked.ok) return read;
  for (const entry of read.value.pair ?? [read.value.entry]) {
    const beyond = beyondBounds(entry, limits.quantity, asked.value);
    if (beyond !== null) return fail(beyond);
  }
  return read;
}

/** The same without bounds: of what was written down before, a slip is to be weighed and not refused. */
export function readAnyEntry(
  text: string,
  limits: Limits,
  clamp_mVperA: number | null = null,
): Result<ReadEntry, string> {
  const cut = text.indexOf('@');
  const entry = parseValue(cut < 0 ? text : text.slice(0, cut), limits, clamp_mVperA);
  if (!entry.ok) return entry;
  if (limits.pair !== undefined) return readPair(text, cut, entry.value, limits, limits.pair);
  const { transfer } = limits;
  if (cut < 0) {
    const { kind } = entry.value;
    if (!transfer || kind === 'nothing' || kind === 'overload') return ok({ entry: entry.value, at: null });
    const { quantity, unit } = stimulusOf(transfer);
    return fail(tr`This test compares with a ${quantity}: type it behind @, such as ${text.trim()} @ 100 ${unit}.`);
  }
  if (!transfer && !limits.stimulus && limits.quantity !== 'resistance')
    return fail('Only what is compared with a gauge, or a resistance at a temperature, has something behind @.');
  const at = readAt(text.slice(cut + 1), transfer ? stimulusOf(transfer) : (limits.stimulus ?? TEMPERATURE));
  return at.ok ? ok({ entry: entry.value, at: at.value }) : at;
}

/** Two instruments on the same thing: nobody subtracts in the head. */
function readPair(text: string, cut: number, own: Entry, limits: Limits, other: string): Result<ReadEntry, string> {
  if (own.kind === 'nothing' || (cut < 0 && own.kind === 'overload')) return ok({ entry: own, at: null });
  if (cut < 0)
    return fail(tr`Type both: what was read, an at sign, and what the ${other} shows, such as ${text.trim()} @ 2.31.`);
  const read = parseValue(text.slice(cut + 1), limits, null);
  if (!read.ok) return read;
  const asked = requireUnit(limits.unit, limits.quantity);
  if (!asked.ok) return asked;
  if (own.kind !== 'number' || read.value.kind !== 'number')
    return fail(tr`Both are plain numbers, such as 2.31 @ 2.29: what was read, and what the ${other} shows.`);
  const [a, b] = [entryToBase(own, asked.value), entryToBase(read.value, asked.value)];
  const entry: Entry = {
    ...own,
    unit: asked.value,
    value: enteredValue(fromBase(baseValue(a.value - b.value), asked.value)),
    resolution: enteredValue(spanFromBase(baseValue(Math.hypot(a.resolution, b.resolution)), asked.value)),
  };
  return ok({ entry, at: null, pair: [own, read.value] });
}

function readAt(text: string, stimulus: Stimulus): Result<At, string> {
  const asked = requireUnit(stimulus.unit, stimulus.quantity);
  if (!asked.ok) return asked;
  const [, first = text, second] = TWO_GAUGES.exec(text) ?? [];
  if (second !== undefined) return lessSecond(readAt(first, stimulus), readAt(second, stimulus));
  const typed = parseEntry(text, stimulus.quantity);
  if (!typed.ok) return typed;
  if (typed.value.kind !== 'number')
    return fail(tr`Behind @ stands a ${stimulus.quantity}, such as 100 ${stimulus.unit}.`);
  // Without a unit the digits are in the unit of the stimulus.
  const { value, resolution } = typed.value;
  if (!typed.value.unit) return ok({ stimulus, value: unitValue(value), resolution: unitValue(resolution) });
  const base = entryToBase(typed.value, asked.value);
  return ok({
    stimulus,
    value: fromBase(base.value, asked.value),
    resolution: spanFromBase(base.resolution, asked.value),
  });
}

/** A sensor with two ports sees the difference: "180 kPa - 1.2 bar". */
const TWO_GAUGES = /^(.*\d\D*?)\s+[-−–]\s+(.+)$/;

function lessSecond(a: Result<At, string>, b: Result<At, string>): Result<At, string> {
  if (!a.ok) return a;
  if (!b.ok) return b;
  return ok({
    ...a.value,
    value: unitValue(a.value.value - b.value.value),
    resolution: unitValue(Math.hypot(a.value.resolution, b.value.resolution)),
  });
}

/** A clamp's volts are amperes by its ratio. */
function parseValue(text: string, limits: Limits, clamp_mVperA: number | null): Result<Entry, string> {
  if (limits.quantity === 'current' && /[mµu]?v\s*$/i.test(text.trim())) {
    if (clamp_mVperA === null) return fail('The reading is in volts: choose the clamp and its ratio, or type amperes.');
    const volts = parseEntry(text, 'voltage');
    if (!volts.ok) return volts;
    const { value } = volts;
    if (value.kind !== 'number') return fail('A clamp reading in volts is a plain number, such as 85 mV.');
    const perVolt = 1000 / clamp_mVperA;
    return ok({
      ...value,
      value: enteredValue(value.value * perVolt),
      resolution: enteredValue(value.resolution * perVolt),
      unit: ampere(),
    });
  }
  return parseEntry(text, limits.quantity);
}

function ampere() {
  const found = requireUnit('A', 'current');
  if (!found.ok) throw new Error('no ampere');
  return found.value;
}
