import { writeReadingsCsv } from '@/formats/readings-csv';
import { planCsv, storeCsv } from '@/server/csv';
import { serverDb } from '@/server/db';
import { viewRun } from '@/server/run-view';
import { answer, answerNotFound, download, guard, isId, readBatch, readText } from '../../../handler';

interface Context { params: Promise<{ id: string }> }

export const GET = (_: Request, { params }: Context) => guard(async () => {
  const { id } = await params;
  const view = isId(id) ? await viewRun(serverDb().db, id) : null;
  if (!view) return answerNotFound('test run');
  const name = `${view.unit.fleetNumber}-job-${view.job.number}-${view.test}.csv`.replace(/[^\w.-]/g, '_');
  return download(writeReadingsCsv(view), 'text/csv', name);
});

/** Without `batch`: what the file would do. With `batch` (an id made by the caller) and `by`: does it. */
export const POST = (request: Request, { params }: Context) => guard(async () => {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('test run');
  const text = await readText(request, 'text/csv');
  if (text instanceof Response) return text;
  const store = readBatch(request);
  if (store instanceof Response) return store;
  const { db } = serverDb();
  if (store === null) return answer(await planCsv(db, id, text));
  return answer(await storeCsv(db, id, text, store.batch, store.by));
});
