import { schema } from '@/formats/schemas';
import { writeFinding } from '@/server/evidence/findings';
import { serverDb } from '@/server/db/connection';
import { answer, answerNotFound, handleJson, isId } from '../../../handler';
import { WRITE_FINDING, type WriteFinding } from '@/formats/requests/findings';

interface Context {
  params: Promise<{ id: string }>;
}
const check = schema<WriteFinding>(WRITE_FINDING);

export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('job');
  return handleJson(request, check, 'job.write-finding', id, async (body) =>
    answer(await writeFinding(serverDb().db, id, body)),
  );
}
