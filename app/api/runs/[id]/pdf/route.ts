import { serverDb } from '@/server/db/connection';
import { kindOf } from '@/server/installation/installation';
import { viewRun } from '@/server/readings/run-view';
import { runPdf } from '@/print/run-pdf';
import { answerNotFound, handleRead, isId } from '../../../handler';

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  handleRead(request, async () => {
    const { id } = await params;
    const { db } = serverDb();
    const view = isId(id) ? await viewRun(db, id) : null;
    if (!view) return answerNotFound('test run');
    const pdf = await runPdf(view, (await kindOf(db)) === 'demo');
    const name = `${view.unit.fleetNumber}-job-${view.job.number}.pdf`.replace(/[^\w.-]/g, '_');
    return new Response(new Uint8Array(pdf), {
      headers: { 'content-type': 'application/pdf', 'content-disposition': `inline; filename="${name}"` },
    });
  });
