import { serverDb } from '@/server/db/connection';
import { viewRun } from '@/server/readings/run-view';
import { answerNotFound, handleRead, isId } from '../../handler';

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  handleRead(request, async () => {
    const { id } = await params;
    const view = isId(id) ? await viewRun(serverDb().db, id) : null;
    return view ? Response.json(view) : answerNotFound('test run');
  });
