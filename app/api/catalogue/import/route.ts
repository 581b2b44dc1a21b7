import { problemDetails } from '@/formats/problem';
import { serverDb } from '@/server/db/connection';
import { readBeside } from '@/server/files/read-beside';
import { importCatalogue } from '@/server/catalogue/tests';
import { answer, answerProblem, handleFile, readBatch } from '../../handler';

/** Without `batch`: what the file would do. With `batch` (an id made by the caller): does it. */
export const POST = (request: Request) =>
  handleFile(
    request,
    new URL(request.url).searchParams.has('batch') ? 'catalogue.change' : 'look',
    null,
    ['application/json'],
    async (text, { name: by }) => {
      const batch = readBatch(request);
      if (batch instanceof Response) return batch;
      const tests = await readBeside('catalogue', text);
      if (!tests.ok) return answerProblem(problemDetails('This catalogue cannot be taken.', tests.error));
      return answer(await importCatalogue(serverDb().db, tests.value, batch === null ? null : { batch, by }));
    },
  );
