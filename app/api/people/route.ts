import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { addPerson } from '@/server/people/people';
import { answer, handleJson } from '../handler';
import { ADD_PERSON, type AddPerson } from '@/formats/requests/people';

const check = schema<AddPerson>(ADD_PERSON);

export const POST = (request: Request) =>
  handleJson(
    request,
    check,
    'person.add',
    (body) => body.depotId,
    async (body, actor) => answer(await addPerson(serverDb().db, body, actor)),
  );
