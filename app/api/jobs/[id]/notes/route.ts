import { schema } from '@/formats/schemas';
import { noteCalculation } from '@/server/jobs/notes';
import { serverDb } from '@/server/db/connection';
import { answer, answerNotFound, handleJson, isId } from '../../../handler';
import { NOTE_CALCULATION, type NoteCalculation } from '@/formats/requests/jobs';

interface Context {
  params: Promise<{ id: string }>;
}
const check = schema<NoteCalculation>(NOTE_CALCULATION);

export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('job');
  return handleJson(request, check, 'job.note-calculation', id, async (body) =>
    answer(await noteCalculation(serverDb().db, id, body)),
  );
}
