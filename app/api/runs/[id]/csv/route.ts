import { problemDetails } from '@/formats/problem';
import { writeReadingsCsv } from '@/formats/readings-csv';
import { planCsv, storeCsv } from '@/server/csv';
import { serverDb } from '@/server/db';
import { viewRun } from '@/server/run-view';
import { answer, answerNotFound, answerProblem, guard, isId, readText } from '../../../handler';

interface Context { params: Promise<{ id: string }> }

export const GET = (_: Request, { params }: Context) => guard(async () => {
  const { id } = await params;
  const view = isId(id) ? await viewRun(serverDb().db, id) : null;
  if (!view) return answerNotFound('test run');
  const name = `${view.unit.fleetNumber}-job-${view.job.number}-${view.test}.csv`.replace(/[^\w.-]/g, '_');
  return new Response(writeReadingsCsv(view), { headers: { 'content-type': 'text/csv; charset=utf-8', 'content-disposition': `attachment; filename="${name}"` } });
});

/** Without `batch`: what the file would do. With `batch` (an id made by the caller) and `by`: does it. */
export const POST = (request: Request, { params }: Context) => guard(async () => {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('test run');
  const text = await readText(request, 'text/csv');
  if (text instanceof Response) return text;
  const query = new URL(request.url).searchParams;
  const [batch, by] = [query.get('batch'), query.get('by')?.trim() ?? ''];
  const { db } = serverDb();
  if (batch === null) return answer(await planCsv(db, id, text));
  if (!isId(batch)) return answerProblem(problemDetails('Some fields are wrong.', [{ path: '/batch', message: 'It must be a UUID.' }]));
  if (!by || by.length > 80) return answerProblem(problemDetails('Some fields are wrong.', [{ path: '/by', message: 'Say who imports, in at most 80 characters.' }]));
  return answer(await storeCsv(db, id, text, batch, by));
});
