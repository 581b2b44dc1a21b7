import { schema } from '@/formats/schemas';
import { signIn } from '@/server/people/sign-in';
import { answerSession, handleOpen } from '../../handler';
import { SIGN_IN, type SignIn } from '@/formats/requests/people';

const check = schema<SignIn>(SIGN_IN);

export const POST = (request: Request) =>
  handleOpen(request, check, async (body) => answerSession(await signIn(request.headers, body.name, body.pin)));
