import { schema } from '@/formats/validate';
import { noteSum } from '@/server/jobs/notes';
import { serverDb } from '@/server/db/connection';
import { answer, answerNotFound, handleJson, isId } from '../../../handler';
import { NOTE_SUM, type NoteSum } from '@/formats/requests/jobs';

interface Context {
  params: Promise<{ id: string }>;
}
const check = schema<NoteSum>(NOTE_SUM);

export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('job');
  return handleJson(request, check, 'job.note-calculation', id, async (body) =>
    answer(await noteSum(serverDb().db, id, body)),
  );
}
