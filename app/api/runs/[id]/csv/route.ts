import { writeReadingsCsv } from '@/application/report/readings-csv';
import { planCsv, storeCsv } from '@/server/readings/csv';
import { serverDb } from '@/server/db/connection';
import { viewRun } from '@/server/readings/run-view';
import { answer, answerNotFound, download, handleFile, handleRead, isId, readBatch } from '../../../handler';

interface Context {
  params: Promise<{ id: string }>;
}

export const GET = (request: Request, { params }: Context) =>
  handleRead(request, async () => {
    const { id } = await params;
    const view = isId(id) ? await viewRun(serverDb().db, id) : null;
    if (!view) return answerNotFound('test run');
    const name = `${view.unit.fleetNumber}-job-${view.job.number}-${view.test}.csv`.replace(/[^\w.-]/g, '_');
    return download(writeReadingsCsv(view), 'text/csv', name);
  });

/** Readings of one run. */
const MOST_BYTES = 512 * 1024;

/** Without `batch`: what the file would do. With `batch` (an id made by the caller): does it. */
export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('test run');
  return handleFile(
    request,
    'run.import-readings',
    id,
    ['text/csv'],
    async (text, { name }) => {
      const batch = readBatch(request);
      if (batch instanceof Response) return batch;
      const { db } = serverDb();
      return answer(batch === null ? await planCsv(db, id, text) : await storeCsv(db, id, text, batch, name));
    },
    MOST_BYTES,
  );
}
