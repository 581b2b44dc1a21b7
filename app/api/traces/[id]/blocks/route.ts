import { serverDb } from '@/server/db/connection';
import { MOST_BLOCK_BYTES } from '@/server/traces/trace-limits';
import { blockBytes, jobOfTrace, keepBlock } from '@/server/traces/traces';
import { answer, answerNotFound, guard, handleBytes, handleRead, isId } from '../../../handler';

interface Context {
  params: Promise<{ id: string }>;
}

/** Which block: `?stream=0&number=12`; `null`: that is none. */
function whichBlock(request: Request): { readonly stream: number; readonly number: number } | null {
  const query = new URL(request.url).searchParams;
  const [stream, number] = [query.get('stream'), query.get('number')].map((n) =>
    n !== null && /^\d{1,5}$/.test(n) ? Number(n) : NaN,
  );
  return stream === undefined || number === undefined || Number.isNaN(stream + number) ? null : { stream, number };
}

/** One block of samples, deflated. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleRead(request, async () => {
    const { id } = await params;
    const which = whichBlock(request);
    const bytes = isId(id) && which ? await blockBytes(serverDb().db, id, which.stream, which.number) : null;
    if (!bytes) return answerNotFound('block');
    return new Response(new Uint8Array(bytes), {
      headers: { 'content-type': 'application/octet-stream', 'cache-control': 'private, max-age=31536000, immutable' },
    });
  });

/**
 * Takes one block of samples in. The same one again is no harm; one with another hash is refused by its
 * number.
 */
export async function PUT(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  const which = whichBlock(request);
  return guard(async () => {
    const job = isId(id) ? await jobOfTrace(serverDb().db, id) : null;
    if (job === null || !which) return answerNotFound('recording');
    return handleBytes(request, 'job.add-trace', job, MOST_BLOCK_BYTES, async (bytes) =>
      answer(await keepBlock(serverDb().db, id, which.stream, which.number, bytes)),
    );
  });
}
