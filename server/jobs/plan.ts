import { asc, eq } from 'drizzle-orm';
import type { PlanChange } from '../../core/plan/types';
import type { Db } from '../db/connection';
import { type Done, notFound } from '../db/refusal';
import { job, planChange } from '../db/schema';
import { findAnyTest } from '../catalogue/tests';
import { append } from '../journal/append';
import type { ChangePlan } from '../../formats/requests/plan';

/** Keeps what a technician changed in a plan; the plan itself is made anew from all that is known. */
export async function changePlan(db: Db, jobId: string, body: ChangePlan): Promise<Done> {
  const [there] = await db.select({ id: job.id }).from(job).where(eq(job.id, jobId));
  if (!there) return notFound('job');
  if (!(await findAnyTest(db, body.change.test))) return notFound('test in the catalogue', '/change/test');
  return append(db, planChange, { id: body.id, jobId, body: body.change, recordedBy: body.by });
}

export const changesOf = async (db: Db, jobId: string): Promise<PlanChange[]> =>
  (
    await db
      .select({ body: planChange.body })
      .from(planChange)
      .where(eq(planChange.jobId, jobId))
      .orderBy(asc(planChange.sequence))
  ).map((r) => r.body);
