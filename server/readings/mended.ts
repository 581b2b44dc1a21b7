import { and, eq, gt, isNull, lt, sql } from 'drizzle-orm';
import type { Tx } from '../db/connection';
import { evidence, repairRecord } from '../db/schema';

/**
 * Whether anything was mended in a job after one moment and before another: a ticked step, a repair, a new
 * part.
 */
export async function mendedBetween(tx: Tx, jobId: string, after: Date, before: Date): Promise<boolean> {
  const [ticked] = await tx
    .select({ id: repairRecord.id })
    .from(repairRecord)
    .where(
      and(
        eq(repairRecord.jobId, jobId),
        sql`${repairRecord.body}->>'kind' = 'step'`,
        gt(repairRecord.createdAt, after),
        lt(repairRecord.createdAt, before),
      ),
    )
    .limit(1);
  if (ticked) return true;
  const [written] = await tx
    .select({ id: evidence.id })
    .from(evidence)
    .where(
      and(
        eq(evidence.jobId, jobId),
        sql`${evidence.body}->>'kind' in ('repair', 'new-part')`,
        isNull(evidence.takesBack),
        sql`not exists (select 1 from ${evidence} gone where gone.takes_back = ${evidence.id})`,
        gt(evidence.createdAt, after),
        lt(evidence.createdAt, before),
      ),
    )
    .limit(1);
  return written !== undefined;
}
