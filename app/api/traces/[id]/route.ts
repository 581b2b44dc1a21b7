import { serverDb } from '@/server/db/connection';
import { viewTrace } from '@/server/traces/traces';
import { answerNotFound, handleRead, isId } from '../../handler';

/** A recording without its samples, with what is still missing of them. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  handleRead(request, async () => {
    const { id } = await params;
    const view = isId(id) ? await viewTrace(serverDb().db, id) : null;
    return view ? Response.json(view) : answerNotFound('recording');
  });
