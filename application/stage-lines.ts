import { isoDayShown } from '../core/locale/dates';
import { tr } from '../core/locale/translate';
import { findingWords } from '../core/evidence/finding';
import type { StageId } from '../core/job/progress';
import { joinAnd } from '../core/quantity/print';
import { moneyWords } from '../core/repair/money';
import { recordsOfKind } from '../core/repair/proof';
import { totalOf } from '../core/repair/quotation';
import { knownCodes } from './codes';
import type { JobView } from './views';

/** What was done in a stage, by whom and when last, as its folded line says it. */
export interface StageLine {
  /** Empty where nothing was done. */
  readonly what: string;
  readonly by: string | null;
  readonly at: string | null;
}

type Event = { readonly by: string; readonly at: string };
const newest = (events: readonly Event[]): Pick<StageLine, 'by' | 'at'> => {
  const last = events.reduce<Event | null>((a, b) => (a === null || b.at >= a.at ? b : a), null);
  return { by: last?.by ?? null, at: last?.at ?? null };
};
const NOTHING: StageLine = { what: '', by: null, at: null };

/** The folded lines of a job's stages. */
export function stageLines(view: JobView): Readonly<Record<StageId, StageLine>> {
  const { job } = view;
  const { records, checks } = view.repair;
  const steps = recordsOfKind(records, 'step');
  const scans = recordsOfKind(records, 'scan');
  const released = job.closed ? recordsOfKind(records, 'release').at(-1) : undefined;
  const proven = checks.filter((c) => c.state === 'done').length;
  return {
    complaint: { what: job.complaint, by: job.openedBy, at: job.openedAt },
    codes: codesLine(view),
    tests: testsLine(view),
    finding: view.findings.length
      ? { what: view.findings.map((f) => findingWords(f.body)).join('; '), ...newest(view.findings) }
      : NOTHING,
    agreed: agreedLine(view),
    repair: steps.length
      ? { what: tr`${steps.length} ${steps.length === 1 ? 'step' : 'steps'} ticked`, ...newest(steps) }
      : NOTHING,
    proof:
      scans.length || steps.length ? { what: tr`${proven} of ${checks.length} checks`, ...newest(scans) } : NOTHING,
    release: released ? { what: released.body.said, by: released.by, at: released.at } : NOTHING,
  };
}

function codesLine({ codes }: JobView): StageLine {
  if (codes.length === 0) return { ...NOTHING, what: 'not read' };
  const known = knownCodes(codes);
  const what = known.length
    ? known.map((c) => tr`${c.code}${c.fate === 'as found' ? '' : ` ${c.fate}`}`).join(', ')
    : 'none';
  return { what, ...newest(codes) };
}

function testsLine({ job, evidence }: JobView): StageLine {
  const runs = job.runs.map((r) => ({ by: r.startedBy, at: r.startedAt }));
  const parts = [
    ...(runs.length ? [tr`${runs.length} ${runs.length === 1 ? 'test' : 'tests'}`] : []),
    ...(evidence.length ? [tr`${evidence.length} seen`] : []),
  ];
  return parts.length ? { what: joinAnd(parts), ...newest([...runs, ...evidence]) } : NOTHING;
}

function agreedLine({ repair: { records } }: JobView): StageLine {
  const quotation = recordsOfKind(records, 'quotation').at(-1);
  const decision = recordsOfKind(records, 'decision').at(-1);
  if (!quotation)
    return decision
      ? { what: decision.body.school === 'set' ? 'the whole set' : 'only those that failed', ...newest([decision]) }
      : NOTHING;
  const answer = recordsOfKind(records, 'answer').findLast((a) => a.body.quotation === quotation.id);
  const total = moneyWords(totalOf(quotation.body.lines), quotation.body.currency);
  const day = answer?.body.until
    ? tr` ${answer.body.answer === 'accepted' ? 'for' : 'until'} ${isoDayShown(answer.body.until)}`
    : '';
  return {
    what: tr`${total}, ${answer ? `${answer.body.answer}${day}` : 'not answered yet'}`,
    ...newest([answer ?? quotation]),
  };
}
