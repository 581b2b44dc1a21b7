import { schema } from '@/formats/schemas';
import { chooseDepot } from '@/server/fleet/fleet';
import { serverDb } from '@/server/db/connection';
import { answer, answerNotFound, handleJson, isId } from '../../../handler';
import { CHOOSE_DEPOT, type ChooseDepot } from '@/formats/requests/fleet';

interface Context {
  params: Promise<{ id: string }>;
}
const check = schema<ChooseDepot>(CHOOSE_DEPOT);

export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('depot');
  return handleJson(request, check, 'depot.choose', id, async (body) =>
    answer(await chooseDepot(serverDb().db, id, body)),
  );
}
