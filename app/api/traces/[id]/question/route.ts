import { questionOf } from '@/application/traces/question-of';
import { serverDb } from '@/server/db/connection';
import { viewJob } from '@/server/jobs/view-job';
import { viewTrace } from '@/server/traces/traces';
import { answerNotFound, handleRead, isId } from '../../../handler';

/** The question document that goes with a recording's table (`…/csv?clock=0`): both together travel. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  handleRead(request, async () => {
    const { id } = await params;
    const { db } = serverDb();
    const trace = isId(id) ? await viewTrace(db, id) : null;
    const view = trace && (await viewJob(db, trace.jobId));
    const clock = Number(new URL(request.url).searchParams.get('clock') ?? 0);
    if (!view || !trace.head.clocks[clock]) return answerNotFound('recording');
    const question = questionOf(trace, view.unit.engine, `recording-${id}.csv`, clock);
    return new Response(`${JSON.stringify(question, null, 2)}\n`, {
      headers: {
        'content-type': 'application/json; charset=utf-8',
        'content-disposition': `attachment; filename="recording-${id}.json"`,
      },
    });
  });
