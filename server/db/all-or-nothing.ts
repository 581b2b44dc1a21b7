import { fail, type Result } from '../../core/foundation/result';
import type { ProblemDetails } from '../../formats/problem';
import type { Db, Tx } from './connection';

/** Ends a transaction whose work was refused. */
class Refused extends Error {
  constructor(readonly problem: ProblemDetails) {
    super(problem.title);
  }
}

/** Does the work in one transaction; where it ends in a refusal, nothing of it stays. */
export async function allOrNothing<T>(
  db: Db,
  work: (tx: Tx) => Promise<Result<T, ProblemDetails>>,
): Promise<Result<T, ProblemDetails>> {
  try {
    return await db.transaction(async (tx) => {
      const done = await work(tx);
      if (!done.ok) throw new Refused(done.error);
      return done;
    });
  } catch (error) {
    if (error instanceof Refused) return fail(error.problem);
    throw error;
  }
}
