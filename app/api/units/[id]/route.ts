import { CHANGE_UNIT, type ChangeUnit } from '@/formats/requests/fleet';
import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { changeUnit } from '@/server/fleet/fleet';
import { refusalFor } from '@/server/policy/authorize';
import { answer, answerNotFound, answerProblem, handleJson, isId } from '../../handler';

const check = schema<ChangeUnit>(CHANGE_UNIT);

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('unit');
  return handleJson(request, check, 'unit.change', id, async (body, actor) => {
    const { db } = serverDb();
    // Moved to another depot: whoever moves it must be of that one too.
    const refused = body.depotId === undefined ? null : await refusalFor(db, actor, 'depot.change', body.depotId);
    return refused ? answerProblem(refused) : answer(await changeUnit(db, id, body));
  });
}
