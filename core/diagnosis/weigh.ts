import { tr } from '../locale/translate';
import { floatAt as floatOf } from '../numerics/cell';
import { findTest } from '../catalogue/catalogue';
import { groupBy } from '../foundation/collections';
import { evidenceLikelihood, evidenceWords } from '../evidence/kinds/kinds';
import type { Evidence, Ref } from '../evidence/types';
import { positionWords } from '../judge/words';
import { commonPart, readingLikelihood, sharingOf, slipLikelihood } from './likelihood';
import { type Predictions, showsAsGood } from './predictions';
import { shownReading } from './predicted-readings';
import type { DiagnosisInputs, Hypothesis, DiagnosticReading, Member } from './types';

// Called most of all; see cell.ts.
const floatAt = floatOf;

/** That there was a complaint and the circuit is still good: the cause is elsewhere. Share of the prior. */
const OUTSIDE_SHARE = 0.2;
/** A fault code that names the cylinder makes what is there so much likelier. */
const CODED = 6;

export interface Weighed {
  readonly label: string;
  readonly ref: Ref | null;
  readonly point: string | null;
  /** Of a reading: its place among the points of the circuit. */
  readonly instance: number | null;
  /** Of a reading: how likely it is as a slip; 0 for what is no reading. */
  readonly asSlip: number;
  /** Of a reading: what must be settled about the measurement first. */
  readonly doubt?: string | undefined;
  readonly seen: Seen;
}

/**
 * How likely something is under each hypothesis, and the logarithm of that. One and the same object where
 * several pieces of evidence say the same.
 */
export interface Seen {
  readonly likelihood: Float64Array;
  readonly log: Float64Array;
}
const seenAs = (likelihood: Float64Array): Seen => ({
  likelihood,
  log: likelihood.map((l) => Math.log(Math.max(1e-30, l))),
});

export interface Usable {
  readonly measured: readonly { readonly m: DiagnosticReading; readonly instance: number }[];
  readonly observed: DiagnosisInputs['observed'];
}

/**
 * Evidence in an order of its own, so that the order of entry makes no difference; what the circuit does not
 * know is named.
 */
export function usable(inputs: DiagnosisInputs, p: Predictions, notes: string[]): Usable {
  const measured = inputs.measured.flatMap((m) => {
    const instance = p.instances.findIndex((i) => i.test === m.test && i.position === m.position);
    if (instance < 0)
      notes.push(
        tr`"${findTest(m.test)?.name ?? m.test}" at ${positionWords(m.position)} is not a point of this circuit: left out.`,
      );
    return instance < 0 ? [] : [{ m: settled(m), instance }];
  });
  const key = (x: unknown): string => JSON.stringify(x);
  return {
    measured: [...groupBy(measured, (x) => x.instance).values()]
      .flatMap(representative)
      .toSorted((a, b) => (key(a) < key(b) ? -1 : 1)),
    observed: inputs.observed.toSorted((a, b) => (key(a) < key(b) ? -1 : 1)),
  };
}

/** Read again and again, a point says little more than so many readings of it. */
const MOST_AT_A_POINT = 6;

/** Of many readings of one point, some from the lowest to the highest, whatever their order. */
function representative<T extends { readonly m: DiagnosticReading }>(own: readonly T[]): readonly T[] {
  if (own.length <= MOST_AT_A_POINT) return own;
  const sorted = own.toSorted((a, b) => a.m.value - b.m.value || (JSON.stringify(a.m) < JSON.stringify(b.m) ? -1 : 1));
  return sorted.filter((_, i) => {
    const step = (k: number): number => Math.floor((k * MOST_AT_A_POINT) / own.length);
    return i === 0 || step(i) !== step(i - 1);
  });
}

/** A display whose ends differ by no more than a good one's last digits shows the value between them. */
const STILL = { relative: 0.06, absolute: 0.03 } as const;
function settled(m: DiagnosticReading): DiagnosticReading {
  if (m.kind !== 'unsteady' || !m.ends || m.ends.high === null) return m;
  const { low, high } = m.ends;
  const middle = low / 2 + high / 2;
  if (high - low > STILL.relative * Math.abs(middle) + STILL.absolute) return m;
  return { ...m, kind: 'value', value: middle, u: (high - low) / Math.sqrt(12), ends: undefined };
}

/** Every hypothesis with its share before and after the evidence. */
export interface Weighing {
  readonly predictions: Predictions;
  readonly hypotheses: readonly Hypothesis[];
  readonly evidence: readonly Weighed[];
  readonly prior: Float64Array;
  readonly posterior: Float64Array;
  /** Mean log likelihood of the best hypothesis per piece of evidence. */
  readonly best: number;
  /** Sum of the prior weights of what is inside the circuit. */
  readonly inside: number;
  /** Logarithm of how likely the evidence is over all hypotheses. */
  readonly logTotal: number;
}

/** Weighs the evidence against every hypothesis that there are predictions of. */
export function weigh(inputs: DiagnosisInputs, predictions: Predictions, given: Usable): Weighing {
  const { hypotheses } = predictions;
  const evidence = evidenceUnder(inputs, predictions, given);
  const weights = priorWeights(inputs, hypotheses);
  const inside = weights.reduce((a, b) => a + b, 0);
  const logs = Float64Array.from(weights, (w, i) => priorLog(w, inside, hypotheses[i]));
  const prior = logs.map((l) => Math.exp(l));
  const fits = fitsOf(evidence, hypotheses.length);
  for (let h = 0; h < logs.length; h++) logs[h] = floatAt(logs, h) + floatAt(fits, h);
  const top = Math.max(...logs);
  const shares = logs.map((l) => Math.exp(l - top));
  const sum = shares.reduce((a, b) => a + b, 0);
  return {
    predictions,
    hypotheses,
    evidence,
    prior,
    posterior: shares.map((w) => w / sum),
    best: evidence.length ? floatAt(fits, logs.indexOf(top)) / evidence.length : 0,
    inside,
    logTotal: top + Math.log(sum),
  };
}

/** How likely each piece of evidence is under each hypothesis. */
function evidenceUnder(inputs: DiagnosisInputs, predictions: Predictions, { measured, observed }: Usable): Weighed[] {
  const { hypotheses } = predictions;
  const known = new Map<string, Seen>();
  // Where, and in which words, makes no difference to what it says.
  const weighedOnce = (e: Evidence): Seen => {
    const key = JSON.stringify({ ...e, where: '', seen: '', done: '', changed: '', note: '', photos: [] });
    const made = known.get(key) ?? seenAs(Float64Array.from(hypotheses, (h) => evidenceLikelihood(e, h, inputs.shows)));
    known.set(key, made);
    return made;
  };
  return [
    ...[
      ...groupBy(measured, (x) => sharingOf(predictions.instances[x.instance]?.mode ?? 'voltage', x.m.test)).values(),
    ].flatMap((readings) => {
      const isGood = hypotheses.map((_, h) => h > 0 && readings.every((r) => showsAsGood(predictions, h, r.instance)));
      const good = commonPart(predictions, 0, readings);
      const common = hypotheses.map((_, h) => (isGood[h] ? good : commonPart(predictions, h, readings)));
      // What the common part costs is told with the first reading of the test.
      return readings.map(({ m, instance }, i) => ({
        label: measuredWords(m),
        ref: m.run === undefined ? null : { kind: 'run' as const, id: m.run, label: measuredWords(m) },
        point: pointOf(m),
        instance,
        asSlip: slipLikelihood(predictions, instance, m),
        doubt: m.doubt,
        seen: seenAs(
          eachOf(hypotheses.length, (h, first) =>
            isGood[h]
              ? first
              : readingLikelihood(predictions, h, instance, m, 0, common[h]?.common, inputs.shows) *
                (i === 0 ? (common[h]?.likelihood ?? 1) : 1),
          ),
        ),
      }));
    }),
    ...observed.map(({ id, body }) => {
      const label = evidenceWords(body);
      const ref = id === undefined ? null : { kind: 'evidence' as const, id, label };
      return { label, ref, point: null, instance: null, asSlip: 0, seen: weighedOnce(body) };
    }),
  ];
}

/** One number for each hypothesis; `first` is that of the first. */
function eachOf(count: number, of: (h: number, first: number) => number): Float64Array {
  const all = new Float64Array(count);
  for (let h = 0; h < count; h++) all[h] = of(h, floatAt(all, 0));
  return all;
}

/** Of each hypothesis: the logarithm of how likely all of the evidence is. */
function fitsOf(evidence: readonly Weighed[], hypotheses: number): Float64Array {
  const fits = new Float64Array(hypotheses);
  for (const [{ log }, times] of timesSeen(evidence))
    for (let h = 0; h < hypotheses; h++) fits[h] = floatAt(fits, h) + times * floatAt(log, h);
  return fits;
}

/** What says the same is counted, not added up one by one. */
export function timesSeen(evidence: readonly Weighed[]): ReadonlyMap<Seen, number> {
  const times = new Map<Seen, number>();
  for (const { seen } of evidence) times.set(seen, (times.get(seen) ?? 0) + 1);
  return times;
}

/**
 * Logarithm of the share of each hypothesis of `predictions` but the first, where all that were weighed
 * before have a share of 1 together. The first one is the healthy circuit, which the others are compared
 * with.
 */
export function logSharesBeside(
  before: Weighing,
  inputs: DiagnosisInputs,
  predictions: Predictions,
  given: Usable,
): number[] {
  const { hypotheses } = predictions;
  const fits = fitsOf(evidenceUnder(inputs, predictions, given), hypotheses.length);
  return priorWeights(inputs, hypotheses)
    .map((w, i) => priorLog(w, before.inside, hypotheses[i]) + floatAt(fits, i) - before.logTotal)
    .slice(1);
}

/** By how often what fails, fault codes, and what is known of age, history and complaint. */
const priorWeights = (inputs: DiagnosisInputs, hypotheses: readonly Hypothesis[]): number[] =>
  hypotheses.map(
    (h) =>
      h.weight *
      h.members.reduce(
        (f, m) => f * (m.position !== null && inputs.coded.includes(m.position) ? CODED : 1) * priorFactorOf(m, inputs),
        1,
      ),
  );

const priorLog = (weight: number, inside: number, h: Hypothesis | undefined): number =>
  Math.log(h?.members.length === 0 ? OUTSIDE_SHARE : Math.max(1e-300, ((1 - OUTSIDE_SHARE) * weight) / inside));

const priorFactorOf = (m: Member, { priorFactors: odds = [] }: DiagnosisInputs): number =>
  odds.reduce(
    (f, o) =>
      (o.name === undefined || o.name === m.name) &&
      (o.position === undefined || o.position === m.position) &&
      (o.is === undefined || o.is === m.is) &&
      (o.intermittent === undefined || o.intermittent === m.intermittent)
        ? f * o.factor
        : f,
    1,
  );

/** Where a reading was taken, as one key. */
export const pointOf = (m: Pick<DiagnosticReading, 'test' | 'position'>): string =>
  JSON.stringify([m.test, m.position]);

/** A reading as evidence is labelled with it: "Glow plugs, at the plug, cylinder 3: 201". */
export function measuredWords(m: DiagnosticReading): string {
  return `${findTest(m.test)?.name ?? m.test}, ${positionWords(m.position)}: ${shownReading(m)}`;
}
