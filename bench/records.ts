import { sql } from 'drizzle-orm';
import { v7 } from 'uuid';
import { CATALOGUE } from '../core/catalogue/catalogue';
import { whatIsKnown } from '../core/evidence/known';
import type { RecordedEvidence } from '../core/evidence/types';
import { makePlan } from '../core/plan/plan';
import { demoId } from '../demo/load';
import type { Db } from '../server/db/connection';
import { recordEvidence } from '../server/evidence/evidence';
import { progressOfJobs } from '../server/jobs/standing';
import { viewJob } from '../server/jobs/view-job';
import { viewYard } from '../server/jobs/yard';
import { recordReading } from '../server/readings/record-reading';
import { verifyJob } from '../server/audit/audit-trail';
import { percentile, report } from './measure';
import { openJob, startRun } from '../server/jobs/open-job';

const BY = 'Ines Varga';

async function timed(work: () => Promise<unknown>, times: number): Promise<number[]> {
  const out: number[] = [];
  for (let i = 0; i < times; i++) {
    const start = performance.now();
    await work();
    out.push(performance.now() - start);
  }
  return out;
}

/** A job with 2,000 events: 200 runs with eight readings each, and other evidence. */
export async function benchLongJob(db: Db): Promise<void> {
  const jobId = v7();
  await openJob(db, { id: jobId, unitId: demoId('unit', 'PL-07'), complaint: 'Misfires when hot', by: BY });
  for (let run = 0; run < 200; run++) {
    const runId = v7();
    await startRun(db, { id: runId, jobId, test: run % 2 ? 'glow-plug-resistance' : 'injector-resistance', by: BY });
    for (let p = 1; p <= 8; p++)
      await recordReading(db, runId, {
        id: v7(),
        position: p,
        entry: p === 3 ? '201' : '0.6',
        by: BY,
        takenAt: new Date().toISOString(),
      });
  }
  for (let i = 0; i < 199; i++)
    await recordEvidence(db, jobId, {
      id: v7(),
      by: BY,
      evidence: { kind: 'wiggle', where: `clip ${i}`, position: (i % 8) + 1, outcome: 'held' },
    });
  // As the server does it once nothing more is written.
  const [settled = NaN] = await timed(() => progressOfJobs(db, [jobId]), 1);
  report('job of 2,000 events concluded after a write, in the background', settled, 'ms', null);
  const times = await timed(() => viewJob(db, jobId), 15);
  const view = await viewJob(db, jobId);
  report(
    `job of ${view?.auditTrail.length ?? 0} events opens, median on the server`,
    percentile(times, 0.5),
    'ms',
    200,
  );
  report('job of 2,000 events opens, worst of 15, the first one among them', Math.max(...times), 'ms', 200);
  report('its trail verified', (await timed(() => verifyJob(db, jobId), 3))[0] ?? NaN, 'ms', null);
}

const UNITS = 5000;
const JOBS = 50_000;
const WORDS = ['smoke', 'misfires', 'hard start', 'no power', 'lamp', 'rough', 'stalls', 'leak', 'noise', 'surges'];

/**
 * A yard of 5,000 units and 50,000 jobs, a tenth of them open: rows put straight into the tables, since
 * writing is not what is measured.
 */
export async function benchYard(db: Db): Promise<void> {
  await db.transaction(async (tx) => {
    await tx.execute(sql`set local session_replication_role = replica`);
    await tx.execute(
      sql`insert into unit (id, depot_id, engine_family_id, fleet_number, kind) select gen_random_uuid(), ${demoId('depot', 'North Sluice')}, ${demoId('family', 'L6-109')}, 'Q-' || i, (array['Tipper', 'Gritter', 'Pump'])[1 + i % 3] from generate_series(1, ${UNITS}::int) i`,
    );
    await tx.execute(sql`with u as (select id, row_number() over () n from unit where fleet_number like 'Q-%')
      insert into job (id, unit_id, complaint, opened_by, closed_at) select gen_random_uuid(), u.id, (${sql.raw(`array[${WORDS.map((w) => `'${w}'`).join(',')}]`)})[1 + (i * 7 + u.n) % 10] || ' since number ' || i, 'x', case when i % 10 = 0 then null else now() end
      from generate_series(1, ${JOBS / UNITS}::int) i cross join u`);
  });
  await db.execute(sql`select mudflat_refill_words()`);
  await db.execute(sql`analyze`);
  report(
    'yard of 5,000 units and 50,000 jobs lists, p95',
    percentile(await timed(() => viewYard(db), 40), 0.95),
    'ms',
    100,
  );
  let i = 0;
  const searches = [
    'Q-412',
    'gritter',
    'stalls',
    'smoke',
    'pump leak',
    'number 7',
    'L6-109',
    'nothing has this',
    '41',
    'Sluice',
  ];
  report(
    'it is searched, p95',
    percentile(await timed(() => viewYard(db, searches[i++ % searches.length] ?? ''), 60), 0.95),
    'ms',
    100,
  );
}

/** A plan made anew after a reading, with much evidence. */
export function benchPlan(): void {
  const evidence: RecordedEvidence[] = Array.from({ length: 60 }, (_, i) => ({
    id: String(i),
    at: `2026-01-01T00:00:${String(i % 60).padStart(2, '0')}Z`,
    body:
      i % 2
        ? { kind: 'wiggle', where: `clip ${i}`, position: (i % 8) + 1, outcome: 'held' }
        : { kind: 'cut-out', position: (i % 8) + 1, faultPresent: true, change: i % 3 ? 'worse' : 'none' },
  }));
  const times: number[] = [];
  for (let i = 0; i < 100; i++) {
    const start = performance.now();
    makePlan({
      tests: CATALOGUE,
      areas: ['Injectors', 'Injector module', 'Harness'],
      complaint: 'Misfires, rough, no power',
      conditions: ['hot', 'load', 'wet'],
      done: [{ test: 'injector-resistance', pattern: 'one' }],
      known: whatIsKnown([], evidence),
      before: [],
      changes: [],
    });
    times.push(performance.now() - start);
  }
  report('planning recomputes, p95', percentile(times, 0.95), 'ms', 50);
}
