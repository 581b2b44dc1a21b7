import { databaseCode } from './refusal';

/**
 * Two transactions waited for each other, or stand in no order: PostgreSQL has ended one of them, and nothing
 * of it stays.
 */
const ENDED_FOR_ANOTHER: ReadonlySet<string> = new Set(['40P01', '40001']);
const MOST_TRIES = 3;

/**
 * Does the work; where PostgreSQL ended it for the sake of another transaction, once more from its beginning.
 */
export async function again<T>(work: () => Promise<T>, tries = MOST_TRIES): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (tries <= 1 || !ENDED_FOR_ANOTHER.has(databaseCode(error)?.code ?? '')) throw error;
    return again(work, tries - 1);
  }
}
