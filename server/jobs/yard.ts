import { and, asc, desc, eq, inArray, isNotNull, isNull, like, lte, sql } from 'drizzle-orm';
import { groupBy } from '../../core/foundation/collections';
import type { Judgement } from '../../core/judge/types';
import type { JobBrief, ReleasedJob, YardJob, YardView } from '../../application/views';
import { type Db, together } from '../db/connection';
import { briefs, type JobRow, newestRunsOf } from '../readings/job-runs';
import { depot, engineFamily, job, fleetUnit, unitWords } from '../db/schema';
import { unitView } from '../fleet/unit-view';
import { progressOfJobs } from './standing';

/** Units shown at once: more is no list that anybody reads. */
const SHOWN = 60;
/** The newest test of a job is drawn. */
const RUNS_READ = 1;

/**
 * Units with their open jobs, those with an open job first, then by fleet number. `search` finds fleet
 * number, kind, family, depot, a job's number or complaint. `mayLag`: where a job stands may be some seconds
 * old.
 */
export async function viewYard(db: Db, search = '', mayLag = false): Promise<YardView> {
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
    .where(
      and(
        // A unit that is gone keeps its history.
        isNull(fleetUnit.retiredAt),
        ...words.map((w) => like(unitWords.words, `%${w.toLowerCase().replace(/[\\%_]/g, '\\$&')}%`)),
      ),
    )
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
  const unitIds = rows.map((r) => r.unit.id);
  const [open, released, depots, families] = await together(
    db,
    (at) => openJobsOf(at, unitIds),
    (at) => releasedOf(at, unitIds),
    viewDepots,
    viewFamilies,
  );
  const [runs, progress] = await Promise.all([
    newestRunsOf(db, open, RUNS_READ),
    progressOfJobs(
      db,
      open.map((j) => j.id),
      mayLag,
    ),
  ]);
  const unitOf = new Map(open.map((j) => [j.id, j.unitId]));
  const listed = briefs(open, runs);
  const byUnit = groupBy(listed, (b) => unitOf.get(b.id) ?? '');
  const yardJob = (b: JobBrief): YardJob[] => {
    const own = progress.get(b.id);
    if (!own) return [];
    const { id, number, complaint } = b;
    const { now, say, waits } = own;
    const newest = b.runs.at(-1);
    const latest = newest
      ? { id: newest.id, name: newest.name, judgement: newest.judgement && drawn(newest.judgement) }
      : null;
    return [{ id, number, complaint, progress: { now, say, waits }, latest }];
  };
  return {
    search: search.trim(),
    found: rows[0]?.found ?? 0,
    units: rows.map((r) => ({
      ...unitView(r.unit, r.family, r.depot),
      jobs: (byUnit.get(r.unit.id) ?? []).flatMap(yardJob),
      released: released.get(r.unit.id) ?? [],
    })),
    depots,
    families,
  };
}

export const viewDepots = (db: Db): Promise<{ id: string; name: string }[]> =>
  db.select({ id: depot.id, name: depot.name }).from(depot).where(isNull(depot.retiredAt)).orderBy(asc(depot.name));

export const viewFamilies = (db: Db) =>
  db
    .select({ id: engineFamily.id, code: engineFamily.code, engine: engineFamily.engine })
    .from(engineFamily)
    .where(isNull(engineFamily.retiredAt))
    .orderBy(asc(engineFamily.code));

/** What the small posts show of a judgement, and nothing of its reasons. */
const drawn = (judgement: Judgement): Judgement => ({
  ...judgement,
  readings: judgement.readings.map((r) => ({ ...r, reasons: [] })),
  advice: [],
  proven: [],
});

async function openJobsOf(db: Db, unitIds: readonly string[]): Promise<JobRow[]> {
  if (unitIds.length === 0) return [];
  return db
    .select()
    .from(job)
    .where(and(isNull(job.closedAt), inArray(job.unitId, [...unitIds])))
    .orderBy(desc(job.number));
}

/** So many released jobs of each unit. */
const RELEASED = 5;

async function releasedOf(db: Db, unitIds: readonly string[]): Promise<Map<string, ReleasedJob[]>> {
  if (unitIds.length === 0) return new Map();
  const numbered = db
    .select({
      id: job.id,
      unitId: job.unitId,
      number: job.number,
      complaint: job.complaint,
      back: sql<number>`row_number() over (partition by ${job.unitId} order by ${job.number} desc)`.as('back'),
    })
    .from(job)
    .where(and(inArray(job.unitId, [...unitIds]), isNotNull(job.closedAt)))
    .as('numbered');
  const found = await db.select().from(numbered).where(lte(numbered.back, RELEASED)).orderBy(desc(numbered.number));
  return new Map(
    [...groupBy(found, (r) => r.unitId)].map(([unitId, own]) => [
      unitId,
      own.map(({ id, number, complaint }) => ({ id, number, complaint })),
    ]),
  );
}
