import { problemDetails } from '@/formats/problem';
import { serverDb } from '@/server/db/connection';
import { readBeside } from '@/server/files/read-beside';
import { importUnits } from '@/server/fleet/fleet-list';
import { answer, answerProblem, handleFile, readBatch } from '../../handler';

/** CSV. Without `batch`: what the list would do. With `batch`: does it, all or nothing. */
export const POST = (request: Request) =>
  handleFile(request, 'units.import', null, ['text/csv'], async (text, actor) => {
    const batch = readBatch(request);
    if (batch instanceof Response) return batch;
    const read = await readBeside('units', text);
    if (!read.ok) return answerProblem(problemDetails('This list cannot be taken.', read.error));
    return answer(await importUnits(serverDb().db, read.value, actor, batch));
  });
