import { schema } from '@/formats/schemas';
import { overrideState } from '@/server/jobs/notes';
import { serverDb } from '@/server/db/connection';
import { answer, answerNotFound, handleJson, isId } from '../../../handler';
import { OVERRIDE_STATE, type OverrideState } from '@/formats/requests/runs';

interface Context {
  params: Promise<{ id: string }>;
}
const check = schema<OverrideState>(OVERRIDE_STATE);

export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('test run');
  return handleJson(request, check, 'run.override-state', id, async (body) =>
    answer(await overrideState(serverDb().db, id, body)),
  );
}
