import { tr, word } from '../locale/translate';
import { capital } from '../foundation/text';
import type { Advice } from '../catalogue/types';
import { joinAnd } from '../quantity/print';
import { isSuspect, type PatternFound } from './pattern';
import type { JudgedReading, Limits, MeasurementDoubt, Verdict } from './types';
import { briefWords, namePositions, positionWords, rangeWords, VERDICT_WORDS } from './words';

type Readings = readonly JudgedReading[];

const WORST_FIRST: readonly Verdict[] = [
  'failed',
  'open',
  'short',
  'high',
  'low',
  'unsteady',
  'odd',
  'recheck',
  'undecided',
];

const names = (readings: Readings): string => joinAnd(readings.map((r) => r.position));

/** "4 is open", "5 and 7 are too high (201 Ω, limit 1.0 Ω)". */
function verdictPhrase(verdict: Verdict, readings: Readings, limits: Limits): string {
  const verb = readings.length === 1 ? 'is' : 'are';
  if (verdict === 'undecided') return tr`${names(readings)} cannot be told`;
  if (verdict === 'failed')
    return tr`${names(readings)} failed${readings.length === 1 && detailOf(readings, limits) ? ` (${detailOf(readings, limits)})` : ''}`;
  const link =
    verdict === 'recheck'
      ? readings.length === 1
        ? 'wants checking again'
        : 'want checking again'
      : tr`${verb} ${VERDICT_WORDS[verdict]}`;
  const detail = readings.length === 1 && verdict !== 'open' ? briefWords(readings[0] as JudgedReading, limits) : '';
  return tr`${names(readings)} ${link}${detail ? ` (${detail})` : ''}`;
}

const detailOf = (readings: Readings, limits: Limits): string => briefWords(readings[0] as JudgedReading, limits);

function notGood(readings: Readings, limits: Limits): string {
  const phrases = WORST_FIRST.flatMap((verdict) => {
    const those = readings.filter((r) => r.verdict === verdict);
    return those.length ? [verdictPhrase(verdict, those, limits)] : [];
  });
  return joinAnd(phrases);
}

/** What the set says, in one sentence. */
export function summarise(readings: Readings, found: PatternFound, limits: Limits): string {
  const inside = readings.filter((r) => r.verdict === 'within' || r.verdict === 'watch');
  const free = readings.filter((r) => r.verdict === 'no-limit');
  const measured = readings.filter((r) => r.verdict !== 'not-measured');
  const bad = notGood(readings, limits);
  const rest = restWords(inside, readings.length, limits.quantity === 'observation');
  switch (found.pattern) {
    case 'good':
      return `${capital(goodWords(readings, limits))}${watchWords(readings)}.`;
    case 'incomplete':
      return incompleteWords(readings, measured, bad, limits);
    case 'undecided':
      if (free.length === readings.length)
        return tr`${free.length === 1 ? tr`${capital(positionWords((free[0] as JudgedReading).position))} is read` : tr`All ${free.length} are read`}; no limit is set that could judge ${free.length === 1 ? 'it' : 'them'}.`;
      if (free.length && !readings.some((r) => r.verdict === 'undecided'))
        return tr`No limit is set for ${namePositions(free.map((r) => r.position))}${rest}.`;
      return tr`This measurement cannot decide ${names(readings.filter((r) => r.verdict === 'undecided'))}${rest}.`;
    case 'group':
      return tr`All of ${groupWords(found.group ?? '')}, and nothing else: ${bad}${rest}.`;
    case 'all':
      return tr`Not one ${limits.quantity === 'observation' ? 'passed' : 'is in'}: ${bad}.`;
    case 'one':
    case 'some':
      return `${capital(ofCylinders(readings) ? namedFirst(bad) : bad)}${rest}.`;
  }
}

const groupWords = (name: string): string => (name.endsWith(' bank') ? tr`the ${name}` : `"${name}"`);

/** A sentence that starts with a bare number says of what it is the number. */
const namedFirst = (text: string): string =>
  /^\d/.test(text) ? tr`cylinder${/^\d+(, \d+)* and \d+/.test(text) ? 's' : ''} ${text}` : text;
const ofCylinders = (readings: Readings): boolean => readings.every((r) => typeof r.position === 'number');

function goodWords(readings: Readings, limits: Limits): string {
  if (limits.quantity === 'observation')
    return readings.length === 1
      ? tr`${positionWords((readings[0] as JudgedReading).position)} passed`
      : tr`all ${readings.length} passed`;
  if (limits.byPosition || limits.transfer)
    return readings.length === 1
      ? tr`${positionWords((readings[0] as JudgedReading).position)} is inside its limits`
      : tr`all ${readings.length} are inside their limits`;
  const range = rangeWords(limits, limits);
  const inside = range === 'no limit' ? 'agree' : tr`inside ${range}`;
  if (readings.length === 1) return tr`${positionWords((readings[0] as JudgedReading).position)} is ${inside}`;
  return range === 'no limit' ? tr`all ${readings.length} agree` : tr`all ${readings.length} are ${inside}`;
}

function watchWords(readings: Readings): string {
  const watch = readings.filter((r) => r.verdict === 'watch');
  return watch.length ? tr`; ${names(watch)} ${watch.length === 1 ? 'is' : 'are'} not liked` : '';
}

function restWords(inside: Readings, total: number, seen: boolean): string {
  if (inside.length === 0 || inside.length === total) return '';
  if (seen) return tr`; ${names(inside)} passed`;
  return inside.length === 1 ? tr`; ${names(inside)} is in` : tr`; ${names(inside)} are in`;
}

function incompleteWords(readings: Readings, measured: Readings, bad: string, limits: Limits): string {
  if (measured.length === 0) return 'Nothing is measured yet.';
  const count = tr`${measured.length} of ${readings.length} measured`;
  if (bad) return `${count}: ${bad}.`;
  if (limits.quantity === 'observation') return tr`${count}, so far passed.`;
  if (measured.every((r) => r.verdict === 'no-limit')) return tr`${count}; no limit is set that could judge them.`;
  return tr`${count}, so far inside ${limits.byPosition || limits.transfer ? 'their limits' : rangeWords(limits, limits)}.`;
}

/** Advice that holds for any test. Common practice, no source. */
const GENERAL: readonly Advice[] = [
  {
    verdict: ['recheck'],
    doubts: 'meter',
    say: 'Check meter, leads, range and ground point before anything is said of {suspects}.',
  },
  {
    verdict: ['odd'],
    say: 'Inside the limit but unlike its neighbours: read {suspects} again, and compare at the same temperature.',
  },
];

/** Of the advice of a test, and of that for any test, what holds for this set. */
export function holdingAdvice(
  readings: Readings,
  found: PatternFound,
  connection: string | undefined,
  test: readonly Advice[],
): { readonly own: readonly Advice[]; readonly general: readonly Advice[] } {
  const suspects = readings.filter(isSuspect);
  const verdicts = new Set(readings.filter((r) => isSuspect(r) || r.verdict === 'undecided').map((r) => r.verdict));
  const mostlyBad = suspects.length >= 2 && suspects.length * 2 > readings.length && suspects.length < readings.length;
  const holds = (a: Advice): boolean =>
    (!a.pattern || a.pattern.includes(found.pattern)) &&
    (!a.verdict || a.verdict.some((v) => verdicts.has(v))) &&
    (a.mostlyBad === undefined || a.mostlyBad === mostlyBad) &&
    (a.connection === undefined || a.connection === connection) &&
    (a.above === undefined || suspects.some((r) => r.corrected !== null && r.corrected > (a.above ?? 0)));
  return { own: test.filter(holds), general: GENERAL.filter(holds) };
}

/** What to do, most useful first: what must be settled before anything else goes before. */
export function advise(
  readings: Readings,
  found: PatternFound,
  { own, general }: ReturnType<typeof holdingAdvice>,
  doubts: readonly MeasurementDoubt[],
): string[] {
  const isDoubted = doubts.some((d) => d.kind === 'meter');
  const spoken = [
    ...doubts.map((d) => d.say),
    ...remedies(readings, doubts),
    // What the doubt says already is not said twice.
    ...own.filter((a) => a.doubts === undefined).map((a) => a.say),
    ...settle(readings),
    ...general.filter((a) => !(isDoubted && a.doubts === 'meter')).map((a) => a.say),
  ];
  return spoken.map((say) => word(say).replaceAll('{suspects}', namePositions(found.suspects)));
}

/** A sweep that falls back is unsteady too, but no contact wanders there. */
const settle = (readings: Readings): string[] =>
  readings.some((r) => r.reasons.some((x) => x.rule === 'wanders'))
    ? [
        'Where it will not settle: clean the contact, hold the probe still and read again; a value that still wanders is a fail.',
      ]
    : [];

function remedies(readings: Readings, doubts: readonly MeasurementDoubt[]): string[] {
  const has = (test: (r: JudgedReading) => boolean): boolean => readings.some(test);
  const remedy =
    (name: string) =>
    (r: JudgedReading): boolean =>
      r.reasons.some((x) => x.rule === 'cannot-tell' && x.remedy === name);
  const out: string[] = [];
  if (has((r) => r.reasons.some((x) => x.rule === 'leads-not-zeroed')))
    out.push(
      readings.some(isSuspect) && !doubts.some((d) => d.kind === 'leads')
        ? 'The leads are not zeroed. They explain none of what is out; touch them together and enter what the meter shows before the others are called good.'
        : 'Touch the leads together and enter what the meter shows: until then its leads are part of every reading.',
    );
  if (has((r) => r.reasons.some((x) => x.rule === 'below-lead-zero')))
    out.push('A reading is below what the leads alone showed: zero the leads again.');
  if (has((r) => r.reasons.some((x) => x.rule === 'repeats-differ')))
    out.push(
      'What changes from reading to reading is a contact: clean it, hold still, wiggle the connector, before the part is blamed.',
    );
  if (has((r) => r.reasons.some((x) => x.rule === 'other-temperature')))
    out.push('Hot and cold parts stand in one set: let them come to the same temperature and read them again.');
  if (has((r) => r.reasons.some((x) => x.rule === 'falls-back' || x.rule === 'jumps')))
    out.push(
      'Sweep slowly through that place again and watch the display: what comes back at the same place is the track.',
    );
  if (has(remedy('finer-range'))) out.push('A lower range of this meter shows more digits: read again there.');
  if (has(remedy('four-wire')))
    out.push('Four-wire leads, or a voltage drop under load, decide what two leads cannot.');
  if (has(remedy('current-instead')))
    out.push('Compare the currents under command with a clamp: they tell apart what the ohms at this limit cannot.');
  if (has(remedy('more-digits'))) out.push('Type all the digits that the meter shows.');
  if (has(remedy('better-meter')))
    out.push(
      'The meter cannot decide what lies at the limit: use a finer range or a better meter, or a test that does not hang on this limit.',
    );
  if (has((r) => r.reasons.some((x) => x.rule === 'temperature-unknown')))
    out.push('Enter the temperature of the part: the limit is for a stated temperature.');
  return out;
}
