import { CHANGE_ENGINE_FAMILY, type ChangeEngineFamily } from '@/formats/requests/fleet';
import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { changeEngineFamily } from '@/server/fleet/fleet';
import { answer, answerNotFound, handleJson, isId } from '../../handler';

const check = schema<ChangeEngineFamily>(CHANGE_ENGINE_FAMILY);

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('engine family');
  return handleJson(request, check, 'engine-family.change', null, async (body) =>
    answer(await changeEngineFamily(serverDb().db, id, body)),
  );
}
