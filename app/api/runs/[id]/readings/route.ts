import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { recordReading } from '@/server/readings/record-reading';
import { answer, answerNotFound, handleJson, isId } from '../../../handler';
import { RECORD_READING, type RecordReading } from '@/formats/requests/runs';

const check = schema<RecordReading>(RECORD_READING);

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('test run');
  return handleJson(request, check, 'run.record-reading', id, async (body) =>
    answer(await recordReading(serverDb().db, id, body)),
  );
}
