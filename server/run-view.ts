import { asc, desc, eq } from 'drizzle-orm';
import type { Position } from '../core/judge/types';
import { judgeRun, type RunInputs } from '../formats/run-set';
import { type CircumstanceView, currentReadings, type InstrumentView, type JobBrief, type ReadingView, type RunView, type SpecificationView, type UnitView } from '../formats/views';
import type { Db, Tx } from './db';
import { circumstance, depot, engineFamily, instrument, job, reading, specification, testRun, unit } from './schema';

/** Everything that a run is made of, as stored. */
export interface RunRecord {
  readonly run: typeof testRun.$inferSelect;
  readonly unit: UnitView;
  readonly depotId: string;
  readonly job: typeof job.$inferSelect;
  readonly specification: SpecificationView;
  readonly circumstance: CircumstanceView;
  readonly instruments: readonly InstrumentView[];
  readonly readings: readonly ReadingView[];
}

const NO_CIRCUMSTANCE: CircumstanceView = { instrumentId: null, leadZero: null, states: [], condition: {} };

/** Reads a run; `lock` holds it until the transaction ends, so that two writers judge one after the other. */
export async function loadRun(db: Db | Tx, runId: string, lock = false): Promise<RunRecord | null> {
  const query = db.select({ run: testRun, job, unit, family: engineFamily, depot, spec: specification }).from(testRun)
    .innerJoin(job, eq(job.id, testRun.jobId)).innerJoin(unit, eq(unit.id, job.unitId))
    .innerJoin(engineFamily, eq(engineFamily.id, unit.engineFamilyId)).innerJoin(depot, eq(depot.id, unit.depotId))
    .innerJoin(specification, eq(specification.id, testRun.specificationId)).where(eq(testRun.id, runId));
  const [row] = await (lock ? query.for('update', { of: testRun }) : query);
  if (!row) return null;
  const [newest] = await db.select().from(circumstance).where(eq(circumstance.runId, runId)).orderBy(desc(circumstance.sequence)).limit(1);
  const instruments = await db.select().from(instrument).where(eq(instrument.depotId, row.depot.id)).orderBy(asc(instrument.name));
  const readings = await db.select().from(reading).where(eq(reading.runId, runId)).orderBy(asc(reading.sequence));
  return {
    run: row.run, job: row.job, depotId: row.depot.id,
    unit: unitView(row.unit, row.family, row.depot),
    specification: specificationView(row.spec, row.spec.engineFamilyId ? row.family.code : null),
    circumstance: newest ? circumstanceView(newest) : NO_CIRCUMSTANCE,
    instruments: instruments.map(instrumentView), readings: readings.map(readingView),
  };
}

export const unitView = (
  u: typeof unit.$inferSelect, f: typeof engineFamily.$inferSelect, d: typeof depot.$inferSelect,
): UnitView => ({
  id: u.id, fleetNumber: u.fleetNumber, kind: u.kind, depot: d.name, timeZone: d.timeZone, family: f.code, engine: f.engine,
});

export const specificationView = (s: typeof specification.$inferSelect, family: string | null): SpecificationView => ({
  id: s.id, revision: s.revision, source: s.source, status: s.status, limits: s.limits, family,
});

const circumstanceView = (c: typeof circumstance.$inferSelect): CircumstanceView => ({
  instrumentId: c.instrumentId, leadZero: c.leadZero, states: c.states, condition: c.condition,
});

const instrumentView = (i: typeof instrument.$inferSelect): InstrumentView => ({
  id: i.id, name: i.name, kind: i.kind, accuracy: i.accuracy, calibrationDue: i.calibrationDue,
});

export const positionOf = (r: { position: string; isCylinder: boolean }): Position => (r.isCylinder ? Number(r.position) : r.position);

export const readingView = (r: typeof reading.$inferSelect): ReadingView => ({
  id: r.id, position: positionOf(r), entry: r.entry, supersedes: r.supersedes, why: r.why, takenAt: r.takenAt.toISOString(),
  takenBy: r.takenBy, leadZero: r.leadZero, judged: r.judged, coreVersion: r.coreVersion,
});

/** What the judge needs of a run. */
export const runInputs = (r: RunRecord): RunInputs => ({
  test: r.run.test, engine: r.unit.engine, limits: limitsOf(r.specification), circumstance: r.circumstance, instruments: r.instruments,
  readings: currentReadings(r.readings).map(({ position, entry }) => ({ position, entry })),
});

/** Limits with the source and status of the specification that they come from. */
export const limitsOf = (s: SpecificationView): SpecificationView['limits'] => ({ ...s.limits, source: s.source, status: s.status });

/** A run as the bench, the report and the print view show it; `null` where there is none. */
export async function viewRun(db: Db, runId: string): Promise<RunView | null> {
  const record = await loadRun(db, runId);
  if (!record) return null;
  const judged = judgeRun(runInputs(record));
  if (!judged.ok) throw new Error(`run ${runId} cannot be judged: ${JSON.stringify(judged.error)}`);
  const trail = await db.select().from(testRun).where(eq(testRun.jobId, record.job.id)).orderBy(asc(testRun.createdAt), asc(testRun.id));
  return {
    id: record.run.id, test: record.run.test, startedAt: record.run.createdAt.toISOString(), startedBy: record.run.startedBy,
    unit: record.unit, job: jobBrief(record.job, trail), specification: { ...record.specification, limits: limitsOf(record.specification) },
    circumstance: record.circumstance, instruments: record.instruments, readings: record.readings, judgement: judged.value,
  };
}

export const jobBrief = (j: typeof job.$inferSelect, runs: readonly (typeof testRun.$inferSelect)[]): JobBrief => ({
  id: j.id, number: j.number, complaint: j.complaint, openedAt: j.createdAt.toISOString(), openedBy: j.openedBy, closed: j.closedAt !== null,
  odometer_km: j.odometer_km, hours: j.hours,
  runs: runs.map((r) => ({ id: r.id, test: r.test, startedAt: r.createdAt.toISOString(), startedBy: r.startedBy, judgement: r.judgement })),
});

