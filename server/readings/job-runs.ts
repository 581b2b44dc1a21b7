import { forReader } from '../../application/judging/judge-run';
import { asc, eq, inArray, lte, sql } from 'drizzle-orm';
import { groupBy } from '../../core/foundation/collections';
import type { MeasuredRun } from '../../core/evidence/types';
import type { JobBrief } from '../../application/views';
import type { Db } from '../db/connection';
import { definitionOf, jobBrief } from './run-view';
import { type job, testRun } from '../db/schema';

export type JobRow = typeof job.$inferSelect;
export type RunRow = typeof testRun.$inferSelect;

/** The test runs of many jobs, in the order in which they were begun. */
export const runsOf = (db: Db, jobs: readonly JobRow[]): Promise<RunRow[]> =>
  jobs.length === 0
    ? Promise.resolve([])
    : db
        .select()
        .from(testRun)
        .where(
          inArray(
            testRun.jobId,
            jobs.map((j) => j.id),
          ),
        )
        .orderBy(asc(testRun.createdAt), asc(testRun.id));

/**
 * The same, but no more than the newest so many of each job: enough for a list, however long a job has
 * become.
 */
export async function newestRunsOf(db: Db, jobs: readonly JobRow[], most: number): Promise<RunRow[]> {
  if (jobs.length === 0) return [];
  const ids = jobs.map((j) => j.id);
  const numbered = db
    .select({
      id: testRun.id,
      back: sql<number>`row_number() over (partition by ${testRun.jobId} order by ${testRun.createdAt} desc, ${testRun.id} desc)`.as(
        'back',
      ),
    })
    .from(testRun)
    .where(inArray(testRun.jobId, ids))
    .as('numbered');
  const rows = await db
    .select({ run: testRun })
    .from(testRun)
    .innerJoin(numbered, eq(numbered.id, testRun.id))
    .where(lte(numbered.back, most))
    .orderBy(asc(testRun.createdAt), asc(testRun.id));
  return rows.map((r) => r.run);
}

/** The jobs with their runs, in short. */
export function briefs(jobs: readonly JobRow[], runs: readonly RunRow[]): JobBrief[] {
  const byJob = groupBy(runs, (r) => r.jobId);
  return jobs.map((j) => jobBrief(j, byJob.get(j.id) ?? []));
}

/** Of the runs, those with a reading, as evidence. */
export const measuredRunsOf = (runs: readonly RunRow[]): MeasuredRun[] =>
  runs.flatMap((r) =>
    r.judgement
      ? [
          {
            id: r.id,
            definition: definitionOf(r),
            judgement: forReader(r.judgement, definitionOf(r)),
            at: r.createdAt.toISOString(),
          },
        ]
      : [],
  );
