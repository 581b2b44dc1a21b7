import { CAPTURE_STANDING, type CaptureStanding } from '@/formats/requests/traces';
import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { markCapture } from '@/server/traces/captures';
import { jobOfTrace } from '@/server/traces/traces';
import { answer, answerNotFound, guard, handleJson, isId } from '../../../handler';

const check = schema<CaptureStanding>(CAPTURE_STANDING);

/** What a lead says that a capture is good for: known good, unknown, or bad. */
export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  return guard(async () => {
    const job = isId(id) ? await jobOfTrace(serverDb().db, id) : null;
    if (job === null) return answerNotFound('recording');
    return handleJson(request, check, 'job.judge-capture', job, async (body) =>
      answer(await markCapture(serverDb().db, id, body)),
    );
  });
}
