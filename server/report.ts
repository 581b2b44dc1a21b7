import { asc, eq } from 'drizzle-orm';
import sharp from 'sharp';
import type { JobView, PhotoView, RunView, Verified } from '../formats/views';
import type { Db } from './db';
import { viewJob } from './queries';
import { viewRun } from './run-view';
import { photo, photoContent } from './schema';
import { verifyJob } from './trail';

/** On paper a photo is hardly wider than a hand. */
const PAPER_px = 900;

export interface Report {
  readonly job: JobView;
  readonly runs: readonly RunView[];
  readonly verified: Verified;
}

/** A job with everything that its report needs; `null` where there is none. */
export async function viewReport(db: Db, jobId: string): Promise<Report | null> {
  const [job, verified] = await Promise.all([viewJob(db, jobId), verifyJob(db, jobId)]);
  if (!job || !verified) return null;
  const runs = await Promise.all(job.job.runs.map((r) => viewRun(db, r.id)));
  return { job, runs: runs.filter((r) => r !== null), verified };
}

/** The photos of a job, drawn for paper. `only`: one of them. */
export async function reportPhotos(
  db: Db,
  jobId: string,
  only?: string | null,
): Promise<(PhotoView & { readonly jpeg: Buffer })[]> {
  const rows = await db
    .select({ photo, full: photoContent.full })
    .from(photo)
    .innerJoin(photoContent, eq(photoContent.id, photo.id))
    .where(eq(photo.jobId, jobId))
    .orderBy(asc(photo.sequence));
  return Promise.all(
    rows
      .filter((r) => only === undefined || r.photo.id === only)
      .map(async ({ photo: p, full }) => ({
        id: p.id,
        name: p.name,
        width: p.width,
        height: p.height,
        by: p.recordedBy,
        at: p.createdAt.toISOString(),
        jpeg: await sharp(full)
          .resize({ width: PAPER_px, height: PAPER_px, fit: 'inside', withoutEnlargement: true })
          .jpeg({ quality: 75 })
          .toBuffer(),
      })),
  );
}
