import { problemDetails } from '@/formats/problem';
import { serverDb } from '@/server/db/connection';
import { readBeside } from '@/server/files/read-beside';
import { importPeople } from '@/server/people/people-list';
import { answer, answerProblem, handleFile, readBatch } from '../../handler';

/** CSV. Without `batch`: what the list would do. With `batch`: does it, all or nothing. */
export const POST = (request: Request) =>
  handleFile(request, 'people.import', null, ['text/csv'], async (text, actor) => {
    const batch = readBatch(request);
    if (batch instanceof Response) return batch;
    const read = await readBeside('people', text);
    if (!read.ok) return answerProblem(problemDetails('This list cannot be taken.', read.error));
    return answer(await importPeople(serverDb().db, read.value, actor, batch));
  });
