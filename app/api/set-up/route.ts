import { fail, ok } from '@/core/foundation/result';
import { problemDetails } from '@/formats/problem';
import { SET_UP, type SetUp } from '@/formats/requests/installation';
import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { hasPeople, isSetUpCode, setUp } from '@/server/installation/installation';
import { signIn, type SignInOutcome, withinTries } from '@/server/people/sign-in';
import { answerProblem, answerSession, handleOpen } from '../handler';

const check = schema<SetUp>(SET_UP);
const DONE = problemDetails('It is set up already.', [{ path: '', message: 'Sign in instead.' }], 409);

/** What is said of the PIN when signing in is said of the code here. */
const ofCode = (outcome: Exclude<SignInOutcome, { ok: true }>): SignInOutcome =>
  fail(
    problemDetails(
      'Not set up.',
      [
        {
          path: '/code',
          message:
            outcome.error.status === 429
              ? 'Too many wrong codes. Wait a quarter of an hour, or start the command again.'
              : 'This is not the code that the command has printed last.',
        },
      ],
      outcome.error.status === 429 ? 429 : 422,
    ),
  );

/** The first lead, the workshop and its depots: once, by whoever has the code that the command printed. */
export const POST = (request: Request) =>
  handleOpen(request, check, async (body) => {
    const { db } = serverDb();
    if (await hasPeople(db)) return answerProblem(DONE);
    const code = await withinTries(request.headers, 'set-up', async () =>
      (await isSetUpCode(db, body.code)) ? ok({ name: null, cookies: [] }) : null,
    );
    if (!code.ok) return answerSession(ofCode(code));
    const done = await setUp(db, body);
    if (!done.ok) return answerProblem(done.error);
    return answerSession(await signIn(request.headers, done.value.name, body.lead.password));
  });
