/**
 * Whether a history of one position is linearizable: whether its operations can be put into one order, each
 * at a moment between its call and its answer, so that every answer is what a single register in that order
 * would have said. Search by Wing and Gong ("Testing and verifying concurrent objects", 1993), with the
 * states that were tried already left out (Lowe, "Testing for linearizability", 2017); both from memory.
 *
 * The register holds the id of the reading that counts, or nothing. A write names what it supersedes:
 *
 *   write(id, supersedes) -> stored      where supersedes is what counts; from then on id counts
 *   write(id, supersedes) -> duplicate   where id was written before; changes nothing
 *   write(id, supersedes) -> refused     where supersedes is not what counts, and id was not written;
 *                                        changes nothing
 *   read() -> id                         what counts
 *
 * A write whose answer was lost may have taken place at any moment after its call, or never.
 */
export type Operation = {
  /** Moments of one clock: the call, and the answer; `Infinity` where none came. */
  readonly called: number;
  readonly answered: number;
} & (
  | { readonly kind: 'read'; readonly saw: string | null }
  | {
      readonly kind: 'write';
      readonly id: string;
      readonly supersedes: string | null;
      readonly outcome: 'stored' | 'duplicate' | 'refused' | 'unknown';
    }
);

interface Register {
  readonly counts: string | null;
  readonly written: ReadonlySet<string>;
}

/** What the register says and becomes; `null`: it would have answered otherwise. */
function step(state: Register, op: Operation): Register | null {
  if (op.kind === 'read') return op.saw === state.counts ? state : null;
  const isThere = state.written.has(op.id);
  const fits = op.supersedes === state.counts;
  const next = (): Register => ({ counts: op.id, written: new Set([...state.written, op.id]) });
  switch (op.outcome) {
    case 'stored':
      return !isThere && fits ? next() : null;
    case 'duplicate':
      return isThere ? state : null;
    case 'refused':
      return !isThere && !fits ? state : null;
    case 'unknown':
      return !isThere && fits ? next() : state;
  }
}

export function isLinearizable(history: readonly Operation[]): boolean {
  const tried = new Set<string>();
  const search = (left: readonly Operation[], state: Register): boolean => {
    // What was never answered need not have happened.
    if (left.every((op) => op.answered === Infinity)) return true;
    const key = `${left.map((op) => history.indexOf(op)).join()}|${state.counts ?? ''}|${[...state.written].toSorted().join()}`;
    if (tried.has(key)) return false;
    tried.add(key);
    // The next in the order is one that was called before any other was answered.
    const first = Math.min(...left.map((op) => op.answered));
    return left.some((op) => {
      if (op.called > first) return false;
      const next = step(state, op);
      return next !== null && search(without(left, op), next);
    });
  };
  return search(history, { counts: null, written: new Set() });
}

const without = (all: readonly Operation[], one: Operation): Operation[] => all.filter((op) => op !== one);
