import { serverDb } from '@/server/db/connection';
import { MOST_BUNDLE_BYTES } from '@/server/bundle/limits';
import { importBundle } from '@/server/bundle/import-bundle';
import { answer, answerNotFound, handleBytes, isId } from '../handler';

/** Takes in a job from another installation: the bytes of its bundle, `?depot=` where its unit goes. */
export async function POST(request: Request): Promise<Response> {
  const depot = new URL(request.url).searchParams.get('depot') ?? '';
  if (!isId(depot)) return answerNotFound('depot');
  return handleBytes(request, 'job.import', depot, MOST_BUNDLE_BYTES, async (bytes) =>
    answer(await importBundle(serverDb().db, bytes, depot)),
  );
}
