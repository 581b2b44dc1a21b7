import { and, asc, desc, eq, inArray, isNull, like, sql } from 'drizzle-orm';
import { groupBy } from '../../core/foundation/collections';
import { proposeFindings } from '../../core/evidence/finding';
import { whatIsKnown } from '../../core/evidence/known';
import { type JobProgress, progressOf } from '../../core/job/progress';
import type { JobBrief, YardJob, YardView } from '../../application/views';
import { codesOfJobs } from '../evidence/codes';
import { type Db, together } from '../db/connection';
import { evidenceOfJobs, intakeOfJobs } from '../evidence/evidence';
import { findingsOf } from '../evidence/findings';
import { briefs, measuredRunsOf, newestRunsOf, type RunRow } from '../readings/job-runs';
import { repairRecordsOf } from '../repair/repair-log';
import { depot, engineFamily, job, fleetUnit, unitWords } from '../db/schema';
import { unitView } from '../fleet/unit-view';

/** Units shown at once: more is no list that anybody reads. */
const SHOWN = 60;
/** Of a longer job the newest runs say where it stands. */
const RUNS_READ = 24;

/**
 * Units with their open jobs, those with an open job first, then by fleet number. `search` finds fleet
 * number, kind, family, depot, a job's number or complaint.
 */
export async function viewYard(db: Db, search = ''): Promise<YardView> {
  const words = search.trim().split(/\s+/).filter(Boolean).slice(0, 6);
  const open_ = db
    .select({ unitId: job.unitId })
    .from(job)
    .where(isNull(job.closedAt))
    .groupBy(job.unitId)
    .as('has_open');
  // Chosen by narrow rows: those that are shown are few, and wide.
  const chosen = db
    .select({
      id: fleetUnit.id,
      isIdle: sql<boolean>`${open_.unitId} is null`.as('is_idle'),
      found: sql<number>`(count(*) over ())::int`.as('found'),
    })
    .from(fleetUnit)
    .leftJoin(open_, eq(open_.unitId, fleetUnit.id))
    .innerJoin(unitWords, eq(unitWords.unitId, fleetUnit.id))
    .where(and(...words.map((w) => like(unitWords.words, `%${w.toLowerCase().replace(/[\\%_]/g, '\\$&')}%`))))
    .orderBy(sql`${open_.unitId} is null`, asc(fleetUnit.fleetNumber))
    .limit(SHOWN)
    .as('chosen');
  const rows = await db
    .select({ unit: fleetUnit, family: engineFamily, depot, found: chosen.found })
    .from(chosen)
    .innerJoin(fleetUnit, eq(fleetUnit.id, chosen.id))
    .innerJoin(engineFamily, eq(engineFamily.id, fleetUnit.engineFamilyId))
    .innerJoin(depot, eq(depot.id, fleetUnit.depotId))
    .orderBy(asc(chosen.isIdle), asc(fleetUnit.fleetNumber));
  const open = rows.length
    ? await db
        .select()
        .from(job)
        .where(
          and(
            isNull(job.closedAt),
            inArray(
              job.unitId,
              rows.map((r) => r.unit.id),
            ),
          ),
        )
        .orderBy(desc(job.number))
    : [];
  const runs = await newestRunsOf(db, open, RUNS_READ);
  const cylinders = new Map(rows.map((r) => [r.unit.id, r.family.engine.cylinders]));
  const unitOf = new Map(open.map((j) => [j.id, j.unitId]));
  const listed = briefs(open, runs);
  const stands = await standsOfJobs(db, listed, runs, (b) => cylinders.get(unitOf.get(b.id) ?? '') ?? 0);
  const byUnit = groupBy(listed, (b) => unitOf.get(b.id) ?? '');
  const yardJob = (b: JobBrief): YardJob[] => {
    const own = stands.get(b.id);
    return own ? [{ ...b, progress: own }] : [];
  };
  return {
    search: search.trim(),
    found: rows[0]?.found ?? 0,
    units: rows.map((r) => ({
      ...unitView(r.unit, r.family, r.depot),
      jobs: (byUnit.get(r.unit.id) ?? []).flatMap(yardJob),
    })),
    depots: await viewDepots(db),
    families: await viewFamilies(db),
  };
}

export const viewDepots = (db: Db): Promise<{ id: string; name: string }[]> =>
  db.select({ id: depot.id, name: depot.name }).from(depot).orderBy(asc(depot.name));

export const viewFamilies = (db: Db) =>
  db
    .select({ id: engineFamily.id, code: engineFamily.code, engine: engineFamily.engine })
    .from(engineFamily)
    .orderBy(asc(engineFamily.code));

/**
 * Where each of these jobs stands, read for all of them at once. The plan is not made for a list: its next
 * test is not named.
 */
async function standsOfJobs(
  db: Db,
  jobs: readonly JobBrief[],
  runs: readonly RunRow[],
  cylindersOf: (j: JobBrief) => number,
): Promise<Map<string, JobProgress>> {
  const ids = jobs.map((j) => j.id);
  const [codes, evidence, intakes, findings, records] = await together(
    db,
    () => codesOfJobs(db, ids),
    () => evidenceOfJobs(db, ids),
    () => intakeOfJobs(db, ids),
    () => findingsOf(db, ids),
    () => repairRecordsOf(db, ids),
  );
  const byJob = groupBy(runs, (r) => r.jobId);
  return new Map(
    jobs.map((j) => {
      const seen = evidence.get(j.id) ?? [];
      const known = whatIsKnown(measuredRunsOf(byJob.get(j.id) ?? []), seen);
      const stands = progressOf({
        closed: j.closed,
        codes: codes.get(j.id) ?? [],
        evidence: seen,
        findings: findings.get(j.id) ?? [],
        records: records.get(j.id) ?? [],
        runs: j.runs.map((r) => ({ ...r, at: r.startedAt })),
        cylinders: cylindersOf(j),
        conditions: intakes.get(j.id)?.conditions ?? [],
        proposals: proposeFindings(known),
        nextTest: null,
      });
      return [j.id, stands];
    }),
  );
}
