import type { ProblemDetails } from '../../formats/problem';
import { fail, ok, type Result } from '../../core/result';

/** What comes of a request: an answer, a refusal with its fields, or nobody there. */
export type Sent<T> = Result<T, { readonly kind: 'refused'; readonly problem: ProblemDetails } | { readonly kind: 'unreachable' }>;

const TIMEOUT_MS = 10_000;

/** Posts JSON. Server errors count as unreachable: the same request may succeed later. */
export async function send<T>(url: string, body: unknown): Promise<Sent<T>> {
  try {
    const response = await fetch(url, {
      method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body), signal: AbortSignal.timeout(TIMEOUT_MS),
    });
    if (response.ok) return ok((await response.json()) as T);
    if (response.status >= 500) return fail({ kind: 'unreachable' });
    return fail({ kind: 'refused', problem: (await response.json()) as ProblemDetails });
  } catch {
    return fail({ kind: 'unreachable' });
  }
}
