import type { Phase } from '../codes/phases';
import type { FindingBody } from '../evidence/finding';
import type { DriveCondition, Evidence } from '../evidence/types';
import type { Judgement, Position } from '../judge/types';
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
}

export type RecordOf<K extends RepairRecord['kind']> = Recorded & { readonly body: Extract<RepairRecord, { kind: K }> };
export const recordsOfKind = <K extends RepairRecord['kind']>(records: readonly Recorded[], kind: K): RecordOf<K>[] =>
  records.filter((r): r is RecordOf<K> => r.body.kind === kind);

/** When the repair was done last; `null` where none is recorded. */
export function repairedAt(i: Pick<ProofInputs, 'records' | 'evidence'>): string | null {
  const all = [
    ...i.evidence.flatMap((e) => (e.body.kind === 'repair' || e.body.kind === 'new-part' ? [e.at] : [])),
    ...recordsOfKind(i.records, 'step').map((r) => r.at),
  ];
  return all.length ? all.reduce((a, b) => (a > b ? a : b)) : null;
}

/** The same test before and after the repair. */
export interface BeforeAfter {
  readonly test: string;
  readonly name: string;
  readonly before: { readonly id: string; readonly judgement: Judgement };
  readonly after: { readonly id: string; readonly judgement: Judgement } | null;
}

/** Each test that had a suspect, with the newest run of it after the repair. */
export function beforeAfter(i: ProofInputs): BeforeAfter[] {
  const at = firstRepair(i);
  const faulty = i.runs.filter((r) => r.judgement && r.judgement.suspects.length > 0 && (at === null || r.at < at));
  return [...new Map(faulty.map((r) => [r.test, r])).values()].map((r) => {
    const after =
      at === null
        ? undefined
        : i.runs.findLast((o) => o.test === r.test && o.at > at && o.judgement !== null && o.id !== r.id);
    return {
      test: r.test,
      name: r.name,
      before: { id: r.id, judgement: r.judgement as Judgement },
      after: after?.judgement ? { id: after.id, judgement: after.judgement } : null,
    };
  });
}

/** What was measured before anything was mended is before; between two repairs it is both. */
function firstRepair(i: Pick<ProofInputs, 'records' | 'evidence'>): string | null {
  const all = [
    ...i.evidence.flatMap((e) => (e.body.kind === 'repair' || e.body.kind === 'new-part' ? [e.at] : [])),
    ...recordsOfKind(i.records, 'step').map((r) => r.at),
  ];
  return all.length ? all.reduce((a, b) => (a < b ? a : b)) : null;
}

/** Every check that stands between a repair and its release. */
export function proofOf(i: ProofInputs): ProofCheck[] {
  const found = i.findings.filter((f) => f.body.kind === 'found');
  const at = repairedAt(i);
  // A check without a complaint that held: nothing was found, nothing mended, nothing else to prove.
  const allGood =
    i.runs.length > 0 &&
    i.runs.every((r) => r.judgement && r.judgement.suspects.length === 0 && r.judgement.pattern !== 'incomplete');
  if (found.length === 0 && at === null && allGood)
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

const check = (id: ProofCheck['id'], label: string, state: ProofCheck['state'], why: string): ProofCheck => ({
  id,
  label,
  state,
  why,
});

function agreed({ records }: ProofInputs): ProofCheck {
  const quotation = recordsOfKind(records, 'quotation').at(-1);
  const answer = quotation && recordsOfKind(records, 'answer').findLast((a) => a.body.quotation === quotation.id);
  const label = 'Agreed with the payer';
  if (!quotation) return check('agreed', label, 'open', 'No quotation was made.');
  if (!answer) return check('agreed', label, 'open', 'The quotation has no answer yet.');
  return check(
    'agreed',
    label,
    answer.body.answer === 'accepted' ? 'done' : 'failed',
    `${answer.body.answer}${answer.body.said ? `: ${answer.body.said}` : ''}`,
  );
}

function repaired(i: ProofInputs, at: string | null): ProofCheck {
  const label = 'Repaired by its steps';
  if (at === null) return check('repaired', label, 'open', 'Nothing was mended yet.');
  const missing = i.findings.flatMap((f) =>
    f.body.kind === 'found' ? stepsLeft(f.body, i.records, renewedPositions(f.id, f.body, i)) : [],
  );
  const hasSteps = recordsOfKind(i.records, 'step').length > 0;
  if (!hasSteps) return check('repaired', label, 'done', 'Recorded as done, without its steps.');
  return check(
    'repaired',
    label,
    missing.length ? 'open' : 'done',
    missing.length ? leftWords(missing) : 'Every step is ticked.',
  );
}

type Found = Extract<FindingBody, { kind: 'found' }>;

/** Where something is renewed: at every cylinder where the set was decided on, else where it was found bad. */
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

/** Steps of the finding's sequence that are not ticked, in order; none where nobody has begun to tick. */
export function stepsLeft(
  f: Found,
  records: readonly Recorded[],
  where: readonly Position[] = f.positions,
): StepLeft[] {
  const sequence = sequenceFor(f.what, f.name);
  const ticked = recordsOfKind(records, 'step').filter((s) => s.body.sequence === sequence.id);
  if (ticked.length === 0) return [];
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
  return `${left.length} ${left.length === 1 ? 'step' : 'steps'} left. Next${where}: ${next.say}`;
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
    (p) => p.after && (p.after.judgement.suspects.length > 0 || p.after.judgement.pattern === 'incomplete'),
  );
  const missing = pairs.filter((p) => !p.after);
  if (bad.length)
    return check('measured-again', label, 'failed', bad.map((p) => p.after?.judgement.summary ?? '').join(' '));
  if (missing.length)
    return check('measured-again', label, 'open', `Not measured again: ${joinAnd(missing.map((p) => p.name))}.`);
  return check('measured-again', label, 'done', pairs.map((p) => p.after?.judgement.summary ?? '').join(' '));
}

/** Only where injectors were renewed. */
function coded(i: ProofInputs): ProofCheck[] {
  const { findings, records } = i;
  const wanted = findings.flatMap((f) =>
    f.body.kind === 'found' && f.body.what === 'part' && f.body.name === 'injector'
      ? renewedPositions(f.id, f.body, i)
      : [],
  );
  if (wanted.length === 0) return [];
  const has = new Set(recordsOfKind(records, 'coding').map((c) => c.body.position as Position));
  const missing = wanted.filter((p) => !has.has(p));
  return [
    check(
      'coded',
      'New parts coded',
      missing.length ? 'open' : 'done',
      missing.length
        ? `No code for ${joinAnd(missing.map((p) => `cylinder ${p}`))}.`
        : 'Every new injector has its code.',
    ),
  ];
}

/** Codes of before the repair say nothing of it. */
function codesCleared({ codes }: ProofInputs, at: string | null): ProofCheck {
  const label = 'Codes cleared and stayed away';
  const since = codes.filter(
    (c) => (at === null || c.at > at) && (c.phase === 'after-clearing' || c.phase === 'after-road-test'),
  );
  const back = [...new Set(since.flatMap((c) => (c.code === null ? [] : [c.code])))];
  if (since.length === 0 || at === null)
    return check('codes-cleared', label, 'open', 'Nobody has read the codes after clearing them since the repair.');
  return check(
    'codes-cleared',
    label,
    back.length ? 'failed' : 'done',
    back.length ? `There again: ${back.join(', ')}.` : 'Nothing came back.',
  );
}

function roadTest({ evidence, conditions }: ProofInputs, at: string | null): ProofCheck {
  const label = 'Road test in the conditions of the complaint';
  const drives = evidence.flatMap((e) => (e.body.kind === 'drive' && (at === null || e.at > at) ? [e.body] : []));
  const last = drives.at(-1);
  if (!last || at === null) return check('road-test', label, 'open', 'Not driven since the repair.');
  if (last.outcome === 'showed') return check('road-test', label, 'failed', `It showed again: ${last.seen}`);
  // An intermittent complaint is no condition that one can drive in.
  const missing = conditions.filter((c) => c !== 'intermittent' && !drives.some((d) => d.conditions.includes(c)));
  return check(
    'road-test',
    label,
    missing.length ? 'open' : 'done',
    missing.length ? `Not driven ${joinAnd(missing)}, where the complaint showed.` : last.seen,
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
