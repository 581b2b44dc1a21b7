import { serverDb } from '@/server/db/connection';
import { viewCase } from '@/server/jobs/view-job';
import { answerNotFound, handleRead, isId } from '../../../handler';

/** What the job knows beside this run, for weighing on the bench. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  handleRead(request, async () => {
    const { id } = await params;
    const found = isId(id) ? await viewCase(serverDb().db, id) : null;
    return found ? Response.json(found) : answerNotFound('run');
  });
