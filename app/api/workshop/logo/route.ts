import { ok } from '@/core/foundation/result';
import { problemDetails } from '@/formats/problem';
import { serverDb } from '@/server/db/connection';
import { keepLogo, readLogo } from '@/server/installation/installation';
import { logoType, MOST_LOGO_BYTES } from '@/server/installation/logo';
import { answer, answerNotFound, answerProblem, handleBytes, handleRead } from '../../handler';

/** The picture at the head of letters; nothing sent takes it away. */
export const POST = (request: Request) =>
  handleBytes(request, 'workshop.change', null, MOST_LOGO_BYTES, async (bytes) => {
    const type = bytes.length === 0 ? null : logoType(bytes);
    if (bytes.length > 0 && type === null)
      return answerProblem(problemDetails('No logo.', [{ path: '', message: 'A logo is a PNG or a JPEG picture.' }]));
    await keepLogo(serverDb().db, type === null ? null : { bytes, type });
    return answer(ok({ hasLogo: type !== null }));
  });

export const GET = (request: Request) =>
  handleRead(request, async () => {
    const logo = await readLogo(serverDb().db);
    return logo
      ? new Response(new Uint8Array(logo.bytes), {
          headers: { 'content-type': logo.type, 'cache-control': 'no-cache' },
        })
      : answerNotFound('logo');
  });
