import { renderToBuffer } from '@react-pdf/renderer';
import { createElement } from 'react';
import { serverDb } from '@/server/db';
import { reportPhotos, viewReport } from '@/server/report';
import { payerReport, type Voice } from '@/formats/job-report';
import { JobPdf } from '@/ui/report/job-pdf';
import { answerNotFound, handleRead, isId } from '../../../handler';

/** The report as PDF: `?voice=payer` or `?voice=file`. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  handleRead(request, async () => {
    const { id } = await params;
    const voice: Voice = new URL(request.url).searchParams.get('voice') === 'payer' ? 'payer' : 'file';
    const { db } = serverDb();
    const view = isId(id) ? await viewReport(db, id) : null;
    if (!view) return answerNotFound('job');
    const photos = await reportPhotos(db, id, voice === 'payer' ? payerReport(view).picture : undefined);
    const pdf = await renderToBuffer(
      createElement(JobPdf, { view, voice, photos }) as unknown as Parameters<typeof renderToBuffer>[0],
    );
    const name = `${view.job.unit.fleetNumber}-job-${view.job.job.number}-${voice}.pdf`.replace(/[^\w.-]/g, '_');
    return new Response(new Uint8Array(pdf), {
      headers: { 'content-type': 'application/pdf', 'content-disposition': `inline; filename="${name}"` },
    });
  });
