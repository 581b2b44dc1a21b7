import { tr } from '../../core/locale/translate';
import { type ProblemDetails, problemDetails } from '../../formats/problem';
import { fail, type Problem, type Result } from '../../core/foundation/result';

/** What comes of a command. Each takes an id made by the caller; the same command twice is the same row. */
export type Done<T = { id: string }> = Result<T & { readonly duplicate: boolean }, ProblemDetails>;

/** A command that was understood and is refused. */
export const refuse = (title: string, errors: readonly Problem[], status = 422) =>
  fail<ProblemDetails>(problemDetails(title, errors, status));

export const notFound = (what: string, path = '') =>
  refuse('Not found.', [{ path, message: tr`There is no such ${what}.` }], 404);

/** A row under an id that another row has: 409 at `/id`. */
export const refuseTakenId = (words: string) =>
  refuse(TAKEN, [{ path: '/id', message: tr`Another ${words} has this id.` }], 409);
const TAKEN = 'This id is taken.';
export const isTaken = (problem: ProblemDetails): boolean => problem.status === 409 && problem.title === TAKEN;

/** The PostgreSQL error code of a failed query, through Drizzle's wrapper. */
export function databaseCode(error: unknown): { code: string; constraint: string } | null {
  for (let e: unknown = error; e instanceof Error; e = e.cause) {
    const { code, constraint } = e as { code?: unknown; constraint?: unknown };
    if (typeof code === 'string' && /^[0-9A-Z]{5}$/.test(code))
      return { code, constraint: typeof constraint === 'string' ? constraint : '' };
  }
  return null;
}

export const UNIQUE_VIOLATION = '23505';
