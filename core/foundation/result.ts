/**
 * Expected failures are values, not exceptions. A problem names what is wrong, where (a JSON Pointer, RFC
 * 6901, into the document that was given) and, where it helps, what would be right.
 */
export interface Problem {
  readonly path: string;
  readonly message: string;
}

export type Result<T, E = Problem[]> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly error: E };

export const ok = <T>(value: T): { ok: true; value: T } => ({ ok: true, value });
export const fail = <E>(error: E): { ok: false; error: E } => ({ ok: false, error });

/** One problem as a failed result. */
export const problem = (path: string, message: string) => fail<Problem[]>([{ path, message }]);
