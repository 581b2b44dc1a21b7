import { schema } from '@/formats/schemas';
import { recordCodes } from '@/server/evidence/codes';
import { serverDb } from '@/server/db/connection';
import { answer, answerNotFound, handleJson, isId } from '../../../handler';
import { RECORD_CODES, type RecordCodes } from '@/formats/requests/codes';

interface Context {
  params: Promise<{ id: string }>;
}
const check = schema<RecordCodes>(RECORD_CODES);

export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('job');
  return handleJson(request, check, 'job.keep-codes', id, async (body) =>
    answer(await recordCodes(serverDb().db, id, body)),
  );
}
