import { and, desc, eq, inArray, ne, sql } from 'drizzle-orm';
import { withLimits } from '../../core/circuits/with-limits';
import { wiringOf } from '../../core/circuits/expand';
import { type Case, circuitsInQuestion, PredictionCache } from '../../core/diagnosis/case';
import { type PastFinding, renewedBy } from '../../core/diagnosis/priors';
import { RepairHistory } from '../../core/evidence/repair-history';
import type { Evidence, MeasuredRun } from '../../core/evidence/types';
import type { Limits } from '../../core/limits/types';
import { arrangeSpecifications, explainChoice } from '../../core/specifications/choose';
import { measuredOf, momentsOfRun } from '../../application/diagnosis/measured';
import { type EvidenceView, type FleetUnitView } from '../../application/views';
import { allCircuits, circuitsFor } from '../catalogue/circuits';
import { type Db, eachOf, together } from '../db/connection';
import { situationOf } from '../readings/run-view';
import { circumstance, type DepotChoices, evidence, finding, job, fleetUnit } from '../db/schema';
import { candidatesFor } from '../specifications/specifications';
import { findAnyTest } from '../catalogue/tests';
import { currentReadings } from '../../application/judging/corrections';
import type { Intake } from '../../formats/requests/intake';

/** Predictions of circuits, kept for all jobs. */
export const PREDICTIONS = new PredictionCache();

export interface JobFacts {
  readonly jobId: string;
  readonly hours: number | null;
  readonly unit: FleetUnitView;
  readonly familyId: string;
  readonly choices: DepotChoices;
  readonly runs: readonly MeasuredRun[];
  readonly evidence: readonly EvidenceView[];
  readonly intake: Intake;
  readonly coded: readonly number[];
  readonly areas: readonly string[];
}

/** An engine that ran this lately is not cold. Common practice, no source. */
const STAYS_WARM_min = 240;

/**
 * Everything that a job knows, ready to be weighed here or in the browser. Values of good parts are those of
 * the shelf where it has them.
 */
export async function caseOf(db: Db, f: JobFacts): Promise<Case> {
  const { evidence: observed, intake } = f;
  const [circuits, findings, renewed, temperatures] = await together(
    db,
    () => allCircuits(db),
    () => pastFindings(db, f),
    () => renewedOn(db, f.unit.id),
    () =>
      temperaturesOf(
        db,
        f.runs.map((r) => r.id),
      ),
  );
  const history = new RepairHistory(observed);
  const measured = f.runs.flatMap((r) =>
    measuredOf(r.definition.id, r.judgement.limits.unit, r.definition.quantity, r.judgement.readings, {
      under: momentsOfRun(r.definition.condition.engine, temperatures.get(r.id)),
      at: r.at,
      run: r.id,
    }).filter((m) => !history.readingIsHistory(r.at, r.definition, m.position)),
  );
  const ran = f.runs.filter((r) => r.definition.condition.engine === 'running').map((r) => Date.parse(r.at));
  const plain: Case = {
    wiring: wiringOf(f.unit.engine),
    circuits: circuitsFor(circuits, f.unit.family),
    measured,
    observed: observed.filter((e) => !history.evidenceIsHistory(e)).map(({ id, body }) => ({ id, body })),
    coded: f.coded,
    areas: f.areas,
    history: { findings, renewed, conditions: intake.conditions, hours: f.hours },
    warm: ran.some((t) => Date.now() - t < STAYS_WARM_min * 60_000),
  };
  const limits = await shelfLimits(db, f, [
    ...new Set(
      circuitsInQuestion(plain).flatMap((q) => Object.values(q.circuit.values).flatMap((v) => v.shelf?.test ?? [])),
    ),
  ]);
  return { ...plain, circuits: plain.circuits.map((c) => withLimits(c, (test) => limits.get(test))) };
}

/**
 * Limits that somebody has entered for this engine; a general rule of thumb says no more than the circuit's
 * own data.
 */
async function shelfLimits(db: Db, f: JobFacts, tests: readonly string[]): Promise<Map<string, Limits>> {
  const found = await eachOf(db, tests, async (id): Promise<[string, Limits][]> => {
    const own = f.runs.find((r) => r.definition.id === id && r.judgement.limits.status !== 'rule-of-thumb');
    if (own) return [[id, own.judgement.limits]];
    const definition = await findAnyTest(db, id);
    if (!definition) return [];
    const situation = situationOf({
      definition,
      unit: f.unit,
      choices: f.choices,
      circumstance: { instrumentId: null, leadZero: null, zeros: {}, states: [], condition: {} },
    });
    const { chosen } = explainChoice(arrangeSpecifications(await candidatesFor(db, definition)), situation);
    return chosen && chosen.status !== 'rule-of-thumb' ? [[id, chosen.limits]] : [];
  });
  return new Map(found.flat());
}

const FINDINGS = 200;

/** What was found on this unit and on units of its engine family, the newest first. */
async function pastFindings(db: Db, f: JobFacts): Promise<PastFinding[]> {
  const rows = await db
    .select({ id: finding.id, supersedes: finding.supersedes, body: finding.body, unitId: job.unitId })
    .from(finding)
    .innerJoin(job, eq(job.id, finding.jobId))
    .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
    .where(and(eq(fleetUnit.engineFamilyId, f.familyId), ne(job.id, f.jobId)))
    .orderBy(desc(finding.sequence))
    .limit(FINDINGS);
  return currentReadings(rows).flatMap(({ body, unitId }): PastFinding[] =>
    body.kind === 'found'
      ? [{ is: body.what, name: body.name, positions: body.positions, thisUnit: unitId === f.unit.id }]
      : [],
  );
}

async function renewedOn(db: Db, unitId: string) {
  const rows = await db
    .select({ body: evidence.body, at: evidence.createdAt })
    .from(evidence)
    .innerJoin(job, eq(job.id, evidence.jobId))
    .where(
      and(
        eq(job.unitId, unitId),
        sql`${evidence.takesBack} is null`,
        sql`${evidence.body}->>'kind' in ('new-part', 'repair')`,
        sql`not exists (select 1 from ${evidence} gone where gone.takes_back = ${evidence.id})`,
      ),
    )
    .orderBy(desc(evidence.sequence))
    .limit(FINDINGS);
  return renewedBy(
    rows.map((r: { body: Evidence; at: Date }) => ({
      body: r.body,
      days: Math.max(0, Math.round((Date.now() - r.at.getTime()) / 86_400_000)),
    })),
  );
}

async function temperaturesOf(db: Db, runIds: readonly string[]): Promise<Map<string, number | undefined>> {
  const rows = runIds.length
    ? await db
        .selectDistinctOn([circumstance.runId], { runId: circumstance.runId, condition: circumstance.condition })
        .from(circumstance)
        .where(inArray(circumstance.runId, [...runIds]))
        .orderBy(circumstance.runId, desc(circumstance.sequence))
    : [];
  return new Map(rows.map((r) => [r.runId, r.condition.partTemperature_degC]));
}
