import { problemDetails } from '@/formats/problem';
import { serverDb } from '@/server/db/connection';
import { readBeside } from '@/server/files/read-beside';
import { importInstruments } from '@/server/instruments/instrument-list';
import { answer, answerProblem, handleFile, readBatch } from '../../handler';

/** CSV. Without `batch`: what the list would do. With `batch`: does it, all or nothing. */
export const POST = (request: Request) =>
  handleFile(request, 'instruments.import', null, ['text/csv'], async (text, actor) => {
    const batch = readBatch(request);
    if (batch instanceof Response) return batch;
    const read = await readBeside('instruments', text);
    if (!read.ok) return answerProblem(problemDetails('This list cannot be taken.', read.error));
    return answer(await importInstruments(serverDb().db, read.value, actor, batch));
  });
