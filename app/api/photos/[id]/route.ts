import { serverDb } from '@/server/db/connection';
import { photoBytes } from '@/server/evidence/photos';
import { answerNotFound, handleRead, isId } from '../../handler';

/** A photo; `?small=1` its thumbnail. It never changes. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  handleRead(request, async () => {
    const { id } = await params;
    const bytes = isId(id) ? await photoBytes(serverDb().db, id, new URL(request.url).searchParams.has('small')) : null;
    if (!bytes) return answerNotFound('photo');
    // Always what it was re-encoded to, whatever the name said.
    return new Response(new Uint8Array(bytes), {
      headers: {
        'content-type': 'image/jpeg',
        'content-disposition': `inline; filename="photo-${id}.jpg"`,
        'x-content-type-options': 'nosniff',
        'content-security-policy': "default-src 'none'",
        'cache-control': 'private, max-age=31536000, immutable',
      },
    });
  });
