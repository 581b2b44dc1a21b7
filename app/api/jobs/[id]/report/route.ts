import { serverDb } from '@/server/db/connection';
import { kindOf, readLogo } from '@/server/installation/installation';
import { reportPhotos, viewReport } from '@/server/jobs/report';
import { payerReport, type Voice } from '@/application/report/job-report';
import { jobPdf } from '@/print/job-pdf';
import { answerNotFound, handleRead, isId } from '../../../handler';

/** The report as PDF: `?voice=payer` or `?voice=file`. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  handleRead(request, async () => {
    const { id } = await params;
    const voice: Voice = new URL(request.url).searchParams.get('voice') === 'payer' ? 'payer' : 'file';
    const { db } = serverDb();
    if (!isId(id)) return answerNotFound('job');
    // The photos are drawn while the job is read.
    const [view, all] = await Promise.all([viewReport(db, id), voice === 'file' ? reportPhotos(db, id) : []]);
    if (!view) return answerNotFound('job');
    const photos = voice === 'payer' ? await reportPhotos(db, id, payerReport(view).picture) : all;
    const logo = voice === 'payer' ? await readLogo(db) : null;
    const pdf = await jobPdf(view, voice, photos, logo?.bytes ?? null, (await kindOf(db)) === 'demo');
    const name = `${view.job.unit.fleetNumber}-job-${view.job.job.number}-${voice}.pdf`.replace(/[^\w.-]/g, '_');
    return new Response(new Uint8Array(pdf), {
      headers: { 'content-type': 'application/pdf', 'content-disposition': `inline; filename="${name}"` },
    });
  });
