import { tr, word } from '../../core/locale/translate';
import { significant } from '../../core/locale/numbers';
import type { Outcome, Calculation } from '../../core/calculations/types';

/** Four significant digits: more than any of these sums is good for. */
export const shownNumber = (value: number): string => significant(value, 4);

/** An outcome as people read it: "Current 12.3 A". */
export const outcomeWords = (o: Outcome): string =>
  [o.label, `${shownNumber(o.value)} ${o.unit}`.trim()].filter(Boolean).map(word).join(' ');

/** A sum as it stands in a job's record: what went in, what came out, by which formula. */
export function calculationLines(
  sum: Calculation,
  typed: Readonly<Record<string, string>>,
  outcomes: readonly Outcome[],
): string[] {
  const given = sum.inputs
    .filter((s) => (typed[s.id] ?? '').trim() !== '')
    .map((s) => {
      const option = s.options?.find((o) => String(o.value) === typed[s.id]);
      return tr`${s.label} ${option ? option.label : `${typed[s.id]?.trim()} ${s.unit}`}`.trim();
    });
  return [given.join(', '), outcomes.map(outcomeWords).join(', '), `${sum.formula} (${sum.source})`];
}
