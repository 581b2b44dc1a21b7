import { and, eq, inArray, sql } from 'drizzle-orm';
import { currentLocale, localeKey } from '../../core/locale/locale';
import { CORE_VERSION } from '../../core/foundation/version';
import type { JobProgress } from '../../core/job/progress';
import { type Db, eachOf, together } from '../db/connection';
import {
  circuitDefinition,
  depot,
  engineFamily,
  fleetUnit,
  job,
  jobHead,
  jobStanding,
  specification,
  testDefinition,
  testRun,
} from '../db/schema';
import { measuredRunsOf } from '../readings/job-runs';
import { type Conclusions, concludeFrom } from './conclude';
import { ConcludeSoon } from './conclude-soon';
import { warmUntil } from './diagnosis-inputs';
import { readWritten, rowsOfJob, type WrittenJob } from './read-job';

/** Conclusions rest on how long ago something was: they are drawn anew after a day. */
const KEPT_FOR_ms = 24 * 60 * 60_000;

/**
 * What a job's conclusions rest on, beside the clock: the last event of the job, the row of its unit, engine
 * and depot, and what the shelf and the catalogue hold.
 */
const KEY = sql<string>`concat_ws('|', ${CORE_VERSION}::text, ${jobHead.number}, ${job}.xmin, ${fleetUnit}.xmin, ${engineFamily}.xmin, ${depot}.xmin,
  (select max(u.xmin::text::bigint) from unit u where u.engine_family_id = ${fleetUnit.engineFamilyId}),
  (select concat(count(*), ':', max(${specification}.xmin::text::bigint)) from ${specification}),
  (select concat(count(*), ':', max(${testDefinition}.xmin::text::bigint)) from ${testDefinition}),
  (select concat(count(*), ':', max(${circuitDefinition}.xmin::text::bigint)) from ${circuitDefinition}))`;

async function keysOf(db: Db, jobIds: readonly string[]): Promise<Map<string, string>> {
  const rows = await db
    .select({ id: job.id, key: KEY })
    .from(job)
    .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
    .innerJoin(engineFamily, eq(engineFamily.id, fleetUnit.engineFamilyId))
    .innerJoin(depot, eq(depot.id, fleetUnit.depotId))
    .leftJoin(jobHead, eq(jobHead.jobId, job.id))
    .where(inArray(job.id, [...jobIds]));
  return new Map(rows.map((r) => [r.id, r.key]));
}

const keptOf = (db: Db, jobId: string) =>
  db
    .select()
    .from(jobStanding)
    .where(and(eq(jobStanding.jobId, jobId), eq(jobStanding.locale, localeKey(currentLocale()))));

/**
 * What was written into a job and what follows from it: as it was kept while nothing has changed, else
 * concluded and kept.
 */
export async function conclusionsOf(
  db: Db,
  jobId: string,
): Promise<{ readonly written: WrittenJob; readonly conclusions: Conclusions } | null> {
  // The key before the rest: what is written meanwhile makes it old.
  const [keys, [kept], row] = await together(
    db,
    (at) => keysOf(at, [jobId]),
    (at) => keptOf(at, jobId),
    (at) => rowsOfJob(at, jobId),
  );
  const key = keys.get(jobId);
  if (key === undefined || !row) return null;
  const w = await readWritten(db, row);
  if (kept?.key === key && kept.until.getTime() > Date.now())
    return { written: w, conclusions: { ...kept.conclusions, progress: kept.progress } };
  return { written: w, conclusions: await concludeAndKeep(db, w, key) };
}

async function concludeAndKeep(db: Db, w: WrittenJob, key: string): Promise<Conclusions> {
  const { progress, ...conclusions } = await concludeFrom(db, w);
  const now = Date.now();
  const warm = warmUntil(measuredRunsOf(w.runs));
  const row = {
    jobId: w.row.job.id,
    locale: localeKey(currentLocale()),
    key,
    until: new Date(Math.min(now + KEPT_FOR_ms, warm > now ? warm : Infinity)),
    progress,
    conclusions,
  };
  await db
    .insert(jobStanding)
    .values(row)
    .onConflictDoUpdate({ target: [jobStanding.jobId, jobStanding.locale], set: row });
  return { ...conclusions, progress };
}

/**
 * Where each of these jobs stands, as its own page says it. What has changed since it was kept is concluded
 * here; or, for a list that `mayLag`, soon: a job that is being worked on is then shown as it was up to half
 * a minute ago, and nobody who looks at sixty jobs waits for them to be weighed.
 */
export async function progressOfJobs(
  db: Db,
  jobIds: readonly string[],
  mayLag = false,
): Promise<Map<string, JobProgress>> {
  if (jobIds.length === 0) return new Map();
  const [keys, kept] = await together(
    db,
    (at) => keysOf(at, jobIds),
    (at) => progressKept(at, jobIds),
  );
  const isFresh = (k: (typeof kept)[number]): boolean => k.key === keys.get(k.jobId) && k.until.getTime() > Date.now();
  const behind = mayLag ? kept.filter((k) => !isFresh(k) && k.key.startsWith(`${CORE_VERSION}|`)) : [];
  for (const k of behind) soon.seenBehind(k.jobId, () => progressOfJobs(db, [k.jobId]));
  const progress = new Map([...kept.filter(isFresh), ...behind].map((k) => [k.jobId, k.progress] as const));
  const old = jobIds.filter((id) => !progress.has(id));
  await eachOf(db, old, async (id) => {
    const found = await conclusionsOf(db, id);
    if (found) progress.set(id, found.conclusions.progress);
  });
  return progress;
}

const progressKept = (db: Db, jobIds: readonly string[]) =>
  db
    .select({
      jobId: jobStanding.jobId,
      key: jobStanding.key,
      until: jobStanding.until,
      progress: jobStanding.progress,
    })
    .from(jobStanding)
    .where(and(inArray(jobStanding.jobId, [...jobIds]), eq(jobStanding.locale, localeKey(currentLocale()))));

/** Where the job of a run stands; `null`: there is no such run. */
export async function standOfRun(db: Db, runId: string): Promise<JobProgress | null> {
  const jobId = await jobOfRun(db, runId);
  return jobId === null ? null : ((await progressOfJobs(db, [jobId])).get(jobId) ?? null);
}

async function jobOfRun(db: Db, runId: string): Promise<string | null> {
  const [row] = await db.select({ jobId: testRun.jobId }).from(testRun).where(eq(testRun.id, runId));
  return row?.jobId ?? null;
}

/** On `globalThis`: pages and routes are bundled apart. */
const shared = globalThis as { mudflatConcludeSoon?: ConcludeSoon };
const soon = (shared.mudflatConcludeSoon ??= new ConcludeSoon());

/**
 * Concludes a job once nothing more is written into it, so that whoever opens it next waits for nothing.
 * `of`: the job, or a run of it.
 */
export async function concludeSoon(db: Db, of: { readonly kind: 'job' | 'run'; readonly id: string }): Promise<void> {
  const jobId = of.kind === 'job' ? of.id : await jobOfRun(db, of.id).catch(() => null);
  if (jobId !== null) soon.written(jobId, () => progressOfJobs(db, [jobId]));
}
