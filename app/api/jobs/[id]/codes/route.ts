import { RECORD_CODES, type RecordCodes } from '@/formats/requests';
import { schema } from '@/formats/validate';
import { recordCodes } from '@/server/codes';
import { serverDb } from '@/server/db';
import { answer, answerNotFound, handleJson, isId } from '../../../handler';

interface Context { params: Promise<{ id: string }> }
const check = schema<RecordCodes>(RECORD_CODES);

export const POST = (request: Request, { params }: Context) => handleJson(request, check, async (body) => {
  const { id } = await params;
  return isId(id) ? answer(await recordCodes(serverDb().db, id, body)) : answerNotFound('job');
});
