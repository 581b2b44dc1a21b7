import { RETIRE_INSTRUMENT, type RetireInstrument } from '@/formats/requests';
import { schema } from '@/formats/validate';
import { retireInstrument } from '@/server/instruments';
import { serverDb } from '@/server/db';
import { answer, answerNotFound, handleJson, isId } from '../../../handler';

interface Context { params: Promise<{ id: string }> }
const check = schema<RetireInstrument>(RETIRE_INSTRUMENT);

export const POST = (request: Request, { params }: Context) => handleJson(request, check, async (body) => {
  const { id } = await params;
  return isId(id) ? answer(await retireInstrument(serverDb().db, id, body.by)) : answerNotFound('instrument');
});
