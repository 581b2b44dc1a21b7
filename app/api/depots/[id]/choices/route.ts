import { CHOOSE_DEPOT, type ChooseDepot } from '@/formats/requests';
import { schema } from '@/formats/validate';
import { chooseDepot } from '@/server/commands';
import { serverDb } from '@/server/db';
import { answer, answerNotFound, handleJson, isId } from '../../../handler';

interface Context { params: Promise<{ id: string }> }
const check = schema<ChooseDepot>(CHOOSE_DEPOT);

export const POST = (request: Request, { params }: Context) => handleJson(request, check, async (body) => {
  const { id } = await params;
  return isId(id) ? answer(await chooseDepot(serverDb().db, id, body)) : answerNotFound('depot');
});
