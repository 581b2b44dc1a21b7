import { tr } from '../../core/locale/translate';
import { createHash } from 'node:crypto';
import { and, asc, count, eq, sql } from 'drizzle-orm';
import { ok } from '../../core/foundation/result';
import type { PhotoView } from '../../application/views';
import type { Db, Tx } from '../db/connection';
import { madeAt } from '../journal/made-at';
import { drawPhoto } from './draw-photo';
import { MOST_PHOTOS, MOST_PHOTOS_BYTES } from './photo-limits';
import { databaseCode, type Done, notFound, refuse, UNIQUE_VIOLATION } from '../db/refusal';
import { job, photo, photoContent, reading as readingTable, testRun } from '../db/schema';

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

export interface NewPhoto {
  readonly id: string;
  readonly name: string;
  readonly by: string;
  /** The reading whose display it shows. */
  readonly reading?: string | null;
  readonly bytes: Buffer;
}

/**
 * Keeps a photo, drawn anew as JPEG: what it is is told from its content, and what else the file carried
 * (place, time, scripts) is gone.
 */
export async function addPhoto(db: Db, jobId: string, p: NewPhoto): Promise<Done> {
  if (!UUID.test(p.id))
    return refuse('Some fields are wrong.', [{ path: '/id', message: 'It must be a UUID in lower case.' }]);
  const reading = p.reading ?? null;
  if (reading !== null && !UUID.test(reading)) return refuseReading('It must be a UUID in lower case.');
  const [same] = await db
    .select({ id: photo.id, jobId: photo.jobId, readingId: photo.readingId })
    .from(photo)
    .where(eq(photo.id, p.id));
  if (same)
    return same.jobId === jobId && same.readingId === reading
      ? ok({ id: p.id, duplicate: true })
      : refuse('This id is taken.', [{ path: '/id', message: 'Another photo has this id.' }], 409);
  const drawn = await drawPhoto(p.bytes);
  if (!drawn)
    return refuse(
      'This is no photo.',
      [{ path: '', message: 'Send a JPEG, PNG, WebP or HEIF picture: what this file holds cannot be drawn.' }],
      415,
    );
  try {
    return await db.transaction(async (tx) => {
      const [there] = await tx.select({ id: job.id }).from(job).where(eq(job.id, jobId)).for('no key update');
      if (!there) return notFound('job');
      const [held] = await tx
        .select({ n: count(), bytes: sql<number>`coalesce(sum(${photo.size}), 0)::float8` })
        .from(photo)
        .where(eq(photo.jobId, jobId));
      if ((held?.n ?? 0) >= MOST_PHOTOS)
        return refuse('Too many photos.', [{ path: '', message: tr`A job holds at most ${MOST_PHOTOS} photos.` }]);
      if ((held?.bytes ?? 0) + drawn.full.length > MOST_PHOTOS_BYTES)
        return refuse('Too many photos.', [
          { path: '', message: tr`The photos of a job hold at most ${MOST_PHOTOS_BYTES / 1e6} MB together.` },
        ]);
      if (reading !== null && !(await isOfJob(tx, reading, jobId)))
        return refuseReading('There is no such reading in this job.');
      const { full, small, width, height } = drawn;
      await tx.insert(photo).values({
        id: p.id,
        jobId,
        readingId: reading,
        name: plainName(p.name),
        sha256: createHash('sha256').update(full).digest('hex'),
        size: full.length,
        width,
        height,
        recordedBy: p.by,
        ...(madeAt() ? { createdAt: madeAt() } : {}),
      });
      await tx.insert(photoContent).values({ id: p.id, full, small });
      return ok({ id: p.id, duplicate: false });
    });
  } catch (error) {
    if (databaseCode(error)?.code !== UNIQUE_VIOLATION) throw error;
    return ok({ id: p.id, duplicate: true });
  }
}

const refuseReading = (message: string): Done => refuse('Some fields are wrong.', [{ path: '/reading', message }]);

async function isOfJob(tx: Tx, readingId: string, jobId: string): Promise<boolean> {
  const [there] = await tx
    .select({ id: readingTable.id })
    .from(readingTable)
    .innerJoin(testRun, eq(testRun.id, readingTable.runId))
    .where(and(eq(readingTable.id, readingId), eq(testRun.jobId, jobId)));
  return there !== undefined;
}

/**
 * A file name as a plain label: no folders, no control characters, nothing that turns text around, not long.
 */
export const plainName = (name: string): string =>
  name
    .split(/[/\\]/)
    .at(-1)
    ?.replace(/[\p{C}<>"'&|;$`]/gu, '')
    .trim()
    .slice(0, 100) || 'photo';

export const photosOf = async (db: Db, jobId: string): Promise<PhotoView[]> =>
  (await db.select().from(photo).where(eq(photo.jobId, jobId)).orderBy(asc(photo.sequence))).map((p) => ({
    id: p.id,
    name: p.name,
    width: p.width,
    height: p.height,
    by: p.recordedBy,
    at: p.createdAt.toISOString(),
  }));

export async function photoBytes(db: Db, id: string, small: boolean): Promise<Buffer | null> {
  const [row] = await db
    .select({ bytes: small ? photoContent.small : photoContent.full })
    .from(photoContent)
    .where(eq(photoContent.id, id));
  return row?.bytes ?? null;
}
