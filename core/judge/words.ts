import { entryShown, fixed, significant } from '../locale/numbers';
import { tr, word } from '../locale/translate';
import { joinAnd, printLimit, printPlusMinus, printQuantity } from '../quantity/print';
import { inReaderUnit, readerUnit } from '../quantity/reader-unit';
import { findUnit } from '../quantity/units';
import type { JudgedReading, Limits, Position, Reason, Remedy, Verdict } from './types';

/** The one place where reasons become sentences. Screen, report and command line all print these. */

export const VERDICT_WORDS: Readonly<Record<Verdict, string>> = {
  within: 'in',
  watch: 'in, not liked',
  recheck: 'check again',
  high: 'too high',
  low: 'too low',
  open: 'open',
  short: 'short',
  unsteady: 'unsteady',
  odd: 'odd one out',
  undecided: 'cannot tell',
  'not-measured': 'not measured',
  failed: 'failed',
  'no-limit': 'no limit',
};

/** The word of a verdict: what has no number is not "in" but passed. */
/** Quantities of which a verdict is said in another way. */
const OWN_WORDS: Readonly<Partial<Record<Limits['quantity'], Partial<Record<Verdict, string>>>>> = {
  observation: { within: 'passed' },
  time: { high: 'too slow', low: 'too fast' },
};

export const verdictWord = (verdict: Verdict, limits: Pick<Limits, 'quantity'>): string =>
  word(OWN_WORDS[limits.quantity]?.[verdict] ?? VERDICT_WORDS[verdict]);

export const positionWords = (position: Position): string =>
  typeof position === 'number' ? tr`cylinder ${position}` : word(position);

/**
 * Values of the unit itself may be prefixed when printed; those of a unit that has a prefix already may not.
 */
function printer(limits: Limits) {
  const other = readerUnit(limits.unit);
  if (other.isOther) {
    const number = (n: number, step: number | null): string => inReaderUnit(n, step ?? 0, other);
    return {
      value: (n: number, step: number | null): string => `${number(n, step)} ${other.symbol}`,
      limit: (n: number): string => `${number(n, 0)} ${other.symbol}`,
      range: (low: number, high: number): string => tr`${number(low, 0)} to ${number(high, 0)} ${other.symbol}`,
    };
  }
  const unit = other.symbol;
  const free = findUnit(limits.unit)?.scale === 1 && limits.quantity !== 'ratio' && limits.quantity !== 'temperature';
  const plain = (n: number): string => `${significant(n, 6)} ${unit}`;
  const limit = (n: number): string => (free ? printLimit(n, unit) : plain(n));
  return {
    value: (n: number, step: number | null): string => (free ? printQuantity(n, step ?? 0, unit) : plain(n)),
    limit,
    range: (lower: number, upper: number): string => {
      const [low, high] = [limit(lower), limit(upper)];
      const unitOf = (text: string): string => text.slice(text.lastIndexOf(' '));
      return unitOf(low) === unitOf(high)
        ? tr`${low.slice(0, low.lastIndexOf(' '))} to ${high}`
        : tr`${low} to ${high}`;
    },
  };
}

const REMEDIES: Readonly<Record<Remedy, string>> = {
  'zero-leads': 'Touch the leads together, enter what the meter shows, and this can be decided.',
  'more-digits': 'Type all the digits that the meter shows.',
  'finer-range': 'A lower range of this meter shows more digits and decides it.',
  'four-wire': 'Four-wire leads, or a voltage drop under load, take leads and contacts out of it and decide it.',
  'current-instead':
    'Its current under command decides it: a clamp tells plugs apart where ohms cannot. Four-wire leads do too.',
  'better-meter': 'A finer range or a more accurate meter decides it; so does a test that does not hang on this limit.',
};

/** Names of all rules that have a sentence here. */
const RULES: Readonly<Record<Reason['rule'], true>> = {
  'not-measured': true,
  'other-version': true,
  overload: true,
  'overload-wrong-range': true,
  'overload-above-lower': true,
  'beyond-range': true,
  wanders: true,
  steady: true,
  'below-short': true,
  'above-open': true,
  'above-upper': true,
  'below-lower': true,
  'within-limits': true,
  'no-limits': true,
  'not-liked-above': true,
  'not-liked-below': true,
  'recheck-margin': true,
  'cannot-tell': true,
  seen: true,
  never: true,
  predicted: true,
  'nothing-predicted': true,
  'not-proven': true,
  'falls-back': true,
  jumps: true,
  'does-not-move': true,
  'repeats-differ': true,
  'other-temperature': true,
  'clamp-zero-subtracted': true,
  'lead-zero-subtracted': true,
  'leads-not-zeroed': true,
  'below-lead-zero': true,
  'temperature-corrected': true,
  'temperature-unknown': true,
  'rule-of-thumb-doubted': true,
  neighbours: true,
};

/** Is this a reason of a rule that is known here? */
export const isReason = (value: unknown): value is Reason =>
  value !== null &&
  typeof value === 'object' &&
  'rule' in value &&
  typeof value.rule === 'string' &&
  Object.hasOwn(RULES, value.rule);

type AboutCircumstance = Extract<
  Reason,
  {
    rule:
      | 'other-temperature'
      | 'clamp-zero-subtracted'
      | 'lead-zero-subtracted'
      | 'leads-not-zeroed'
      | 'below-lead-zero'
      | 'temperature-corrected'
      | 'temperature-unknown';
  }
>;

/**
 * A reason as a sentence. `resolution` is one step of the typed digits, for rounding; `null` where unknown.
 */
export function reasonWords(reason: Reason, limits: Limits, resolution: number | null): string {
  const print = printer(limits);
  const v = (n: number): string => print.value(n, resolution);
  const from = (source: string | null): string => (source ? ` (${source})` : '');
  switch (reason.rule) {
    case 'not-measured':
      return 'Not measured yet.';
    case 'other-version':
      return tr`Judged by another version of Mudflat ("${reason.name}").`;
    case 'overload':
      return reason.meansAbove === null
        ? 'The meter shows overload: no path for its current.'
        : tr`The meter shows overload: more than ${print.limit(reason.meansAbove)} counts as open.`;
    case 'overload-wrong-range':
      return 'The meter shows overload: its range is too small for this reading. Change the range and read again.';
    case 'overload-above-lower':
      return tr`The meter shows overload, more than it can read; at least ${print.limit(reason.limit)} is asked for.`;
    case 'beyond-range':
      return tr`More than ${v(reason.moreThan)}: the meter says no closer.`;
    case 'wanders':
      return reason.high === null
        ? tr`The contact breaks: the display goes from ${v(reason.low)} to overload.`
        : tr`The display wanders by ${print.limit(reason.span ?? 0)}, from ${v(reason.low)} to ${v(reason.high)}; ${print.limit(reason.allowed)} is allowed.`;
    case 'steady':
      return tr`A wander of ${print.limit(reason.span)} counts as steady, up to ${print.limit(reason.allowed)}; its middle is judged.`;
    case 'below-short':
      return tr`${v(reason.value)} is below ${print.limit(reason.limit)}: shorted.`;
    case 'above-open':
      return tr`${v(reason.value)} is above ${print.limit(reason.limit)}: open.`;
    case 'above-upper':
      return tr`${v(reason.value)} is above the limit of ${print.limit(reason.limit)}${from(reason.source)}.`;
    case 'below-lower':
      return tr`${v(reason.value)} is below the limit of ${print.limit(reason.limit)}${from(reason.source)}.`;
    case 'within-limits':
      return tr`${v(reason.value)} is inside ${rangeWords(reason, limits)}${from(reason.source)}.`;
    case 'no-limits':
      return 'No limit is set; only the neighbours are compared.';
    case 'not-liked-above':
      return tr`${v(reason.value)} is above ${print.limit(reason.limit)}: inside the limit, but not liked.`;
    case 'not-liked-below':
      return tr`${v(reason.value)} is below ${print.limit(reason.limit)}: inside the limit, but not liked.`;
    case 'recheck-margin':
      return tr`${v(reason.value)} is ${fixed(reason.beyondPercent, 0)} % beyond ${print.limit(reason.limit)}; up to ${fixed(reason.marginPercent, 0)} % beyond, the meter, leads, range and ground point are checked before the part.`;
    case 'cannot-tell':
      return tr`${v(reason.value)} ± ${print.value(reason.expandedUncertainty, resolution)} lies on both sides of ${print.limit(reason.limit)}${probabilityWords(reason.probabilityWithin)}. ${REMEDIES[reason.remedy]}`;
    case 'seen':
      return tr`${reason.good ? 'Passed' : 'Failed'} as seen${reason.note ? `: ${reason.note}` : '.'}`;
    case 'never':
      return 'It did not come at all.';
    case 'predicted':
      return tr`At ${atWords(reason)} the sensor should show ${print.limit(reason.expected)}; ${print.limit(reason.lower)} to ${print.limit(reason.upper)} is allowed.`;
    case 'nothing-predicted':
      return tr`The transfer function says nothing at ${atWords(reason)}: outside its range.`;
    case 'not-proven':
      return tr`Inside the limits with ${Math.round(100 * reason.probabilityWithin)} % only; this workshop accepts from ${Math.round(100 * reason.asked)} % on (guarded acceptance).`;
    case 'falls-back':
      return tr`It ${reason.direction === 'rising' ? 'falls' : 'rises'} from ${v(reason.before)} at ${reason.after} to ${v(reason.value)}: it should only ${reason.direction === 'rising' ? 'rise' : 'fall'}.`;
    case 'jumps':
      return tr`It jumps from ${v(reason.before)} at ${reason.after} to ${v(reason.value)}; ${print.limit(reason.allowed)} is allowed there.`;
    case 'does-not-move':
      return tr`It changes by ${v(reason.moved)} in all, where at least ${print.limit(reason.asked)} is asked: it does not move as it should.`;
    case 'repeats-differ':
      return tr`Read again it showed ${joinAnd(reason.entries.map(entryShown))}: a part does not change like that, a contact does.`;
    case 'other-temperature':
    case 'clamp-zero-subtracted':
    case 'lead-zero-subtracted':
    case 'leads-not-zeroed':
    case 'below-lead-zero':
    case 'temperature-corrected':
    case 'temperature-unknown':
      return circumstanceWords(reason, print);
    case 'rule-of-thumb-doubted':
      return tr`It agrees with ${joinAnd(reason.among)}, about ${v(reason.median)}: the general rule of thumb is doubted, not the part.`;
    case 'neighbours':
      return neighbourWords(reason, limits, resolution);
  }
}

/** What leads, clamp and temperature have to do with it. */
function circumstanceWords(reason: AboutCircumstance, print: ReturnType<typeof printer>): string {
  switch (reason.rule) {
    case 'other-temperature':
      return tr`Read at ${reason.temperature_degC} °C, the others at ${reason.others_degC} °C: compare parts at the same temperature.`;
    case 'clamp-zero-subtracted':
      return tr`The clamp's own ${significant(reason.clampZero_A, 6)} A is subtracted.`;
    case 'lead-zero-subtracted':
      return tr`The leads' own ${reason.leadZero_ohm} Ω is subtracted.`;
    case 'leads-not-zeroed':
      return tr`The leads were not zeroed: up to ${print.limit(reason.mostLeads_ohm)} of the reading may be theirs.`;
    case 'below-lead-zero':
      return tr`The reading is less than the leads alone showed (${reason.leadZero_ohm} Ω): zero the leads again.`;
    case 'temperature-corrected':
      return tr`Brought from ${reason.from_degC} °C to ${reason.to_degC} °C with ${reason.coefficient_perK} per K.`;
    case 'temperature-unknown':
      return tr`The limit is for ${reason.reference_degC} °C and the part's temperature is not known: not corrected.`;
  }
}

/** What acted on the sensor, with its unit. */
function atWords({ at, atUnit }: { readonly at: number; readonly atUnit: string }): string {
  const unit = readerUnit(atUnit);
  return `${unit.isOther ? inReaderUnit(at, 0, unit) : significant(at, 6)} ${unit.symbol}`;
}

function neighbourWords(
  reason: Extract<Reason, { rule: 'neighbours' }>,
  limits: Limits,
  resolution: number | null,
): string {
  const print = printer(limits);
  const far =
    reason.ratio !== null && reason.maxRatio !== null
      ? tr`${fixed(reason.ratio, 1)} times apart; ${reason.maxRatio} times is allowed`
      : tr`${print.value(reason.difference, resolution)} apart; ${print.limit(reason.maxDifference ?? 0)} is allowed`;
  return tr`${print.value(reason.value, resolution)} against ${print.value(reason.median, resolution)}, the middle of ${joinAnd(reason.among)}: ${far}.`;
}

const probabilityWords = (p: number | null): string => (p === null ? '' : tr`, ${Math.round(100 * p)} % likely inside`);

/** "0.4 to 1.0 Ω", "up to 1.0 Ω", "at least 45 V". */
export function rangeWords(
  { lower, upper }: { lower?: number | null | undefined; upper?: number | null | undefined },
  limits: Limits,
): string {
  const print = printer(limits);
  if (lower != null && upper != null) return print.range(lower, upper);
  if (upper != null) return tr`up to ${print.limit(upper)}`;
  if (lower != null) return tr`at least ${print.limit(lower)}`;
  return 'no limit';
}

/** One reading in a few words: "201 Ω, limit 1.0 Ω". */
export function briefWords(r: JudgedReading, limits: Limits): string {
  const print = printer(limits);
  if (r.verdict === 'failed') return r.reasons.flatMap((x) => (x.rule === 'seen' && x.note ? [x.note] : [])).join();
  const { lower, upper } = r.limits ?? limits;
  const limit = r.verdict === 'high' ? upper : r.verdict === 'low' ? lower : undefined;
  const value = r.corrected === null ? '' : print.value(r.corrected, r.resolution);
  if (r.verdict === 'unsteady') return entryShown(r.entry);
  return limit == null ? value : tr`${value}, limit ${print.limit(limit)}`;
}

/**
 * Corrected value with its expanded uncertainty (k = 2), rounded to the digits that were typed, without unit:
 * "0.4 ± 0.1".
 */
export function correctedWords(r: JudgedReading, limits: Pick<Limits, 'unit'>): string {
  if (r.corrected === null || r.standardUncertainty === null) return '';
  const { of } = readerUnit(limits.unit);
  const step = of(r.resolution ?? 0);
  const expanded = of(2 * r.standardUncertainty);
  // Up to the next step of the digits; a twentieth of a step too much does not make it a whole one more.
  const rounded = step > 0 ? Math.ceil(expanded / step - 0.05) * step : expanded;
  return printPlusMinus(of(r.corrected), rounded, step);
}

/** "cylinder 4", "cylinders 4 and 5", "pin 26". */
export function namePositions(all: readonly Position[]): string {
  const positions = [...new Set(all)];
  if (positions.every((p) => typeof p === 'number')) {
    return positions.length === 1 ? tr`cylinder ${positions[0]}` : tr`cylinders ${joinAnd(positions)}`;
  }
  return joinAnd(positions.map(positionWords));
}
