import { serverDb } from '@/server/db/connection';
import { viewJob } from '@/server/jobs/view-job';
import { answerNotFound, handleRead, isId } from '../../handler';

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  handleRead(request, async () => {
    const { id } = await params;
    const view = isId(id) ? await viewJob(serverDb().db, id) : null;
    return view ? Response.json(view) : answerNotFound('job');
  });
