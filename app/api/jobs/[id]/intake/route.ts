import { schema } from '@/formats/schemas';
import { noteIntake } from '@/server/evidence/evidence';
import { serverDb } from '@/server/db/connection';
import { answer, answerNotFound, handleJson, isId } from '../../../handler';
import { NOTE_INTAKE, type NoteIntake } from '@/formats/requests/intake';

interface Context {
  params: Promise<{ id: string }>;
}
const check = schema<NoteIntake>(NOTE_INTAKE);

export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('job');
  return handleJson(request, check, 'job.change-intake', id, async (body) =>
    answer(await noteIntake(serverDb().db, id, body)),
  );
}
