import { and, eq, inArray, isNull } from 'drizzle-orm';
import { v7 } from 'uuid';
import type { Judgement, Limits } from '../../core/judge/types';
import { rangeWords } from '../../core/judge/words';
import { ok, type Result } from '../../core/foundation/result';
import { appliedBy } from '../../core/specifications/because';
import { arrangeSpecifications, explainChoice } from '../../core/specifications/choose';
import { tr } from '../../core/locale/translate';
import { writtenNote } from '../../application/report/written-note';
import type { ProblemDetails } from '../../formats/problem';
import { forReader, judgeForRecord } from '../../application/judging/judge-run';
import type { Db, Tx } from '../db/connection';
import type { Actor } from '../policy/actor';
import { authorize } from '../policy/authorize';
import { notFound, refuse } from '../db/refusal';
import { changeWords, type VerdictChange, verdictChanges } from '../../application/judging/difference';
import { judgementOf, loadRun, limitsOf, runInputs, type RunRecord, situationOf, specificationView } from './run-view';
import { job, jobNote, testRun, fleetUnit } from '../db/schema';
import { candidatesFor, specificationById, type SpecificationRow } from '../specifications/specifications';
import type { ApplyLimits } from '../../formats/requests/specifications';

/** What new limits would change in one run of an open job. */
export interface RunEffect {
  readonly runId: string;
  readonly jobNumber: number;
  readonly fleetNumber: string;
  readonly was: string;
  readonly becomes: string;
  readonly changes: readonly VerdictChange[];
  readonly summary: string;
}

/**
 * Runs of open jobs that a specification would now judge and does not yet, with what would change. Nothing is
 * stored.
 */
export async function effectOf(db: Db, specificationId: string): Promise<Result<readonly RunEffect[], ProblemDetails>> {
  const spec = await specificationById(db, specificationId);
  if (!spec) return notFound('specification');
  const runs = await db
    .select({ id: testRun.id })
    .from(testRun)
    .innerJoin(job, eq(job.id, testRun.jobId))
    .where(and(eq(testRun.test, spec.row.test), isNull(job.closedAt)));
  const effects: RunEffect[] = [];
  for (const { id } of runs) {
    const effect = await effectOn(db, id, spec);
    if (effect) effects.push(effect.effect);
  }
  return ok(effects);
}

const rangeOf = (limits: Limits): string => rangeWords(limits, limits);

async function effectOn(
  db: Db | Tx,
  runId: string,
  spec: SpecificationRow,
): Promise<{ effect: RunEffect; judgement: Judgement; record: RunRecord } | null> {
  const record = await loadRun(db, runId);
  if (!record || record.specification.id === spec.row.id) return null;
  const { chosen } = explainChoice(
    arrangeSpecifications(await candidatesFor(db, record.definition)),
    situationOf(record),
  );
  if (chosen?.id !== spec.row.id) return null;
  const becomes = judgeForRecord({
    ...runInputs(record),
    limits: limitsOf(specificationView(spec), record.definition),
  });
  if (!becomes.ok) return null;
  const changes = verdictChanges(judgementOf(record), becomes.value);
  const effect = {
    runId,
    jobNumber: record.job.number,
    fleetNumber: record.unit.fleetNumber,
    was: rangeOf(record.specification.limits),
    becomes: rangeOf(spec.row.limits),
    changes,
    summary: forReader(becomes.value, record.definition).summary,
  };
  return { effect, judgement: becomes.value, record };
}

/** Puts runs of open jobs onto a specification; each job's record says what changed. */
export async function applyLimits(
  db: Db,
  specificationId: string,
  body: ApplyLimits,
  actor: Actor,
): Promise<Result<{ applied: number }, ProblemDetails>> {
  const spec = await specificationById(db, specificationId);
  if (!spec) return notFound('specification');
  if (body.runs.length === 0) return ok({ applied: 0 });
  const open = await db
    .select({ id: testRun.id, depotId: fleetUnit.depotId })
    .from(testRun)
    .innerJoin(job, eq(job.id, testRun.jobId))
    .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
    .where(and(inArray(testRun.id, body.runs), isNull(job.closedAt)));
  if (open.length !== new Set(body.runs).size)
    return refuse('Some runs are not open.', [{ path: '/runs', message: 'A run is not there, or its job is closed.' }]);
  for (const depotId of new Set(open.map((r) => r.depotId))) {
    const foreign = await authorize(db, actor, 'limits.apply-to-depot', depotId);
    if (foreign) return foreign;
  }
  let applied = 0;
  for (const { id } of open)
    applied += await db.transaction(async (tx) => {
      const found = await effectOn(tx, id, spec);
      if (!found) return 0;
      const { effect, judgement, record } = found;
      await tx
        .update(testRun)
        .set({ specificationId: spec.row.id, judgement, because: appliedBy(body.by) })
        .where(eq(testRun.id, id));
      const note = writtenNote(() => ({
        title: tr`${record.definition.name}: judged again`,
        lines: [
          tr`Limits ${rangeOf(record.specification.limits)} → ${rangeOf(spec.row.limits)} (${spec.row.source}, revision ${spec.row.revision})`,
          ...effect.changes.map((c) => changeWords(c, spec.row.limits)),
        ],
      }));
      await tx.insert(jobNote).values({
        id: v7(),
        jobId: record.job.id,
        kind: 'limits',
        recordedBy: body.by,
        body: note,
      });
      return 1;
    });
  return ok({ applied });
}
