import { serverDb } from '@/server/db/connection';
import { pyramidOfStream } from '@/server/traces/traces';
import { answerNotFound, handleRead, isId } from '../../../handler';

/** Lowest and highest of every 64 samples of `?stream=`: 32-bit floats, little-endian. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  handleRead(request, async () => {
    const { id } = await params;
    const stream = new URL(request.url).searchParams.get('stream') ?? '';
    if (!isId(id) || !/^\d{1,3}$/.test(stream)) return answerNotFound('recording');
    return new Response(new Uint8Array(await pyramidOfStream(serverDb().db, id, Number(stream))), {
      headers: { 'content-type': 'application/octet-stream' },
    });
  });
