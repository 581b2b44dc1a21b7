import { serverDb } from '@/server/db/connection';
import { verifyJob } from '@/server/audit/audit-trail';
import { answerNotFound, handleRead, isId } from '../../../handler';

export const dynamic = 'force-dynamic';

/** Whether the trail of a job is intact; what is not is named. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  handleRead(request, async () => {
    const { id } = await params;
    const verified = isId(id) ? await verifyJob(serverDb().db, id) : null;
    return verified ? Response.json(verified) : answerNotFound('job');
  });
