import { and, asc, eq } from 'drizzle-orm';
import sharp from 'sharp';
import type { JobView, PhotoView, RunView, Verified } from '../../application/views';
import type { RecordingReport } from '../../application/traces/picture';
import type { Db } from '../db/connection';
import { testLeadsOf } from '../instruments/instruments';
import { viewJob } from './view-job';
import { viewRun } from '../readings/run-view';
import { photo, photoContent } from '../db/schema';
import { recordingReports } from '../traces/recording-reports';
import { verifyJob } from '../audit/audit-trail';

/** On paper a photo is hardly wider than a hand: 200 to the inch. */
const PAPER_px = 720;

export interface Report {
  readonly job: JobView;
  readonly runs: readonly RunView[];
  readonly verified: Verified;
  readonly recordings: readonly RecordingReport[];
}

/** A job with everything that its report needs; `null` where there is none. */
export async function viewReport(db: Db, jobId: string): Promise<Report | null> {
  const [job, verified] = await Promise.all([viewJob(db, jobId), verifyJob(db, jobId)]);
  if (!job || !verified) return null;
  const shared = { job: job.job, testLeads: await testLeadsOf(db, job.depotId) };
  const runs = await Promise.all(job.job.runs.map((r) => viewRun(db, r.id, shared)));
  const recordings = await recordingReports(db, jobId);
  return { job, runs: runs.filter((r) => r !== null), verified, recordings };
}

/** The photos of a job, drawn for paper. `only`: one of them, or none. */
export async function reportPhotos(
  db: Db,
  jobId: string,
  only?: string | null,
): Promise<(PhotoView & { readonly jpeg: Buffer })[]> {
  if (only === null) return [];
  const rows = await db
    .select()
    .from(photo)
    .where(only === undefined ? eq(photo.jobId, jobId) : and(eq(photo.jobId, jobId), eq(photo.id, only)))
    .orderBy(asc(photo.sequence));
  return Promise.all(
    rows.map(async (p) => ({
      id: p.id,
      name: p.name,
      width: p.width,
      height: p.height,
      by: p.recordedBy,
      at: p.createdAt.toISOString(),
      jpeg: await forPaper(db, p.id),
    })),
  );
}

/** One at a time out of the database, so that one is drawn while the next is read. */
async function forPaper(db: Db, id: string): Promise<Buffer> {
  const [content] = await db.select({ full: photoContent.full }).from(photoContent).where(eq(photoContent.id, id));
  if (!content) throw new Error(`photo ${id} has no content`);
  return sharp(content.full)
    .resize({ width: PAPER_px, height: PAPER_px, fit: 'inside', withoutEnlargement: true })
    .jpeg({ quality: 75 })
    .toBuffer();
}
