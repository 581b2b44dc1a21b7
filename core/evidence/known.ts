import { tr } from '../locale/translate';
import { positionWords } from '../judge/words';
import type { Position } from '../judge/types';
import { groupBy } from '../foundation/collections';
import { joinAnd } from '../quantity/print';
import { firstLook, PartMoves } from './moves';
import { RepairHistory } from './repair-history';
import { evidenceRules } from './kinds/kinds';
import { accusedOnly, differenceRules, namedTestRules, patternRules, readingRules } from './rules';
import type { Contradiction, Known, KnownDoubt, MeasuredRun, RecordedEvidence, Statement, Target } from './types';

/**
 * All that a job's readings and other evidence prove, and what of it does not go together. The order of the
 * evidence makes no difference but for repairs: what was seen before one is history. `telling` leaves out
 * runs that say nothing of their own.
 */
export function whatIsKnown(
  runs: readonly MeasuredRun[],
  evidence: readonly RecordedEvidence[],
  telling = tellingRuns,
): Known {
  const byTime = telling(runs.toSorted((a, b) => compare(a.at, b.at) || compare(a.id, b.id)));
  const others = evidence.toSorted((a, b) => compare(a.at, b.at) || compare(a.id, b.id));
  const times = new Map<string, string>([
    ...byTime.map((r) => [r.id, r.at] as const),
    ...others.map((e) => [e.id, firstLook(e, others).at] as const),
  ]);
  const history = new RepairHistory(others);
  const all = samePlaces([
    ...readingRules(byTime),
    ...differenceRules(byTime),
    ...patternRules(byTime),
    ...namedTestRules(byTime),
    ...evidenceRules(others),
  ]);
  const moves = new PartMoves(others);
  const was = new Set(all.filter((s) => isHistory(s, history, times)));
  const still = all.filter((s) => !was.has(s)).map((s) => whereItSits(s, moves, times));
  const statements = withoutEchoes(newestOfEach(still));
  return {
    statements: statements.toSorted((a, b) => WEIGHT[a.stand] - WEIGHT[b.stand]),
    contradictions: contradictionsOf(statements),
    doubts: doubtsIn(byTime, history),
    mended: withoutEchoes(newestOfEach([...was].filter((s) => s.stand === 'bad' || s.stand === 'suspect'))),
  };
}

/**
 * Of runs in the order of time, those without which something would be left unsaid: of what several runs of
 * one test say alike, the newest counts (`newestOfEach`), so older ones need not say it first. A long job is
 * read in the time of a short one.
 */
function tellingRuns(byTime: readonly MeasuredRun[]): MeasuredRun[] {
  const said = new Set<string>();
  const says = (key: string): boolean => !said.has(key) && Boolean(said.add(key));
  return byTime
    .toReversed()
    .filter((run) => {
      const test = `${run.definition.id}|${run.definition.name}|${run.definition.part}`;
      const { pattern, group, readings } = run.judgement;
      // All of them are asked: each key is noted with its newest run.
      return [
        says(test),
        says(`${test}|${pattern}|${group ?? ''}`),
        says(`${test}|${readings.every((r) => r.severity === 'pass')}|${readings.some((r) => r.severity === 'fail')}`),
        ...readings.map((r) => says(`${test}|${r.position}|${r.verdict}|${r.severity}|${accusedOnly(run, r) ?? ''}`)),
      ].some(Boolean);
    })
    .toReversed();
}

/** What the meter or its leads must show first, in sentences. */
export const settleFirst = ({ doubts }: Pick<Known, 'doubts'>): string[] =>
  doubts.flatMap((d) => (d.kind === 'limit' ? [] : [d.say]));

/** Those of the newest run of each test; what was doubted before a repair of it all is history. */
function doubtsIn(byTime: readonly MeasuredRun[], history: RepairHistory): KnownDoubt[] {
  const newest = new Map(byTime.map((r) => [r.definition.id, r]));
  return [...newest.values()].flatMap((r) =>
    (r.judgement.doubts ?? [])
      .filter((d) => !d.positions.every((p) => history.readingIsHistory(r.at, r.definition, p)))
      .map(({ kind, say }) => ({ run: r.id, test: r.definition.id, kind, say })),
  );
}

const WEIGHT = { bad: 0, suspect: 1, cleared: 2, noted: 3 } as const;
const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

export const targetKey = (t: Target): string => `${t.kind}|${t.name}|${t.position ?? ''}`;

/**
 * The same test of the same position again takes the place of the older one, as far as it says the same kind
 * of thing.
 */
function newestOfEach(statements: readonly Statement[]): Statement[] {
  const last = new Map(statements.map((s) => [`${s.rule}|${targetKey(s.target)}|${s.stand}|${sourceOf(s)}`, s]));
  return [...last.values()];
}

const sourceOf = (s: Statement): string =>
  s.from.map((r) => (r.kind === 'run' ? r.label.split(':')[0] : r.id)).join('|');

/**
 * A place where something was seen is on the wire to a part, if only one wire to that position is spoken of:
 * then both are about the same wire.
 */
function samePlaces(statements: readonly Statement[]): Statement[] {
  const wiresAt = new Map<Position | null, Set<string>>();
  for (const { target: t } of statements)
    if (t.kind === 'path' && PLAIN.has(t.name))
      wiresAt.set(t.position, (wiresAt.get(t.position) ?? new Set()).add(t.name));
  return statements.map((s) => {
    if (s.target.kind !== 'path' || s.target.position === null || PLAIN.has(s.target.name)) return s;
    const wires = wiresAt.get(s.target.position) ?? new Set();
    const [only] = wires;
    return wires.size === 1 && only !== undefined ? { ...s, target: { ...s.target, name: only } } : s;
  });
}

/** That something fails in its circuit says nothing more once it is convicted. */
function withoutEchoes(statements: readonly Statement[]): Statement[] {
  const convicted = new Set(statements.filter((s) => s.stand === 'bad').map((s) => targetKey(s.target)));
  return statements.filter(
    (s) => s.rule !== 'measured' || s.stand !== 'suspect' || !convicted.has(targetKey(s.target)),
  );
}

/** What was said of a part is said of where it sits now: it may have been exchanged since. */
function whereItSits(s: Statement, moves: PartMoves, times: ReadonlyMap<string, string>): Statement {
  const { kind, name, position } = s.target;
  if (kind !== 'part' || position === null) return s;
  const sits = moves.now(name, position, newestOf(s, times));
  if (sits === position) return s;
  return {
    ...s,
    target: { ...s.target, position: sits },
    text: tr`${s.text} It sits at ${positionWords(sits)} now.`,
  };
}

const newestOf = (s: Statement, times: ReadonlyMap<string, string>): string =>
  s.from
    .map((r) => times.get(r.id) ?? '')
    .sort(compare)
    .at(-1) ?? '';

/** Was all of it seen before something was mended there? */
function isHistory(s: Statement, history: RepairHistory, times: ReadonlyMap<string, string>): boolean {
  if (s.rule === 'repaired') return false;
  return history.isHistory(newestOf(s, times), s.target);
}

/**
 * Clears so much only as the test sees: such a reading is not contradicted by another test that sees more.
 */
const WEAK: ReadonlySet<string> = new Set(['bare-part', 'measured']);

function contradictionsOf(statements: readonly Statement[]): Contradiction[] {
  return [...groupBy(statements, (s) => targetKey(s.target)).values()].flatMap((about) => {
    const against =
      about.find((s) => s.stand === 'bad') ?? about.find((s) => s.stand === 'suspect' && s.rule !== 'measured');
    const cleared = about.filter((s) => s.stand === 'cleared');
    const strong = cleared.find((s) => !WEAK.has(s.rule));
    const sameTest = cleared.find((s) => against && s.rule === against.rule && sourceOf(s) === sourceOf(against));
    const weak =
      against?.rule === 'swap' || against?.rule === 'new-part' ? cleared.find((s) => WEAK.has(s.rule)) : undefined;
    const other = strong ?? sameTest ?? weak;
    if (!against || !other) return [];
    return [
      {
        target: against.target,
        text: contradictionText(against, other === weak, other === sameTest),
        sides: [against, other] as const,
      },
    ];
  });
}

function contradictionText(against: Statement, meterFindsNothing: boolean, sameTest: boolean): string {
  const it = targetWords(against.target);
  if (meterFindsNothing)
    return tr`A meter finds nothing wrong with ${it}, yet other evidence convicts it: it fails in a way that this test does not see (hot, under load, or mechanically).`;
  if (sameTest)
    return tr`The same test of ${it} says two things: an intermittent fault or a bad contact of the probes. Read it again.`;
  return tr`One piece of evidence accuses ${it}, another clears it. One of the two is wrong, or there are two faults. Repeat the one that was done in the worse conditions.`;
}

/** "the plug of cylinder 3", "the wire to the plug of cylinder 3" */
export function targetWords({ kind, name, position }: Target): string {
  const of =
    position === null
      ? ''
      : typeof position === 'number'
        ? tr` of cylinder ${position}`
        : tr` at ${positionWords(position)}`;
  if (kind === 'path')
    return PLAIN.has(name) ? tr`the wire to the ${name}${of}` : /^(the|a) /.test(name) ? name : tr`the path at ${name}`;
  return kind === 'part' ? tr`the ${name}${of}` : `${name}${of}`;
}
const PLAIN: ReadonlySet<string> = new Set(['plug', 'injector', 'sensor', 'coil', 'module', 'actuator', 'relay']);

/**
 * Faults of different things that stand at the same time, in words; empty for none or one. Two at once are
 * real: a chafed harness may hide a failing injector.
 */
export function heldTogether(known: Known): string[] {
  const bad = new Map(known.statements.flatMap((s) => (s.stand === 'bad' ? [[targetKey(s.target), s.target]] : [])));
  const kinds = groupBy([...bad.values()], (t) => `${t.kind}|${t.name}`);
  return kinds.size > 1 ? [...kinds.values()].map(targetsWords) : [];
}

/** Several parts, or paths, of one kind: "the plugs of cylinders 4 and 5". */
function targetsWords(all: readonly Target[]): string {
  const positions = [...new Set(all.flatMap(({ position }) => (typeof position === 'number' ? [position] : [])))];
  const [first] = all;
  if (!first || all.length < 2 || positions.length < all.length) return joinAnd(all.map(targetWords));
  const parts = `${first.name}s`;
  const of = tr`${parts} of cylinders ${joinAnd(positions.sort((a, b) => a - b).map(String))}`;
  return first.kind === 'part' ? tr`the ${of}` : first.kind === 'path' ? tr`the wires to the ${of}` : of;
}
