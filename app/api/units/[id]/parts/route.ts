import { SET_PART, type SetPart } from '@/formats/requests';
import { schema } from '@/formats/validate';
import { setPart } from '@/server/commands';
import { serverDb } from '@/server/db';
import { answer, answerNotFound, handleJson, isId } from '../../../handler';

interface Context { params: Promise<{ id: string }> }
const check = schema<SetPart>(SET_PART);

export const POST = (request: Request, { params }: Context) => handleJson(request, check, async (body) => {
  const { id } = await params;
  return isId(id) ? answer(await setPart(serverDb().db, id, body)) : answerNotFound('unit');
});
