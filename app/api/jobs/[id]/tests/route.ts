import { serverDb } from '@/server/db/connection';
import { testsForJob } from '@/server/jobs/view-job';
import { answerNotFound, handleRead, isId } from '../../../handler';

/** The catalogue as a job offers it, with what its unit does not have marked. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  return handleRead(request, async () => {
    const tests = isId(id) ? await testsForJob(serverDb().db, id) : null;
    return tests ? Response.json({ tests }) : answerNotFound('job');
  });
}
