import { schema } from '@/formats/schemas';
import { takeBackEvidence } from '@/server/evidence/evidence';
import { serverDb } from '@/server/db/connection';
import { answer, answerNotFound, handleJson, isId } from '../../../../handler';
import { TAKE_BACK, type TakeBack } from '@/formats/requests/evidence';

interface Context {
  params: Promise<{ id: string }>;
}
const check = schema<TakeBack>(TAKE_BACK);

export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('job');
  return handleJson(request, check, 'job.take-evidence-back', id, async (body) =>
    answer(await takeBackEvidence(serverDb().db, id, body)),
  );
}
