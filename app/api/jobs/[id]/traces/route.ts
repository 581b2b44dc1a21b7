import { KEEP_TRACE, type KeepTrace } from '@/formats/requests/traces';
import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { keepTrace, tracesOf } from '@/server/traces/traces';
import { answer, answerNotFound, handleJson, handleRead, isId } from '../../../handler';

interface Context {
  params: Promise<{ id: string }>;
}
const check = schema<KeepTrace>(KEEP_TRACE);

/** The recordings of a job, without their samples. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleRead(request, async () => {
    const { id } = await params;
    return isId(id) ? Response.json(await tracesOf(serverDb().db, id)) : answerNotFound('job');
  });

/** Begins a recording: all of it but its samples, which follow in blocks. */
export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('job');
  return handleJson(request, check, 'job.add-trace', id, async (body) =>
    answer(await keepTrace(serverDb().db, id, body)),
  );
}
