import { WRITE_RECORD, type WriteRecord } from '@/formats/requests/repair';
import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { writeRepairRecord } from '@/server/repair/repair-log';
import { answer, answerNotFound, handleJson, isId } from '../../../handler';

interface Context {
  params: Promise<{ id: string }>;
}
const check = schema<WriteRecord>(WRITE_RECORD);

/** Decision, quotation and answer, steps, coding, scan, release, reopening. */
export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('job');
  return handleJson(request, check, 'job.write-repair', id, async (body, actor) =>
    answer(await writeRepairRecord(serverDb().db, id, body, actor)),
  );
}
