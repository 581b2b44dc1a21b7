import { isoDayShown } from '../locale/dates';
import { tr } from '../locale/translate';
import { capital } from '../foundation/text';
import type { ProposedFinding } from '../evidence/finding';
import { joinAnd } from '../quantity/print';
import { quotationOf, recordsOfKind } from '../repair/proof';
import type { ProofCheck, ProofCheckId, Recorded } from '../repair/types';
import type { PlannedTest, ProgressInputs, StageId } from './inputs';

/** What is done at one press. */
export type Act =
  | { readonly do: 'read-codes' }
  /** `run`: the one that goes on; absent: a new one. */
  | { readonly do: 'measure'; readonly test: string; readonly run?: string }
  | { readonly do: 'choose-test' }
  /** `proposal`: its place among the proposals; absent: in words of one's own. */
  | { readonly do: 'sign-finding'; readonly proposal?: number }
  /** One or the whole set. */
  | { readonly do: 'choose'; readonly finding: string }
  | { readonly do: 'quote'; readonly finding: string }
  | { readonly do: 'answer'; readonly quotation: string }
  | { readonly do: 'repair' }
  | { readonly do: 'prove'; readonly check: ProofCheckId }
  | { readonly do: 'release' };

/** What a job waits for. */
export type Waits = 'somebody' | 'a cold engine' | 'a part' | 'an answer';

export interface NextStep {
  readonly act: Act;
  /** What to do, one sentence. */
  readonly say: string;
  /** Why this and not another. */
  readonly why: string;
  /** What it will tell; `null` where it tells nothing that can be said before. */
  readonly tells: string | null;
  /** About how long; `null`: nobody can say. */
  readonly minutes: number | null;
  /** What must be true first: "the engine is cold", "a second person". */
  readonly needs: readonly string[];
}

const step = (act: Act, say: string, why: string, more: Partial<NextStep> = {}): NextStep => ({
  act,
  say,
  why,
  tells: null,
  minutes: null,
  needs: [],
  ...more,
});

const measureStep = (t: PlannedTest): NextStep =>
  step(
    { do: 'measure', test: t.test, ...(t.run === undefined ? {} : { run: t.run }) },
    tr`${t.run === undefined ? 'Measure' : 'Go on with'}: ${t.name}.`,
    t.why,
    { tells: t.tells, minutes: t.minutes, needs: t.needs },
  );

/** Something about a run that must be settled first: at that run. `null`: nothing is doubted. */
function settling(i: ProgressInputs): NextStep | null {
  const doubted = i.planned.find((t) => t.doubt !== undefined);
  if (doubted?.doubt === undefined) return null;
  const why = 'Until then no reading counts for or against a part.';
  return { ...measureStep(doubted), say: doubted.doubt, why, tells: null };
}

const READ_CODES = step(
  { do: 'read-codes' },
  'Read the fault codes.',
  'They say where to begin, and what was there before anything was unplugged.',
  { minutes: 3, needs: ['key on'] },
);
const CHOOSE_TEST = step(
  { do: 'choose-test' },
  'Choose a test.',
  'The complaint, the codes and what was measured point nowhere yet.',
);
const OWN_FINDING = step(
  { do: 'sign-finding' },
  'Write what you found, in your own words.',
  'A part, a wire, a place: also one that nothing here proposes.',
);
const signing = (p: ProposedFinding, place: number): NextStep =>
  step({ do: 'sign-finding', proposal: place }, tr`Sign the finding: ${p.text}.`, becauseOf(p));
const becauseOf = (p: ProposedFinding): string => {
  const labels = p.supports.slice(0, 2).map((r) => r.label);
  return labels.length ? `${capital(joinAnd(labels))}.` : 'The evidence bears it.';
};

/**
 * The one step that is next in a stage, and the others in order. What a stage is, and which one is next, says
 * `progressFrom`.
 */
export function stepsOf(now: StageId, i: ProgressInputs): { next: NextStep; instead: readonly NextStep[] } {
  const measuring = i.planned.map(measureStep);
  const signable = i.proposals.map(signing);
  switch (now) {
    case 'complaint':
    case 'codes':
      return { next: READ_CODES, instead: [...measuring, CHOOSE_TEST, OWN_FINDING] };
    case 'tests':
      return testing(i, measuring, signable);
    case 'finding': {
      const convicted = i.proposals.findIndex((p) => p.confidence !== 'possible');
      const next = signable[convicted] ?? signable[0] ?? OWN_FINDING;
      return { next, instead: [...signable.filter((s) => s !== next), OWN_FINDING, ...measuring] };
    }
    case 'agreed':
      return { next: agreeing(i), instead: [] };
    case 'repair':
      return {
        next: i.checks.some((c) => c.id === 'repaired' && c.state === 'done')
          ? step({ do: 'repair' }, 'Code the new parts.', whyOf('coded', i))
          : step({ do: 'repair' }, 'Repair it by its steps.', whyOf('repaired', i)),
        instead: [],
      };
    case 'proof':
      return proving(i);
    case 'release':
      return {
        next: step({ do: 'release' }, 'Release it.', 'Everything that proves it is done.', { minutes: 1 }),
        instead: [],
      };
  }
}

function testing(
  i: ProgressInputs,
  measuring: readonly NextStep[],
  signable: readonly NextStep[],
): { next: NextStep; instead: readonly NextStep[] } {
  const [first, ...others] = measuring;
  const settle = settling(i);
  const notFound = i.findings.map((f) => f.body).findLast((f) => f.kind === 'not-found');
  const rest = [...signable, OWN_FINDING, CHOOSE_TEST];
  if (settle) return { next: settle, instead: [...others, ...rest] };
  if (notFound) {
    const wait = step({ do: 'choose-test' }, 'Not found yet.', tr`When it returns: ${notFound.ifReturns}`);
    return { next: wait, instead: [...measuring, ...signable, OWN_FINDING] };
  }
  if (first) return { next: first, instead: [...others, ...rest] };
  const [sign, ...more] = signable;
  if (sign) return { next: sign, instead: [...more, OWN_FINDING, CHOOSE_TEST] };
  return { next: CHOOSE_TEST, instead: [OWN_FINDING] };
}

/** Each finding by itself: chosen where there is a choice, quoted, answered. */
function agreeing(i: ProgressInputs): NextStep {
  const found = i.findings.filter((f) => f.body.kind === 'found');
  const hasMany = found.length > 1;
  for (const f of found) {
    const of = hasMany ? ` ${f.body.text}.` : '';
    const quotation = quotationOf(f.id, i.records);
    const answer = quotation && recordsOfKind(i.records, 'answer').findLast((a) => a.body.quotation === quotation.id);
    if (answer?.body.answer === 'accepted') continue;
    const isDecided = recordsOfKind(i.records, 'decision').some((d) => d.body.finding === f.id);
    if (!quotation && !isDecided && i.choices.includes(f.id))
      return step(
        { do: 'choose', finding: f.id },
        'Decide: one, or the whole set.',
        tr`Only some of them are bad.${of}`,
      );
    if (!quotation)
      return step(
        { do: 'quote', finding: f.id },
        'Quote it to the payer.',
        tr`Nothing is mended before it is agreed.${of}`,
      );
    if (answer?.body.answer === 'declined')
      return step(
        { do: 'quote', finding: f.id },
        'The payer declined: quote it anew, or a lead releases it with what is left open.',
        answer.body.said || tr`Declined.${of}`,
      );
    if (answer?.body.answer === 'deferred')
      return step(
        { do: 'answer', quotation: quotation.id },
        tr`The payer deferred it${answer.body.until ? tr` until ${isoDayShown(answer.body.until)}` : ''}.`,
        answer.body.said || tr`Ask again then.${of}`,
      );
    return step(
      { do: 'answer', quotation: quotation.id },
      'The quotation waits for the payer’s answer.',
      tr`Note what the payer says.${of}`,
    );
  }
  return step({ do: 'quote', finding: found[0]?.id ?? '' }, 'Quote it to the payer.', 'Nothing is agreed yet.');
}

/** What proves a repair, of all that stands before a release. */
export const PROOF: readonly ProofCheckId[] = ['measured-again', 'codes-cleared', 'road-test', 'vehicle-scan'];

const PROVE_SAY: Readonly<Partial<Record<ProofCheckId, string>>> = {
  'measured-again': 'Measure the same again.',
  'codes-cleared': 'Clear the codes, run it, read them again.',
  'road-test': 'Drive it as it was when it failed.',
  'vehicle-scan': 'Scan all controllers.',
};

/** What shows that something is still wrong: the repair was not all of it. */
const STILL_WRONG: readonly ProofCheckId[] = ['measured-again', 'codes-cleared', 'road-test'];

function proving(i: ProgressInputs): { next: NextStep; instead: readonly NextStep[] } {
  const open = i.checks.filter((c) => PROOF.includes(c.id) && c.state !== 'done');
  const failed = open.filter((c) => c.state === 'failed');
  const proofs = [...failed, ...open.filter((c) => c.state !== 'failed')].map((c) =>
    step(
      { do: 'prove', check: c.id },
      c.state === 'failed' ? tr`${c.label}: not good.` : (PROVE_SAY[c.id] ?? c.label),
      c.why,
    ),
  );
  // What was measured again with a doubted meter proves nothing, and does not fail either.
  const settle = open.some((c) => c.id === 'measured-again') ? settling(i) : null;
  if (settle) return { next: settle, instead: proofs };
  const wrong = failed.find((c) => STILL_WRONG.includes(c.id));
  const again = wrong ? lookingOn(i, wrong.why) : [];
  const [next, ...instead] = [...again, ...proofs];
  return { next: next ?? step({ do: 'release' }, 'Release it.', 'Everything that proves it is done.'), instead };
}

/**
 * The repair was not all of it: what is convicted since is signed, else it is measured on. `why`: what shows
 * it.
 */
function lookingOn(i: ProgressInputs, why: string): NextStep[] {
  const convicted = i.proposals.flatMap((p, n) => (p.confidence === 'possible' ? [] : [signing(p, n)]));
  const measuring = i.planned.map(measureStep);
  const [first, ...others] = convicted.length ? convicted : measuring;
  return first ? [{ ...first, why: `${why} ${first.why}` }, ...others, OWN_FINDING] : [];
}

const whyOf = (id: ProofCheckId, i: { readonly checks: readonly ProofCheck[] }): string =>
  i.checks.find((c) => c.id === id)?.why ?? '';

/** For whom or what a job waits. */
export function waitsFor(next: NextStep, i: Pick<ProgressInputs, 'records' | 'planned' | 'isWarm'>): Waits {
  switch (next.act.do) {
    case 'answer':
      return 'an answer';
    case 'repair':
      return isOrdered(i.records) ? 'a part' : 'somebody';
    case 'measure': {
      const { test } = next.act;
      return i.isWarm && i.planned.some((p) => p.test === test && p.isCold) ? 'a cold engine' : 'somebody';
    }
    default:
      return 'somebody';
  }
}

/** Accepted for a day, and nothing was begun yet. */
const isOrdered = (records: readonly Recorded[]): boolean =>
  agreedFor(records) !== null && recordsOfKind(records, 'step').length === 0;

/** "Accepted for 2026-12-04": when the repair is meant to be done; `null` where no day was agreed. */
export const agreedFor = (records: readonly Recorded[]): string | null =>
  recordsOfKind(records, 'answer').findLast((a) => a.body.answer === 'accepted')?.body.until ?? null;
