import { tr } from '../../core/locale/translate';
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
      return [{ path: '', message: tr`No server. ${still}` }];
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

/** A request as it is sent, for whoever answers in place of the server. */
export interface Sending {
  readonly method: 'GET' | 'POST';
  readonly path: string;
  readonly type: string;
  readonly body: string | ArrayBuffer | null;
}
/** Answers without the server; `null`: it cannot. */
export type StandIn = (request: Sending) => Promise<Response | null>;

let standIn: { readonly answer: StandIn; readonly first: boolean } | null = null;
/** `first`: it is asked before any server, since this page is drawn from the device. */
export function answerWithoutServer(answer: StandIn | null, first = false): void {
  standIn = answer && { answer, first };
}

/** Whether this page is drawn from the device: it says itself who is there, and where the server is. */
export const isDrawnFromDevice = (): boolean => standIn?.first ?? false;

const accepted = new Set<(request: Sending) => void>();
/** Told of each write that the server has taken from a form. */
export function onAccepted(listener: (request: Sending) => void): () => void {
  accepted.add(listener);
  return () => accepted.delete(listener);
}

/** A proxy that stands there without its server says so with these. */
const NO_SERVER: ReadonlySet<number> = new Set([502, 504]);

/** Asks the server; where there is none, the device, if it can answer. Rejects where nobody does. */
export async function ask(request: Sending, init: RequestInit = {}): Promise<Response> {
  const instead = async (): Promise<Response | null> => (standIn ? standIn.answer(request) : null);
  if (standIn?.first) {
    const here = await instead();
    if (here) return here;
  }
  try {
    const response = await fetch(request.path, {
      ...init,
      method: request.method,
      ...(request.body === null ? {} : { body: request.body }),
      headers: {
        ...(request.body === null ? {} : { 'content-type': request.type }),
        ...(init.headers as Readonly<Record<string, string>> | undefined),
      },
    });
    if (!NO_SERVER.has(response.status)) return response;
  } catch (error) {
    if (init.signal?.aborted && (error as Error).name === 'AbortError') throw error;
  }
  const here = standIn?.first ? null : await instead();
  if (here) return here;
  throw new TypeError('there is no server');
}

/** Reads something as it is now. */
export const read = (path: string, init: RequestInit = {}): Promise<Response> =>
  ask({ method: 'GET', path, type: '', body: null }, init);

/** Posts JSON. What has no answer, or fails at the server, may succeed later with the same request. */
export const send = <T>(path: string, body: unknown): Promise<Sent<T>> =>
  posted<T>(path, asked({ method: 'POST', path, type: 'application/json', body: JSON.stringify(body) }));

/** By the server, or by what stands in for it. */
const asked =
  (request: Sending) =>
  async (init: RequestInit): Promise<Response> => {
    const response = await ask(request, init);
    if (response.ok && response.url !== '') accepted.forEach((l) => l(request));
    return response;
  };

/** Posts bytes as a person chose them. */
export async function sendFile<T>(path: string, file: Blob, type: string, timeout_ms: number): Promise<Sent<T>> {
  const body = await file.arrayBuffer();
  return posted<T>(path, asked({ method: 'POST', path, type, body }), timeout_ms);
}

/** Posts to the server and to nobody else. */
export const sendBody = <T>(
  path: string,
  body: BodyInit,
  type: string,
  timeout_ms = TIMEOUT_MS,
  headers: Readonly<Record<string, string>> = {},
): Promise<Sent<T>> =>
  posted<T>(
    path,
    (init) => fetch(path, { ...init, method: 'POST', headers: { 'content-type': type, ...headers }, body }),
    timeout_ms,
  );

/** Puts a block of bytes to where it belongs, on the server and nowhere else: the same again does no harm. */
export const sendBlock = (path: string, bytes: Uint8Array): Promise<Sent<{ duplicate: boolean }>> =>
  posted(
    path,
    (init) =>
      fetch(path, {
        ...init,
        method: 'PUT',
        headers: { 'content-type': 'application/octet-stream' },
        body: bytes as Uint8Array<ArrayBuffer>,
      }),
    60_000,
  );

async function posted<T>(
  path: string,
  post: (init: RequestInit) => Promise<Response>,
  timeout_ms = TIMEOUT_MS,
): Promise<Sent<T>> {
  try {
    const response = await post({ signal: AbortSignal.timeout(timeout_ms) });
    if (response.ok) return ok((await response.json()) as T);
    if (NO_SERVER.has(response.status)) return fail({ kind: 'unreachable' });
    if (response.status >= 500)
      return fail({ kind: 'failing', message: tr`The server could not store it (${response.status}).` });
    const problem = (await response.json()) as ProblemDetails;
    // Signing in itself is refused at its own fields.
    if (response.status !== 401 || path.startsWith('/api/session/')) return fail({ kind: 'refused', problem });
    const message = tr`${problem.errors[0]?.message ?? problem.title} Nothing that was typed is lost.`;
    listeners.forEach((l) => l(message));
    return fail({ kind: 'signed-out', message });
  } catch {
    return fail({ kind: 'unreachable' });
  }
}
