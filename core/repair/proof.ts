import { isoDayShown } from '../locale/dates';
import { tr } from '../locale/translate';
import { groupBy } from '../foundation/collections';
import { codesOfNewestLook, LATER_LOOKS, type Phase } from '../codes/phases';
import type { FindingBody } from '../evidence/finding';
import type { DriveCondition, Evidence } from '../evidence/types';
import type { Judgement, Position } from '../judge/types';
import { isAlike, isOnlyByThumb } from '../judge/rule-of-thumb';
import { positionWords } from '../judge/words';
import { joinAnd } from '../quantity/print';
import { sequenceFor } from './sequences';
import type { ProofCheck, Recorded, RepairRecord } from './types';

export interface ProofInputs {
  readonly findings: readonly { readonly id: string; readonly body: FindingBody; readonly at: string }[];
  readonly records: readonly Recorded[];
  readonly evidence: readonly { readonly body: Evidence; readonly at: string }[];
  readonly runs: readonly {
    readonly id: string;
    readonly test: string;
    readonly name: string;
    readonly at: string;
    readonly judgement: Judgement | null;
  }[];
  /** Codes as they were read, `null` where somebody looked and there was none. */
  readonly codes: readonly { readonly code: string | null; readonly phase: Phase; readonly at: string }[];
  readonly cylinders: number;
  /** Of the complaint. */
  readonly conditions: readonly DriveCondition[];
  /** As it was written down. */
  readonly complaint: string;
}

export type RecordOf<K extends RepairRecord['kind']> = Recorded & { readonly body: Extract<RepairRecord, { kind: K }> };
export const recordsOfKind = <K extends RepairRecord['kind']>(records: readonly Recorded[], kind: K): RecordOf<K>[] =>
  records.filter((r): r is RecordOf<K> => r.body.kind === kind);

/** When the repair was done last; `null` where none is recorded. */
export const repairedAt = (i: Pick<ProofInputs, 'records' | 'evidence'>): string | null =>
  repairTimes(i).at(-1) ?? null;

/** The same test before and after the repair. */
export interface BeforeAfter {
  readonly test: string;
  readonly name: string;
  readonly before: { readonly id: string; readonly judgement: Judgement };
  readonly after: { readonly id: string; readonly judgement: Judgement } | null;
}

/**
 * Each test that had a suspect before something was mended, with the newest run of it since. A run that still
 * has one, and after which more was mended, is no proof either way: it is to be measured again.
 */
export function beforeAfter(i: ProofInputs): BeforeAfter[] {
  const repairs = repairTimes(i);
  const judged = i.runs.flatMap((r) => (r.judgement ? [{ ...r, judgement: r.judgement }] : []));
  const isFaulty = (r: (typeof judged)[number]): boolean => r.judgement.suspects.length > 0;
  return [...groupBy(judged, (r) => r.test).values()].flatMap((own): BeforeAfter[] => {
    const first = own.find(isFaulty);
    const mended = first && repairs.find((t) => t > first.at);
    if (!first) return [];
    if (mended === undefined) {
      // Nothing was mended since: it stands as it was read last.
      const last = own.at(-1);
      return last && isFaulty(last) ? [pair(last, null)] : [];
    }
    const before = own.findLast((r) => isFaulty(r) && r.at < mended) ?? first;
    const newest = own.findLast((r) => r.at > mended && r.id !== before.id);
    const after = newest && !(isFaulty(newest) && repairs.some((t) => t > newest.at)) ? newest : undefined;
    return [pair(before, after ?? null)];
  });
}

interface JudgedRun {
  readonly id: string;
  readonly test: string;
  readonly name: string;
  readonly judgement: Judgement;
}
const pair = (before: JudgedRun, after: JudgedRun | null): BeforeAfter => ({
  test: before.test,
  name: before.name,
  before: { id: before.id, judgement: before.judgement },
  after: after && { id: after.id, judgement: after.judgement },
});

/**
 * When something was mended, in order. A step whose value was corrected later was done when it was ticked
 * first.
 */
function repairTimes(i: Pick<ProofInputs, 'records' | 'evidence'>): string[] {
  const steps = groupBy(recordsOfKind(i.records, 'step'), ({ body: s }) =>
    [s.finding ?? '', s.sequence, s.step, s.position ?? ''].join('|'),
  );
  return [
    ...i.evidence.flatMap((e) => (e.body.kind === 'repair' || e.body.kind === 'new-part' ? [e.at] : [])),
    ...[...steps.values()].flatMap(([first]) => (first ? [first.at] : [])),
  ].toSorted((a, b) => (a < b ? -1 : a > b ? 1 : 0));
}

/** Every check that stands between a repair and its release. */
export function proofOf(i: ProofInputs): ProofCheck[] {
  const found = i.findings.filter((f) => f.body.kind === 'found');
  const at = repairedAt(i);
  if (found.length === 0 && at === null && isAllGood(i))
    return [
      check(
        'finding',
        'Nothing was out of its limits',
        'done',
        'Every test that was done is good; nothing was mended.',
      ),
      vehicleScan(i, at),
    ];
  return [
    check(
      'finding',
      'A finding is signed',
      found.length ? 'done' : 'open',
      found.map((f) => f.body.text).join('; ') || 'Nobody has signed what was wrong.',
    ),
    agreed(i),
    repaired(i, at),
    measuredAgain(i),
    ...coded(i),
    codesCleared(i, at),
    roadTest(i, at),
    vehicleScan(i, at),
  ];
}

/**
 * Nothing was found, nothing mended, nothing else to prove. One good test is not enough: no code may be left,
 * and of a complaint somebody has driven it without seeing it and has signed that nothing was found.
 */
function isAllGood({ runs, codes, complaint, evidence, findings }: ProofInputs): boolean {
  const measured =
    runs.length > 0 &&
    runs.every((r) => r.judgement && r.judgement.suspects.length === 0 && r.judgement.pattern !== 'incomplete');
  if (!measured || codesLeft(codes).length > 0) return false;
  if (isCheckOnly(complaint)) return true;
  const drives = evidence.flatMap((e) => (e.body.kind === 'drive' ? [e.body] : []));
  return drives.at(-1)?.outcome === 'did not show' && findings.some((f) => f.body.kind === 'not-found');
}

/** A check that nobody asked for because of a fault. */
const isCheckOnly = (complaint: string): boolean =>
  complaint.trim() === '' ||
  /\b(no|without) (a )?complaint|\b(yearly|annual|winter|routine|periodic) (check|inspection|service)\b/i.test(
    complaint,
  );

/** Codes that were there in the newest look; those that the testing set do not count. */
function codesLeft(codes: ProofInputs['codes']): string[] {
  const own = codes.filter((c) => c.phase !== 'caused-by-testing');
  const newest = own.reduce((t, c) => (c.at > t ? c.at : t), '');
  return own.flatMap((c) => (c.at === newest && c.code !== null ? [c.code] : []));
}

const check = (id: ProofCheck['id'], label: string, state: ProofCheck['state'], why: string): ProofCheck => ({
  id,
  label,
  state,
  why,
});

/** Each finding has a quotation of its own, and an answer to it. */
function agreed({ records, findings }: ProofInputs): ProofCheck {
  const label = 'Agreed with the payer';
  const found = findings.filter((f) => f.body.kind === 'found');
  const each = found.map((f) => ({ of: f.body.text, ...answerTo(f.id, records) }));
  if (each.length === 0) return check('agreed', label, 'open', 'No quotation was made.');
  const state = each.some((e) => e.state === 'failed')
    ? 'failed'
    : each.every((e) => e.state === 'done')
      ? 'done'
      : 'open';
  const telling = each.filter((e) => e.state === state);
  return check('agreed', label, state, telling.map((e) => (each.length > 1 ? `${e.of}: ${e.why}` : e.why)).join(' '));
}

/** The quotation of a finding that counts: the newest, unless one or the set was decided anew since. */
export function quotationOf(finding: string, records: readonly Recorded[]): RecordOf<'quotation'> | undefined {
  const quotation = recordsOfKind(records, 'quotation').findLast((q) => q.body.finding === finding);
  const decided = recordsOfKind(records, 'decision').findLast((d) => d.body.finding === finding);
  if (!quotation || !decided) return quotation;
  const place = (r: Recorded): number => records.findIndex((x) => x.id === r.id);
  return place(decided) > place(quotation) ? undefined : quotation;
}

function answerTo(finding: string, records: readonly Recorded[]): Pick<ProofCheck, 'state' | 'why'> {
  const quotation = quotationOf(finding, records);
  const answer = quotation && recordsOfKind(records, 'answer').findLast((a) => a.body.quotation === quotation.id);
  if (!quotation)
    return {
      state: 'open',
      why: recordsOfKind(records, 'quotation').some((q) => q.body.finding === finding)
        ? 'It was decided anew since it was quoted.'
        : 'No quotation was made.',
    };
  if (!answer) return { state: 'open', why: 'The quotation has no answer yet.' };
  const day = answer.body.until
    ? tr` ${answer.body.answer === 'accepted' ? 'for' : 'until'} ${isoDayShown(answer.body.until)}`
    : '';
  return {
    state: answer.body.answer === 'accepted' ? 'done' : 'failed',
    why: `${answer.body.answer}${day}${answer.body.said ? `: ${answer.body.said}` : ''}`,
  };
}

function repaired(i: ProofInputs, at: string | null): ProofCheck {
  const label = 'Repaired by its steps';
  if (at === null) return check('repaired', label, 'open', 'Nothing was mended yet.');
  const found = i.findings.flatMap((f) => (f.body.kind === 'found' ? [{ id: f.id, body: f.body }] : []));
  const bySteps = found.filter((f) => !isRecordedAsDone(f.body, i));
  if (bySteps.length === 0) return check('repaired', label, 'done', 'Recorded as done, without its steps.');
  const missing = bySteps.flatMap((f) => stepsLeft(f, i.records, renewedPositions(f.id, f.body, i)));
  return check(
    'repaired',
    label,
    missing.length ? 'open' : 'done',
    missing.length ? leftWords(missing) : 'Every step is ticked.',
  );
}

/** Somebody wrote down as evidence that it was mended, at each of its positions. */
function isRecordedAsDone(f: Found, { evidence }: Pick<ProofInputs, 'evidence'>): boolean {
  const done = evidence.flatMap(({ body: e }) => (e.kind === 'repair' || e.kind === 'new-part' ? [e] : []));
  const isAbout = (e: (typeof done)[number]): boolean =>
    f.what === 'part' ? e.part === f.name && !(e.kind === 'repair' && e.path) : e.kind === 'repair';
  return (f.positions.length ? f.positions : [undefined]).every((p) =>
    done.some((e) => isAbout(e) && (e.position === undefined || p === undefined || e.position === p)),
  );
}

export type Found = Extract<FindingBody, { kind: 'found' }>;

/**
 * Where something is renewed: at every cylinder where the set was decided on, else where it was found bad.
 */
export function renewedPositions(
  finding: string,
  f: Found,
  i: Pick<ProofInputs, 'records' | 'cylinders'>,
): readonly Position[] {
  const decided = recordsOfKind(i.records, 'decision').findLast((d) => d.body.finding === finding);
  return decided?.body.school === 'set' ? Array.from({ length: i.cylinders }, (_, n) => n + 1) : f.positions;
}

interface StepLeft {
  readonly say: string;
  /** `null`: once for all positions. */
  readonly position: Position | null;
}

/** Ticks of a finding's own sequence, those of older days that name no finding too. */
export function ticksOf(
  f: { readonly id: string; readonly body: Pick<Found, 'what' | 'name'> },
  records: readonly Recorded[],
): RecordOf<'step'>[] {
  const { id } = sequenceFor(f.body.what, f.body.name);
  return recordsOfKind(records, 'step').filter(
    ({ body: s }) => s.sequence === id && (s.finding === undefined || s.finding === f.id),
  );
}

/** Steps of the finding's sequence that are not ticked, in order. */
export function stepsLeft(
  f: { readonly id: string; readonly body: Found },
  records: readonly Recorded[],
  where: readonly Position[] = f.body.positions,
): StepLeft[] {
  const sequence = sequenceFor(f.body.what, f.body.name);
  const ticked = ticksOf(f, records);
  const done = new Set(ticked.map((s) => `${s.body.step}|${s.body.position ?? ''}`));
  const positions: readonly (Position | null)[] = where.length ? where : [null];
  return sequence.steps.flatMap((s) =>
    (s.each ? positions : [null]).flatMap((position) =>
      done.has(`${s.id}|${position ?? ''}`) ? [] : [{ say: s.say, position }],
    ),
  );
}

function leftWords(left: readonly StepLeft[]): string {
  const [next] = left;
  if (!next) return '';
  const where = next.position === null ? '' : `, ${positionWords(next.position)}`;
  return tr`${left.length} ${left.length === 1 ? 'step' : 'steps'} left. Next${where}: ${next.say}`;
}

function measuredAgain(i: ProofInputs): ProofCheck {
  const label = 'The same test again';
  const pairs = beforeAfter(i);
  if (pairs.length === 0)
    return check(
      'measured-again',
      label,
      i.runs.length ? 'done' : 'open',
      i.runs.length ? 'No test had a suspect before the repair.' : 'Nothing was measured.',
    );
  const bad = pairs.filter(
    (p) =>
      p.after &&
      ((p.after.judgement.suspects.length > 0 && !isLikeTheOthers(p.before.judgement, p.after.judgement)) ||
        p.after.judgement.pattern === 'incomplete'),
  );
  const missing = pairs.filter((p) => !p.after);
  if (bad.length)
    return check('measured-again', label, 'failed', bad.map((p) => p.after?.judgement.summary ?? '').join(' '));
  if (missing.length)
    return check('measured-again', label, 'open', tr`Not measured again: ${joinAnd(missing.map((p) => p.name))}.`);
  return check('measured-again', label, 'done', pairs.map((p) => p.after?.judgement.summary ?? '').join(' '));
}

/**
 * Out of a general rule of thumb that was doubted before, and level with those that doubted it: good for
 * parts of this type.
 */
function isLikeTheOthers(before: Judgement, after: Judgement): boolean {
  const reasons = before.readings.flatMap((r) => r.reasons);
  const median = reasons.flatMap((x) => (x.rule === 'rule-of-thumb-doubted' ? [x.median] : []))[0];
  return (
    median !== undefined &&
    after.readings.every(
      (r) =>
        r.severity === 'pass' ||
        r.verdict === 'watch' ||
        r.verdict === 'not-measured' ||
        (isOnlyByThumb(r, after.limits) && r.corrected !== null && isAlike(r.corrected, median)),
    )
  );
}

/** The trim code that stands at each position: the newest, unless it was withdrawn since. */
export function codesKept(records: readonly Recorded[], part?: string): Map<Position, RecordOf<'coding'>> {
  const kept = new Map<Position, RecordOf<'coding'>>();
  for (const r of records) {
    const { body } = r;
    if (body.kind !== 'coding' && body.kind !== 'coding-withdrawn') continue;
    if (part !== undefined && body.part !== part) continue;
    if (body.kind === 'coding') kept.set(body.position, { ...r, body });
    else kept.delete(body.position);
  }
  return kept;
}

/** The step of the injectors’ sequence at which a trim code is entered. */
const CODING_STEP = 'coding';

/** Only where injectors were renewed. */
function coded(i: ProofInputs): ProofCheck[] {
  const { findings, records } = i;
  const wanted = findings.flatMap((f) =>
    f.body.kind === 'found' && f.body.what === 'part' && f.body.name === 'injector'
      ? renewedPositions(f.id, f.body, i)
      : [],
  );
  if (wanted.length === 0) return [];
  const has = new Set(codesKept(records).keys());
  // Somebody has said at the step that this one has no code.
  const without = new Set(
    recordsOfKind(records, 'step').flatMap(({ body: s }) =>
      s.step === CODING_STEP && s.left === 'does not apply' ? [s.position] : [],
    ),
  );
  const missing = wanted.filter((p) => !has.has(p) && !without.has(p));
  return [
    check(
      'coded',
      'New parts coded',
      missing.length ? 'open' : 'done',
      missing.length
        ? tr`No code for ${joinAnd(missing.map((p) => tr`cylinder ${p}`))}.`
        : 'Every new injector has its code.',
    ),
  ];
}

/**
 * Codes of before the repair say nothing of it; of several looks since the newest counts, as in the list of
 * codes.
 */
function codesCleared({ codes }: ProofInputs, at: string | null): ProofCheck {
  const label = 'Codes cleared and stayed away';
  const since = at === null ? [] : codes.filter((c) => c.at > at);
  const newest = codesOfNewestLook(since);
  if (newest === null)
    return check('codes-cleared', label, 'open', 'Nobody has read the codes after clearing them since the repair.');
  const named = (those: readonly { readonly code: string | null }[]): string[] => [
    ...new Set(those.flatMap((c) => (c.code === null ? [] : [c.code]))),
  ];
  const away = named(codes.filter((c) => c.phase === 'as-found')).filter((c) => !newest.has(c));
  if (newest.size > 0) {
    const rest = away.length ? tr` ${joinAnd(away)} stayed away.` : '';
    return check('codes-cleared', label, 'failed', tr`There again: ${[...newest].join(', ')}.${rest}`);
  }
  const once = named(since.filter((c) => LATER_LOOKS.includes(c.phase)));
  return check(
    'codes-cleared',
    label,
    'done',
    once.length ? tr`${joinAnd(once)} had come back once; in the newest look there is no code.` : 'Nothing came back.',
  );
}

function roadTest({ evidence, conditions }: ProofInputs, at: string | null): ProofCheck {
  const label = 'Road test in the conditions of the complaint';
  const drives = evidence.flatMap((e) => (e.body.kind === 'drive' && (at === null || e.at > at) ? [e.body] : []));
  const last = drives.at(-1);
  if (!last || at === null) return check('road-test', label, 'open', 'Not driven since the repair.');
  if (last.outcome === 'showed') return check('road-test', label, 'failed', tr`It showed again: ${last.seen}`);
  // An intermittent complaint is no condition that one can drive in.
  const missing = conditions.filter((c) => c !== 'intermittent' && !drives.some((d) => d.conditions.includes(c)));
  return check(
    'road-test',
    label,
    missing.length ? 'open' : 'done',
    missing.length ? tr`Not driven ${joinAnd(missing)}, where the complaint showed.` : last.seen,
  );
}

function vehicleScan({ records }: ProofInputs, at: string | null): ProofCheck {
  const label = 'Scan of the whole vehicle';
  const scan = recordsOfKind(records, 'scan').findLast((s) => at === null || s.at > at);
  if (!scan) return check('vehicle-scan', label, 'open', 'Not done since the repair.');
  return check(
    'vehicle-scan',
    label,
    scan.body.outcome === 'clean' ? 'done' : 'failed',
    scan.body.said || scan.body.outcome,
  );
}
