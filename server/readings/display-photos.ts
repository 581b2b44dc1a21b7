import { asc, eq } from 'drizzle-orm';
import type { DisplayPhotoView } from '../../application/views';
import type { Db } from '../db/connection';
import { photo, reading } from '../db/schema';

/** Photos of the meter's display, of all readings of a run. */
export const displayPhotosOf = async (db: Db, runId: string): Promise<DisplayPhotoView[]> =>
  await db
    .select({ id: photo.id, readingId: reading.id, name: photo.name })
    .from(photo)
    .innerJoin(reading, eq(reading.id, photo.readingId))
    .where(eq(reading.runId, runId))
    .orderBy(asc(photo.sequence));
