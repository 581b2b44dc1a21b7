import { WRITE_LEADS, type WriteLeads } from '@/formats/requests/traces';
import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { leadsOf, writeLeads } from '@/server/traces/leads';
import { answer, answerNotFound, handleJson, handleRead, isId } from '../../../handler';

interface Context {
  params: Promise<{ id: string }>;
}
const check = schema<WriteLeads>(WRITE_LEADS);

/** Which lead of a recorder goes to which pin; `null` where nobody has said it. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleRead(request, async () => {
    const { id } = await params;
    return isId(id) ? Response.json(await leadsOf(serverDb().db, id)) : answerNotFound('job');
  });

export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('job');
  return handleJson(request, check, 'job.plan-leads', id, async (body) =>
    answer(await writeLeads(serverDb().db, id, body)),
  );
}
