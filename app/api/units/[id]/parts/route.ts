import { schema } from '@/formats/schemas';
import { setPart } from '@/server/fleet/fleet';
import { serverDb } from '@/server/db/connection';
import { answer, answerNotFound, handleJson, isId } from '../../../handler';
import { SET_PART, type SetPart } from '@/formats/requests/fleet';

interface Context {
  params: Promise<{ id: string }>;
}
const check = schema<SetPart>(SET_PART);

export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('unit');
  return handleJson(request, check, 'unit.note-parts', id, async (body) =>
    answer(await setPart(serverDb().db, id, body)),
  );
}
