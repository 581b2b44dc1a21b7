import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { judgeAgain, whatJudgingAgainChanges } from '@/server/readings/judge-again';
import { answer, answerNotFound, answerProblem, handleJson, handleRead, isId } from '../../../handler';
import { JUDGE_AGAIN, type JudgeAgain } from '@/formats/requests/runs';

interface Context {
  params: Promise<{ id: string }>;
}
const check = schema<JudgeAgain>(JUDGE_AGAIN);

/** What judging again by this version would change. Nothing is stored. */
export const GET = (request: Request, { params }: Context) =>
  handleRead(request, async () => {
    const { id } = await params;
    if (!isId(id)) return answerNotFound('test run');
    const found = await whatJudgingAgainChanges(serverDb().db, id);
    return found.ok ? Response.json(found.value) : answerProblem(found.error);
  });

export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('test run');
  return handleJson(request, check, 'run.judge-again', id, async (body) =>
    answer(await judgeAgain(serverDb().db, id, body)),
  );
}
