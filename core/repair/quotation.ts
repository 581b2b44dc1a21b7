import { recordsOfKind } from './proof';
import type { Answer, QuotationLine, Recorded } from './types';

/** A quotation that was not taken: remembered at the next visit. */
export interface OpenQuotation {
  readonly id: string;
  readonly total: number;
  readonly currency: string;
  readonly lines: readonly QuotationLine[];
  readonly note: string;
  readonly at: string;
  readonly answer: Exclude<Answer, 'accepted'> | 'unanswered';
  readonly until: string | null;
  readonly said: string;
}

/** Sum of a quotation in minor units; quantities may have fractions, each line is rounded. */
export const totalOf = (lines: readonly QuotationLine[]): number =>
  lines.reduce((s, l) => s + Math.round(l.quantity * l.price), 0);

/** The newest quotation of each finding, where it was not accepted. */
export function openQuotations(records: readonly Recorded[]): OpenQuotation[] {
  const answers = recordsOfKind(records, 'answer');
  const newest = new Map(recordsOfKind(records, 'quotation').map((q) => [q.body.finding, q]));
  return [...newest.values()].flatMap((q): OpenQuotation[] => {
    const a = answers.findLast((x) => x.body.quotation === q.id)?.body;
    if (a?.answer === 'accepted') return [];
    return [
      {
        id: q.id,
        total: totalOf(q.body.lines),
        currency: q.body.currency,
        lines: q.body.lines,
        note: q.body.note,
        at: q.at,
        answer: a?.answer ?? 'unanswered',
        until: a?.until ?? null,
        said: a?.said ?? '',
      },
    ];
  });
}
