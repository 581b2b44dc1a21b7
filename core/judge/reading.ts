import { PLAUSIBLE, probabilityWithin } from '../metrology/conformity';
import { limitsAt, predict } from '../limits/at';
import type { At } from '../limits/entry';
import type { LimitsInForce } from '../limits/types';
import { finestRangeFor, rangeFor } from '../metrology/instrument';
import { type Entry, entryToBase } from '../quantity/entry';
import { fromBase, spanFromBase } from '../quantity/units';
import { baseValue, enteredValue, type EnteredValue, type BaseValue, type UnitValue } from '../quantity/values';
import { above, below, same } from './compare';
import { type Context, type CorrectedValue, measure } from './measure';
import type { ParsedReading } from './parse';
import { type JudgedReading, type Limits, type Reason, type Remedy, SEVERITY, type Verdict } from './types';

/** A verdict with what led to it. */
interface Ruling {
  readonly verdict: Verdict;
  readonly reasons: readonly Reason[];
}

/** What all readings of a set are judged in. */
export type SetContext = Omit<Context, 'at' | 'slope' | 'ofPosition' | 'instrument' | 'limits'> & {
  readonly limits: Limits;
};

/**
 * Judges one parsed reading against its limits, alone. Neighbours come later, in the set, and never overrule
 * this. Order of trust: overload and steadiness (is there a value at all), short and open, limits, margins.
 */
export function judgeReading(reading: ParsedReading, set: SetContext): JudgedReading {
  const { entry, at, instrument } = reading;
  const limits = limitsAt(set.limits, reading.position);
  // Written out: spreading the set's context cost a fifth of all judging.
  const context: Context = {
    condition: set.condition,
    limitUnit: set.limitUnit,
    decision: set.decision,
    part: set.part,
    instrument,
    at,
    slope: 0,
    limits,
    ofPosition: limits !== set.limits,
  };
  return limits.transfer && at ? judgePredicted(reading, entry, context, at) : judgeEntry(reading, entry, context);
}

function judgeEntry(reading: ParsedReading, entry: Entry, context: Context): JudgedReading {
  switch (entry.kind) {
    case 'nothing':
      return result(reading, context, { verdict: 'not-measured', reasons: [{ rule: 'not-measured' }] });
    case 'seen':
      return result(reading, context, {
        verdict: entry.good ? 'within' : 'failed',
        reasons: [{ rule: 'seen', good: entry.good, note: entry.note }],
      });
    case 'overload':
      return result(reading, context, judgeOverload(context.limits));
    case 'beyond':
      return judgeBeyond(reading, entry, context);
    case 'wander':
      return judgeWander(reading, entry, context);
    case 'number':
      return judgeNumber(reading, entry, STEADY, context);
  }
}

/** Against what the transfer function predicts for what the gauge showed. */
function judgePredicted(reading: ParsedReading, entry: Entry, context: Context, at: At): JudgedReading {
  const predicted = predict(context.limits, at.value);
  const where = { at: at.value, atUnit: at.stimulus.unit };
  if (!predicted)
    return result(reading, context, { verdict: 'undecided', reasons: [{ rule: 'nothing-predicted', ...where }] });
  const { limits, expected, slope } = predicted;
  const judged = judgeEntry(reading, entry, { ...context, limits, slope });
  const reason: Reason = {
    rule: 'predicted',
    expected,
    ...where,
    lower: limits.lower,
    upper: limits.upper,
  };
  return {
    ...judged,
    limits: { lower: limits.lower, upper: limits.upper },
    reasons: [...judged.reasons, reason],
  };
}

interface Extra {
  readonly value?: EnteredValue | null;
  readonly unit?: string | null;
  readonly measured?: CorrectedValue | null;
  readonly probability?: number | null;
  readonly wander?: JudgedReading['wander'];
}

function result(reading: ParsedReading, context: Context, ruling: Ruling, extra: Extra = {}): JudgedReading {
  const { measured = null } = extra;
  return {
    position: reading.position,
    entry: reading.text,
    value: extra.value ?? null,
    unit: extra.unit ?? context.limits.unit,
    corrected: measured?.corrected ?? null,
    standardUncertainty: measured?.standardUncertainty ?? null,
    probabilityWithin: extra.probability ?? null,
    verdict: ruling.verdict,
    severity: SEVERITY[ruling.verdict],
    reasons: ruling.reasons,
    resolution: measured?.resolution ?? null,
    wander: extra.wander ?? null,
    limits: context.ofPosition ? { lower: context.limits.lower ?? null, upper: context.limits.upper ?? null } : null,
  };
}

/** An overload is an open circuit, unless the limits ask only for "at least", as insulation does. */
function judgeOverload(limits: LimitsInForce): Ruling {
  // Timed by hand: it never came.
  if (limits.quantity === 'time') return { verdict: 'high', reasons: [{ rule: 'never' }] };
  if (limits.quantity !== 'resistance') return { verdict: 'recheck', reasons: [{ rule: 'overload-wrong-range' }] };
  if (limits.upper === undefined && limits.openAbove === undefined && limits.lower !== undefined) {
    return { verdict: 'within', reasons: [{ rule: 'overload-above-lower', limit: limits.lower }] };
  }
  return { verdict: 'open', reasons: [{ rule: 'overload', meansAbove: limits.openAbove ?? null }] };
}

function judgeBeyond(
  reading: ParsedReading,
  entry: Extract<Entry, { kind: 'beyond' }>,
  context: Context,
): JudgedReading {
  const { limits } = context;
  const { value, resolution } = entryToBase(entry, context.limitUnit);
  const measured = measure(value, resolution, STEADY, context);
  const least = measured.corrected;
  const { lower, upper, openAbove } = limits;
  const reaches = (limit: UnitValue): boolean => !below(least, limit);
  const beyond: Reason = { rule: 'beyond-range', moreThan: least };
  const rule = (): Ruling => {
    if (openAbove !== undefined && reaches(openAbove))
      return { verdict: 'open', reasons: [{ rule: 'above-open', value: least, limit: openAbove }] };
    if (upper !== undefined && reaches(upper)) return { verdict: 'high', reasons: [aboveUpper(least, upper, limits)] };
    if (upper === undefined && (lower === undefined || reaches(lower)))
      return { verdict: hasCriterion(limits) ? 'within' : 'no-limit', reasons: [insideReason(least, limits)] };
    return { verdict: 'undecided', reasons: [cannotTell(measured, upper ?? lower ?? least, null, 'better-meter')] };
  };
  const ruling = rule();
  return result(
    reading,
    context,
    { ...ruling, reasons: [beyond, ...ruling.reasons, ...measured.reasons] },
    {
      value: entry.value,
      unit: entry.unit?.unit.symbol ?? null,
      measured,
    },
  );
}

function judgeWander(
  reading: ParsedReading,
  entry: Extract<Entry, { kind: 'wander' }>,
  context: Context,
): JudgedReading {
  const low = entryToBase({ ...entry, value: entry.low }, context.limitUnit);
  const breaks = entry.high === null;
  const high = entry.high === null ? low : entryToBase({ ...entry, value: entry.high }, context.limitUnit);
  const middle = enteredValue(entry.high === null ? entry.low : (entry.low + entry.high) / 2);
  const halfSpan = baseValue((high.value - low.value) / 2);
  const span = spanFromBase(baseValue(high.value - low.value), context.limitUnit);
  const step = spanFromBase(low.resolution, context.limitUnit);
  const allowed = context.limits.steadyWithin ?? step;
  if (!breaks && !above(span, allowed)) {
    const judged = judgeNumber(reading, { ...entry, kind: 'number', value: middle }, halfSpan, context);
    return { ...judged, reasons: [...judged.reasons, { rule: 'steady', span, allowed }] };
  }
  const measured = measure(baseValue(low.value + halfSpan), low.resolution, halfSpan, context);
  const wander = {
    low: measure(low.value, low.resolution, STEADY, context).corrected,
    high: breaks ? null : measure(high.value, low.resolution, STEADY, context).corrected,
  };
  const wanders: Reason = {
    rule: 'wanders',
    low: fromBase(low.value, context.limitUnit),
    high: breaks ? null : fromBase(high.value, context.limitUnit),
    span: breaks ? null : span,
    allowed,
  };
  return result(
    reading,
    context,
    { verdict: 'unsteady', reasons: [wanders, ...measured.reasons] },
    {
      value: breaks ? null : middle,
      unit: entry.unit?.unit.symbol ?? null,
      measured: breaks ? null : measured,
      wander,
    },
  );
}

function judgeNumber(
  reading: ParsedReading,
  entry: Extract<Entry, { kind: 'number' }>,
  halfWander: BaseValue,
  context: Context,
): JudgedReading {
  const { limits } = context;
  const base = entryToBase(entry, context.limitUnit);
  // A bare "0" is said, not read off: it carries no digits that could be coarse.
  const resolution = /^[+-]?0+$/.test(reading.text.trim()) ? STEADY : base.resolution;
  const measured = measure(base.value, resolution, halfWander, context);
  const hasLimit = limits.lower !== undefined || limits.upper !== undefined;
  const probability =
    hasLimit && measured.leadsDoubt === 0
      ? probabilityWithin(measured.corrected, measured.standardUncertainty, limits.lower ?? null, limits.upper ?? null)
      : null;
  const plain = place(measured.corrected, measured.resolution * BELOW_THE_DIGITS, limits);
  const ruling = doubt(plain, measured, probability, context, base.value) ?? plain;
  const leads: Reason[] =
    measured.leadsDoubt > 0 ? [{ rule: 'leads-not-zeroed', mostLeads_ohm: measured.leadsDoubt }] : [];
  return result(
    reading,
    context,
    { ...ruling, reasons: [...ruling.reasons, ...leads, ...measured.reasons] },
    {
      value: entry.value,
      unit: entry.unit?.unit.symbol ?? null,
      measured,
      probability,
    },
  );
}

/** Half the span of a display that stands still, and one step of digits that do not count. */
const STEADY = baseValue(0);

/**
 * A correction far below the last typed digit cannot move a reading across a limit: 60 k on a limit of 60 k
 * stays on it when the leads' 0.2 ohm is subtracted. As a fraction of one step of the digits.
 */
const BELOW_THE_DIGITS = 0.01;

/** Where a value stands against its limits, taken as exact. `slack` is a difference that counts as none. */
function place(value: UnitValue, slack: number, limits: LimitsInForce): Ruling {
  const { lower, upper, shortBelow, openAbove, watchLower, watchUpper, recheckMargin = 0 } = limits;
  const isAbove = (limit: UnitValue | undefined): limit is UnitValue =>
    limit !== undefined && above(value, limit, slack);
  const isBelow = (limit: UnitValue | undefined): limit is UnitValue =>
    limit !== undefined && below(value, limit, slack);
  if (isBelow(shortBelow)) return { verdict: 'short', reasons: [{ rule: 'below-short', value, limit: shortBelow }] };
  if (isAbove(openAbove)) return { verdict: 'open', reasons: [{ rule: 'above-open', value, limit: openAbove }] };
  if (isAbove(upper))
    return (
      recheck(value, upper, recheckMargin, slack) ?? { verdict: 'high', reasons: [aboveUpper(value, upper, limits)] }
    );
  if (isBelow(lower))
    return (
      recheck(value, lower, recheckMargin, slack) ?? { verdict: 'low', reasons: [belowLower(value, lower, limits)] }
    );
  const inside = insideReason(value, limits);
  if (isAbove(watchUpper))
    return { verdict: 'watch', reasons: [{ rule: 'not-liked-above', value, limit: watchUpper }, inside] };
  if (isBelow(watchLower))
    return { verdict: 'watch', reasons: [{ rule: 'not-liked-below', value, limit: watchLower }, inside] };
  return { verdict: hasCriterion(limits) ? 'within' : 'no-limit', reasons: [inside] };
}

/** Anything that a reading could fail by itself, or beside the one before it. */
const hasCriterion = ({
  lower,
  upper,
  shortBelow,
  openAbove,
  watchLower,
  watchUpper,
  sequence,
}: LimitsInForce): boolean =>
  [lower, upper, shortBelow, openAbove, watchLower, watchUpper].some((x) => x !== undefined) || sequence !== undefined;

/** Order-of-magnitude limits: a little beyond means that the measuring chain is looked at before the part. */
function recheck(value: UnitValue, limit: UnitValue, margin: number, slack: number): Ruling | null {
  const beyond = Math.abs(value - limit);
  if (margin <= 0 || above(beyond, margin * Math.abs(limit), slack)) return null;
  const reason: Reason = {
    rule: 'recheck-margin',
    value,
    limit,
    beyondPercent: (100 * beyond) / Math.abs(limit),
    marginPercent: 100 * margin,
  };
  return { verdict: 'recheck', reasons: [reason] };
}

/**
 * The ruling that replaces the plain one where both sides of a limit are plausible; `null` where it stands.
 */
function doubt(
  plain: Ruling,
  m: CorrectedValue,
  probability: number | null,
  context: Context,
  base: BaseValue,
): Ruling | null {
  const { limits } = context;
  if (
    !['within', 'watch', 'high', 'low'].includes(plain.verdict) ||
    (limits.recheckMargin ?? 0) > 0 ||
    context.decision === 'simple'
  )
    return null;
  const { lower, upper } = limits;
  const nearest = nearestLimit(m.corrected, lower, upper);
  if (nearest === null) return null;
  if (context.decision === 'guarded') return guard(plain, m, probability, limits);
  const undecided = (limit: UnitValue, remedy: Remedy): Ruling => ({
    verdict: 'undecided',
    reasons: [cannotTell(m, limit, probability, remedy)],
  });
  // Leads can only add: a reading inside stays inside, one above may be all leads.
  if (
    m.leadsDoubt > 0 &&
    plain.verdict === 'high' &&
    upper !== undefined &&
    !above(m.corrected - m.leadsDoubt, upper)
  ) {
    return undecided(upper, 'zero-leads');
  }
  if (m.accuracyKnown) {
    const p = probability ?? probabilityWithin(m.corrected, m.standardUncertainty, lower ?? null, upper ?? null);
    if (p <= PLAUSIBLE || p >= 1 - PLAUSIBLE) return null;
    return undecided(nearest, m.coarseDigits ? 'more-digits' : finer(base, context));
  }
  // Only the digits are known. On the limit itself the limit is inclusive.
  const gap = Math.abs(m.corrected - nearest);
  return below(gap, m.digitsHalfWidth) && !same(m.corrected, nearest, m.resolution * BELOW_THE_DIGITS)
    ? undecided(nearest, 'more-digits')
    : null;
}

/** Guarded acceptance: what is not proven to conform is not accepted. */
function guard(plain: Ruling, m: CorrectedValue, probability: number | null, limits: LimitsInForce): Ruling | null {
  const p =
    probability ?? probabilityWithin(m.corrected, m.standardUncertainty, limits.lower ?? null, limits.upper ?? null);
  if (plain.verdict === 'high' || plain.verdict === 'low' || !(p < 1 - PLAUSIBLE)) return null;
  const near = nearestLimit(m.corrected, limits.lower, limits.upper);
  const reason: Reason = { rule: 'not-proven', probabilityWithin: p, asked: 1 - PLAUSIBLE };
  return { verdict: near === limits.upper ? 'high' : 'low', reasons: [reason, ...plain.reasons] };
}

/**
 * Below this, two leads and their contacts weigh as much as the part: four wires, or its current, tell more.
 * Common practice, no source.
 */
const FEW_OHM = 2;

/** What else would decide, when the meter's accuracy does not. */
function finer(base: BaseValue, { limits, instrument, part }: Context): Remedy {
  const finest = instrument && finestRangeFor(instrument, limits.quantity, base);
  const used = instrument && rangeFor(instrument, limits.quantity, base);
  if (finest && used && finest.resolution < used.resolution) return 'finer-range';
  if (limits.quantity !== 'resistance' || base > FEW_OHM) return 'better-meter';
  return part === 'plug' ? 'current-instead' : 'four-wire';
}

function nearestLimit(value: UnitValue, lower: UnitValue | undefined, upper: UnitValue | undefined): UnitValue | null {
  if (lower === undefined) return upper ?? null;
  if (upper === undefined) return lower;
  return Math.abs(value - lower) < Math.abs(value - upper) ? lower : upper;
}

const cannotTell = (m: CorrectedValue, limit: UnitValue, probability: number | null, remedy: Remedy): Reason => ({
  rule: 'cannot-tell',
  value: m.corrected,
  limit,
  expandedUncertainty: 2 * m.standardUncertainty,
  probabilityWithin: probability,
  remedy,
});

const aboveUpper = (value: UnitValue, upper: UnitValue, { source }: LimitsInForce): Reason => ({
  rule: 'above-upper',
  value,
  limit: upper,
  margin: value - upper,
  source: source ?? null,
});

const belowLower = (value: UnitValue, lower: UnitValue, { source }: LimitsInForce): Reason => ({
  rule: 'below-lower',
  value,
  limit: lower,
  margin: lower - value,
  source: source ?? null,
});

const insideReason = (value: UnitValue, { lower, upper, source }: LimitsInForce): Reason =>
  lower === undefined && upper === undefined
    ? { rule: 'no-limits' }
    : { rule: 'within-limits', value, lower: lower ?? null, upper: upper ?? null, source: source ?? null };
