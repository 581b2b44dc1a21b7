import { schema } from '@/formats/schemas';
import { signOut } from '@/server/people/sign-in';
import { answerSession, handleOpen } from '../../handler';

const check = schema<Record<string, never>>({ type: 'object', additionalProperties: false });

/** Signs out whoever is at the bench; another person of this device takes the place. */
export const POST = (request: Request) =>
  handleOpen(request, check, async () => answerSession(await signOut(request.headers)));
