import { schema } from '@/formats/schemas';
import { changePlan } from '@/server/jobs/plan';
import { serverDb } from '@/server/db/connection';
import { answer, answerNotFound, handleJson, isId } from '../../../handler';
import { CHANGE_PLAN, type ChangePlan } from '@/formats/requests/plan';

interface Context {
  params: Promise<{ id: string }>;
}
const check = schema<ChangePlan>(CHANGE_PLAN);

export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('job');
  return handleJson(request, check, 'job.change-plan', id, async (body) =>
    answer(await changePlan(serverDb().db, id, body)),
  );
}
