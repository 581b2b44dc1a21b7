import { and, desc, eq, inArray, isNotNull, ne, sql } from 'drizzle-orm';
import type { TestDefinition } from '../../core/catalogue/types';
import { type GoodReading, learnedLimits } from '../../core/circuits/learned-limits';
import { withLimits } from '../../core/circuits/with-limits';
import { findUnit, fromBase, toBase } from '../../core/quantity/units';
import { wiringOf } from '../../core/circuits/expand';
import { type Case, circuitsInQuestion } from '../../core/diagnosis/case';
import { type PastFinding, renewedBy } from '../../core/diagnosis/priors';
import { firstLook, PartMoves } from '../../core/evidence/moves';
import { isBare, partName, positionOf } from '../../core/evidence/rules';
import type { DiagnosticReading } from '../../core/diagnosis/types';
import { RepairHistory } from '../../core/evidence/repair-history';
import type { Evidence, MeasuredRun } from '../../core/evidence/types';
import type { Limits } from '../../core/limits/types';
import { arrangeSpecifications, explainChoice } from '../../core/specifications/choose';
import { measuredOf, momentsOfRun } from '../../application/diagnosis/measured';
import { type EvidenceView, type FleetUnitView } from '../../application/views';
import { allCircuits, circuitsFor } from '../catalogue/circuits';
import { type Db, eachOf, together } from '../db/connection';
import { situationOf } from '../readings/run-view';
import { circumstance, type DepotChoices, evidence, finding, job, fleetUnit, testRun } from '../db/schema';
import { candidatesFor } from '../specifications/specifications';
import { findAnyTest } from '../catalogue/tests';
import { currentReadings } from '../../application/judging/corrections';
import type { Intake } from '../../formats/requests/intake';

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
  /** Tests for what this unit does not have: circuits in which they are read are not its own. */
  readonly unfit: ReadonlySet<string>;
}

/** An engine that ran this lately is not cold. Common practice, no source. */
const STAYS_WARM_min = 240;

/**
 * Until when the engine counts as warm, in milliseconds since 1970; 0: nothing was measured on a running one.
 */
export const warmUntil = (runs: readonly MeasuredRun[]): number =>
  Math.max(
    0,
    ...runs.flatMap((r) =>
      r.definition.condition.engine === 'running' ? [Date.parse(r.at) + STAYS_WARM_min * 60_000] : [],
    ),
  );

/**
 * Everything that a job knows, ready to be weighed here or in the browser. Values of good parts are those of
 * the shelf where it has them.
 */
export async function caseOf(db: Db, f: JobFacts): Promise<Case> {
  const { evidence: observed, intake } = f;
  const [circuits, findings, renewed, temperatures] = await together(
    db,
    (at) => allCircuits(at),
    (at) => pastFindings(at, f),
    (at) => renewedOn(at, f.unit.id),
    (at) =>
      temperaturesOf(
        at,
        f.runs.map((r) => r.id),
      ),
  );
  const history = new RepairHistory(observed);
  const moves = new PartMoves(observed);
  const measured = f.runs.flatMap((r) =>
    atFirst(
      r,
      measuredOf(r.definition, r.judgement, {
        under: momentsOfRun(r.definition.condition.engine, temperatures.get(r.id)),
        at: r.at,
        run: r.id,
      }).filter((m) => !history.readingIsHistory(r.at, r.definition, m.position)),
      moves,
    ),
  );
  const plain: Case = {
    wiring: wiringOf(f.unit.engine),
    circuits: circuitsFor(circuits, f.unit.family).filter((c) => !c.probes.some((p) => f.unfit.has(p.test))),
    measured,
    observed: observed
      .filter((e) => !history.evidenceIsHistory(e))
      // A second look at the same exchange is about the same parts as the first.
      .map((e) => ({ id: e.id, body: swapAtFirst(e.body, firstLook(e, observed).at, moves) })),
    coded: f.coded,
    areas: f.areas,
    history: { findings, renewed, conditions: intake.conditions, hours: f.hours },
    warm: warmUntil(f.runs) > Date.now(),
  };
  const limits = await shelfLimits(db, f, [
    ...new Set(
      circuitsInQuestion(plain).flatMap((q) => Object.values(q.circuit.values).flatMap((v) => v.shelf?.test ?? [])),
    ),
  ]);
  return { ...plain, circuits: plain.circuits.map((c) => withLimits(c, (test) => limits.get(test))) };
}

/**
 * Readings by where the parts were at first: a bare part that was exchanged since is the same part. What was
 * read in its circuit where another part has come to is about a wire and a part that belonged to two places:
 * left out.
 */
function atFirst(r: MeasuredRun, measured: readonly DiagnosticReading[], moves: PartMoves): DiagnosticReading[] {
  const part = partName(r.definition);
  return measured.flatMap((m) => {
    if (positionOf(r.definition, m.position) === null || !moves.isExchanged(part, m.position, r.at)) return [m];
    return isBare(r.definition) ? [{ ...m, position: moves.atFirst(part, m.position, r.at) }] : [];
  });
}

const swapAtFirst = (body: Evidence, at: string, moves: PartMoves): Evidence =>
  body.kind === 'swap' && body.from !== undefined ? { ...body, from: moves.atFirst(body.part, body.from, at) } : body;

/**
 * Limits that somebody has entered for this engine; a general rule of thumb says no more than the circuit's
 * own data.
 */
async function shelfLimits(db: Db, f: JobFacts, tests: readonly string[]): Promise<Map<string, Limits>> {
  const found = await eachOf(db, tests, async (id, at): Promise<[string, Limits][]> => {
    const own = f.runs.find((r) => r.definition.id === id && r.judgement.limits.status !== 'rule-of-thumb');
    if (own) return [[id, own.judgement.limits]];
    const definition = await findAnyTest(at, id);
    if (!definition) return [];
    const situation = situationOf({
      definition,
      unit: f.unit,
      choices: f.choices,
      circumstance: { instrumentId: null, leadZero: null, zeros: {}, states: [], condition: {} },
    });
    const { chosen } = explainChoice(arrangeSpecifications(await candidatesFor(at, definition)), situation);
    if (chosen && chosen.status !== 'rule-of-thumb') return [[id, chosen.limits]];
    const learned = learnedLimits(await goodReadings(at, f, definition), definition);
    return learned ? [[id, learned]] : [];
  });
  return new Map(found.flat());
}

/** Of so many newest runs of a test on a family. */
const LEARNED_FROM = 60;

/** Good readings of a test on other units of the family, of released jobs, in the unit of the test. */
async function goodReadings(db: Db, f: JobFacts, test: TestDefinition): Promise<GoodReading[]> {
  const rows = await db
    .select({ judgement: testRun.judgement, unitId: job.unitId })
    .from(testRun)
    .innerJoin(job, eq(job.id, testRun.jobId))
    .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
    .where(
      and(
        eq(fleetUnit.engineFamilyId, f.familyId),
        eq(testRun.test, test.id),
        isNotNull(job.closedAt),
        isNotNull(testRun.judgement),
      ),
    )
    .orderBy(desc(testRun.createdAt))
    .limit(LEARNED_FROM);
  return rows.flatMap(({ judgement, unitId }) => {
    const [own, asked] = [judgement && findUnit(judgement.limits.unit), findUnit(test.unit)];
    if (!judgement || !own || !asked) return [];
    return judgement.readings.flatMap((r): GoodReading[] =>
      r.severity === 'pass' && r.corrected !== null
        ? [{ unitId, value: fromBase(toBase(r.corrected, own), asked) }]
        : [],
    );
  });
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
