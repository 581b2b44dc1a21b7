import { tr } from '@/core/locale/translate';
import type { Result } from '@/core/foundation/result';
import { type ProblemDetails, problemDetails } from '@/formats/problem';
import { decodeText } from '@/formats/text';
import { MADE_AGO_HEADER, MADE_BY_HEADER } from '@/formats/waiting';
import { type Check, readJson, validate } from '@/formats/validate';
import { type Action, ruleFor } from '@/application/policy';
import { refusalFor } from '@/server/policy/authorize';
import { serverDb } from '@/server/db/connection';
import { concludeSoon } from '@/server/jobs/standing';
import { withMadeAt } from '@/server/journal/made-at';
import type { Actor } from '@/server/policy/actor';
import { actorOf, deviceActor, type SignInOutcome } from '@/server/people/sign-in';

/** Of a file. */
const MOST_BYTES = 8 * 1024 * 1024;
/** Of a command, which is read before anybody knows who sends it. */
const MOST_OF_COMMAND = 1024 * 1024;
/** Of signing in. */
const MOST_OF_SIGN_IN = 16 * 1024;
const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

export const isId = (text: string): boolean => UUID.test(text);

export const answerProblem = (problem: ProblemDetails): Response =>
  new Response(JSON.stringify(problem), {
    status: problem.status,
    headers: { 'content-type': 'application/problem+json' },
  });

export const answerNotFound = (what: string): Response =>
  answerProblem(problemDetails('Not found.', [{ path: '', message: tr`There is no such ${what}.` }], 404));

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
    process.stderr.write(`${error instanceof Error ? `${error.message}\n${error.stack ?? ''}` : String(error)}\n`);
    return answerProblem(
      problemDetails(
        'The server could not do this now.',
        [{ path: '', message: 'Try again; what was typed is kept on the bench.' }],
        503,
      ),
    );
  }
}

/**
 * Refuses what another site's page sends with this site's cookies. A browser says where a request comes from;
 * a program need not.
 */
function foreignOrigin(request: Request): Response | null {
  const site = request.headers.get('sec-fetch-site');
  const origin = request.headers.get('origin');
  // The browser's own word; over plain HTTP it says only the origin, which a proxy may have to name by its
  // own host.
  const isOurs =
    site === null ? !origin || isOwnOrigin(origin, request.headers) : site === 'same-origin' || site === 'none';
  if (isOurs) return null;
  const message =
    'The request comes from another site. Behind a proxy: it must pass the Host header on, or MUDFLAT_URL must name the address.';
  return answerProblem(problemDetails('Refused.', [{ path: '', message }], 403));
}

function isOwnOrigin(origin: string, headers: Headers): boolean {
  if (!URL.canParse(origin)) return false;
  const own = [headers.get('x-forwarded-host'), headers.get('host')];
  return own.includes(new URL(origin).host) || origin === process.env.MUDFLAT_URL?.replace(/\/+$/, '');
}

/** The text of a request of the expected content type, from this site's own pages or from no page at all. */
export const readText = (request: Request, ...contentTypes: readonly string[]): Promise<string | Response> =>
  readAtMost(request, MOST_OF_COMMAND, contentTypes);

async function readAtMost(request: Request, most: number, contentTypes: readonly string[]): Promise<string | Response> {
  const foreign = foreignOrigin(request);
  if (foreign) return foreign;
  if (!contentTypes.includes(contentTypeOf(request))) {
    return answerProblem(
      problemDetails('Wrong content type.', [{ path: '', message: tr`Send ${contentTypes.join(' or ')}.` }], 415),
    );
  }
  const bytes = await readBytes(request, most);
  return bytes ? decodeText(bytes).text : answerTooLarge(most);
}

const answerTooLarge = (most: number): Response =>
  answerProblem(
    problemDetails(
      'Too large.',
      [
        {
          path: '',
          message: tr`At most ${most >= 1e6 ? tr`${Math.floor(most / 1e6)} MB` : tr`${Math.floor(most / 1e3)} kB`}.`,
        },
      ],
      413,
    ),
  );

export const contentTypeOf = (request: Request): string =>
  request.headers.get('content-type')?.split(';')[0]?.trim().toLowerCase() ?? '';

/**
 * Under which id an import is done: `?batch=…`; `null` where the file is only to be looked at. A problem
 * where it is no id.
 */
export function readBatch(request: Request): string | null | Response {
  const batch = new URL(request.url).searchParams.get('batch');
  return batch === null || isId(batch)
    ? batch
    : answerProblem(problemDetails('Some fields are wrong.', [{ path: '/batch', message: 'It must be a UUID.' }]));
}

/** A file as a download. */
export const download = (text: string, type: string, name: string): Response =>
  new Response(text, {
    headers: { 'content-type': `${type}; charset=utf-8`, 'content-disposition': `attachment; filename="${name}"` },
  });

const SIGN_IN_FIRST = problemDetails(
  'Sign in first.',
  [{ path: '/by', message: 'Nobody is signed in on this device.' }],
  401,
);

/**
 * Runs a handler for whoever is signed in and may; others are refused with who may. `by`: whose doing it is
 * said to be.
 */
export async function handleAs(
  request: Request,
  action: Action,
  of: string | null,
  handle: (actor: Actor) => Promise<Response>,
  by?: unknown,
): Promise<Response> {
  const active = await actorOf(request.headers);
  if (!active) return answerProblem(SIGN_IN_FIRST);
  // A device that changed hands still sends what was typed before: it is theirs who typed it, as long as they
  // are signed in there.
  const actor =
    typeof by !== 'string' || by.trim() === active.name ? active : await deviceActor(request.headers, by.trim());
  if (!actor)
    return answerProblem(
      problemDetails(
        'Not signed in here.',
        [
          {
            path: '/by',
            message: tr`${String(by).trim()} is not signed in on this device. They can sign in with their PIN; then it is sent as theirs.`,
          },
        ],
        401,
      ),
    );
  const refused = await refusalFor(serverDb().db, actor, action, of);
  if (refused) return answerProblem(refused);
  const response = await withMadeAt(whenMade(request.headers), () => handle(actor));
  concludeAfter(action, of, response);
  return response;
}

/** What was written into a job is weighed before somebody asks. */
function concludeAfter(action: Action, of: string | null, response: Response): void {
  const scope = ruleFor(action).of;
  if (response.ok && of !== null && (scope === 'job' || scope === 'run'))
    void concludeSoon(serverDb().db, { kind: scope, id: of });
}

/**
 * A device that was without the server waited at most so long: what says more has a clock that cannot be
 * trusted.
 */
const LONGEST_WAIT_ms = 31 * 24 * 3600 * 1000;

/**
 * When it was made, where a device sends it later: it says how long ago, by its own clock, whatever that
 * clock shows. `null`: now.
 */
function whenMade(headers: Headers, now = Date.now()): Date | null {
  const ago_ms = Number(headers.get(MADE_AGO_HEADER) ?? 0);
  return ago_ms > 0 && ago_ms <= LONGEST_WAIT_ms ? new Date(now - ago_ms) : null;
}

/** Who made it, as the device says that sends it; `undefined`: whoever is at the bench. */
function madeBy(headers: Headers): string | undefined {
  const said = headers.get(MADE_BY_HEADER);
  try {
    return said === null ? undefined : decodeURIComponent(said);
  } catch {
    return undefined;
  }
}

/** Something to read, for everybody who is signed in. */
export const handleRead = (request: Request, handle: (actor: Actor) => Promise<Response>): Promise<Response> =>
  guard(() => handleAs(request, 'look', null, handle));

/** A file to take in. Who may is settled before the file is read. */
export const handleFile = (
  request: Request,
  action: Action,
  of: string | null,
  types: readonly string[],
  handle: (text: string, actor: Actor) => Promise<Response>,
  most = MOST_BYTES,
): Promise<Response> =>
  guard(() =>
    handleAs(request, action, of, async (actor) => {
      const text = await readAtMost(request, most, types);
      return text instanceof Response ? text : handle(text, actor);
    }),
  );

/**
 * Reads and validates a JSON body, and handles it for whoever may. `of`: id of the thing to which it is done,
 * which may stand in the body; `by` is filled in from the session.
 */
export function handleJson<T>(
  request: Request,
  check: Check<T>,
  action: Action,
  of: string | null | ((body: T) => string | null),
  handle: (body: T, actor: Actor) => Promise<Response>,
): Promise<Response> {
  return guard(async () => {
    const json = await readBody(request, MOST_OF_COMMAND);
    if (json instanceof Response) return json;
    const claimed = (isObject(json) ? json.by : undefined) ?? madeBy(request.headers);
    // A body that is wrong says so to those who are signed in only.
    return handleAs(
      request,
      'look',
      null,
      async (who) => {
        const body = validate(check, isObject(json) ? { ...json, ...(wantsBy(check) ? { by: who.name } : {}) } : json);
        if (!body.ok) return answerProblem(problemDetails('Some fields are wrong.', body.error));
        const id = typeof of === 'function' ? of(body.value) : of;
        const refused = await refusalFor(serverDb().db, who, action, id);
        if (refused) return answerProblem(refused);
        const response = await handle(body.value, who);
        concludeAfter(action, id, response);
        return response;
      },
      claimed,
    );
  });
}

/** A JSON body from anybody: signing in. */
export function handleOpen<T>(
  request: Request,
  check: Check<T>,
  handle: (body: T) => Promise<Response>,
): Promise<Response> {
  return guard(async () => {
    const json = await readBody(request, MOST_OF_SIGN_IN);
    if (json instanceof Response) return json;
    const body = validate(check, json);
    return body.ok ? handle(body.value) : answerProblem(problemDetails('Some fields are wrong.', body.error));
  });
}

/** The outcome of signing in, switching or signing out, with its cookies. */
export function answerSession(outcome: SignInOutcome): Response {
  if (!outcome.ok) return answerProblem(outcome.error);
  const response = Response.json({ name: outcome.value.name });
  for (const cookie of outcome.value.cookies) response.headers.append('set-cookie', cookie);
  return response;
}

/** Bytes from whoever may, at most so many: a larger body is not read to its end. */
export const handleBytes = (
  request: Request,
  action: Action,
  of: string | null,
  most: number,
  handle: (bytes: Buffer, actor: Actor) => Promise<Response>,
): Promise<Response> =>
  guard(async () => {
    const foreign = foreignOrigin(request);
    if (foreign) return foreign;
    return handleAs(
      request,
      action,
      of,
      async (actor) => {
        const bytes = await readBytes(request, most);
        return bytes ? handle(bytes, actor) : answerTooLarge(most);
      },
      madeBy(request.headers),
    );
  });

/** `null` where there are more: the rest is not read. */
async function readBytes(request: Request, most: number): Promise<Buffer | null> {
  if (Number(request.headers.get('content-length') ?? 0) > most) return null;
  const chunks: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  for (let part = await reader?.read(); part && !part.done; part = await reader?.read()) {
    size += part.value.length;
    if (size > most) {
      await reader?.cancel();
      return null;
    }
    chunks.push(part.value);
  }
  return Buffer.concat(chunks);
}

const isObject = (value: unknown): value is Record<string, unknown> =>
  value !== null && typeof value === 'object' && !Array.isArray(value);
const wantsBy = ({ schema }: Check<unknown>): boolean =>
  isObject(schema) && isObject(schema.properties) && 'by' in schema.properties;

/** The JSON of a request, or the refusal. */
export async function readBody(request: Request, most = MOST_BYTES): Promise<unknown> {
  const text = await readAtMost(request, most, ['application/json']);
  if (text instanceof Response) return text;
  const json = readJson(text);
  return json.ok ? json.value : answerProblem(problemDetails('This is not JSON.', json.error, 400));
}
