import { inArray, is, sql } from 'drizzle-orm';
import { getTableConfig, PgTable } from 'drizzle-orm/pg-core';
import { v7 } from 'uuid';
import { POLICY } from '../../application/policy';
import type { ProblemDetails } from '../../formats/problem';
import type { Result } from '../../core/foundation/result';
import bundleSchema from '../../docs/formats/bundle.schema.json';
import { workshopActor, workshopId } from '../testing/workshop';
import * as schema from '../db/schema';
import { recordCodes } from '../evidence/codes';
import { noteIntake, recordEvidence } from '../evidence/evidence';
import { writeFinding } from '../evidence/findings';
import { addPhoto } from '../evidence/photos';
import { noteCalculation } from '../jobs/notes';
import { openJob, startRun } from '../jobs/open-job';
import { changePlan } from '../jobs/plan';
import { recordCircumstance, recordReading } from '../readings/record-reading';
import { writeRepairRecord } from '../repair/repair-log';
import { writeLeads } from '../traces/leads';
import { keepTrace, noteTrace } from '../traces/traces';
import type { TraceHead } from '../../formats/requests/traces';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { RECORD_KINDS, type RecordKind, type RecordKindName } from './record-kinds';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase();
});
afterAll(() => test_.drop());

const KINDS = Object.entries<RecordKind>(RECORD_KINDS) as [RecordKindName, RecordKind][];
const tableOf = (k: RecordKind) => getTableConfig(k.table);

describe.each(KINDS)('the kind %s', (name, kind) => {
  test('is the table of its name, and belongs as its columns say', () => {
    const { name: table, columns } = tableOf(kind);
    const has = (column: string): boolean => columns.some((c) => c.name === column);
    expect(table).toBe(name);
    expect([has('job_id'), has('run_id')]).toEqual([kind.belongs === 'by job_id', kind.belongs === 'by run_id']);
    expect(kind.derived.filter((d) => !(d in kind.table))).toEqual([]);
  });
  test('enters the trail by a trigger, and cannot be changed', async () => {
    const { rows } = await test_.db.execute<{ tgname: string; proname: string }>(sql`
      select t.tgname, p.proname from pg_trigger t join pg_proc p on p.oid = t.tgfoid
      where t.tgrelid = ${name}::regclass and not t.tgisinternal`);
    const functions = rows.map((r) => r.proname);
    expect(functions).toContain('mudflat_event');
    expect(functions.includes('refuse_change')).toBe(kind.appendOnly);
  });
  test('is looked for where rows stand in no event', async () => {
    const { rows } = await test_.db.execute<{ source: string }>(
      sql`select prosrc as source from pg_proc where proname = 'mudflat_stray_rows'`,
    );
    expect(rows[0]?.source).toContain(`'${name}'`);
  });
  test('travels in a bundle, with the columns that its table asks for', () => {
    const { properties } = bundleSchema.properties.tables;
    const inBundle = (properties as Record<string, { items: { required: string[]; properties: object } }>)[name];
    const needed = tableOf(kind).columns.filter((c) => c.notNull && !c.hasDefault && !c.generatedIdentity);
    expect(inBundle).toBeDefined();
    for (const column of needed) expect(inBundle?.items.required).toContain(column.name);
    const all = new Set(tableOf(kind).columns.map((c) => c.name));
    expect(inBundle?.items.required.filter((c) => !all.has(c))).toEqual([]);
  });
  test('is written by an action of the policy', () => expect(POLICY[kind.action].what.length).toBeGreaterThan(3));
});

test('no table of a job stands beside the registry', () => {
  // The trail itself and its end are what the kinds are written into; where a job stands follows from them.
  const apart = new Set(['job_event', 'job_head', 'job_standing']);
  const tables = Object.values(schema).flatMap((t) => (is(t, PgTable) ? [t] : []));
  const ofJobs = tables
    .map((t) => getTableConfig(t))
    .filter((t) => t.columns.some((c) => c.name === 'job_id' || c.name === 'run_id') && !apart.has(t.name))
    .map((t) => t.name);
  expect(ofJobs.filter((t) => !(t in RECORD_KINDS))).toEqual([]);
});

describe('one rule for ids', () => {
  const BY = 'Ines Varga';
  async function newJob(): Promise<{ job: string; run: string }> {
    const [job, run] = [v7(), v7()];
    await openJob(test_.db, { id: job, unitId: workshopId('unit', 'PL-14'), complaint: 'x', by: BY });
    await startRun(test_.db, { id: run, jobId: job, test: 'glow-plug-resistance', by: BY });
    return { job, run };
  }
  const at = '2026-11-20T10:00:00.000Z';
  const intake = { conditions: [], replaced: [], signs: [], photos: [] };
  const PNG = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  );
  const LEADS = [{ lead: '1', signal: 'x', role: 'sensor' as const, connector: '', pin: '', colour: '' }];
  const HEAD: TraceHead = {
    kind: 'csv',
    file: 'x.csv',
    size: 10,
    sha256: '0'.repeat(64),
    began_s: null,
    notes: [],
    streams: [{ count: 2, decimals: 0, wide: false, scale: 1, blocks: ['0'.repeat(64)] }],
    clocks: [{ runs: [{ first: 0, start_s: 0, period_s: 1 }], count: 2 }],
    channels: [{ column: 'a', name: 'a', unit: 'V', role: 'sensor', factor: 1, stream: 0, clock: 0 }],
    search: { core: 'x', findings: [], searched: [], summary: '' },
  };
  type Of = { job: string; run: string };
  type Write = (of: Of, id: string, other: boolean) => Promise<Result<{ duplicate: boolean }, ProblemDetails>>;
  const writes: Record<Exclude<RecordKindName, 'job'>, Write> = {
    test_run: ({ job }, id, other) =>
      startRun(test_.db, { id, jobId: job, test: other ? 'pin-drag' : 'glow-plug-resistance', by: BY }),
    circumstance: ({ run }, id, other) =>
      recordCircumstance(test_.db, run, {
        id,
        by: BY,
        recordedAt: at,
        states: [],
        condition: {},
        leadZero: other ? '0.3' : '0.2',
      }),
    reading: ({ run }, id, other) =>
      recordReading(test_.db, run, { id, by: BY, takenAt: at, position: 1, entry: other ? '0.7' : '0.6' }),
    code_observation: ({ job }, id, other) =>
      recordCodes(test_.db, job, {
        id,
        by: BY,
        phase: 'as-found',
        status: other ? 'stored' : 'active',
        codes: ['P0672', 'P0671'],
      }),
    job_note: ({ job }, id, other) =>
      noteCalculation(test_.db, job, { id, by: BY, sum: 'ohms-law', inputs: { u: other ? '24' : '12', r: '1' } }),
    intake: ({ job }, id, other) =>
      noteIntake(test_.db, job, { id, by: BY, intake: other ? { ...intake, when: 'cold' } : intake }),
    evidence: ({ job }, id, other) =>
      recordEvidence(test_.db, job, {
        id,
        by: BY,
        evidence: { kind: 'wiggle', where: 'x', outcome: other ? 'broke' : 'held' },
      }),
    finding: ({ job }, id, other) =>
      writeFinding(test_.db, job, {
        id,
        by: BY,
        finding: { kind: 'not-found', text: other ? 'y' : 'x', ruledOut: [], ifReturns: 'x' },
      }),
    plan_change: ({ job }, id, other) =>
      changePlan(test_.db, job, { id, by: BY, change: { kind: 'add', test: other ? 'pin-drag' : 'battery-at-rest' } }),
    photo: ({ job }, id) => addPhoto(test_.db, job, { id, name: 'x.png', by: BY, bytes: PNG }),
    trace: ({ job }, id, other) => keepTrace(test_.db, job, { id, by: BY, name: other ? 'y' : 'x', head: HEAD }),
    trace_note: async ({ job }, id, other) => {
      // A note belongs to a recording of its job: one for each, under an id that follows from the job's.
      const recording = `${job.slice(0, -4)}7ace`;
      await keepTrace(test_.db, job, { id: recording, by: BY, name: 'x', head: HEAD });
      const mark = { kind: 'mark' as const, from_s: 1, to_s: 2, channel: null, text: other ? 'y' : 'x' };
      return noteTrace(test_.db, recording, { id, by: BY, ...mark });
    },
    lead_map: ({ job }, id, other) =>
      writeLeads(test_.db, job, { id, by: BY, ground: other ? 'block' : 'battery', leads: LEADS }),
    job_record: ({ job }, id, other) =>
      writeRepairRecord(
        test_.db,
        job,
        { id, by: BY, record: { kind: 'scan', outcome: other ? 'codes' : 'clean', said: 'x' } },
        workshopActor(BY),
      ),
  };

  test.each(Object.entries(writes))(
    '%s: again is a duplicate; something else, or elsewhere, is refused with 409',
    async (kind, write) => {
      const [here, elsewhere, id] = [await newJob(), await newJob(), v7()];
      expect(await write(here, id, false)).toMatchObject({ ok: true, value: { duplicate: false } });
      expect(await write(here, id, false)).toMatchObject({ ok: true, value: { duplicate: true } });
      const refused = { ok: false, error: { status: 409, errors: [{ path: '/id' }] } };
      expect(await write(elsewhere, id, false)).toMatchObject(refused);
      // Of a photo the bytes are drawn anew: the id alone tells it.
      if (kind !== 'photo') expect(await write(here, id, true)).toMatchObject(refused);
    },
  );
  test('a job: again is a duplicate, another one under its id is refused, and no number is used up', async () => {
    const id = v7();
    const open = (complaint: string, unit = 'PL-14') =>
      openJob(test_.db, { id, unitId: workshopId('unit', unit), complaint, by: BY });
    expect(await open('x')).toMatchObject({ ok: true, value: { duplicate: false } });
    expect(await open('x')).toMatchObject({ ok: true, value: { duplicate: true } });
    expect(await open('y')).toMatchObject({ ok: false, error: { status: 409 } });
    expect(await open('x', 'PL-19')).toMatchObject({ ok: false, error: { status: 409 } });
    const next = await newJob();
    const rows = await test_.db
      .select({ number: schema.job.number })
      .from(schema.job)
      .where(inArray(schema.job.id, [id, next.job]));
    const [first = 0, second = 0] = rows.map((r) => r.number).sort((a, b) => a - b);
    expect(second - first).toBe(1);
  });
});
