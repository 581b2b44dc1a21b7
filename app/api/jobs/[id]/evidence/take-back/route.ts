import { TAKE_BACK, type TakeBack } from '@/formats/job-requests';
import { schema } from '@/formats/validate';
import { jobPlace } from '@/server/policy/access';
import { takeBackEvidence } from '@/server/evidence/evidence';
import { serverDb } from '@/server/db/connection';
import { answer, answerNotFound, handleJson, isId } from '../../../../handler';

interface Context {
  params: Promise<{ id: string }>;
}
const check = schema<TakeBack>(TAKE_BACK);

export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('job');
  return handleJson(
    request,
    check,
    { role: 'technician', what: 'take evidence back', place: jobPlace(id) },
    async (body) => answer(await takeBackEvidence(serverDb().db, id, body)),
  );
}
