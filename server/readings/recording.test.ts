import { sql } from 'drizzle-orm';
import { v7 } from 'uuid';
import { readReadingsCsv } from '../../formats/readings-csv';
import { type RunView } from '../../application/views';
import { addEngineFamily, addUnit } from '../fleet/fleet';
import { planCsv, storeCsv } from './csv';
import { recordCircumstance, recordReading, recordReadings } from './record-reading';
import { viewRun } from './run-view';
import { recordEvidence } from '../evidence/evidence';
import { recordSpecification } from '../specifications/specifications';
import { workshopActor, workshopId } from '../testing/workshop';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { currentReadings } from '../../application/judging/corrections';
import { judgeDocument } from '../../application/judging/judge-document';
import { writeReadingsCsv } from '../../application/report/readings-csv';
import { openJob, startRun } from '../jobs/open-job';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase();
});
afterAll(() => test_.drop());

const TEST = 'glow-plug-resistance';
const reading = (position: number | string, entry: string, more = {}) => ({
  id: v7(),
  position,
  entry,
  by: 'Tester',
  takenAt: '2026-11-20T10:00:00Z',
  ...more,
});

async function newRun(unit = 'PL-14'): Promise<string> {
  const [jobId, id] = [v7(), v7()];
  expect(
    (await openJob(test_.db, { id: jobId, unitId: workshopId('unit', unit), complaint: 'test', by: 'Tester' })).ok,
  ).toBe(true);
  expect((await startRun(test_.db, { id, jobId, test: TEST, by: 'Tester' })).ok).toBe(true);
  return id;
}
async function view(id: string): Promise<RunView> {
  const found = await viewRun(test_.db, id);
  if (!found) throw new Error('no run');
  return found;
}
const zero = (leadZero: string | null) => ({
  id: v7(),
  by: 'Tester',
  recordedAt: '2026-11-20T10:00:00Z',
  leadZero,
  states: [],
  condition: {},
});

describe('readings', () => {
  test('the same reading twice is stored once', async () => {
    const run = await newRun();
    const body = reading(1, '0.6');
    expect(await recordReading(test_.db, run, body)).toMatchObject({ ok: true, value: { duplicate: false } });
    expect(await recordReading(test_.db, run, body)).toMatchObject({ ok: true, value: { duplicate: true } });
    expect((await view(run)).readings).toHaveLength(1);
  });
  test('the same reading sent ten times at once is stored once', async () => {
    const run = await newRun();
    const body = reading(2, 'OL');
    const results = await Promise.all(Array.from({ length: 10 }, () => recordReading(test_.db, run, body)));
    expect(results.every((r) => r.ok)).toBe(true);
    expect((await view(run)).readings).toHaveLength(1);
  });
  test('an id with another content is refused', async () => {
    const run = await newRun();
    const body = reading(1, '0.6');
    await recordReading(test_.db, run, body);
    expect(await recordReading(test_.db, run, { ...body, entry: '0.7' })).toMatchObject({
      ok: false,
      error: { status: 409 },
    });
    expect(await recordReading(test_.db, await newRun(), body)).toMatchObject({ ok: false, error: { status: 409 } });
  });
  test('a correction supersedes and keeps the old; it must correct what counts now', async () => {
    const run = await newRun();
    const [first, second] = [reading(3, '7'), reading(3, '0.7')];
    await recordReading(test_.db, run, first);
    expect(await recordReading(test_.db, run, second)).toMatchObject({
      ok: false,
      error: { status: 409, errors: [{ path: '/supersedes' }] },
    });
    expect((await recordReading(test_.db, run, { ...second, supersedes: first.id, why: 'misread' })).ok).toBe(true);
    expect(await recordReading(test_.db, run, reading(3, '0.8', { supersedes: first.id }))).toMatchObject({
      ok: false,
      error: { status: 409 },
    });
    const { readings, judgement } = await view(run);
    expect(readings.map((r) => [r.entry, r.why])).toEqual([
      ['7', null],
      ['0.7', 'misread'],
    ]);
    expect(judgement.readings.find((r) => r.position === 3)?.entry).toBe('0.7');
  });
  test('what was read before a repair stays: after it there is a new run', async () => {
    const run = await newRun();
    const before = reading(3, '7');
    await recordReading(test_.db, run, { ...before, takenAt: new Date(Date.now() - 60_000).toISOString() });
    const { job } = await view(run);
    const mended = {
      kind: 'repair',
      where: 'head',
      path: false,
      part: 'plug',
      position: 3,
      done: 'a new one',
    } as const;
    await recordEvidence(test_.db, job.id, { id: v7(), by: 'Ines Varga', evidence: mended });
    const late = new Date(Date.now() + 60_000).toISOString();
    expect(
      await recordReading(test_.db, run, { ...reading(3, '0.7', { supersedes: before.id }), takenAt: late }),
    ).toMatchObject({ ok: false, error: { status: 409, errors: [{ path: '/supersedes' }] } });
    // A slip that was corrected before the repair and comes late from a tablet is taken.
    const early = new Date(Date.now() - 30_000).toISOString();
    expect(
      (await recordReading(test_.db, run, { ...reading(3, '7.1', { supersedes: before.id }), takenAt: early })).ok,
    ).toBe(true);
  });
  test('two corrections of one reading at once: one lands, the other is told', async () => {
    const run = await newRun();
    const first = reading(1, '9');
    await recordReading(test_.db, run, first);
    const results = await Promise.all(
      ['0.6', '0.7'].map((e) => recordReading(test_.db, run, reading(1, e, { supersedes: first.id }))),
    );
    expect(results.filter((r) => r.ok)).toHaveLength(1);
  });
  test.each([
    ['unreadable', reading(1, 'abc'), '/entry'],
    ['empty', reading(1, '-'), '/entry'],
    ['a cylinder the engine has not', reading(5, '0.6'), '/position'],
    ['a pin', reading('pin 26', '0.6'), '/position'],
  ])('%s is refused at its field', async (_, body, path) => {
    expect(await recordReading(test_.db, await newRun(), body)).toMatchObject({
      ok: false,
      error: { status: 422, errors: [{ path }] },
    });
  });
  test('several at once: all or none', async () => {
    const run = await newRun();
    const result = await recordReadings(test_.db, run, [reading(1, '0.6'), reading(2, 'florp')]);
    expect(result).toMatchObject({ ok: false, error: { errors: [{ path: '/readings/1/entry' }] } });
    expect((await view(run)).readings).toHaveLength(0);
  });
  test('the database itself refuses to change or remove a reading', async () => {
    const run = await newRun();
    await recordCircumstance(test_.db, run, zero('0.2'));
    await recordReading(test_.db, run, reading(1, '0.6'));
    await expect(test_.db.execute(sql`update reading set entry = '1'`)).rejects.toThrow();
    await expect(test_.db.execute(sql`delete from reading`)).rejects.toThrow();
    await expect(test_.db.execute(sql`delete from circumstance`)).rejects.toThrow();
  });
  test('kept with the verdict, the core version and the limit revision that made it', async () => {
    const run = await newRun();
    await recordReading(test_.db, run, reading(2, 'OL'));
    const { readings, specification } = await view(run);
    expect(readings[0]).toMatchObject({
      coreVersion: expect.stringMatching(/^\d+\.\d+\.\d+$/) as string,
      judged: { verdict: 'open' },
    });
    expect(specification).toMatchObject({ revision: 1, scope: 'family', of: 'L4-20', status: 'approved' });
  });
});

describe('circumstances', () => {
  test('a lead zero judges again what was read before it', async () => {
    const run = await newRun();
    await recordReading(test_.db, run, reading(1, '1.3'));
    expect((await view(run)).judgement.readings[0]?.verdict).toBe('undecided');
    await recordCircumstance(test_.db, run, zero('0.2'));
    expect((await view(run)).judgement.readings[0]?.corrected).toBeCloseTo(1.1, 12);
  });
  test.each(['abc', 'OL', '0.1~0.4', '-0.2'])('a lead zero of %s is refused', async (entry) => {
    expect(await recordCircumstance(test_.db, await newRun(), zero(entry))).toMatchObject({
      ok: false,
      error: { errors: [{ path: '/leadZero' }] },
    });
  });
});

describe('set-up', () => {
  const limits = { quantity: 'resistance' as const, unit: 'ohm', lower: 2, upper: 1 };
  test('limits that cannot be are refused with a path', async () => {
    const entry = { test: TEST, scope: 'general' as const, limits, source: 'x' };
    expect(
      await recordSpecification(test_.db, { id: v7(), by: 'Ines Varga', entry }, workshopActor('Ines Varga')),
    ).toMatchObject({
      ok: false,
      error: { errors: [{ path: '/entry/limits/lower' }] },
    });
    expect(
      await recordSpecification(
        test_.db,
        { id: v7(), by: 'Ines Varga', entry: { ...entry, limits: { quantity: 'voltage', unit: 'V' } } },
        workshopActor('Ines Varga'),
      ),
    ).toMatchObject({ ok: false, error: { errors: [{ path: '/entry/limits/quantity' }] } });
  });
  test('a newer revision judges new runs and leaves old ones alone', async () => {
    const old = await newRun();
    const more = {
      by: 'Odile Brandt',
      onRevision: 1,
      entry: {
        test: TEST,
        scope: 'family' as const,
        of: 'L4-20',
        limits: { ...limits, lower: 0.1, upper: 2 },
        source: 'newer',
        status: 'draft' as const,
      },
    };
    expect(
      await recordSpecification(test_.db, { ...more, id: v7(), by: 'Ines Varga' }, workshopActor('Ines Varga')),
    ).toMatchObject({
      ok: false,
      error: { status: 403 },
    });
    expect((await recordSpecification(test_.db, { ...more, id: v7() }, workshopActor(more.by))).ok).toBe(true);
    expect(
      await recordSpecification(
        test_.db,
        { ...more, id: v7(), entry: { ...more.entry, source: 'newest' } },
        workshopActor(more.by),
      ),
    ).toMatchObject({
      ok: false,
      error: { status: 409 },
    });
    expect((await view(old)).specification.revision).toBe(1);
    expect((await view(await newRun())).specification).toMatchObject({ revision: 2, status: 'draft' });
  });
  test('an engine without limits of its own takes the school that its depot has picked', async () => {
    expect(await view(await newRun('PL-22'))).toMatchObject({
      specification: { scope: 'general', school: 'tolerant' },
      because: expect.stringContaining('tolerant') as string,
    });
  });
  test('a fleet number once, an engine that can be', async () => {
    const unit = {
      id: v7(),
      depotId: workshopId('depot', 'Quay Yard'),
      engineFamilyId: workshopId('family', 'L3-11'),
      fleetNumber: 'PL-14',
      kind: 'Pump',
    };
    expect(await addUnit(test_.db, unit)).toMatchObject({
      ok: false,
      error: { status: 409, errors: [{ path: '/fleetNumber' }] },
    });
    expect(
      await addEngineFamily(test_.db, { id: v7(), code: 'X', engine: { layout: 'vee', cylinders: 7 } }),
    ).toMatchObject({ ok: false, error: { errors: [{ path: '/engine/cylinders' }] } });
  });
});

describe('one judge', () => {
  test('the file of a run gives what the server keeps', async () => {
    const run = await newRun('PL-23');
    const instrumentId = workshopId('instrument', 'North Sluice', 'Yard meter 2');
    await recordCircumstance(test_.db, run, { ...zero('0.2'), instrumentId });
    for (const [i, entry] of ['0.6', '0.7', '6.3', 'OL', '0.4~0.9'].entries())
      await recordReading(test_.db, run, reading(i + 1, entry));
    const v = await view(run);
    const meter = v.instruments.find((i) => i.id === v.circumstance.instrumentId);
    const file = judgeDocument({
      format: 'mudflat/test-set',
      version: 1,
      test: v.test,
      engine: v.unit.engine,
      limits: v.specification.limits,
      condition: { key: 'off', engine: 'stopped', connection: 'at-part', ...v.circumstance.condition },
      instrument: {
        kind: 'multimeter',
        leadZero: v.circumstance.leadZero,
        accuracy: meter?.accuracy,
        leadRepeatability_ohm: meter?.leadRepeatability_ohm,
      },
      readings: currentReadings(v.readings).map(({ position, entry }) => ({ position, entry })),
    });
    expect(file).toEqual({ ok: true, value: v.judgement });
  });
});

describe('CSV', () => {
  test('out and in again into another run: the same readings; into its own: nothing to do', async () => {
    const first = await newRun();
    await recordCircumstance(test_.db, first, zero('0.2'));
    for (const [i, entry] of ['0.7', '0.8', '201', '0.7'].entries())
      await recordReading(test_.db, first, reading(i + 1, entry));
    const source = await view(first);
    const csv = writeReadingsCsv(source);
    const target = await newRun();
    await recordCircumstance(test_.db, target, zero('0.2'));
    const batch = v7();
    expect(await storeCsv(test_.db, target, csv, batch, 'Tester')).toMatchObject({ ok: true, value: { stored: 4 } });
    expect(await storeCsv(test_.db, target, csv, batch, 'Tester')).toMatchObject({ ok: true, value: { stored: 0 } });
    const entries = (v: RunView) => currentReadings(v.readings).map((r) => [r.position, r.entry]);
    expect(entries(await view(target))).toEqual(entries(source));
    const plan = await planCsv(test_.db, source.id, csv);
    expect(plan.ok && plan.value.rows.every((r) => r.action === 'unchanged')).toBe(true);
  });
  test('a name that a spreadsheet would run comes out inert', async () => {
    const run = await newRun();
    await recordReading(test_.db, run, { ...reading(1, '-0.1'), by: '=cmd()' });
    expect(writeReadingsCsv(await view(run)).split('\r\n')[1]).toMatch(/,1,-0\.1,.*,'=cmd\(\)$/);
  });
  test('a row that differs is a correction', async () => {
    const run = await newRun();
    await recordReading(test_.db, run, reading(1, '0.6'));
    expect(await storeCsv(test_.db, run, 'position,entry\n1,0.7\n2,OL\n', v7(), 'Tester')).toMatchObject({
      ok: true,
      value: { stored: 2, rows: [{ action: 'correction', was: '0.6' }, { action: 'new' }] },
    });
    expect((await view(run)).readings).toHaveLength(3);
  });
  test('rows that cannot be read are named by line', () => {
    const target = { test: TEST, positions: [1, 2, 3, 4], limits: { quantity: 'resistance' as const, unit: 'ohm' } };
    const text =
      '\uFEFFtaken_by;entry;position\r\n"Ines\r\nVarga";0,6;1\r\nx;abc;2\r\nx;0,7;9\r\n\r\nx;0,8;1\r\nx;;3\r\nx;OL;4\r\n';
    const read = readReadingsCsv(text, target);
    if (!read.ok) throw new Error('not read');
    expect(read.value.rows).toEqual([
      { line: 2, position: 1, entry: '0,6' },
      { line: 9, position: 4, entry: 'OL' },
    ]);
    expect(read.value.problems.map((p) => p.line)).toEqual([4, 5, 7, 8]);
  });
  test('a unit column of another size is honoured; another test is refused', () => {
    const target = { test: TEST, positions: [1, 2, 3, 4], limits: { quantity: 'resistance' as const, unit: 'ohm' } };
    expect(readReadingsCsv('position,entry,unit_of_measure\n1,4.5,kohm\n2,4k5,kohm', target)).toMatchObject({
      ok: true,
      value: { rows: [{ entry: '4.5 kohm' }, { entry: '4k5' }] },
    });
    expect(readReadingsCsv('position,entry,test\n1,4.5,other', target)).toMatchObject({
      ok: true,
      value: { problems: [{ line: 2 }] },
    });
  });
  test.each([
    ['', /no rows/],
    ['position,entry\n', /no rows/],
    ['a,b\n1,2\n', /no column/],
    ['position,entry\n"1,2', /not a table/],
  ])('%j is no table', (text, message) => {
    const read = readReadingsCsv(text, {
      test: TEST,
      positions: [1, 2, 3, 4],
      limits: { quantity: 'resistance', unit: 'ohm' },
    });
    expect(read.ok ? '' : read.error.map((e) => e.message).join(' ')).toMatch(message);
  });
  test('50,000 rows are read', () => {
    const rows = Array.from({ length: 50_000 }, (_, i) => `${i + 1},0.6`).join('\n');
    const read = readReadingsCsv(`position,entry\n${rows}`, {
      test: TEST,
      positions: Array.from({ length: 50_000 }, (_, i) => i + 1),
      limits: { quantity: 'resistance', unit: 'ohm' },
    });
    expect(read.ok && read.value.rows.length).toBe(50_000);
  });
});
