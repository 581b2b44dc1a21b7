import { problemDetails } from '@/formats/problem';
import { readShelf } from '@/formats/shelf';
import { readShelfCsv } from '@/formats/shelf-csv';
import { serverDb } from '@/server/db';
import { importShelf } from '@/server/shelf';
import { answer, answerProblem, contentTypeOf, guard, readBatch, readText } from '../../handler';

/** JSON or CSV. Without `batch`: what the file would do, with what each entry clashes with. With `batch` and `by`: does it, all or nothing. */
export const POST = (request: Request) => guard(async () => {
  const text = await readText(request, 'application/json', 'text/csv');
  if (text instanceof Response) return text;
  const store = readBatch(request);
  if (store instanceof Response) return store;
  const entries = contentTypeOf(request) === 'text/csv' ? readShelfCsv(text) : readShelf(text);
  if (!entries.ok) return answerProblem(problemDetails('These limits cannot be taken.', entries.error));
  return answer(await importShelf(serverDb().db, entries.value, store));
});
