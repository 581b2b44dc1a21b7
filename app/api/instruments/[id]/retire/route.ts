import { schema } from '@/formats/schemas';
import { retireInstrument } from '@/server/instruments/instruments';
import { serverDb } from '@/server/db/connection';
import { answer, answerNotFound, handleJson, isId } from '../../../handler';
import { RETIRE_INSTRUMENT, type RetireInstrument } from '@/formats/requests/instruments';

interface Context {
  params: Promise<{ id: string }>;
}
const check = schema<RetireInstrument>(RETIRE_INSTRUMENT);

export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('instrument');
  return handleJson(request, check, 'instrument.retire', id, async () =>
    answer(await retireInstrument(serverDb().db, id)),
  );
}
