import { tr } from '../locale/translate';
import { cell, floatAt } from '../numerics/cell';
import { findTest } from '../catalogue/catalogue';
import type { TestDefinition } from '../catalogue/types';
import { isCold } from '../plan/plan';
import { Ahead, SHARING } from './lookahead';
import { costOf, lostBy, type Setting, settingAfter, warms } from './cost';
import { spreadShown } from './likelihood';
import { calledOf, decisionsOf } from './hypotheses';
import { type Predictions, reachSd, showsAsGood } from './predictions';
import type { DiagnosticReading, NextTest } from './types';

/** Below this much expected information a test would hardly change what to do. */
const WORTH_bits = 0.02;
const LIKELY = 1e-4;
/** So much of all shares together is passed over when tests are compared: it is many, and decides nothing. */
const PASSED_OVER = 0.01;
const BINS = 36;
const OFFERED = 8;
/** Of so many that look best by one step, whole courses are compared. */
const COMPARED = 6;

interface Candidate {
  readonly instance: number;
  readonly test: TestDefinition | undefined;
  readonly bits: number;
  /** What it decides, as the beginning of a sentence. */
  readonly decides: string;
}

/**
 * Expected information per cost: the test, at the position, that best separates what is left. Empty: nothing
 * would change the decision. The cost has minutes, what is set up or open already, a second person, a change
 * of the engine's state, danger, what is used up. Where a state is at stake (a test would warm the engine
 * that others need cold, or it is warm already) one step tells too little: whole courses are compared
 * (`Ahead`).
 */
export function nextTests(
  p: Predictions,
  posterior: Float64Array,
  measured: readonly { readonly m: DiagnosticReading; readonly instance: number }[],
  warm = false,
): NextTest[] {
  const read = new Set(measured.map((x) => x.instance).filter((i) => !isDisputed(measured, i)));
  const classes = classesOf(p, posterior);
  const tests = p.instances.map((x) => findTest(x.test));
  const candidates = p.instances.flatMap((_, i): Candidate[] => {
    if (read.has(i)) return [];
    const { bits, decides } = information(p, posterior, classes, i);
    return bits < WORTH_bits ? [] : [{ instance: i, test: tests[i], bits, decides }];
  });
  const entropy = classes.reduce((sum, c) => sum - c.probability * Math.log2(Math.max(1e-12, c.probability)), 0);
  const cold = Math.max(0, ...candidates.filter((c) => c.test && isCold(c.test)).map((c) => c.bits));
  const coldShare = entropy > 0 ? Math.min(1, cold / entropy) : 0;
  const setting = settingAfter(
    [...new Set(measured.map((x) => x.m.test))].flatMap((id) => findTest(id) ?? []),
    warm,
  );
  const found = candidates
    .map((c) => {
      const { test = '', position = '' } = p.instances[c.instance] ?? {};
      const { minutes, cost, setUp, said } = costOf(c.test, p.instances.filter((x) => x.test === test).length, setting);
      // What is set up for one position serves those that would tell much next.
      const sharing = Math.min(
        SHARING,
        candidates.filter((o) => p.instances[o.instance]?.test === test && o.bits >= 0.4 * c.bits).length,
      );
      const lost = lostBy(c.test, setting) * coldShare;
      const why = tr`${c.decides}; about ${Math.max(1, Math.round(minutes))} min${[...said, ...(lost > 5 ? ['after what needs a cold engine'] : [])].map((w) => `, ${w}`).join('')}.`;
      return {
        instance: c.instance,
        next: { test, position, expectedInformation_bits: c.bits, minutes, why },
        value: c.bits / (cost - setUp * (1 - 1 / sharing) + lost),
      };
    })
    .sort((a, b) => b.value - a.value || (String(a.next.position) < String(b.next.position) ? -1 : 1))
    .slice(0, OFFERED);
  const isBound =
    candidates.some((c) => c.test && isCold(c.test)) &&
    (warm || candidates.some((c) => c.test && warms(c.test) && !isCold(c.test)));
  return (isBound ? byCourse(found, new Ahead(p, posterior, tests), read, setting) : found).map((f) => f.next);
}

/** Read twice, once so and once otherwise: the third time tells which of them slipped. */
function isDisputed(
  measured: readonly { readonly m: DiagnosticReading; readonly instance: number }[],
  instance: number,
): boolean {
  const own = measured.filter((x) => x.instance === instance).map((x) => x.m);
  const [a, b] = own;
  if (own.length !== 2 || !a || !b) return false;
  if (a.kind !== b.kind) return true;
  const [least, most] = [Math.min(a.value, b.value), Math.max(a.value, b.value)];
  return a.kind === 'value' && most > 1.3 * least + 0.3;
}

interface Found {
  readonly instance: number;
  readonly next: NextTest;
}

/**
 * Those that look best by one step, in the order of what the whole course would cost; alike to a hundredth,
 * the one that looked better goes first.
 */
function byCourse<T extends Found>(
  found: readonly T[],
  ahead: Ahead,
  read: ReadonlySet<number>,
  setting: Setting,
): T[] {
  const courses = found
    .slice(0, COMPARED)
    .map((f) => ({ f, cost: Math.round(100 * ahead.costFrom(f.instance, read, setting)) }));
  return [...courses.sort((a, b) => a.cost - b.cost).map((c) => c.f), ...found.slice(COMPARED)];
}

interface Class {
  /** What is wrong, as a person calls it; nothing for a cause outside the circuit. */
  readonly names: readonly string[];
  readonly of: readonly number[];
  readonly probability: number;
}

/** The least share that counts: what is below it is together less than `PASSED_OVER`. */
function leastOf(posterior: Float64Array): number {
  const sorted = posterior.toSorted();
  let sum = 0;
  for (const share of sorted) {
    sum += share;
    if (sum > PASSED_OVER) return Math.max(LIKELY, share);
  }
  return LIKELY;
}

/** What would be done about it: the size of a fault changes no decision. */
function classesOf(p: Predictions, posterior: Float64Array): Class[] {
  const groups = new Map<string, number[]>();
  const least = leastOf(posterior);
  for (const [h, x] of p.hypotheses.entries()) {
    if (floatAt(posterior, h) < least) continue;
    const key = decisionsOf(x);
    groups.set(key, [...(groups.get(key) ?? []), h]);
  }
  const namesOf = (h: number): string[] => [...new Set((p.hypotheses[h]?.members ?? []).map(calledOf))];
  return [...groups.values()].map((of) => ({
    names: namesOf(cell(of, 0)),
    of,
    probability: of.reduce((s, h) => s + floatAt(posterior, h), 0),
  }));
}

/** Mutual information between what is wrong and what the meter would show, in bits; and what it decides. */
function information(
  p: Predictions,
  posterior: Float64Array,
  classes: readonly Class[],
  instance: number,
): { bits: number; decides: string } {
  const isOhms = p.instances[instance]?.mode === 'resistance';
  const [from, to] = isOhms
    ? [Math.log(0.01), Math.log(3e7)]
    : [-0.1 * p.volts, p.instances[instance]?.mode === 'current' ? 3 * p.volts : 1.1 * p.volts];
  const total = classes.reduce((s, c) => s + c.probability, 0);
  const mixed = new Float64Array(BINS + 1);
  const binsOf = (c: Class | null): Float64Array => {
    const bins = new Float64Array(BINS + 1).fill(STRAY / (BINS + 1));
    if (c === null) addOutcome(bins, p, 0, instance, 1, from, to);
    else for (const h of c.of) addOutcome(bins, p, h, instance, floatAt(posterior, h) / c.probability, from, to);
    return bins;
  };
  // What does not show here looks as good parts do: it is spread over the bins once for all.
  const good = binsOf(null);
  const own = classes.map((c) => (c.of.every((h) => showsAsGood(p, h, instance)) ? good : binsOf(c)));
  for (const [i, c] of classes.entries()) {
    const bins = cell(own, i);
    for (let b = 0; b <= BINS; b++) mixed[b] = floatAt(mixed, b) + (floatAt(bins, b) * c.probability) / total;
  }
  const divergenceOf = (bins: Float64Array): number => {
    let divergence = 0;
    for (let b = 0; b <= BINS; b++) {
      const q = floatAt(bins, b);
      if (q > 1e-12) divergence += q * Math.log2(q / floatAt(mixed, b));
    }
    return divergence;
  };
  const ofGood = divergenceOf(good);
  let bits = 0;
  const gains = classes.map((c, i) => {
    const bins = cell(own, i);
    const divergence = bins === good ? ofGood : divergenceOf(bins);
    bits += (divergence * c.probability) / total;
    return { c, gain: divergence * c.probability };
  });
  const [first] = gains.toSorted((a, b) => b.gain - a.gain);
  const [rest] = classes.filter((c) => c !== first?.c).toSorted((a, b) => b.probability - a.probability);
  return { bits: Math.max(0, bits), decides: decidesWords(first?.c.names ?? [], rest?.names ?? []) };
}

/** Of two explanations that a test tells apart: what one has and the other has not. */
function decidesWords(one: readonly string[], other: readonly string[]): string {
  const [own, others] = [one.filter((x) => !other.includes(x)), other.filter((x) => !one.includes(x))];
  const shared = one.length > own.length;
  const said = (names: readonly string[]): string =>
    names.length ? names.join(' and ') : shared ? 'nothing more' : 'a cause outside the circuit';
  if (!shared || (own.length && others.length)) return tr`Separates ${said(own)} from ${said(others)}`;
  return tr`Tells whether ${said(own.length ? own : others)} ${own.length + others.length > 1 ? 'are' : 'is'} bad as well`;
}

/** A misread could land anywhere: of each reading, this share. */
const STRAY = 0.03;
const FAR = 5;

/** Spreads a predicted reading over the bins, but for misreads; the last bin is overload. */
function addOutcome(
  bins: Float64Array,
  p: Predictions,
  h: number,
  instance: number,
  weight: number,
  from: number,
  to: number,
): void {
  const k = h * p.instances.length + instance;
  const [mean, own] = [floatAt(p.mean, k), Math.hypot(floatAt(p.sd, k), reachSd(p, k))];
  const exact = (1 - STRAY) * weight;
  if (mean === Infinity) {
    bins[BINS] = floatAt(bins, BINS) + exact;
    return;
  }
  const mode = p.instances[instance]?.mode ?? 'voltage';
  const sd = spreadShown(p, mode, mean, own);
  const width = (to - from) / BINS;
  // Nothing of it lies further out than this.
  const first = Math.max(0, Math.min(BINS - 1, Math.floor((mean - FAR * sd - from) / width)));
  let before = 0;
  for (let b = first; b < BINS && before < 1 - 1e-4; b++) {
    const upTo = b === BINS - 1 ? 1 : logistic((from + (b + 1) * width - mean) / sd);
    bins[b] = floatAt(bins, b) + exact * (upTo - before);
    before = upTo;
  }
}

/** The normal distribution as a logistic curve: |error| < 0.01, enough to choose a test by. */
const logistic = (z: number): number => 1 / (1 + Math.exp(-1.702 * z));
