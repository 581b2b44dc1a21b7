import { problemDetails } from '@/formats/problem';
import { serverDb } from '@/server/db/connection';
import { readBeside } from '@/server/files/read-beside';
import { importFittingValues } from '@/server/repair/service-data';
import { answer, answerProblem, handleFile, readBatch } from '../../handler';

/** CSV. Without `batch`: what the list would do. With `batch`: does it, all or nothing. */
export const POST = (request: Request) =>
  handleFile(request, 'service-data.change', null, ['text/csv'], async (text, actor) => {
    const batch = readBatch(request);
    if (batch instanceof Response) return batch;
    const read = await readBeside('fittingValues', text);
    if (!read.ok) return answerProblem(problemDetails('This list cannot be taken.', read.error));
    return answer(await importFittingValues(serverDb().db, read.value, { batch, by: actor.name }));
  });
