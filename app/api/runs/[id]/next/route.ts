import { serverDb } from '@/server/db/connection';
import { standOfRun } from '@/server/jobs/standing';
import { answerNotFound, handleRead, isId } from '../../../handler';

/** What is next in the job of this run: the same that the job's page and the yard say. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  handleRead(request, async () => {
    const { id } = await params;
    const found = isId(id) ? await standOfRun(serverDb().db, id) : null;
    return found ? Response.json(found) : answerNotFound('run');
  });
