import { RETIRE_INSTRUMENT, type RetireInstrument } from '@/formats/requests';
import { schema } from '@/formats/validate';
import { retireInstrument } from '@/server/instruments/instruments';
import { instrumentPlace } from '@/server/policy/access';
import { serverDb } from '@/server/db/connection';
import { answer, answerNotFound, handleJson, isId } from '../../../handler';

interface Context {
  params: Promise<{ id: string }>;
}
const check = schema<RetireInstrument>(RETIRE_INSTRUMENT);

export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('instrument');
  return handleJson(
    request,
    check,
    { role: 'lead', what: 'change instruments', place: instrumentPlace(id) },
    async (body) => answer(await retireInstrument(serverDb().db, id, body.by)),
  );
}
