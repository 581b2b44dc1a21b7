import { tr } from '../../core/locale/translate';
import { checkConnector, type Connector } from '../../core/engine/connector';
import { and, asc, desc, eq, inArray, isNull, lt, or, sql } from 'drizzle-orm';
import { checkCode, type CodingRule, doubledCodes, GENERAL_RULE, plainCode } from '../../core/repair/coding';
import { beforeAfter, codesKept, type ProofInputs, proofOf, recordsOfKind } from '../../core/repair/proof';
import { SEQUENCES } from '../../core/repair/sequences';
import { ASSUMED, type Costs, CURRENCY, inputsFrom, lifeFrom, livesOf } from '../../core/repair/suggest';
import { eachStep, type Recorded, type RepairRecord } from '../../core/repair/types';
import { readValue } from '../../core/repair/values';
import { type Problem } from '../../core/foundation/result';
import type { WriteRecord } from '../../formats/requests/repair';
import { codesOf } from '../evidence/codes';
import { type Db, together, type Tx } from '../db/connection';
import { evidenceOf, intakeOf } from '../evidence/evidence';
import { findingsOf } from '../evidence/findings';
import type { Actor } from '../policy/actor';
import { authorize } from '../policy/authorize';
import { type Done, notFound, refuse } from '../db/refusal';
import { type depot, engineFamily, job, repairRecord, serviceData, testRun, fleetUnit } from '../db/schema';
import { alreadyThere, append } from '../journal/append';
import type { RepairView, ServiceLine } from '../../application/repair-view';
import type { FittingValue, KeepServiceData } from '../../formats/requests/service-data';

export async function repairRecordsOf(db: Db | Tx, jobIds: readonly string[]): Promise<Map<string, Recorded[]>> {
  const rows = jobIds.length
    ? await db
        .select()
        .from(repairRecord)
        .where(inArray(repairRecord.jobId, [...jobIds]))
        .orderBy(asc(repairRecord.sequence))
    : [];
  const byJob = new Map<string, Recorded[]>();
  for (const r of rows)
    byJob.set(r.jobId, [
      ...(byJob.get(r.jobId) ?? []),
      { id: r.id, body: r.body, by: r.recordedBy, at: r.createdAt.toISOString() },
    ]);
  return new Map([...byJob].map(([id, records]) => [id, eachStep(records)]));
}

/** Service data for an engine family: its own before that for any, the newest of each. */
export async function serviceDataFor(db: Db | Tx, familyId: string): Promise<ServiceLine[]> {
  const rows = await db
    .select({ row: serviceData, family: engineFamily.code })
    .from(serviceData)
    .leftJoin(engineFamily, eq(engineFamily.id, serviceData.engineFamilyId))
    .where(or(eq(serviceData.engineFamilyId, familyId), isNull(serviceData.engineFamilyId)))
    .orderBy(sql`${serviceData.engineFamilyId} is null`, desc(serviceData.sequence));
  const first = new Map(
    rows
      .toReversed()
      .map(({ row, family }) => [
        `${row.kind}|${row.key}`,
        { kind: row.kind, key: row.key, body: row.body, source: row.source, family },
      ]),
  );
  return [...first.values()].sort((a, b) => (a.key < b.key ? -1 : 1));
}

/** Keeps service data. */
export async function keepServiceData(db: Db, body: KeepServiceData): Promise<Done> {
  const [family] =
    body.family === null
      ? []
      : await db
          .select({ id: engineFamily.id, engine: engineFamily.engine })
          .from(engineFamily)
          .where(eq(engineFamily.code, body.family));
  if (body.family !== null && !family) return notFound(tr`engine family "${body.family}"`, '/family');
  const wrong = wrongValue(body);
  if (wrong) return refuse('Some fields are wrong.', [{ path: '/body/value', message: wrong }]);
  if (body.kind === 'connector') {
    const problems = checkConnector(body.body as Connector, '/body', family?.engine.cylinders ?? null);
    if (problems.length) return refuse('This connector cannot be.', problems);
  }
  return append(db, serviceData, {
    id: body.id,
    engineFamilyId: family?.id ?? null,
    kind: body.kind,
    key: body.key,
    body: body.body,
    source: body.source,
    recordedBy: body.by,
  });
}

/** A fitting value that could not be compared with what is reached later; `null` where it can. */
function wrongValue({ kind, key, body }: KeepServiceData): string | null {
  const [sequence, step] = key.split('/');
  const value = SEQUENCES.find((s) => s.id === sequence)?.steps.find((s) => s.id === step)?.value;
  if (kind !== 'fitting' || !value) return null;
  const read = readValue((body as FittingValue).value, value.quantity);
  return read.ok ? null : read.error;
}

const codingRule = (service: readonly ServiceLine[], part: string): CodingRule =>
  (service.find((s) => s.kind === 'coding' && s.key === part)?.body as CodingRule | undefined) ?? GENERAL_RULE;

interface Place {
  readonly jobId: string;
  readonly unitId: string;
  readonly familyId: string;
  readonly cylinders: number;
  readonly closed: boolean;
  readonly openedAt: Date;
  readonly records: readonly Recorded[];
}

/** Writes into the record between finding and release. A release closes the job, a reopening opens it. */
export async function writeRepairRecord(db: Db, jobId: string, body: WriteRecord, actor: Actor): Promise<Done> {
  return db.transaction(async (tx) => {
    // Whoever is second sees what the first one wrote: two codes cannot slip past each other.
    const [row] = await tx
      .select({ job, unit: fleetUnit, family: engineFamily })
      .from(job)
      .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
      .innerJoin(engineFamily, eq(engineFamily.id, fleetUnit.engineFamilyId))
      .where(eq(job.id, jobId))
      .for('no key update', { of: job });
    if (!row) return notFound('job');
    const written = { id: body.id, jobId, body: kept(body.record), recordedBy: body.by };
    const before = await alreadyThere(tx, repairRecord, written);
    if (before) return before;
    const place: Place = {
      jobId,
      unitId: row.unit.id,
      familyId: row.family.id,
      cylinders: row.family.engine.cylinders,
      closed: row.job.closedAt !== null,
      openedAt: row.job.createdAt,
      records: (await repairRecordsOf(tx, [jobId])).get(jobId) ?? [],
    };
    const problems = await problemsOf(tx, place, body.record, actor);
    if (problems.length) return refuse('This cannot be written.', problems);
    const done = await append(tx, repairRecord, written);
    if (body.record.kind === 'release') await tx.update(job).set({ closedAt: new Date() }).where(eq(job.id, jobId));
    if (body.record.kind === 'reopen') await tx.update(job).set({ closedAt: null }).where(eq(job.id, jobId));
    return done;
  });
}

const kept = (r: RepairRecord): RepairRecord =>
  r.kind === 'coding'
    ? { ...r, code: plainCode(r.code), ...(r.old === undefined ? {} : { old: plainCode(r.old) }) }
    : r;

async function problemsOf(db: Db | Tx, p: Place, r: RepairRecord, actor: Actor): Promise<Problem[]> {
  const say = (field: string, message: string): Problem[] => [{ path: `/record/${field}`, message }];
  if (p.closed && r.kind !== 'reopen' && r.kind !== 'comeback')
    return say('kind', 'This job is released. Reopen it to write on.');
  switch (r.kind) {
    case 'decision':
    case 'quotation': {
      const foreign = await findingProblems(db, p, r.finding);
      if (foreign.length) return foreign;
      return r.kind === 'decision' && r.inputs !== null && r.inputs.failed > r.inputs.positions
        ? say('inputs/failed', tr`There are ${r.inputs.positions} positions.`)
        : [];
    }
    case 'answer':
      if (!recordsOfKind(p.records, 'quotation').some((q) => q.id === r.quotation))
        return say('quotation', 'This is no quotation of this job.');
      return r.answer === 'deferred' && !r.until ? say('until', 'Deferred until which day?') : [];
    case 'step':
      return [...(await findingProblems(db, p, r.finding)), ...stepProblems(r, r)];
    case 'ticks': {
      const wrong = r.ticks.flatMap((t) => stepProblems(r, t));
      return [...(await findingProblems(db, p, r.finding)), ...new Map(wrong.map((w) => [w.path, w])).values()];
    }
    case 'own-step':
      return findingProblems(db, p, r.finding);
    case 'coding-withdrawn':
      return codesKept(p.records, r.part).has(r.position) ? [] : say('position', 'No code stands there.');
    case 'coding':
      return codingProblems(db, p, r);
    case 'release':
      return releaseProblems(db, p, r, actor);
    case 'reopen':
      return p.closed ? [] : say('kind', 'This job is open.');
    case 'comeback': {
      const [other] = await db.select({ unitId: job.unitId, created: job.createdAt }).from(job).where(eq(job.id, r.of));
      if (other?.unitId !== p.unitId || other.created >= p.openedAt)
        return say('of', 'This is no earlier job of this unit.');
      return recordsOfKind(p.records, 'comeback').length ? say('of', 'It is marked as a comeback already.') : [];
    }
    case 'scan':
      return [];
  }
}

async function findingProblems(db: Db | Tx, p: Place, finding: string | undefined): Promise<Problem[]> {
  if (finding === undefined) return [];
  const own = (await findingsOf(db, [p.jobId])).get(p.jobId) ?? [];
  return own.some((f) => f.id === finding && f.body.kind === 'found')
    ? []
    : [{ path: '/record/finding', message: 'This is no finding of this job.' }];
}

function stepProblems(
  r: Extract<RepairRecord, { kind: 'step' | 'ticks' }>,
  at: { readonly step: string; readonly position?: unknown },
): Problem[] {
  const step = SEQUENCES.find((s) => s.id === r.sequence)?.steps.find((s) => s.id === at.step);
  if (!step) return [{ path: '/record/step', message: 'There is no such step.' }];
  if (step.each && at.position === undefined) return [{ path: '/record/position', message: 'At which position?' }];
  if (r.left === 'not measured' && !step.value)
    return [{ path: '/record/left', message: 'At this step nothing is measured.' }];
  if (!step.value || r.left !== undefined) return [];
  const read = readValue(r.value ?? '', step.value.quantity);
  return read.ok ? [] : [{ path: '/record/value', message: read.error }];
}

async function codingProblems(db: Db | Tx, p: Place, r: Extract<RepairRecord, { kind: 'coding' }>): Promise<Problem[]> {
  if (r.position > p.cylinders)
    return [{ path: '/record/position', message: tr`This engine has ${p.cylinders} cylinders.` }];
  const wrong = checkCode(r.code, codingRule(await serviceDataFor(db, p.familyId), r.part), r.how).filter(
    (f) => !f.doubt && !(f.is === 'length' && r.because?.trim()),
  );
  if (wrong.length) return wrong.map((f) => ({ path: '/record/code', message: f.text }));
  const newest = new Map([...codesKept(p.records, r.part).values()].map((c) => [c.body.position, c.body.code]));
  newest.set(r.position, r.code);
  const doubled = doubledCodes([...newest].map(([position, code]) => ({ position, code }))).find((d) =>
    d.positions.includes(r.position),
  );
  return doubled
    ? [
        {
          path: '/record/code',
          message: tr`The same code stands at cylinder ${doubled.positions.filter((x) => x !== r.position).join(', ')}: one of them was read twice.`,
        },
      ]
    : [];
}

async function releaseProblems(
  db: Db | Tx,
  p: Place,
  r: Extract<RepairRecord, { kind: 'release' }>,
  actor: Actor,
): Promise<Problem[]> {
  const checks = proofOf(await proofInputs(db, p.jobId, p.cylinders, p.records));
  const open = checks.filter((c) => c.state !== 'done' && !r.waived.some((w) => w.check === c.id));
  if (open.length)
    return open.map((c) => ({
      path: '/record/waived',
      message: tr`${c.label}: ${c.why} Do it, or a lead says why it is left.`,
    }));
  const refused = r.waived.length ? await authorize(db, actor, 'job.release-with-open-checks', p.jobId) : null;
  return refused && !refused.ok ? [...refused.error.errors] : [];
}

/** What a proof rests on, read anew: whoever releases must not be ahead of somebody else's reading. */
async function proofInputs(
  db: Db | Tx,
  jobId: string,
  cylinders: number,
  records: readonly Recorded[],
): Promise<ProofInputs> {
  // One after the other: within a transaction there is one connection.
  const findings = await findingsOf(db, [jobId]);
  const evidence = await evidenceOf(db, jobId);
  const codes = await codesOf(db, jobId);
  const [own] = await db.select({ complaint: job.complaint }).from(job).where(eq(job.id, jobId));
  const intake = await intakeOf(db, jobId);
  const runs = await db
    .select({
      id: testRun.id,
      test: testRun.test,
      name: sql<string>`coalesce(${testRun.definition}->>'name', ${testRun.test})`,
      at: testRun.createdAt,
      judgement: testRun.judgement,
    })
    .from(testRun)
    .where(eq(testRun.jobId, jobId))
    .orderBy(asc(testRun.createdAt), asc(testRun.id));
  return {
    findings: findings.get(jobId) ?? [],
    records,
    evidence,
    conditions: intake.conditions,
    complaint: own?.complaint ?? '',
    cylinders,
    codes,
    runs: runs.map((r) => ({ ...r, at: r.at.toISOString() })),
  };
}

/** A job with its unit and engine, as stored. */
export interface RepairOf {
  readonly job: typeof job.$inferSelect;
  readonly unit: typeof fleetUnit.$inferSelect;
  readonly family: typeof engineFamily.$inferSelect;
  readonly depot: typeof depot.$inferSelect;
}

/** From finding to release, as the job's screen needs it; `inputs` is what the screen has read already. */
export async function repairOf(db: Db, of: RepairOf, inputs: ProofInputs): Promise<RepairView> {
  const { cylinders, records } = inputs;
  const currency = of.depot.choices.currency ?? CURRENCY;
  const [service, lives, codings, back] = await together(
    db,
    (at) => serviceDataFor(at, of.family.id),
    (at) => livesByName(at, of.family.id),
    (at) => codingsBefore(at, of),
    (at) => comebacksOf(at, of.job.id),
  );
  const link = recordsOfKind(records, 'comeback').at(-1);
  const [from] = link
    ? await db.select({ id: job.id, number: job.number }).from(job).where(eq(job.id, link.body.of))
    : [];
  const decisions = inputs.findings.flatMap(({ id, body }) => {
    if (body.kind !== 'found' || body.what !== 'part') return [];
    const perCylinder = body.positions.some((x) => typeof x === 'number');
    const kept = service.find((s) => s.kind === 'costs' && s.key === body.name);
    // Costs in another currency than the depot's are other numbers.
    const costs = (kept?.body as Costs | undefined)?.currency === currency ? kept : undefined;
    const c = costs?.body as Costs | undefined;
    const life = lifeFrom(lives.get(body.name) ?? [], c ?? ASSUMED);
    const positions = perCylinder ? cylinders : 1;
    const failed = Math.max(1, body.positions.length);
    return [
      {
        finding: id,
        name: body.name,
        inputs: inputsFrom(c, life.life, positions, failed, ageOf(body.name, inputs) ?? of.job.hours),
        isChoice: failed < positions,
        currency,
        life,
        costsFrom: costs?.source ?? null,
      },
    ];
  });
  return {
    records,
    checks: proofOf(inputs),
    pairs: beforeAfter(inputs),
    service,
    decisions,
    currency,
    oldCodes: codings,
    comebacks: back,
    comebackOf: from ?? null,
  };
}

/** The age of the parts as a decision of this job said it; `null`: none did. */
const ageOf = (name: string, { records, findings }: ProofInputs): number | null => {
  const own = new Set(findings.flatMap((f) => (f.body.kind === 'found' && f.body.name === name ? [f.id] : [])));
  return recordsOfKind(records, 'decision').findLast((d) => own.has(d.body.finding))?.body.inputs?.age_h ?? null;
};

/** Lives of parts as decisions on engines of the family noted them. */
async function livesByName(db: Db, familyId: string) {
  const rows = await db
    .select({
      id: repairRecord.id,
      body: repairRecord.body,
      by: repairRecord.recordedBy,
      at: repairRecord.createdAt,
      jobId: repairRecord.jobId,
    })
    .from(repairRecord)
    .innerJoin(job, eq(job.id, repairRecord.jobId))
    .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
    .where(and(eq(fleetUnit.engineFamilyId, familyId), sql`${repairRecord.body}->>'kind' = 'decision'`))
    .orderBy(asc(repairRecord.sequence));
  // One decision a finding: the newest.
  const newest = new Map(
    recordsOfKind(
      rows.map((r) => ({ id: r.id, body: r.body, by: r.by, at: r.at.toISOString() })),
      'decision',
    ).map((d) => [d.body.finding, d]),
  );
  const findings = await findingsOf(db, [...new Set(rows.map((r) => r.jobId))]);
  const names = new Map(
    [...findings.values()].flat().flatMap((f) => (f.body.kind === 'found' ? [[f.id, f.body.name] as const] : [])),
  );
  const byName = new Map<string, ReturnType<typeof livesOf>>();
  for (const d of newest.values()) {
    const name = names.get(d.body.finding) ?? '';
    byName.set(name, [...(byName.get(name) ?? []), ...livesOf([d])]);
  }
  return byName;
}

/** The newest code of each position from this unit's earlier jobs. */
async function codingsBefore(db: Db, of: RepairOf): Promise<Record<string, string>> {
  const rows = await db
    .select({ body: repairRecord.body })
    .from(repairRecord)
    .innerJoin(job, eq(job.id, repairRecord.jobId))
    .where(
      and(
        eq(job.unitId, of.unit.id),
        lt(job.createdAt, of.job.createdAt),
        sql`${repairRecord.body}->>'kind' = 'coding'`,
      ),
    )
    .orderBy(asc(repairRecord.sequence));
  return Object.fromEntries(
    rows.flatMap(({ body }) => (body.kind === 'coding' ? [[String(body.position), body.code]] : [])),
  );
}

const comebacksOf = (db: Db, jobId: string) =>
  db
    .select({ id: job.id, number: job.number })
    .from(repairRecord)
    .innerJoin(job, eq(job.id, repairRecord.jobId))
    .where(and(sql`${repairRecord.body}->>'kind' = 'comeback'`, sql`${repairRecord.body}->>'of' = ${jobId}`))
    .orderBy(asc(job.number));
