import { and, desc, eq, isNull, or, sql } from 'drizzle-orm';
import { findTest } from '../core/catalogue/catalogue';
import { checkEngine } from '../core/engine/layout';
import { checkLimits } from '../core/judge/limits';
import { ok, type Result } from '../core/result';
import type { ProblemDetails } from '../formats/problem';
import type { AddEngineFamily, AddInstrument, AddSpecification, AddUnit, OpenJob, StartRun } from '../formats/requests';
import type { Db } from './db';
import { databaseCode, notFound, refuse, UNIQUE_VIOLATION } from './refusal';
import { depot, engineFamily, instrument, job, person, specification, testRun, unit } from './schema';

/** Commands that set things up. Each takes an id made by the caller; the same command twice is the same row. */
export type Done<T = { id: string }> = Result<T & { readonly duplicate: boolean }, ProblemDetails>;

const done = (id: string, inserted: readonly unknown[]) => ok({ id, duplicate: inserted.length === 0 });

export async function addDepot(db: Db, d: { id: string; name: string; timeZone: string }): Promise<Done> {
  return done(d.id, await db.insert(depot).values(d).onConflictDoNothing({ target: depot.id }).returning({ id: depot.id }));
}

export async function addPerson(db: Db, p: { id: string; depotId: string; name: string; role: 'technician' | 'lead' | 'viewer' }): Promise<Done> {
  return done(p.id, await db.insert(person).values(p).onConflictDoNothing({ target: person.id }).returning({ id: person.id }));
}

export async function addEngineFamily(db: Db, f: AddEngineFamily): Promise<Done> {
  const problems = checkEngine(f.engine, '/engine');
  if (problems.length) return refuse('This engine cannot be.', problems);
  return unique('/code', `There is an engine family "${f.code}" already.`, async () =>
    done(f.id, await db.insert(engineFamily).values(f).onConflictDoNothing({ target: engineFamily.id }).returning({ id: engineFamily.id })));
}

export async function addUnit(db: Db, u: AddUnit): Promise<Done> {
  const [place] = await db.select({ id: depot.id }).from(depot).where(eq(depot.id, u.depotId));
  if (!place) return notFound('depot', '/depotId');
  const [family] = await db.select({ id: engineFamily.id }).from(engineFamily).where(eq(engineFamily.id, u.engineFamilyId));
  if (!family) return notFound('engine family', '/engineFamilyId');
  const row = { ...u, fleetNumber: u.fleetNumber.trim(), kind: u.kind.trim() };
  return unique('/fleetNumber', `There is a unit "${row.fleetNumber}" already.`, async () =>
    done(u.id, await db.insert(unit).values(row).onConflictDoNothing({ target: unit.id }).returning({ id: unit.id })));
}

export async function addInstrument(db: Db, i: AddInstrument): Promise<Done> {
  const row = {
    id: i.id, depotId: i.depotId, name: i.name, kind: i.instrument.kind, accuracy: [...(i.instrument.accuracy ?? [])],
    calibrationDue: i.calibrationDue ?? null,
  };
  return done(i.id, await db.insert(instrument).values(row).onConflictDoNothing({ target: instrument.id }).returning({ id: instrument.id }));
}

export async function addSpecification(db: Db, s: AddSpecification): Promise<Done> {
  const problems = checkLimits(s.limits, '/limits');
  const test = findTest(s.test);
  if (!test) problems.push({ path: '/test', message: `The catalogue has no test "${s.test}".` });
  else if (test.quantity !== s.limits.quantity) problems.push({ path: '/limits/quantity', message: `The test reads ${test.quantity}.` });
  if (problems.length) return refuse('These limits cannot be used.', problems);
  return unique('/revision', `Revision ${s.revision} of these limits is there already.`, async () =>
    done(s.id, await db.insert(specification).values({ ...s, engineFamilyId: s.engineFamilyId ?? null })
      .onConflictDoNothing({ target: specification.id }).returning({ id: specification.id })));
}

export async function openJob(db: Db, j: OpenJob): Promise<Done> {
  const [there] = await db.select({ id: unit.id }).from(unit).where(eq(unit.id, j.unitId));
  if (!there) return notFound('unit', '/unitId');
  // Looked up first: an insert that does nothing would still use up a job number.
  const [same] = await db.select({ id: job.id }).from(job).where(eq(job.id, j.id));
  if (same) return ok({ id: j.id, duplicate: true });
  const row = {
    id: j.id, unitId: j.unitId, complaint: j.complaint.trim(), openedBy: j.by.trim(), odometer_km: j.odometer_km ?? null, hours: j.hours ?? null,
  };
  return done(j.id, await db.insert(job).values(row).onConflictDoNothing({ target: job.id }).returning({ id: job.id }));
}

/** Starts a test run with the limits that apply: those of the engine family before the general rule, newest revision. */
export async function startRun(db: Db, r: StartRun): Promise<Done> {
  if (!findTest(r.test)) return notFound('test in the catalogue', '/test');
  const [there] = await db.select({ family: unit.engineFamilyId }).from(job).innerJoin(unit, eq(unit.id, job.unitId)).where(eq(job.id, r.jobId));
  if (!there) return notFound('job', '/jobId');
  const [spec] = await db.select({ id: specification.id }).from(specification)
    .where(and(eq(specification.test, r.test), or(eq(specification.engineFamilyId, there.family), isNull(specification.engineFamilyId))))
    .orderBy(sql`${specification.engineFamilyId} is null`, desc(specification.revision)).limit(1);
  if (!spec) return refuse('There are no limits for this test.', [{ path: '/test', message: 'Neither the engine family nor a general rule has limits for this test.' }]);
  const row = { id: r.id, jobId: r.jobId, test: r.test, specificationId: spec.id, startedBy: r.by.trim() };
  return done(r.id, await db.insert(testRun).values(row).onConflictDoNothing({ target: testRun.id }).returning({ id: testRun.id }));
}

async function unique(path: string, message: string, insert: () => Promise<Done>): Promise<Done> {
  try {
    return await insert();
  } catch (error) {
    if (databaseCode(error)?.code !== UNIQUE_VIOLATION) throw error;
    return refuse('It is there already.', [{ path, message }], 409);
  }
}
