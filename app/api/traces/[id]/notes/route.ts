import { NOTE_TRACE, type NoteTrace } from '@/formats/requests/traces';
import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { jobOfTrace, noteTrace } from '@/server/traces/traces';
import { answer, answerNotFound, guard, handleJson, isId } from '../../../handler';

const check = schema<NoteTrace>(NOTE_TRACE);

/** A mark in a recording, or what was decided about a finding. */
export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  return guard(async () => {
    const job = isId(id) ? await jobOfTrace(serverDb().db, id) : null;
    if (job === null) return answerNotFound('recording');
    return handleJson(request, check, 'job.note-trace', job, async (body) =>
      answer(await noteTrace(serverDb().db, id, body)),
    );
  });
}
