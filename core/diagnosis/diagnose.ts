import { findTest } from '../catalogue/catalogue';
import type { Wiring } from '../circuit/library/expand';
import { groupBy } from '../collections';
import { evidenceWords } from '../evidence/rules';
import { positionWords } from '../judge/words';
import { commonPart, observationLikelihood, readingLikelihood } from './likelihood';
import { nextTests } from './next';
import { calledOf, decisionOf, OUTSIDE, predictAll, type Predictions, singleHypotheses } from './predict';
import type { Diagnosis, DiagnosisInputs, Hypothesis, Measured, Member, Suspect, WeighedEvidence } from './types';

/** That there was a complaint and the circuit is still good: the cause is elsewhere. Share of the prior. */
const OUTSIDE_SHARE = 0.1;
/** That a second, independent fault is there as well. */
const PAIR_SHARE = 0.03;
const PAIRS_OF = 10;
/** A fault code that names the cylinder makes what is there so much likelier. */
const CODED = 6;

interface Weighed {
  readonly label: string;
  /** Likelihood under each hypothesis. */
  readonly likelihood: Float64Array;
}

/** What the predictions of a circuit cost is spent once; evidence is then only weighed. */
export interface Prepared {
  readonly predictions: Predictions;
}

export function prepare(inputs: Wiring & Pick<DiagnosisInputs, 'circuit'>): Prepared {
  return { predictions: predictAll(inputs.circuit, inputs, [OUTSIDE, ...singleHypotheses(inputs.circuit, inputs)]) };
}

/** Weighs all evidence against all suspects. The same evidence gives the same answer, whatever its order. */
export function diagnose(inputs: DiagnosisInputs, prepared: Prepared = prepare(inputs)): Diagnosis {
  const notes: string[] = [];
  const evidence = usable(inputs, prepared.predictions, notes);
  const singles = weigh(inputs, prepared.predictions, evidence);
  const sets = severalAtOnce(inputs, evidence, singles);
  const all = sets === null ? singles : weigh(inputs, sets, evidence);
  if (all.best < SURPRISE && evidence.measured.length + evidence.observed.length > 1)
    notes.push(
      'Nothing in this circuit explains all of it well: look at the readings again, or for a cause outside the circuit.',
    );
  const suspects = suspectsOf(all);
  const unexplained = all.hypotheses.reduce(
    (sum, h, i) => (h.members.length === 0 ? sum + (all.posterior[i] as number) : sum),
    0,
  );
  const next = nextTests(all.predictions, all.posterior, evidence.measured, inputs.warm ?? false);
  const shares = decisionShares(all);
  const isOpen = shares.some((s) => s > OPEN && s < DECIDED);
  const decided = next.length === 0 || (!isOpen && (Math.max(0, ...shares) >= DECIDED || unexplained >= DECIDED));
  return { suspects, unexplained, next, decided, notes };
}

const DECIDED = 0.97;
/** A suspect above this is not acquitted yet. */
const OPEN = 0.2;
/** Mean likelihood per piece of evidence, in nats, below which even the best suspect fits badly. */
const SURPRISE = -4.5;

interface Usable {
  readonly measured: readonly { readonly m: Measured; readonly instance: number }[];
  readonly observed: DiagnosisInputs['observed'];
}

/** Evidence in an order of its own, so that the order of entry makes no difference; what the circuit does not know is named. */
function usable(inputs: DiagnosisInputs, p: Predictions, notes: string[]): Usable {
  const measured = inputs.measured.flatMap((m) => {
    const instance = p.instances.findIndex((i) => i.test === m.test && i.position === m.position);
    if (instance < 0)
      notes.push(
        `"${findTest(m.test)?.name ?? m.test}" at ${positionWords(m.position)} is not a point of this circuit: left out.`,
      );
    return instance < 0 ? [] : [{ m, instance }];
  });
  const key = (x: unknown): string => JSON.stringify(x);
  return {
    measured: measured.toSorted((a, b) => (key(a) < key(b) ? -1 : 1)),
    observed: inputs.observed.toSorted((a, b) => (key(a) < key(b) ? -1 : 1)),
  };
}

interface Result_ {
  readonly predictions: Predictions;
  readonly hypotheses: readonly Hypothesis[];
  readonly evidence: readonly Weighed[];
  readonly prior: Float64Array;
  readonly posterior: Float64Array;
  /** Mean log likelihood of the best hypothesis per piece of evidence. */
  readonly best: number;
}

function weigh(inputs: DiagnosisInputs, predictions: Predictions, { measured, observed }: Usable): Result_ {
  const { hypotheses } = predictions;
  const known = new Map<string, Float64Array>();
  // Where, and in which words, makes no difference to what it says.
  const weighedOnce = (e: DiagnosisInputs['observed'][number], make: () => Float64Array): Float64Array => {
    const key = JSON.stringify({ ...e, where: '', seen: '', done: '', changed: '', note: '', photos: [] });
    const made = known.get(key) ?? make();
    known.set(key, made);
    return made;
  };
  const evidence: Weighed[] = [
    ...[...groupBy(measured, (x) => x.m.test).values()].flatMap((readings) => {
      const common = hypotheses.map((_, h) => commonPart(predictions, h, readings));
      // What the common part costs is told with the first reading of the test.
      return readings.map(({ m, instance }, i) => ({
        label: measuredWords(m),
        likelihood: Float64Array.from(
          hypotheses,
          (_, h) =>
            readingLikelihood(predictions, h, instance, m, 0, common[h]?.common, inputs.shows) *
            (i === 0 ? (common[h]?.likelihood ?? 1) : 1),
        ),
      }));
    }),
    ...observed.map((e) => ({
      label: evidenceWords(e),
      likelihood: weighedOnce(e, () => Float64Array.from(hypotheses, (h) => observationLikelihood(h, e, inputs.shows))),
    })),
  ];
  const logs = priorLogs(inputs, hypotheses);
  const prior = logs.map((l) => Math.exp(l));
  const fits = new Float64Array(hypotheses.length);
  for (const { likelihood } of evidence)
    for (let h = 0; h < logs.length; h++) {
      const l = Math.log(Math.max(1e-30, likelihood[h] as number));
      logs[h] = (logs[h] as number) + l;
      fits[h] = (fits[h] as number) + l;
    }
  const top = Math.max(...logs);
  const weights = logs.map((l) => Math.exp(l - top));
  const sum = weights.reduce((a, b) => a + b, 0);
  return {
    predictions,
    hypotheses,
    evidence,
    prior,
    posterior: weights.map((w) => w / sum),
    best: evidence.length ? (fits[logs.indexOf(top)] as number) / evidence.length : 0,
  };
}

function priorLogs(inputs: DiagnosisInputs, hypotheses: readonly Hypothesis[]): Float64Array {
  const weights = hypotheses.map(
    (h) =>
      h.weight *
      h.members.reduce(
        (f, m) => f * (m.position !== null && inputs.coded.includes(m.position) ? CODED : 1) * oddsOf(m, inputs),
        1,
      ),
  );
  const inside = weights.reduce((a, b) => a + b, 0);
  return Float64Array.from(weights, (w, i) =>
    Math.log(
      hypotheses[i]?.members.length === 0 ? OUTSIDE_SHARE : Math.max(1e-300, ((1 - OUTSIDE_SHARE) * w) / inside),
    ),
  );
}

const oddsOf = (m: Member, { odds = [] }: DiagnosisInputs): number =>
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

/**
 * Several faults at once. What explains some evidence far better than a healthy circuit does is a candidate; from the best candidates sets are grown, one fault at a
 * time, as long as one more explains what is left. Parts of one set have one age: a second bad one of the same kind is less of a surprise.
 */
function severalAtOnce(inputs: DiagnosisInputs, evidence: Usable, singles: Result_): Predictions | null {
  const { hypotheses } = singles;
  const total = hypotheses.reduce((s, h) => s + h.weight, 0);
  const candidates = candidatesOf(singles);
  if (candidates.length < 2) return null;
  let now = singles.predictions;
  let seeds: readonly Hypothesis[] = candidates.slice(0, SEEDS);
  for (let size = 2; size <= MOST_AT_ONCE && seeds.length; size++) {
    const known = new Set(now.hypotheses.map((h) => h.key));
    const grown = new Map(
      seeds.flatMap((a) =>
        candidates.flatMap((b): [string, Hypothesis][] => {
          const [more] = b.members;
          if (!more || a.members.some((m) => m.element === more.element)) return [];
          const members = [...a.members, more].sort((x, y) => (x.key < y.key ? -1 : 1));
          const key = members.map((m) => m.key).join(' + ');
          const sameAge = a.members.some((m) => m.is === 'part' && more.is === 'part' && m.name === more.name);
          return known.has(key)
            ? []
            : [
                [
                  key,
                  { key, members, weight: ((a.weight * (sameAge ? SAME_AGE : PAIR_SHARE) * b.weight) / total) * 20 },
                ],
              ];
        }),
      ),
    );
    if (grown.size === 0) break;
    now = withMore(inputs, now, [...grown.values()]);
    const weighed = weigh(inputs, now, evidence);
    const start = now.hypotheses.length - grown.size;
    const fresh = [...grown.values()]
      .map((h, i) => ({ h, share: weighed.posterior[start + i] as number }))
      .sort((x, y) => y.share - x.share);
    // Growing on is worth it only from sets that have taken over.
    seeds = fresh
      .filter((f) => f.share > 0.02)
      .slice(0, SEEDS)
      .map((f) => f.h);
  }
  return now;
}
const SEEDS = 3;
const MOST_AT_ONCE = 9;
const SAME_AGE = 0.3;

function candidatesOf({ hypotheses, evidence }: Result_): Hypothesis[] {
  const log = (l: number | undefined): number => Math.log(Math.max(1e-30, l ?? 0));
  const gain = hypotheses.map((_, h) =>
    evidence.reduce((sum, e) => sum + Math.max(0, log(e.likelihood[h]) - log(e.likelihood[0])), 0),
  );
  const bestOf = new Map<string, number>();
  for (const [h, x] of hypotheses.entries()) {
    const [m] = x.members;
    if (!m || (gain[h] as number) < 2) continue;
    const known = bestOf.get(m.element);
    if (known === undefined || (gain[h] as number) > (gain[known] as number)) bestOf.set(m.element, h);
  }
  return [...bestOf.values()]
    .sort((a, b) => (gain[b] as number) - (gain[a] as number) || a - b)
    .slice(0, PAIRS_OF)
    .map((h) => hypotheses[h] as Hypothesis);
}

/** The predictions with those of sets of faults behind them. */
function withMore(inputs: DiagnosisInputs, p: Predictions, pairs: readonly Hypothesis[]): Predictions {
  const more = predictAll(inputs.circuit, inputs, pairs);
  const join = (a: Float64Array, b: Float64Array): Float64Array => {
    const out = new Float64Array(a.length + b.length);
    out.set(a);
    out.set(b, a.length);
    return out;
  };
  // Between the sizes of both.
  const n = p.instances.length;
  const single = new Map(p.hypotheses.flatMap((h, i) => (h.members.length === 1 ? [[h.members[0], i] as const] : [])));
  const grid = Float64Array.from({ length: pairs.length * n }, (_, k) =>
    Math.hypot(
      ...(pairs[Math.floor(k / n)]?.members ?? []).map((m) => p.grid[(single.get(m) ?? 0) * n + (k % n)] as number),
    ),
  );
  return {
    ...p,
    hypotheses: [...p.hypotheses, ...pairs],
    mean: join(p.mean, more.mean),
    sd: join(p.sd, more.sd),
    grid: join(p.grid, grid),
  };
}

/** Of everything that could be changed or mended: the share that it is to be. */
function decisionShares(r: Result_): number[] {
  const shares = new Map<string, number>();
  for (const [i, h] of r.hypotheses.entries())
    for (const d of new Set(h.members.map(decisionOf)))
      shares.set(d, (shares.get(d) ?? 0) + (r.posterior[i] as number));
  return [...shares.values()];
}

/** One suspect per element, position and kind of fault: sizes and pairs that contain it add up. */
function suspectsOf(r: Result_): Suspect[] {
  const shares = new Map<string, { probability: number; of: number[] }>();
  for (const [i, h] of r.hypotheses.entries())
    for (const m of h.members) {
      const own = shares.get(m.key) ?? { probability: 0, of: [] };
      own.probability += r.posterior[i] as number;
      own.of.push(i);
      shares.set(m.key, own);
    }
  return [...shares]
    .filter(([, s]) => s.probability >= SHOWN)
    .sort((a, b) => b[1].probability - a[1].probability || (a[0] < b[0] ? -1 : 1))
    .map(([key, { probability, of }]) => {
      const member = r.hypotheses[of[0] as number]?.members.find((m) => m.key === key);
      if (!member) throw new Error(`no hypothesis for ${key}`);
      const weighed = r.evidence.map((e) => weighOne(e, r, new Set(of)));
      return {
        key,
        element: member.element,
        position: member.position,
        fault: member.fault,
        words: `${calledOf(member)} ${member.words}`,
        is: member.is,
        name: member.name,
        probability,
        supports: weighed.filter((w) => w.nats >= NOTABLE),
        contradicts: weighed.filter((w) => w.nats <= -NOTABLE),
      };
    });
}
const SHOWN = 0.005;
const NOTABLE = 0.7;

/** How much likelier one piece of evidence is if the suspect is true, in the size that fits all of it, than if it is any of the others as they stood before. */
function weighOne(e: Weighed, { prior, posterior }: Result_, of: ReadonlySet<number>): WeighedEvidence {
  let [inside, insideWeight, outside, outsideWeight] = [0, 0, 0, 0];
  for (let h = 0; h < posterior.length; h++) {
    const w = of.has(h) ? (posterior[h] as number) : (prior[h] as number);
    if (of.has(h)) {
      inside += w * (e.likelihood[h] as number);
      insideWeight += w;
    } else {
      outside += w * (e.likelihood[h] as number);
      outsideWeight += w;
    }
  }
  const nats =
    insideWeight > 0 && outsideWeight > 0
      ? Math.log(inside / insideWeight) - Math.log(Math.max(1e-30, outside / outsideWeight))
      : 0;
  const size = Math.abs(nats);
  return { label: e.label, nats, strength: size >= 4 ? 'strongly' : size >= 2 ? 'clearly' : 'slightly' };
}

function measuredWords(m: Measured): string {
  const shown =
    m.kind === 'overload' ? 'OL' : m.kind === 'unsteady' ? 'unsteady' : String(Number(m.value.toPrecision(3)));
  return `${findTest(m.test)?.name ?? m.test}, ${positionWords(m.position)}: ${shown}`;
}
