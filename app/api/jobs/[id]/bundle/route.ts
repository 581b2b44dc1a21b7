import { writeBundle } from '@/server/bundle/export-bundle';
import { serverDb } from '@/server/db/connection';
import { answerNotFound, handleRead, isId } from '../../../handler';

/** The job as a zip that another installation can take in. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  handleRead(request, async () => {
    const { id } = await params;
    const bundle = isId(id) ? await writeBundle(serverDb().db, id) : null;
    if (!bundle) return answerNotFound('job');
    return new Response(new Uint8Array(bundle.bytes), {
      headers: { 'content-type': 'application/zip', 'content-disposition': `attachment; filename="${bundle.name}"` },
    });
  });
