import { serverDb } from '@/server/db';
import { viewJob } from '@/server/queries';
import { answerNotFound, handleRead, isId } from '../../handler';

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  handleRead(request, async () => {
    const { id } = await params;
    const view = isId(id) ? await viewJob(serverDb().db, id) : null;
    return view ? Response.json(view) : answerNotFound('job');
  });
