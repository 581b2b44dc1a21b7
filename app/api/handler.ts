import type { ValidateFunction } from 'ajv';
import type { Result } from '@/core/result';
import { type ProblemDetails, problemDetails } from '@/formats/problem';
import { readJson, validate } from '@/formats/validate';

const MOST_BYTES = 8 * 1024 * 1024;
const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

export const isId = (text: string): boolean => UUID.test(text);

export const answerProblem = (problem: ProblemDetails): Response =>
  new Response(JSON.stringify(problem), { status: problem.status, headers: { 'content-type': 'application/problem+json' } });

export const answerNotFound = (what: string): Response =>
  answerProblem(problemDetails('Not found.', [{ path: '', message: `There is no such ${what}.` }], 404));

/** A command's outcome as an HTTP answer: 201 for what is new, 200 for what was there. */
export function answer(result: Result<object, ProblemDetails>): Response {
  if (!result.ok) return answerProblem(result.error);
  const isNew = 'duplicate' in result.value && result.value.duplicate === false;
  return Response.json(result.value, { status: isNew ? 201 : 200 });
}

/** Runs a handler; a failing database is 503, which the bench takes as "try again". */
export async function guard(handle: () => Promise<Response>): Promise<Response> {
  try {
    return await handle();
  } catch (error) {
    process.stderr.write(`${error instanceof Error ? error.stack ?? error.message : String(error)}\n`);
    return answerProblem(problemDetails('The server could not do this now.', [{ path: '', message: 'Try again; what was typed is kept on the bench.' }], 503));
  }
}

/** The text of a request of the expected content type, from this site's own pages or from no page at all. */
export async function readText(request: Request, ...contentTypes: readonly string[]): Promise<string | Response> {
  const origin = request.headers.get('origin');
  if (origin && URL.canParse(origin) ? new URL(origin).host !== request.headers.get('host') : origin) {
    return answerProblem(problemDetails('Refused.', [{ path: '', message: 'The request comes from another site.' }], 403));
  }
  if (!contentTypes.includes(contentTypeOf(request))) {
    return answerProblem(problemDetails('Wrong content type.', [{ path: '', message: `Send ${contentTypes.join(' or ')}.` }], 415));
  }
  const tooLarge = (): Response => answerProblem(problemDetails('Too large.', [{ path: '', message: 'At most 8 MB.' }], 413));
  if (Number(request.headers.get('content-length') ?? 0) > MOST_BYTES) return tooLarge();
  const text = await request.text();
  return text.length > MOST_BYTES ? tooLarge() : text;
}

export const contentTypeOf = (request: Request): string => request.headers.get('content-type')?.split(';')[0]?.trim().toLowerCase() ?? '';

/** Who does an import and under which id: `?batch=…&by=…`; `null` where the file is only to be looked at. A problem where one of them is wrong. */
export function readBatch(request: Request): { batch: string; by: string } | null | Response {
  const query = new URL(request.url).searchParams;
  const [batch, by] = [query.get('batch'), query.get('by')?.trim() ?? ''];
  if (batch === null) return null;
  if (!isId(batch)) return answerProblem(problemDetails('Some fields are wrong.', [{ path: '/batch', message: 'It must be a UUID.' }]));
  if (!by || by.length > 80) return answerProblem(problemDetails('Some fields are wrong.', [{ path: '/by', message: 'Say who imports, in at most 80 characters.' }]));
  return { batch, by };
}

/** A file as a download. */
export const download = (text: string, type: string, name: string): Response =>
  new Response(text, { headers: { 'content-type': `${type}; charset=utf-8`, 'content-disposition': `attachment; filename="${name}"` } });

/** Reads, validates and handles a JSON body. */
export function handleJson<T>(request: Request, check: ValidateFunction<T>, handle: (body: T) => Promise<Response>): Promise<Response> {
  return guard(async () => {
    const text = await readText(request, 'application/json');
    if (text instanceof Response) return text;
    const json = readJson(text);
    if (!json.ok) return answerProblem(problemDetails('This is not JSON.', json.error, 400));
    const body = validate(check, json.value);
    return body.ok ? handle(body.value) : answerProblem(problemDetails('Some fields are wrong.', body.error));
  });
}
