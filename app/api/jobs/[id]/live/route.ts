import { serverDb } from '@/server/db/connection';
import { findJob } from '@/server/audit/audit-trail';
import { followJob } from '@/server/live/live';
import { answerNotFound, handleRead, isId } from '../../../handler';

export const dynamic = 'force-dynamic';

/** What others write into the job, as it happens: server-sent events. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  handleRead(request, async () => {
    const { id } = await params;
    if (!isId(id) || !(await findJob(serverDb().db, id))) return answerNotFound('job');
    return new Response(followJob(id, request.signal), {
      headers: {
        'content-type': 'text/event-stream',
        'cache-control': 'no-store, no-transform',
        'x-accel-buffering': 'no',
      },
    });
  });
