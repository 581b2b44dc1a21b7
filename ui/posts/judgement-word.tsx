import { tr, word } from '../../core/locale/translate';
import type { Judgement } from '../../core/judge/types';
import type { Severity, Verdict } from '../../core/foundation/vocabulary';
import { Mark } from './mark';
import { TONE } from '../../application/posts/shapes';

/** The outcome of a run in one mark and two or three words. */
export function JudgementWord({ judgement }: { judgement: Judgement | null }) {
  const { verdict, severity, words } = outcome(judgement);
  return (
    <span
      className="flex items-center gap-2 text-sm"
      style={{ color: severity === 'none' ? 'var(--soft)' : `var(--${TONE[severity]})` }}
    >
      <Mark verdict={verdict} severity={severity} size={20} />
      {words}
    </span>
  );
}

export function outcome(judgement: Judgement | null): { verdict: Verdict; severity: Severity; words: string } {
  const readings = judgement?.readings ?? [];
  const measured = readings.filter((r) => r.verdict !== 'not-measured').length;
  if (!judgement || measured === 0) return { verdict: 'not-measured', severity: 'none', words: 'not begun' };
  const { suspects } = judgement;
  const progress = judgement.pattern === 'incomplete' ? tr`${measured} of ${readings.length}` : '';
  if (suspects.length) {
    const worst =
      readings.find((r) => r.severity === 'fail' && suspects.includes(r.position)) ??
      readings.find((r) => suspects.includes(r.position));
    return {
      verdict: worst?.verdict ?? 'high',
      severity: worst?.severity ?? 'fail',
      words: [progress, tr`${suspects.length} suspect`].filter(Boolean).map(word).join(', '),
    };
  }
  if (readings.some((r) => r.verdict === 'undecided'))
    return {
      verdict: 'undecided',
      severity: 'undecided',
      words: [progress, 'cannot tell'].filter(Boolean).map(word).join(', '),
    };
  if (readings.some((r) => r.verdict === 'no-limit'))
    return {
      verdict: 'no-limit',
      severity: 'none',
      words: [progress, 'no limit'].filter(Boolean).map(word).join(', '),
    };
  return { verdict: 'within', severity: 'pass', words: progress ? tr`${progress}, in so far` : 'all in' };
}
