import { serverDb } from '@/server/db';
import { importCatalogue } from '@/server/tests';
import { answer, guard, readBatch, readText } from '../../handler';

/** Without `batch`: what the file would do. With `batch` (an id made by the caller) and `by`: does it. */
export const POST = (request: Request) => guard(async () => {
  const text = await readText(request, 'application/json');
  if (text instanceof Response) return text;
  const store = readBatch(request);
  return store instanceof Response ? store : answer(await importCatalogue(serverDb().db, text, store));
});
