import type { Result } from '../../core/foundation/result';
import type { ProblemDetails } from '../../formats/problem';
import type { Db, Tx } from './connection';

/** Ends a transaction of which nothing is to stay. */
class Undone<T> extends Error {
  constructor(readonly result: Result<T, ProblemDetails>) {
    super('undone');
  }
}

/** What ids are made of where it is only looked, and nothing of it stays. */
export const LOOK = '01900000-0000-7000-8000-00000000000f';

/**
 * Does the work in one transaction; where it ends in a refusal, nothing of it stays. Nothing stays of a mere
 * look either: it is done and undone again, so what it would do is what it does.
 */
export async function allOrNothing<T>(
  db: Db,
  work: (tx: Tx) => Promise<Result<T, ProblemDetails>>,
  { onlyLook = false } = {},
): Promise<Result<T, ProblemDetails>> {
  try {
    return await db.transaction(async (tx) => {
      const done = await work(tx);
      if (!done.ok || onlyLook) throw new Undone(done);
      return done;
    });
  } catch (error) {
    if (error instanceof Undone) return (error as Undone<T>).result;
    throw error;
  }
}
