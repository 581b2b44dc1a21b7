import { serverDb } from '@/server/db/connection';
import { MOST_PHOTO_BYTES } from '@/server/evidence/photo-limits';
import { addPhoto } from '@/server/evidence/photos';
import { answer, answerNotFound, handleBytes, isId } from '../../../handler';

interface Context {
  params: Promise<{ id: string }>;
}

/**
 * The bytes of one photo; `?id=` made by the caller, `?name=` as the file was called, `?reading=` whose
 * display it shows.
 */
export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  const query = new URL(request.url).searchParams;
  const photoId = query.get('id') ?? '';
  if (!isId(id)) return answerNotFound('job');
  return handleBytes(request, 'job.add-photo', id, MOST_PHOTO_BYTES, async (bytes, { name: by }) =>
    answer(
      await addPhoto(serverDb().db, id, {
        id: photoId,
        name: query.get('name') ?? '',
        reading: query.get('reading'),
        by,
        bytes,
      }),
    ),
  );
}
