import { TAKE_BACK_CODE, type TakeBackCode } from '@/formats/requests';
import { schema } from '@/formats/validate';
import { takeBackCode } from '@/server/codes';
import { serverDb } from '@/server/db';
import { answer, answerNotFound, handleJson, isId } from '../../../../handler';

interface Context { params: Promise<{ id: string }> }
const check = schema<TakeBackCode>(TAKE_BACK_CODE);

export const POST = (request: Request, { params }: Context) => handleJson(request, check, async (body) => {
  const { id } = await params;
  return isId(id) ? answer(await takeBackCode(serverDb().db, id, body)) : answerNotFound('job');
});
