import { diagnoseDocument, type DiagnosisDocument } from '../application/diagnosis/diagnose-document';
import { expandSuspects } from '../core/circuits/expand';
import { CIRCUITS } from '../core/circuits/library';
import type { LibraryCircuit } from '../core/circuits/types';
import { PredictionCache } from '../core/diagnosis/case';
import { decisionOf } from '../core/diagnosis/hypotheses';
import type { EvidenceDocument } from '../formats/evidence';
import { drawCase, type Kind, KINDS, type TrialCase } from '../trial/cases';
import { CYLINDERS, WIRING } from '../trial/patient';
import { percentile, report } from './measure';

/**
 * The second trial: simulated vehicles whose physics, values, faults and meters are not those of the library
 * (`trial/`), read one by one as *Next* says, through the same door as `./mudflat diagnose`.
 */

const MOST_READINGS = 40;
const SHARES: Readonly<Record<Kind, number>> = {
  listed: 500,
  unlisted: 250,
  two: 120,
  set: 100,
  nothing: 130,
  slip: 100,
};
const SETS = new Set(CIRCUITS.filter((c) => c.perCylinder.length > 0).map((c) => c.id));
const ENGINE: EvidenceDocument['engine'] = {
  layout: 'inline',
  cylinders: CYLINDERS,
  numbering: { scheme: 'sequential' },
  systemVoltage_V: 12,
};

interface Accused {
  readonly decision: string;
  readonly elements: readonly string[];
  readonly share: number;
  readonly isListed: boolean;
}

interface Outcome {
  readonly c: TrialCase;
  readonly right: boolean;
  /** Of a fault that is not listed: the right stretch is named, or it is said that something else is here. */
  readonly confined: boolean;
  readonly decided: boolean;
  /** Something is said to be bad that is not, as decided. */
  readonly decidedWrong: boolean;
  readonly tests: number;
  readonly runs: number;
  readonly top: Accused | null;
  readonly unexplained: number;
  readonly measurements: EvidenceDocument['measurements'];
}

const BELIEVED = 0.5;

/**
 * What the data of a circuit call by one name, by what it is: a wire and where it rubs through are one thing.
 */
const elementsOf = (circuit: LibraryCircuit, decision: string): string[] =>
  expandSuspects(circuit, WIRING).flatMap((s) => (decisionOf(s) === decision ? [s.element] : []));

function accusedOf(d: DiagnosisDocument, circuit: LibraryCircuit): Accused[] {
  const all = new Map<string, { elements: Set<string>; share: number; isListed: boolean }>();
  for (const s of d.suspects) {
    const key = decisionOf(s);
    const own = all.get(key) ?? { elements: new Set(), share: 0, isListed: false };
    own.elements.add(s.element);
    for (const e of s.stretch ?? []) own.elements.add(e);
    own.share += s.probability;
    own.isListed ||= s.isListed !== false;
    all.set(key, own);
  }
  return [...all]
    .map(([decision, a]) => ({
      decision,
      elements: [...a.elements, ...elementsOf(circuit, decision)],
      share: a.share,
      isListed: a.isListed,
    }))
    .sort((a, b) => b.share - a.share);
}

function follow(c: TrialCase, cache: PredictionCache): Outcome {
  const measurements: EvidenceDocument['measurements'][number][] = [];
  for (;;) {
    const d = diagnoseDocument(
      { format: 'mudflat/evidence', version: 1, circuit: c.circuit.id, engine: ENGINE, measurements },
      cache,
    );
    if (!d.ok) throw new Error(JSON.stringify(d.error));
    const step = d.value.decided || measurements.length >= MOST_READINGS ? undefined : d.value.next[0];
    const reading = step && c.read(step.test, step.position);
    if (reading) {
      measurements.push(reading);
      continue;
    }
    return outcome(c, d.value, measurements);
  }
}

function outcome(c: TrialCase, d: DiagnosisDocument, measurements: Outcome['measurements']): Outcome {
  const accused = accusedOf(d, c.circuit);
  const top = accused[0] ?? null;
  const believed = accused.filter((a) => a.share >= BELIEVED);
  const truths = c.faults;
  const meets = (a: Accused, f: TrialCase['faults'][number]): boolean =>
    f.named !== null ? a.decision === f.named : a.elements.some((e) => f.stretch.includes(e));
  const isTrue = (a: Accused): boolean => truths.some((f) => meets(a, f));
  const right =
    truths.length === 0
      ? believed.length === 0
      : c.kind === 'set'
        ? believed.length === truths.length && truths.every((f) => believed.some((a) => meets(a, f)))
        : c.kind === 'two'
          ? top !== null && isTrue(top) && believed.every(isTrue)
          : top !== null && top.share > d.unexplained && isTrue(top);
  const elsewhere = d.unexplained + accused.filter((a) => !a.isListed).reduce((s, a) => s + a.share, 0);
  const confined = right || (top !== null && !top.isListed && elsewhere >= BELIEVED);
  const decidedWrong = d.decided && believed.some((a) => !isTrue(a));
  return {
    c,
    right,
    confined,
    decided: d.decided,
    decidedWrong,
    tests: measurements.length,
    runs: new Set(measurements.map((m) => m.test)).size,
    top,
    unexplained: d.unexplained,
    measurements,
  };
}

/** The cases of a kind, in turn over the circuits that have such; those that show nowhere are drawn again. */
async function drawCases(kind: Kind, many: number, seed: number): Promise<TrialCase[]> {
  const circuits = CIRCUITS.filter((c) => kind !== 'set' || SETS.has(c.id));
  const cases: TrialCase[] = [];
  for (let i = 0, tries = 0; cases.length < many; tries++) {
    const one = await drawCase(kind, circuits[i % circuits.length] as LibraryCircuit, seed + 7919 * tries);
    if (!one) continue;
    cases.push(one);
    i++;
  }
  return cases;
}

async function secondTrial(many = 1200, seed = 4711): Promise<Outcome[]> {
  const total = Object.values(SHARES).reduce((a, b) => a + b, 0);
  const cache = new PredictionCache();
  const drawn = await Promise.all(
    KINDS.map((kind, k) => drawCases(kind, Math.max(1, Math.round((SHARES[kind] * many) / total)), seed + 100_003 * k)),
  );
  return drawn.flat().map((c) => follow(c, cache));
}

const TARGETS: Readonly<Record<Kind, number>> = { listed: 97, unlisted: 85, two: 92, set: 95, nothing: 99, slip: 92 };

const share = (of: readonly Outcome[], is: (o: Outcome) => boolean): number =>
  (100 * of.filter(is).length) / Math.max(1, of.length);

function reportKind(kind: Kind, own: readonly Outcome[]): void {
  report(
    `${own.length} ${kind}: right`,
    share(own, (o) => (kind === 'unlisted' ? o.confined : o.right)),
    '%',
    TARGETS[kind],
    false,
  );
  report(
    '  decided and wrong',
    share(own, (o) => o.decidedWrong),
    '%',
    kind === 'unlisted' ? 5 : 2,
  );
  report(
    '  decided',
    share(own, (o) => o.decided),
    '%',
    null,
  );
  report(
    '  median readings',
    percentile(
      own.map((o) => o.tests),
      0.5,
    ),
    '',
    null,
  );
  report(
    '  median test runs',
    percentile(
      own.map((o) => o.runs),
      0.5,
    ),
    '',
    null,
  );
}

export async function benchSecondTrial(): Promise<void> {
  const all = await secondTrial(Number(process.env.MUDFLAT_TRIAL2 ?? 1200), Number(process.env.MUDFLAT_SEED ?? 4711));
  for (const kind of KINDS) {
    const own = all.filter((o) => o.c.kind === kind);
    reportKind(kind, own);
  }
  report(
    'decided and wrong, over all',
    share(all, (o) => o.decidedWrong),
    '%',
    2,
  );
  report(
    'median readings, over all',
    percentile(
      all.map((o) => o.tests),
      0.5,
    ),
    '',
    null,
  );
  for (const [from, to] of [
    [0, 0.5],
    [0.5, 0.8],
    [0.8, 0.95],
    [0.95, 1.01],
  ] as const) {
    const own = all.filter((o) => o.top && o.top.share >= from && o.top.share < to);
    const isTrue = (o: Outcome): boolean =>
      o.c.faults.some((f) =>
        f.named !== null ? o.top?.decision === f.named : o.top?.elements.some((e) => f.stretch.includes(e)),
      );
    report(
      `  given ${100 * from} to ${Math.round(100 * Math.min(1, to))} % (${own.length}): true`,
      share(own, isTrue),
      '%',
      null,
    );
  }
  if (process.env.MUDFLAT_SHOW)
    for (const o of all) if (!(o.c.kind === 'unlisted' ? o.confined : o.right) || o.decidedWrong) show(o);
  for (const c of CIRCUITS) {
    const own = all.filter((o) => o.c.circuit.id === c.id);
    report(
      `  ${c.id}: right`,
      share(own, (o) => (o.c.kind === 'unlisted' ? o.confined : o.right)),
      '%',
      null,
    );
  }
}

function show(o: Outcome): void {
  const fault =
    o.c.faults
      .map((f) => `${f.kind} ${f.size.toPrecision(2)} at ${f.at}${f.wanders ? ' ~' : ''} [${f.named ?? 'unlisted'}]`)
      .join(' + ') || 'nothing';
  process.stdout.write(
    `${o.c.kind} ${o.c.circuit.id} #${o.c.seed}: ${fault} -> ${o.top ? `${o.top.decision} ${o.top.share.toFixed(2)}${o.top.isListed ? '' : ' (else)'}` : '-'}, outside ${o.unexplained.toFixed(2)}${o.decided ? ' DECIDED' : ''}\n` +
      o.measurements
        .map((m) => `      ${m.test} @${m.position}: ${m.entry}${m.leadZero ? ` (${m.leadZero})` : ''}`)
        .join('\n') +
      '\n',
  );
}
