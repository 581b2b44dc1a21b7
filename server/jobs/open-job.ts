import { and, desc, eq, isNull, sql } from 'drizzle-orm';
import { v5 } from 'uuid';
import type { TestDefinition } from '../../core/catalogue/types';
import type { Db, Tx } from '../db/connection';
import { type Done, notFound, refuse } from '../db/refusal';
import { situationOf } from '../readings/run-view';
import { circumstance, depot, engineFamily, fleetUnit, instrument, intake, job, testRun } from '../db/schema';
import { chooseFor } from '../specifications/specifications';
import { findAnyTest } from '../catalogue/tests';
import { alreadyThere, append } from '../journal/append';
import { unitView } from '../fleet/unit-view';
import type { OpenJob } from '../../formats/requests/jobs';
import type { StartRun } from '../../formats/requests/runs';
import { EMPTY_INTAKE } from '../../formats/requests/intake';

export async function openJob(db: Db, j: OpenJob): Promise<Done> {
  const [there] = await db.select({ retiredAt: fleetUnit.retiredAt }).from(fleetUnit).where(eq(fleetUnit.id, j.unitId));
  if (!there) return notFound('unit', '/unitId');
  const row = {
    id: j.id,
    unitId: j.unitId,
    complaint: j.complaint.trim(),
    openedBy: j.by.trim(),
    odometer_km: j.odometer_km ?? null,
    hours: j.hours ?? null,
  };
  // Looked up first: an insert that does nothing would still use up a job number.
  const before = await alreadyThere(db, job, row);
  if (before) return before;
  if (there.retiredAt)
    return refuse(
      'It is retired.',
      [{ path: '/unitId', message: 'This unit is retired: a lead can take it back into use.' }],
      409,
    );
  return db.transaction(async (tx) => {
    const done = await append(tx, job, row);
    if (done.ok && !done.value.duplicate && j.conditions?.length)
      await append(tx, intake, {
        id: v5('intake', j.id),
        jobId: j.id,
        recordedBy: row.openedBy,
        body: { ...EMPTY_INTAKE, conditions: j.conditions },
      });
    return done;
  });
}

/** Starts a test run with the test as it is now and the limits that apply. */
export async function startRun(db: Db, r: StartRun): Promise<Done> {
  const definition = await findAnyTest(db, r.test);
  if (!definition) return notFound('test in the catalogue', '/test');
  const [there] = await db
    .select({ unit: fleetUnit, family: engineFamily, depot })
    .from(job)
    .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
    .innerJoin(engineFamily, eq(engineFamily.id, fleetUnit.engineFamilyId))
    .innerJoin(depot, eq(depot.id, fleetUnit.depotId))
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
  return db.transaction(async (tx) => {
    const done = await append(tx, testRun, row);
    if (done.ok && !done.value.duplicate) await carryMeter(tx, row, definition);
    return done;
  });
}

/** Leads that were zeroed this lately are the same leads. Common practice, no source. */
const ZERO_HOLDS_ms = 4 * 3_600_000;

/**
 * The meter of the job's run before is in the hand still, where it can read this at all; so are its leads, of
 * the same quantity and for a few hours.
 */
async function carryMeter(
  tx: Tx,
  { id, jobId, startedBy }: { id: string; jobId: string; startedBy: string },
  { quantity }: TestDefinition,
): Promise<void> {
  const [last] = await tx
    .select({
      instrument,
      leadZero: circumstance.leadZero,
      at: circumstance.recordedAt,
      quantity: sql<string | null>`${testRun.definition}->>'quantity'`,
    })
    .from(circumstance)
    .innerJoin(testRun, eq(testRun.id, circumstance.runId))
    .innerJoin(instrument, eq(instrument.id, circumstance.instrumentId))
    .where(and(eq(testRun.jobId, jobId), isNull(instrument.retiredAt), isNull(instrument.replacedBy)))
    .orderBy(desc(circumstance.sequence))
    .limit(1);
  if (!last?.instrument.accuracy.some((a) => a.quantity === quantity)) return;
  await append(tx, circumstance, {
    id: v5('circumstance', id),
    runId: id,
    instrumentId: last.instrument.id,
    leadZero: last.quantity === quantity && Date.now() - last.at.getTime() < ZERO_HOLDS_ms ? last.leadZero : null,
    states: [],
    condition: {},
    recordedBy: startedBy,
    recordedAt: new Date(),
  });
}

const NOTHING_YET = { instrumentId: null, leadZero: null, zeros: {}, states: [], condition: {} };
