import { sayerOf } from '../../core/locale/said';
import type { TraceHead } from '../../formats/requests/traces';

/** A head with each of its sentences as `say` has them. */
function withTexts({ search, capture, ...head }: TraceHead, say: (text: string) => string): TraceHead {
  const reasons = <T extends { readonly reasons: readonly string[] }>(all: readonly T[]): T[] =>
    all.map((one) => ({ ...one, reasons: one.reasons.map(say) }));
  return {
    ...head,
    notes: head.notes.map(say),
    ...(capture ? { capture: { ...capture, conclusions: capture.conclusions.map(say) } } : {}),
    search: {
      ...search,
      summary: say(search.summary),
      findings: reasons(search.findings),
      searched: search.searched.map((s) => (s.why === null ? s : { ...s, why: say(s.why) })),
      ...(search.events ? { events: reasons(search.events) } : {}),
    },
  };
}

/** Every sentence that a head keeps. */
export function textsOf(head: TraceHead): string[] {
  const all: string[] = [];
  withTexts(head, (text) => {
    all.push(text);
    return text;
  });
  return all;
}

/** A head for whoever reads: its sentences in their words, and without what these are made of. */
export function headForReader(head: TraceHead): TraceHead {
  const { said = {}, ...search } = head.search;
  return withTexts({ ...head, search }, sayerOf(said));
}
