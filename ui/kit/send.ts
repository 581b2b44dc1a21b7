import type { ProblemDetails } from '../../formats/problem';
import { fail, ok, type Problem, type Result } from '../../core/foundation/result';

/**
 * What comes of a request: an answer, a refusal with its fields, no server, a server that fails at it, or
 * nobody signed in.
 */
export type Sent<T> = Result<
  T,
  | { readonly kind: 'refused'; readonly problem: ProblemDetails }
  | { readonly kind: 'unreachable' }
  | { readonly kind: 'failing' | 'signed-out'; readonly message: string }
>;

/** What a failed sending says at a form that keeps what was typed. */
export function problemsOf(error: Extract<Sent<never>, { ok: false }>['error']): readonly Problem[] {
  const still = 'What you typed is still here; try again.';
  switch (error.kind) {
    case 'refused':
      return error.problem.errors;
    case 'unreachable':
      return [{ path: '', message: `No server. ${still}` }];
    case 'failing':
      return [{ path: '', message: `${error.message} ${still}` }];
    case 'signed-out':
      return [{ path: '', message: error.message }];
  }
}

const TIMEOUT_MS = 10_000;

const listeners = new Set<(message: string) => void>();
/** Told when a request found nobody signed in. */
export function onSignedOut(listener: (message: string) => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Posts JSON. What has no answer, or fails at the server, may succeed later with the same request. */
export const send = <T>(url: string, body: unknown): Promise<Sent<T>> =>
  sendBody<T>(url, JSON.stringify(body), 'application/json');

/** Posts a body as it is. */
export async function sendBody<T>(
  url: string,
  body: BodyInit,
  type: string,
  timeout_ms = TIMEOUT_MS,
): Promise<Sent<T>> {
  try {
    const response = await fetch(url, {
      method: 'POST',
      headers: { 'content-type': type },
      body,
      signal: AbortSignal.timeout(timeout_ms),
    });
    if (response.ok) return ok((await response.json()) as T);
    if (response.status >= 500)
      return fail({ kind: 'failing', message: `The server could not store it (${response.status}).` });
    const problem = (await response.json()) as ProblemDetails;
    // Signing in itself is refused at its own fields.
    if (response.status !== 401 || url.startsWith('/api/session/')) return fail({ kind: 'refused', problem });
    const message = `${problem.errors[0]?.message ?? problem.title} Nothing that was typed is lost.`;
    listeners.forEach((l) => l(message));
    return fail({ kind: 'signed-out', message });
  } catch {
    return fail({ kind: 'unreachable' });
  }
}
