import { schema } from '@/formats/schemas';
import { switchPerson } from '@/server/people/sign-in';
import { answerSession, handleOpen } from '../../handler';
import { SWITCH_PERSON, type SwitchPerson } from '@/formats/requests/people';

const check = schema<SwitchPerson>(SWITCH_PERSON);

export const POST = (request: Request) =>
  handleOpen(request, check, async (body) => answerSession(await switchPerson(request.headers, body.name, body.pin)));
