import type { ListPlan } from '../../application/list-plan';
import { fail, ok, type Result } from '../../core/foundation/result';
import { type ProblemDetails, problemDetails, problemsAt } from '../../formats/problem';
import { allOrNothing } from './all-or-nothing';
import type { Db, Tx } from './connection';
import { databaseCode, type Done } from './refusal';

interface Row {
  readonly entry: { readonly line: number };
  readonly action: 'new' | 'change' | 'unchanged';
}
interface List<R extends Row, T> {
  /** In the order in which they are taken. */
  readonly rows: readonly R[];
  readonly plan: ListPlan<T>['rows'];
  readonly take: (tx: Tx, row: R) => Promise<Done>;
  /** What a field is called in the list: `/family` of `/engineFamilyId`. */
  readonly columnOf: (path: string) => string;
  readonly onlyLook: boolean;
}

/** Where the database itself has refused something, the transaction answers nothing more. */
const TRANSACTION_IS_OVER = '25P02';

/**
 * Takes what is new or changed in a list, all or nothing; of a look nothing stays, so that it tells what
 * taking the list would. All that is refused is told, each under its line.
 */
export const takeList = <R extends Row, T>(
  db: Db,
  { rows, plan, take, columnOf, onlyLook }: List<R, T>,
): Promise<Result<ListPlan<T>, ProblemDetails>> =>
  allOrNothing(
    db,
    async (tx) => {
      const refused: ProblemDetails[] = [];
      for (const row of rows) {
        if (row.action === 'unchanged') continue;
        try {
          const done = await take(tx, row);
          if (!done.ok) refused.push(problemsAt(`/line ${row.entry.line}`, done.error, columnOf));
        } catch (error) {
          if (refused.length === 0 || databaseCode(error)?.code !== TRANSACTION_IS_OVER) throw error;
          break;
        }
      }
      const [first] = refused;
      if (first) return fail(problemDetails(TITLE, inOrder(refused), first.status));
      return ok({ rows: plan, stored: onlyLook ? 0 : plan.filter((r) => r.action !== 'unchanged').length });
    },
    { onlyLook },
  );

const TITLE = 'This list cannot be taken.';

/** By line: what is taken first need not stand first. */
const inOrder = (refused: readonly ProblemDetails[]): ProblemDetails['errors'] =>
  refused.flatMap((r) => r.errors).sort((a, b) => lineOf(a.path) - lineOf(b.path));
const lineOf = (path: string): number => Number(/^\/line (\d+)/.exec(path)?.[1] ?? 0);
