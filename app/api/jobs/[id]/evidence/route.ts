import { schema } from '@/formats/schemas';
import { recordEvidence } from '@/server/evidence/evidence';
import { serverDb } from '@/server/db/connection';
import { answer, answerNotFound, handleJson, isId } from '../../../handler';
import { RECORD_EVIDENCE, type RecordEvidence } from '@/formats/requests/evidence';

interface Context {
  params: Promise<{ id: string }>;
}
const check = schema<RecordEvidence>(RECORD_EVIDENCE);

export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('job');
  return handleJson(request, check, 'job.record-evidence', id, async (body) =>
    answer(await recordEvidence(serverDb().db, id, body)),
  );
}
