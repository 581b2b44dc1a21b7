import { eq, sql } from 'drizzle-orm';
import { v5 } from 'uuid';
import { checkEngine } from '../../core/engine/layout';
import { ok } from '../../core/foundation/result';
import { EMPTY_INTAKE } from '../../formats/job-requests';
import type { AddEngineFamily, AddUnit, ChooseDepot, OpenJob, SetPart, StartRun } from '../../formats/requests';
import type { Db } from '../db/connection';
import { requireLead } from '../people/people';
import { databaseCode, type Done, notFound, refuse, UNIQUE_VIOLATION } from '../db/refusal';
import { situationOf, unitView } from '../readings/run-view';
import { depot, engineFamily, intake, job, testRun, unit } from '../db/schema';
import { chooseFor } from '../specifications/specifications';
import { findAnyTest } from '../catalogue/tests';

const done = (id: string, inserted: readonly unknown[]) => ok({ id, duplicate: inserted.length === 0 });

export async function addDepot(db: Db, d: { id: string; name: string; timeZone: string }): Promise<Done> {
  return done(
    d.id,
    await db.insert(depot).values(d).onConflictDoNothing({ target: depot.id }).returning({ id: depot.id }),
  );
}

export async function addEngineFamily(db: Db, f: AddEngineFamily): Promise<Done> {
  const problems = checkEngine(f.engine, '/engine');
  if (problems.length) return refuse('This engine cannot be.', problems);
  return unique('/code', `There is an engine family "${f.code}" already.`, async () =>
    done(
      f.id,
      await db
        .insert(engineFamily)
        .values(f)
        .onConflictDoNothing({ target: engineFamily.id })
        .returning({ id: engineFamily.id }),
    ),
  );
}

export async function addUnit(db: Db, u: AddUnit): Promise<Done> {
  const [place] = await db.select({ id: depot.id }).from(depot).where(eq(depot.id, u.depotId));
  if (!place) return notFound('depot', '/depotId');
  const [family] = await db
    .select({ id: engineFamily.id })
    .from(engineFamily)
    .where(eq(engineFamily.id, u.engineFamilyId));
  if (!family) return notFound('engine family', '/engineFamilyId');
  const row = { ...u, fleetNumber: u.fleetNumber.trim(), kind: u.kind.trim() };
  return unique('/fleetNumber', `There is a unit "${row.fleetNumber}" already.`, async () =>
    done(u.id, await db.insert(unit).values(row).onConflictDoNothing({ target: unit.id }).returning({ id: unit.id })),
  );
}

/** Notes which part is fitted; an empty code takes the note away. */
export async function setPart(db: Db, unitId: string, p: SetPart): Promise<Done> {
  const code = p.code?.trim() ?? '';
  const parts = code
    ? sql`${unit.parts} || jsonb_build_object(${p.part}::text, ${code}::text)`
    : sql`${unit.parts} - ${p.part}::text`;
  const [done] = await db.update(unit).set({ parts }).where(eq(unit.id, unitId)).returning({ id: unit.id });
  return done ? ok({ id: unitId, duplicate: false }) : notFound('unit');
}

/** A depot's school for a test, how it accepts, or what it reckons in. Leads only. */
export async function chooseDepot(db: Db, depotId: string, c: ChooseDepot): Promise<Done> {
  const refused = await requireLead(db, c.by, 'choose how this depot judges');
  if (refused) return refused;
  return db.transaction(async (tx) => {
    const [there] = await tx.select().from(depot).where(eq(depot.id, depotId)).for('update');
    if (!there) return notFound('depot');
    const { schools, decision, currency } = there.choices;
    const others = Object.fromEntries(Object.entries(schools).filter(([test]) => test !== c.school?.test));
    const chosen = c.currency ?? currency;
    const next = {
      ...(chosen ? { currency: chosen } : {}),
      decision: c.decision ?? decision,
      schools: c.school
        ? { ...others, ...(c.school.name === null ? {} : { [c.school.test]: c.school.name }) }
        : schools,
    };
    await tx.update(depot).set({ choices: next }).where(eq(depot.id, depotId));
    return ok({ id: depotId, duplicate: false });
  });
}

export async function openJob(db: Db, j: OpenJob): Promise<Done> {
  const [there] = await db.select({ id: unit.id }).from(unit).where(eq(unit.id, j.unitId));
  if (!there) return notFound('unit', '/unitId');
  // Looked up first: an insert that does nothing would still use up a job number.
  const [same] = await db.select({ id: job.id }).from(job).where(eq(job.id, j.id));
  if (same) return ok({ id: j.id, duplicate: true });
  const row = {
    id: j.id,
    unitId: j.unitId,
    complaint: j.complaint.trim(),
    openedBy: j.by.trim(),
    odometer_km: j.odometer_km ?? null,
    hours: j.hours ?? null,
  };
  return db.transaction(async (tx) => {
    const inserted = await tx.insert(job).values(row).onConflictDoNothing({ target: job.id }).returning({ id: job.id });
    if (inserted.length && j.conditions?.length) {
      await tx.insert(intake).values({
        id: v5('intake', j.id),
        jobId: j.id,
        recordedBy: row.openedBy,
        body: { ...EMPTY_INTAKE, conditions: j.conditions },
      });
    }
    return done(j.id, inserted);
  });
}

/** Starts a test run with the test as it is now and the limits that apply. */
export async function startRun(db: Db, r: StartRun): Promise<Done> {
  const definition = await findAnyTest(db, r.test);
  if (!definition) return notFound('test in the catalogue', '/test');
  const [there] = await db
    .select({ unit, family: engineFamily, depot })
    .from(job)
    .innerJoin(unit, eq(unit.id, job.unitId))
    .innerJoin(engineFamily, eq(engineFamily.id, unit.engineFamilyId))
    .innerJoin(depot, eq(depot.id, unit.depotId))
    .where(eq(job.id, r.jobId));
  if (!there) return notFound('job', '/jobId');
  const situation = situationOf({
    definition,
    unit: unitView(there.unit, there.family, there.depot),
    choices: there.depot.choices,
    circumstance: NOTHING_YET,
  });
  const spec = await chooseFor(db, definition, situation);
  const row = {
    id: r.id,
    jobId: r.jobId,
    test: r.test,
    specificationId: spec.id,
    because: spec.because,
    startedBy: r.by.trim(),
    definition,
    decision: there.depot.choices.decision,
  };
  return done(
    r.id,
    await db.insert(testRun).values(row).onConflictDoNothing({ target: testRun.id }).returning({ id: testRun.id }),
  );
}

const NOTHING_YET = { instrumentId: null, leadZero: null, zeros: {}, states: [], condition: {} };

async function unique(path: string, message: string, insert: () => Promise<Done>): Promise<Done> {
  try {
    return await insert();
  } catch (error) {
    if (databaseCode(error)?.code !== UNIQUE_VIOLATION) throw error;
    return refuse('It is there already.', [{ path, message }], 409);
  }
}
