import { and, asc, desc, eq, ne, type SQL, sql } from 'drizzle-orm';
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import { findTest } from '../../core/catalogue/catalogue';
import type { TestDefinition } from '../../core/catalogue/types';
import type { Judgement, Position } from '../../core/judge/types';
import { readStoredJudgement, readStoredReading } from '../../application/judging/stored-judgement';
import { becauseForReader } from '../../core/specifications/because';
import type { Situation } from '../../core/specifications/types';
import { forReader, judgeRun, type RunInputs } from '../../application/judging/judge-run';
import {
  type CircumstanceView,
  type InstrumentView,
  type JobBrief,
  type ReadingView,
  type RunView,
  type SpecificationView,
  type FleetUnitView,
} from '../../application/views';
import type { Db, Tx } from '../db/connection';
import { instrumentView, testLeadsOf } from '../instruments/instruments';
import {
  circumstance,
  depot,
  type DepotChoices,
  engineFamily,
  instrument,
  job,
  reading,
  specification,
  testRun,
  fleetUnit,
} from '../db/schema';
import type { SpecificationRow } from '../specifications/specifications';
import { countingReadings } from '../../application/judging/corrections';
import { displayPhotosOf } from './display-photos';
import { connectorsOf } from '../fleet/connectors';
import { unitView } from '../fleet/unit-view';

/** Everything that a run is made of, as stored. */
export interface RunRecord {
  readonly run: typeof testRun.$inferSelect;
  readonly definition: TestDefinition;
  readonly unit: FleetUnitView;
  readonly depotId: string;
  readonly familyId: string;
  readonly choices: DepotChoices;
  readonly job: typeof job.$inferSelect;
  readonly specification: SpecificationView;
  readonly circumstance: CircumstanceView;
  /** Of the depot: those in use, and those that this run was read with. */
  readonly instruments: readonly InstrumentView[];
  readonly readings: readonly ReadingView[];
}

const NO_CIRCUMSTANCE: CircumstanceView = { instrumentId: null, leadZero: null, zeros: {}, states: [], condition: {} };

/**
 * Reads a run with all that it is made of, in one question; `lock` holds it until the transaction ends, so
 * that two writers judge one after the other. The lock is a question of its own before it: whoever has waited
 * must see what was written meanwhile.
 */
export async function loadRun(db: Db | Tx, runId: string, lock = false): Promise<RunRecord | null> {
  if (lock) await db.execute(sql`select 1 from ${testRun} where ${testRun.id} = ${runId} for no key update`);
  const [row] = await db
    .select({
      run: testRun,
      job,
      unit: fleetUnit,
      family: engineFamily,
      depot,
      spec: specification,
      circumstances: rowsAsJson<StoredCircumstance>(
        circumstance,
        eq(circumstance.runId, testRun.id),
        circumstance.sequence,
      ),
      instruments: rowsAsJson<StoredInstrument>(instrument, eq(instrument.depotId, depot.id), instrument.name),
      readings: rowsAsJson<StoredReading>(reading, eq(reading.runId, testRun.id), reading.sequence),
    })
    .from(testRun)
    .innerJoin(job, eq(job.id, testRun.jobId))
    .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
    .innerJoin(engineFamily, eq(engineFamily.id, fleetUnit.engineFamilyId))
    .innerJoin(depot, eq(depot.id, fleetUnit.depotId))
    .innerJoin(specification, eq(specification.id, testRun.specificationId))
    .where(eq(testRun.id, runId));
  if (!row) return null;
  const readings = row.readings.map((r) => readingView(readStored(r)));
  const now = circumstanceView(row.circumstances);
  const used = new Set([now.instrumentId, ...readings.map((r) => r.instrumentId)]);
  return {
    run: row.run,
    job: row.job,
    depotId: row.depot.id,
    familyId: row.family.id,
    choices: row.depot.choices,
    definition: definitionOf(row.run),
    unit: unitView(row.unit, row.family, row.depot),
    specification: specificationView({
      row: row.spec,
      of: { part: row.spec.part, family: row.family.code, depot: row.depot.name, general: null }[row.spec.scope],
    }),
    circumstance: now,
    instruments: row.instruments
      .map((i) =>
        instrumentView({ ...i, replacedBy: i.replaced_by, retiredAt: i.retired_at, calibrationDue: i.calibration_due }),
      )
      .filter((i) => !i.retired || used.has(i.id)),
    readings,
  };
}

/**
 * Rows of another table as one column of JSON, so that a run and what belongs to it are one question. Names
 * are those of the database.
 */
const rowsAsJson = <T>(table: PgTable, where: SQL | undefined, order: PgColumn): SQL<readonly T[]> =>
  sql<
    readonly T[]
  >`(select coalesce(json_agg(to_json(${table}) order by ${order}), '[]') from ${table} where ${where})`;

interface StoredCircumstance {
  readonly instrument_id: string | null;
  readonly lead_zero: string | null;
  readonly states: readonly string[];
  readonly condition: CircumstanceView['condition'];
}
type StoredInstrument = Pick<InstrumentRow, 'id' | 'name' | 'kind' | 'accuracy' | 'details'> & {
  readonly calibration_due: string | null;
  readonly replaced_by: string | null;
  readonly retired_at: string | null;
};
type StoredReading = Pick<ReadingRow, 'id' | 'position' | 'entry' | 'supersedes' | 'why'> & {
  readonly is_cylinder: boolean;
  readonly taken_at: string;
  readonly taken_by: string;
  readonly instrument_id: string | null;
  readonly lead_zero: string | null;
  readonly judged: unknown;
  readonly core_version: string;
};
type InstrumentRow = typeof instrument.$inferSelect;
type ReadingRow = typeof reading.$inferSelect;

const readStored = (r: StoredReading): Parameters<typeof readingView>[0] => ({
  id: r.id,
  position: r.position,
  entry: r.entry,
  supersedes: r.supersedes,
  why: r.why,
  isCylinder: r.is_cylinder,
  takenAt: new Date(r.taken_at),
  takenBy: r.taken_by,
  instrumentId: r.instrument_id,
  leadZero: r.lead_zero,
  judged: readStoredReading(r.judged),
  coreVersion: r.core_version,
});

/** The test of a run as it was when the run began. */
export function definitionOf(run: typeof testRun.$inferSelect): TestDefinition {
  return run.definition ?? findTest(run.test) ?? forgottenTest(run);
}

/**
 * Of a run from before runs kept their test, of one that does not ship any more: what its judgement still
 * says of it.
 */
function forgottenTest({ test, judgement }: typeof testRun.$inferSelect): TestDefinition {
  const positions = judgement?.readings.map((r) => String(r.position)) ?? [];
  return {
    id: test,
    name: test,
    purpose: 'This test is not in the catalogue any more.',
    part: '',
    area: '',
    quantity: judgement?.limits.quantity ?? 'resistance',
    unit: judgement?.limits.unit ?? 'ohm',
    layout: 'places',
    positions,
    tool: { kind: 'multimeter', mode: '' },
    minutes: 0,
    people: 1,
    connection: '',
    condition: { key: '', engine: '' },
    states: [],
    probe: '',
    steps: [],
    cautions: [],
    proves: '',
    cannotProve: '',
    advice: [],
    rules: [],
  };
}

/** A run as it was judged. One in which nothing was read yet has no verdict: it is judged empty. */
export function judgementOf(record: RunRecord): Judgement {
  if (record.run.judgement) return forReader(record.run.judgement, record.definition);
  const empty = judgeRun(runInputs(record));
  return empty.ok
    ? empty.value
    : readStoredJudgement({ limits: limitsOf(record.specification, record.definition), test: record.run.test });
}

/** What limits are looked for with. */
export function situationOf(r: Pick<RunRecord, 'definition' | 'unit' | 'choices' | 'circumstance'>): Situation {
  const { definition: t, unit: u } = r;
  return {
    test: t.id,
    part: u.parts[t.part] ?? null,
    family: u.family,
    depot: u.depot,
    school: r.choices.schools[t.id] ?? null,
    systemVoltage_V: u.engine.systemVoltage_V,
    key: t.condition.key,
    engine: t.condition.engine,
    connection: t.connection,
    temperature_degC: r.circumstance.condition.partTemperature_degC,
  };
}

export const specificationView = ({ row: s, of }: SpecificationRow): SpecificationView => ({
  id: s.id,
  revision: s.revision,
  source: s.source,
  status: s.status,
  limits: s.limits,
  scope: s.scope,
  of,
  school: s.school,
});

/** The newest circumstance, with the newest zero of each instrument before it. */
function circumstanceView(all: readonly StoredCircumstance[]): CircumstanceView {
  const newest = all.at(-1);
  if (!newest) return NO_CIRCUMSTANCE;
  const zeros = Object.fromEntries(all.flatMap((c) => (c.instrument_id ? [[c.instrument_id, c.lead_zero]] : [])));
  return {
    instrumentId: newest.instrument_id,
    leadZero: newest.lead_zero,
    zeros,
    states: newest.states,
    condition: newest.condition,
  };
}

export const positionOf = (r: { position: string; isCylinder: boolean }): Position =>
  r.isCylinder ? Number(r.position) : r.position;

type ShownReading = Omit<ReadingRow, 'sequence' | 'runId' | 'createdAt' | 'specificationId'>;

export const readingView = (r: ShownReading): ReadingView => ({
  id: r.id,
  position: positionOf(r),
  entry: r.entry,
  supersedes: r.supersedes,
  why: r.why,
  takenAt: r.takenAt.toISOString(),
  takenBy: r.takenBy,
  instrumentId: r.instrumentId,
  leadZero: r.leadZero,
  judged: r.judged,
  coreVersion: r.coreVersion,
});

/** What the judge needs of a run. */
export const runInputs = (r: RunRecord): RunInputs => ({
  definition: r.definition,
  engine: r.unit.engine,
  limits: limitsOf(r.specification, r.definition),
  decision: r.run.decision,
  circumstance: r.circumstance,
  instruments: r.instruments,
  readings: countingReadings(r.readings),
});

/** Limits with the source and status of the specification that they come from. */
export const limitsOf = (
  s: SpecificationView,
  { pair, stimulus }: Pick<TestDefinition, 'pair' | 'stimulus'>,
): SpecificationView['limits'] => ({
  ...s.limits,
  // How it is read belongs to the test, whoever wrote its limits.
  ...(pair !== undefined && !s.limits.transfer ? { pair } : {}),
  ...(stimulus !== undefined && !s.limits.transfer ? { stimulus } : {}),
  source: s.source,
  ...(s.status === 'withdrawn' ? {} : { status: s.status }),
});

/** What all runs of a job have in common, for those who read many. */
export type SharedByRuns = Pick<RunView, 'job' | 'testLeads'>;

/**
 * A run as the bench, the report and the print view show it; `null` where there is none. `shared`: where it
 * is known already.
 */
export async function viewRun(db: Db, runId: string, shared?: SharedByRuns): Promise<RunView | null> {
  const record = await loadRun(db, runId);
  if (!record) return null;
  const { job: brief, testLeads } = shared ?? (await sharedByRuns(db, record));
  return {
    id: record.run.id,
    test: record.run.test,
    startedAt: record.run.createdAt.toISOString(),
    startedBy: record.run.startedBy,
    definition: record.definition,
    decision: record.run.decision,
    because: becauseForReader(record.run.because),
    testLeads,
    unit: record.unit,
    job: brief,
    specification: { ...record.specification, limits: limitsOf(record.specification, record.definition) },
    circumstance: record.circumstance,
    instruments: record.instruments,
    readings: record.readings,
    judgement: judgementOf(record),
    fitted: await fittedOn(db, record),
    connectors: await connectorsOf(db, record.familyId),
    displays: await displayPhotosOf(db, runId),
  };
}

/** Asked once: what was read on the unit before says which of the alternatives it has. */
async function fittedOn(db: Db, { run, definition, job: { unitId } }: RunRecord): Promise<string | null> {
  if (definition.alternatives === undefined) return null;
  const [last] = await db
    .select({ position: reading.position })
    .from(reading)
    .innerJoin(testRun, eq(testRun.id, reading.runId))
    .innerJoin(job, eq(job.id, testRun.jobId))
    .where(and(eq(job.unitId, unitId), eq(testRun.test, run.test), ne(testRun.id, run.id)))
    .orderBy(desc(reading.sequence))
    .limit(1);
  return last?.position ?? null;
}

async function sharedByRuns(db: Db, { job: j, depotId }: RunRecord): Promise<SharedByRuns> {
  const trail = await db
    .select()
    .from(testRun)
    .where(eq(testRun.jobId, j.id))
    .orderBy(asc(testRun.createdAt), asc(testRun.id));
  return { job: jobBrief(j, trail), testLeads: await testLeadsOf(db, depotId) };
}

export const jobBrief = (j: typeof job.$inferSelect, runs: readonly (typeof testRun.$inferSelect)[]): JobBrief => ({
  id: j.id,
  number: j.number,
  complaint: j.complaint,
  openedAt: j.createdAt.toISOString(),
  openedBy: j.openedBy,
  closed: j.closedAt !== null,
  odometer_km: j.odometer_km,
  hours: j.hours,
  runs: runs.map((r) => ({
    id: r.id,
    test: r.test,
    name: r.definition?.name ?? findTest(r.test)?.name ?? r.test,
    startedAt: r.createdAt.toISOString(),
    startedBy: r.startedBy,
    judgement: r.judgement && forReader(r.judgement, definitionOf(r)),
  })),
});
