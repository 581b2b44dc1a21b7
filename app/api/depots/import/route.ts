import { problemDetails } from '@/formats/problem';
import { serverDb } from '@/server/db/connection';
import { readBeside } from '@/server/files/read-beside';
import { importDepots } from '@/server/fleet/depot-list';
import { answer, answerProblem, handleFile, readBatch } from '../../handler';

/** CSV. Without `batch`: what the list would do. With `batch`: does it, all or nothing. */
export const POST = (request: Request) =>
  handleFile(request, 'depots.import', null, ['text/csv'], async (text, actor) => {
    const batch = readBatch(request);
    if (batch instanceof Response) return batch;
    const read = await readBeside('depots', text);
    if (!read.ok) return answerProblem(problemDetails('This list cannot be taken.', read.error));
    return answer(await importDepots(serverDb().db, read.value, actor, batch));
  });
