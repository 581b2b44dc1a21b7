import { v5 } from 'uuid';
import type { RepairRecord } from '../core/repair/types';
import type { Result } from '../core/foundation/result';
import type { ProblemDetails } from '../formats/problem';
import { recordCodes } from '../server/evidence/codes';
import type { Actor } from '../server/policy/actor';
import type { Db } from '../server/db/connection';
import { isTaken } from '../server/db/refusal';
import { recordEvidence } from '../server/evidence/evidence';
import { findingsOf } from '../server/evidence/findings';
import { recordCircumstance, recordReading } from '../server/readings/record-reading';
import { keepServiceData, repairRecordsOf, writeRepairRecord } from '../server/repair/repair-log';
import { type DemoRepair, REPAIRS, SERVICE_DATA, stepsOf } from './repairs';
import { startRun } from '../server/jobs/open-job';

type Id = (...name: (string | number)[]) => string;
type ActorOf = (name: string) => Actor;

async function must(what: string, command: Promise<Result<unknown, ProblemDetails>>): Promise<void> {
  const result = await command;
  if (!result.ok && !isTaken(result.error)) throw new Error(`demo: ${what}: ${result.error.detail}`);
}

/** Goes on from finding to where each story stands now. Loading it again changes nothing. */
export async function loadRepairs(db: Db, lead: string, demoId: Id, actorOf: ActorOf): Promise<void> {
  for (const line of SERVICE_DATA)
    await must(
      line.key,
      keepServiceData(db, { ...line, id: demoId('service', line.kind, line.key, line.family ?? ''), by: lead }),
    );
  for (const repair of REPAIRS) await loadOne(db, repair, lead, demoId, actorOf);
}

async function loadOne(db: Db, r: DemoRepair, lead: string, demoId: Id, actorOf: ActorOf): Promise<void> {
  const key = [r.unit, ...(r.visit ? [r.visit] : [])];
  const jobId = demoId('job', ...key);
  // What was written before stays as it is.
  if ((await repairRecordsOf(db, [jobId])).size) return;
  const finding = (await findingsOf(db, [jobId])).get(jobId)?.find((f) => f.body.kind === 'found')?.id ?? '';
  let quotation = '';
  const id = (i: number, ...more: (string | number)[]): string => demoId('record', ...key, i, ...more);
  const write = (i: number, record: RepairRecord, by = r.by, ...more: (string | number)[]): Promise<void> =>
    must(
      `${key.join(' ')} ${record.kind}`,
      writeRepairRecord(db, jobId, { id: id(i, ...more), by, record }, actorOf(by)),
    );
  for (const [i, s] of r.then.entries()) {
    switch (s.do) {
      case 'decide':
        await write(i, { kind: 'decision', finding, school: s.school, inputs: s.inputs, currency: 'EUR', why: s.why });
        break;
      case 'quote':
        quotation = id(i);
        await write(i, {
          kind: 'quotation',
          finding,
          currency: 'EUR',
          note: s.note ?? '',
          lines: s.lines.map(([text, quantity, price]) => ({ text, quantity, price })),
        });
        break;
      case 'answer':
        await write(i, {
          kind: 'answer',
          quotation,
          answer: s.answer,
          said: s.said,
          ...(s.until ? { until: s.until } : {}),
        });
        break;
      case 'steps':
        for (const [n, x] of stepsOf(s).entries()) await write(i, stepRecord(s, x), r.by, n);
        break;
      case 'code':
        await write(i, {
          kind: 'coding',
          part: 'injector',
          position: s.position,
          code: s.code,
          how: 'photo',
          ...(s.old ? { old: s.old } : {}),
        });
        break;
      case 'measure':
        await measure(db, jobId, r.by, v5(String(i), jobId), s);
        break;
      case 'see':
        await must(r.unit, recordEvidence(db, jobId, { id: id(i), by: r.by, evidence: s.evidence }));
        break;
      case 'codes':
        await must(
          r.unit,
          recordCodes(db, jobId, { id: id(i), by: r.by, phase: s.phase, status: 'unknown', codes: [] }),
        );
        break;
      case 'scan':
        await write(i, { kind: 'scan', outcome: 'clean', said: s.said });
        break;
      case 'release':
        await write(
          i,
          { kind: 'release', said: s.said, waived: (s.waived ?? []).map(([check, because]) => ({ check, because })) },
          s.lead ? lead : r.by,
        );
        break;
      case 'comeback':
        await write(i, { kind: 'comeback', of: demoId('job', r.unit, s.of) });
        break;
    }
  }
}

const stepRecord = (
  { sequence, tool }: Extract<DemoRepair['then'][number], { do: 'steps' }>,
  { step, position, value }: ReturnType<typeof stepsOf>[number],
): RepairRecord => ({
  kind: 'step',
  sequence,
  step,
  ...(position === undefined ? {} : { position }),
  ...(value === undefined ? {} : { value, tool }),
});

async function measure(
  db: Db,
  jobId: string,
  by: string,
  run: string,
  s: { test: string; states: readonly string[]; readings: readonly (readonly [number | string, string])[] },
): Promise<void> {
  const now = new Date().toISOString();
  await must(s.test, startRun(db, { id: run, jobId, test: s.test, by }));
  await must(
    s.test,
    recordCircumstance(db, run, {
      id: v5('circumstance', run),
      by,
      recordedAt: now,
      instrumentId: null,
      leadZero: '0.2',
      states: [...s.states],
      condition: { partTemperature_degC: 12 },
    }),
  );
  for (const [position, entry] of s.readings)
    await must(s.test, recordReading(db, run, { id: v5(String(position), run), position, entry, by, takenAt: now }));
}
