import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { changePerson } from '@/server/people/people';
import { answer, answerNotFound, handleJson, isId } from '../../handler';
import { CHANGE_PERSON, type ChangePerson } from '@/formats/requests/people';

interface Context {
  params: Promise<{ id: string }>;
}
const check = schema<ChangePerson>(CHANGE_PERSON);

export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('person');
  return handleJson(request, check, 'person.change', id, async (body, actor) =>
    answer(await changePerson(serverDb().db, id, body, actor)),
  );
}
