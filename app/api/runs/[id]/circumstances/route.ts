import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { recordCircumstance } from '@/server/readings/record-reading';
import { answer, answerNotFound, handleJson, isId } from '../../../handler';
import { RECORD_CIRCUMSTANCE, type RecordCircumstance } from '@/formats/requests/runs';

const check = schema<RecordCircumstance>(RECORD_CIRCUMSTANCE);

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('test run');
  return handleJson(request, check, 'run.state-circumstances', id, async (body) =>
    answer(await recordCircumstance(serverDb().db, id, body)),
  );
}
