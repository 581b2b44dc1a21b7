import { asc, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import { groupBy } from '../core/collections';
import type { JobBrief, JobView, PersonView, YardView } from '../formats/views';
import { codesOf, unpluggedIn } from './codes';
import type { Db } from './db';
import { notesOf } from './notes';
import { jobBrief, unitView } from './run-view';
import { depot, engineFamily, job, person, testRun, unit } from './schema';
import { allTests, testBrief } from './tests';

type JobRow = typeof job.$inferSelect;

async function briefs(db: Db, jobs: readonly JobRow[]): Promise<JobBrief[]> {
  if (jobs.length === 0) return [];
  const runs = await db.select().from(testRun).where(inArray(testRun.jobId, jobs.map((j) => j.id))).orderBy(asc(testRun.createdAt), asc(testRun.id));
  const byJob = groupBy(runs, (r) => r.jobId);
  return jobs.map((j) => jobBrief(j, byJob.get(j.id) ?? []));
}

/** All units with their open jobs, by fleet number. */
export async function viewYard(db: Db): Promise<YardView> {
  const rows = await db.select({ unit, family: engineFamily, depot }).from(unit)
    .innerJoin(engineFamily, eq(engineFamily.id, unit.engineFamilyId)).innerJoin(depot, eq(depot.id, unit.depotId)).orderBy(asc(unit.fleetNumber));
  const open = await db.select().from(job).where(isNull(job.closedAt)).orderBy(desc(job.number));
  const brief = await briefs(db, open);
  const byUnit = groupBy(open.map((j, i) => ({ unitId: j.unitId, brief: brief[i] as JobBrief })), (j) => j.unitId);
  return {
    units: rows.map((r) => ({ ...unitView(r.unit, r.family, r.depot), jobs: (byUnit.get(r.unit.id) ?? []).map((j) => j.brief) })),
    depots: await db.select({ id: depot.id, name: depot.name }).from(depot).orderBy(asc(depot.name)),
    families: await db.select({ id: engineFamily.id, code: engineFamily.code, engine: engineFamily.engine }).from(engineFamily).orderBy(asc(engineFamily.code)),
  };
}

/** A job with its unit and the unit's earlier jobs; `null` where there is none. */
export async function viewJob(db: Db, jobId: string): Promise<JobView | null> {
  const [row] = await db.select({ job, unit, family: engineFamily, depot }).from(job).innerJoin(unit, eq(unit.id, job.unitId))
    .innerJoin(engineFamily, eq(engineFamily.id, unit.engineFamilyId)).innerJoin(depot, eq(depot.id, unit.depotId)).where(eq(job.id, jobId));
  if (!row) return null;
  const all = await db.select().from(job).where(eq(job.unitId, row.unit.id)).orderBy(desc(job.number));
  const brief = await briefs(db, all);
  const own = brief.find((j) => j.id === jobId);
  if (!own) throw new Error(`job ${jobId} is not among the jobs of its unit`);
  return { job: own, unit: unitView(row.unit, row.family, row.depot), earlier: brief.filter((j) => j.number < own.number),
    tests: (await allTests(db)).map(testBrief), notes: await notesOf(db, jobId),
    codes: await codesOf(db, jobId), unplugged: await unpluggedIn(db, jobId) };
}

export async function listPersons(db: Db): Promise<PersonView[]> {
  return db.select({ name: person.name, role: person.role, depot: depot.name }).from(person)
    .innerJoin(depot, eq(depot.id, person.depotId)).orderBy(asc(person.name));
}

/** Answers when the database does. */
export async function ping(db: Db): Promise<void> {
  await db.execute(sql`select 1`);
}
