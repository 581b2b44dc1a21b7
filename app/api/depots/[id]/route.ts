import { CHANGE_DEPOT, type ChangeDepot } from '@/formats/requests/fleet';
import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { changeDepot } from '@/server/fleet/depots';
import { answer, answerNotFound, handleJson, isId } from '../../handler';

const check = schema<ChangeDepot>(CHANGE_DEPOT);

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('depot');
  return handleJson(request, check, 'depot.change', id, async (body) =>
    answer(await changeDepot(serverDb().db, id, body)),
  );
}
