import { schema } from '@/formats/schemas';
import { takeBackCode } from '@/server/evidence/codes';
import { serverDb } from '@/server/db/connection';
import { answer, answerNotFound, handleJson, isId } from '../../../../handler';
import { TAKE_BACK_CODE, type TakeBackCode } from '@/formats/requests/codes';

interface Context {
  params: Promise<{ id: string }>;
}
const check = schema<TakeBackCode>(TAKE_BACK_CODE);

export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('job');
  return handleJson(request, check, 'job.take-codes-back', id, async (body) =>
    answer(await takeBackCode(serverDb().db, id, body)),
  );
}
