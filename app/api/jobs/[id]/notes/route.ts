import { NOTE_SUM, type NoteSum } from '@/formats/requests';
import { schema } from '@/formats/validate';
import { noteSum } from '@/server/notes';
import { serverDb } from '@/server/db';
import { answer, answerNotFound, handleJson, isId } from '../../../handler';

interface Context { params: Promise<{ id: string }> }
const check = schema<NoteSum>(NOTE_SUM);

export const POST = (request: Request, { params }: Context) => handleJson(request, check, async (body) => {
  const { id } = await params;
  return isId(id) ? answer(await noteSum(serverDb().db, id, body)) : answerNotFound('job');
});
