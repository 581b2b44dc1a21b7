import { v7 } from 'uuid';
import { CATALOGUE, findTest } from '../../core/catalogue/catalogue';
import type { SpecificationEntry } from '../../formats/specifications';
import type { RunView } from '../../application/views';
import { chooseDepot, setPart } from '../fleet/fleet';
import {
  addInstrument,
  testLeadsOf,
  measureTestLeads,
  retireInstrument,
  viewInstruments,
} from '../instruments/instruments';
import { noteCalculation, notesOf } from '../jobs/notes';
import { recordCircumstance, recordReading } from '../readings/record-reading';
import { applyLimits, effectOf } from '../readings/apply-limits';
import { viewRun } from '../readings/run-view';
import { clashesOf, currentEntries, recordSpecification } from './specifications';
import { viewSpecifications } from '../readings/specifications-view';
import { allTests, importCatalogue, keepTest, ownTests } from '../catalogue/tests';
import { workshopActor, workshopId } from '../testing/workshop';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { openJob, startRun } from '../jobs/open-job';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase();
});
afterAll(() => test_.drop());

const LEAD = 'Odile Brandt';
const TECHNICIAN = 'Ines Varga';
const PLUG = 'glow-plug-resistance';
const limits = (lower: number, upper: number) => ({ quantity: 'resistance' as const, unit: 'ohm', lower, upper });

async function newRun(unit: string, test = PLUG): Promise<string> {
  const [jobId, id] = [v7(), v7()];
  await openJob(test_.db, { id: jobId, unitId: workshopId('unit', unit), complaint: 'x', by: TECHNICIAN });
  const started = await startRun(test_.db, { id, jobId, test, by: TECHNICIAN });
  if (!started.ok) throw new Error(started.error.detail);
  return id;
}
async function view(id: string): Promise<RunView> {
  const found = await viewRun(test_.db, id);
  if (!found) throw new Error('no run');
  return found;
}
async function put(entry: SpecificationEntry, by = LEAD, more = {}): Promise<string> {
  const id = v7();
  const done = await recordSpecification(test_.db, { id, by, entry, ...more }, workshopActor(by));
  if (!done.ok) throw new Error(done.error.detail);
  return done.value.id;
}
const read = (runId: string, position: number | string, entry: string, more = {}) =>
  recordReading(test_.db, runId, {
    id: v7(),
    position,
    entry,
    by: TECHNICIAN,
    takenAt: new Date().toISOString(),
    ...more,
  });
const circumstance = (runId: string, more: object) =>
  recordCircumstance(test_.db, runId, {
    id: v7(),
    by: TECHNICIAN,
    recordedAt: new Date().toISOString(),
    states: [],
    condition: {},
    instrumentId: null,
    leadZero: null,
    ...more,
  });

describe('which limits judge a run', () => {
  test('the part that is fitted before the family, and the run says why', async () => {
    await put({ test: PLUG, scope: 'part', of: 'GP-4', limits: limits(0.5, 0.9), source: 'label' });
    expect(
      (await setPart(test_.db, workshopId('unit', 'PL-14'), { by: TECHNICIAN, part: 'plug', code: 'GP-4' })).ok,
    ).toBe(true);
    expect(await view(await newRun('PL-14'))).toMatchObject({
      specification: { scope: 'part', of: 'GP-4', status: 'draft' },
      because: 'It is for exactly this part.',
    });
    await setPart(test_.db, workshopId('unit', 'PL-14'), { by: TECHNICIAN, part: 'plug', code: null });
    expect((await view(await newRun('PL-14'))).specification).toMatchObject({ scope: 'family', of: 'L4-20' });
  });
  test('the depot’s own rule, and by system voltage what ships', async () => {
    expect((await view(await newRun('PL-23', 'voltage-drop'))).specification).toMatchObject({
      scope: 'depot',
      of: 'North Sluice',
    });
    expect((await view(await newRun('PL-14', 'voltage-drop'))).specification).toMatchObject({
      scope: 'general',
      status: 'rule-of-thumb',
    });
    expect((await view(await newRun('PL-03', 'battery-at-rest'))).specification.limits.lower).toBe(24.8);
    expect((await view(await newRun('PL-14', 'battery-at-rest'))).specification.limits.lower).toBe(12.4);
  });
  test('a test that nothing judges can be done all the same', async () => {
    const run = await newRun('PL-14', 'position-sensor-gap');
    expect((await view(run)).specification.source).toMatch(/No limit yet/);
    expect((await read(run, 'gap', '0.8')).ok).toBe(true);
    expect((await view(run)).judgement.readings[0]?.verdict).toBe('no-limit');
  });
  test('the school that the depot picks', async () => {
    const depotId = workshopId('depot', 'Quay Yard');
    const pick = (by: string) => chooseDepot(test_.db, depotId, { by, school: { test: PLUG, name: 'strict' } });
    expect((await pick(LEAD)).ok).toBe(true);
    expect((await view(await newRun('PL-22'))).specification.school).toBe('strict');
    await chooseDepot(test_.db, depotId, { by: LEAD, decision: 'simple', school: { test: PLUG, name: 'tolerant' } });
    expect(await view(await newRun('PL-22'))).toMatchObject({
      decision: 'simple',
      specification: { school: 'tolerant' },
    });
    await chooseDepot(test_.db, depotId, { by: LEAD, decision: 'three-way' });
  });
  test('the screen explains it, with what was passed over', async () => {
    const shown = await viewSpecifications(test_.db, await newRun('PL-23'));
    expect(shown.choice?.passedOver.map((p) => p.why)).toEqual(
      expect.arrayContaining(['other family', 'more general']),
    );
    expect(shown.lines.some((l) => l.ships)).toBe(true);
  });
});

describe('limits for a range of temperature', () => {
  test('judge from when the temperature is stated, and are left again', async () => {
    const entry = (when: SpecificationEntry['when'], upper: number): SpecificationEntry => ({
      test: 'injector-resistance',
      scope: 'family',
      of: 'L5-27',
      ...(when ? { when } : {}),
      limits: limits(0.2, upper),
      source: 'sheet',
    });
    await put(entry(undefined, 1));
    const hot = await put(entry({ fromTemperature_degC: 60 }, 2));
    const run = await newRun('PL-11', 'injector-resistance');
    await read(run, 1, '1.8');
    expect((await view(run)).judgement.readings[0]?.verdict).toBe('high');
    await circumstance(run, { condition: { partTemperature_degC: 85 } });
    const warm = await view(run);
    expect(warm).toMatchObject({
      specification: { id: hot },
      because: expect.stringContaining('conditions is met') as string,
    });
    expect(warm.judgement.readings[0]?.verdict).toBe('within');
    await circumstance(run, { condition: { partTemperature_degC: 20 } });
    expect((await view(run)).judgement.readings[0]?.verdict).toBe('high');
  });
});

describe('putting limits on the shelf', () => {
  test('an id that other limits have is refused and not tried for ever', async () => {
    const id = v7();
    const of = (test_name: string) => ({ test: test_name, scope: 'general' as const, source: 'ids' });
    await recordSpecification(
      test_.db,
      { id, by: LEAD, entry: { ...of(PLUG), school: 'ids', limits: limits(0.3, 1.4) } },
      workshopActor(LEAD),
    );
    const again = { id, by: LEAD, entry: { ...of('harness-ring-out'), school: 'ids', limits: limits(0, 1) } };
    expect(await recordSpecification(test_.db, again, workshopActor(LEAD))).toMatchObject({
      ok: false,
      error: { status: 409, errors: [{ path: '/id' }] },
    });
  });
  const entry: SpecificationEntry = {
    test: 'vane-actuator-coil',
    scope: 'family',
    of: 'V8-61',
    limits: limits(3, 4),
    source: 'sheet',
  };
  test('the same thing again is the next revision, the same content is nothing new', async () => {
    const first = await put(entry, TECHNICIAN);
    expect(await put(entry, TECHNICIAN)).toBe(first);
    expect(await clashesOf(test_.db, { ...entry, limits: limits(3, 5) })).toMatchObject([
      { kind: 'revision', differs: [{ field: 'upper', there: 4, here: 5 }] },
    ]);
    await put({ ...entry, limits: limits(3, 5), status: 'approved' });
    expect(
      (await viewSpecifications(test_.db, null)).lines.find((l) => l.entry.test === entry.test && !l.ships),
    ).toMatchObject({
      revision: 2,
      status: 'approved',
      earlier: [{ revision: 1, by: TECHNICIAN }],
    });
  });
  test('a technician’s draft yes; approving, replacing what is approved, withdrawing no', async () => {
    const by = { by: TECHNICIAN, id: v7() };
    for (const body of [
      { ...by, entry: { ...entry, source: 'new' } },
      { ...by, entry: { ...entry, of: 'L3-11', status: 'approved' as const } },
      { ...by, entry, withdraw: true },
    ])
      expect(await recordSpecification(test_.db, body, workshopActor(TECHNICIAN))).toMatchObject({
        ok: false,
        error: { status: 403 },
      });
  });
  test('withdrawn is off the shelf, kept in the history', async () => {
    await put(entry, LEAD, { withdraw: true });
    expect((await currentEntries(test_.db)).some((e) => e.test === entry.test)).toBe(false);
    expect((await view(await newRun('PL-23', entry.test))).specification.status).toBe('rule-of-thumb');
  });
  test.each<[Partial<SpecificationEntry>, string]>([
    [{ of: 'L9-99' }, '/entry/of'],
    [{ test: 'florp' }, '/entry/test'],
    [{ scope: 'depot', of: 'Nowhere' }, '/entry/of'],
    [{ limits: { quantity: 'voltage', unit: 'V' } }, '/entry/limits/quantity'],
  ])('%j is refused at its field', async (change, path) => {
    expect(
      await recordSpecification(test_.db, { id: v7(), by: LEAD, entry: { ...entry, ...change } }, workshopActor(LEAD)),
    ).toMatchObject({
      ok: false,
      error: { errors: [{ path }] },
    });
  });
});

describe('judging open jobs again', () => {
  test('what would change is shown before, applied by a lead, and noted in the job', async () => {
    const run = await newRun('PL-08');
    await circumstance(run, { leadZero: '0.2' });
    await read(run, 1, '1.1');
    const before = await view(run);
    expect(before.judgement.readings[0]?.verdict).toBe('within');
    const spec = await put({
      test: PLUG,
      scope: 'family',
      of: 'L4-20',
      limits: limits(0.3, 0.8),
      source: 'sheet 14, revision D',
      status: 'approved',
    });
    const effects = await effectOf(test_.db, spec);
    const effect = effects.ok ? effects.value.find((e) => e.runId === run) : undefined;
    expect(effect?.changes).toEqual([{ position: 1, entry: '1.1', was: 'within', becomes: 'high' }]);
    expect((await view(run)).judgement.readings[0]?.verdict).toBe('within');
    expect(
      await applyLimits(test_.db, spec, { by: LEAD, runs: [run] }, { ...workshopActor(LEAD), depotId: v7() }),
    ).toMatchObject({ ok: false, error: { status: 403 } });
    expect(await applyLimits(test_.db, spec, { by: LEAD, runs: [run] }, workshopActor(LEAD))).toEqual({
      ok: true,
      value: { applied: 1 },
    });
    const after = await view(run);
    expect(after).toMatchObject({ specification: { id: spec }, because: `Applied by ${LEAD}.` });
    expect(after.judgement.readings[0]?.verdict).toBe('high');
    // What was stored with the reading stays what it was.
    expect(after.readings[0]?.judged.verdict).toBe('within');
    expect((await notesOf(test_.db, after.job.id))[0]).toMatchObject({
      kind: 'limits',
      by: LEAD,
      lines: [expect.stringContaining('0.3 to 1.0 Ω → 0.3 to 0.8 Ω') as string, '1: 1.1 was in, is too high'],
    });
    expect(await applyLimits(test_.db, spec, { by: LEAD, runs: [v7()] }, workshopActor(LEAD))).toMatchObject({
      ok: false,
      error: { errors: [{ path: '/runs' }] },
    });
  });
});

describe('the workshop’s own tests', () => {
  const own = { ...findTest('harness-pins')!, id: 'own-pins', name: 'Own pins', positions: ['a', 'b'] };
  test('a lead adds one; a run keeps it as it was', async () => {
    expect((await keepTest(test_.db, { id: v7(), testId: own.id, by: LEAD, test: own })).ok).toBe(true);
    const run = await newRun('PL-14', own.id);
    await keepTest(test_.db, { id: v7(), testId: own.id, by: LEAD, test: { ...own, positions: ['a', 'b', 'c'] } });
    expect((await view(run)).definition.positions).toEqual(['a', 'b']);
    expect((await view(await newRun('PL-14', own.id))).definition.positions).toEqual(['a', 'b', 'c']);
    expect((await read(run, 'c', '0.4')).ok).toBe(false);
    expect((await read(run, 'a', '0.4')).ok).toBe(true);
  });
  test('one that ships can be replaced and given back, not taken away', async () => {
    const buzz = { ...findTest('module-buzz')!, name: 'Our buzz' };
    await keepTest(test_.db, { id: v7(), testId: buzz.id, by: LEAD, test: buzz });
    expect((await allTests(test_.db)).find((t) => t.id === buzz.id)?.name).toBe('Our buzz');
    await keepTest(test_.db, { id: v7(), testId: buzz.id, by: LEAD, test: null });
    expect((await allTests(test_.db)).find((t) => t.id === buzz.id)?.name).toBe('Injector module, buzz heard');
    expect(await keepTest(test_.db, { id: v7(), testId: 'pin-drag', by: LEAD, test: null })).toMatchObject({
      ok: false,
      error: { errors: [{ message: expect.stringContaining('replaced, not taken away') as string }] },
    });
  });
  test('a broken one is refused at its field', async () => {
    expect(
      await keepTest(test_.db, { id: v7(), testId: own.id, by: LEAD, test: { ...own, states: [], id: 'other' } }),
    ).toMatchObject({ ok: false, error: { errors: [{ path: '/test/states' }, { path: '/test/id' }] } });
  });
  test('a file: planned, then taken', async () => {
    const file = [CATALOGUE[0]!, { ...own, id: 'from-file' }];
    expect(await importCatalogue(test_.db, file, null)).toMatchObject({
      ok: true,
      value: { stored: 0, rows: [{ action: 'unchanged' }, { action: 'new' }] },
    });
    expect(await importCatalogue(test_.db, file, { batch: v7(), by: LEAD })).toMatchObject({
      ok: true,
      value: { stored: 1 },
    });
    expect((await ownTests(test_.db)).map((t) => t.id)).toContain('from-file');
  });
});

describe('instruments', () => {
  const depotId = workshopId('depot', 'Quay Yard');
  const instrument = {
    kind: 'multimeter',
    accuracy: [{ quantity: 'resistance' as const, upTo: 60, percentOfReading: 0.4, counts: 3, resolution: 0.01 }],
  };
  const meters = async () => (await viewInstruments(test_.db)).find((d) => d.id === depotId)?.instruments ?? [];
  test('the meter changed in the middle: each reading keeps its own, with its own zero', async () => {
    const run = await newRun('PL-14');
    const [yard, bench] = ['Yard meter 2', 'Bench meter 1'].map((n) => workshopId('instrument', 'Quay Yard', n));
    await circumstance(run, { instrumentId: yard, leadZero: '0.3' });
    await read(run, 1, '0.9');
    await circumstance(run, { instrumentId: bench, leadZero: '0.05' });
    await read(run, 2, '0.65');
    const v = await view(run);
    expect(v.judgement.readings.slice(0, 2).map((r) => r.corrected)).toEqual([
      expect.closeTo(0.6, 9),
      expect.closeTo(0.6, 9),
    ]);
    expect(v.readings.map((r) => r.instrumentId)).toEqual([yard, bench]);
    expect(v.circumstance.zeros).toEqual({ [yard!]: '0.3', [bench!]: '0.05' });
    // The first meter's zero is read again: only its reading moves.
    await circumstance(run, { instrumentId: yard, leadZero: '0.2' });
    await circumstance(run, { instrumentId: bench, leadZero: '0.05' });
    expect((await view(run)).judgement.readings[0]?.corrected).toBeCloseTo(0.7, 9);
  });
  test('said better, it is a new row; what was read with the old one stays as it was judged', async () => {
    const id = v7();
    expect((await addInstrument(test_.db, { id, depotId, name: 'New meter', by: LEAD, instrument })).ok).toBe(true);
    expect(await addInstrument(test_.db, { id: v7(), depotId, name: 'New meter', by: LEAD, instrument })).toMatchObject(
      { ok: false, error: { errors: [{ path: '/name' }] } },
    );
    const run = await newRun('PL-14');
    await circumstance(run, { instrumentId: id, leadZero: '0.05' });
    await read(run, 1, '0.65');
    const before = (await view(run)).judgement.readings[0]?.standardUncertainty;
    expect(
      (
        await addInstrument(test_.db, {
          id: v7(),
          depotId,
          name: 'New meter',
          by: LEAD,
          replaces: id,
          instrument: { ...instrument, accuracy: [{ ...instrument.accuracy[0]!, percentOfReading: 9 }] },
        })
      ).ok,
    ).toBe(true);
    expect((await view(run)).judgement.readings[0]?.standardUncertainty).toBe(before);
    expect((await meters()).filter((m) => m.name === 'New meter').map((m) => m.accuracy[0]?.percentOfReading)).toEqual([
      9,
    ]);
    expect(
      await addInstrument(test_.db, { id: v7(), depotId, name: 'Third', by: LEAD, replaces: id, instrument }),
    ).toMatchObject({ ok: false, error: { status: 409 } });
  });
  test('out of use', async () => {
    const id = (await meters()).find((m) => m.name === 'New meter')!.id;
    expect((await retireInstrument(test_.db, id)).ok).toBe(true);
    expect((await meters()).some((m) => m.id === id)).toBe(false);
    expect(await retireInstrument(test_.db, v7())).toMatchObject({ ok: false, error: { status: 404 } });
  });
  test('leads by their newest measurement; nonsense is refused', async () => {
    const measured = (zero: string | null) =>
      measureTestLeads(test_.db, { id: v7(), depotId, name: 'Red pair', zero, by: TECHNICIAN });
    await measured('0.3');
    await measured('0.4');
    expect((await testLeadsOf(test_.db, depotId)).find((l) => l.name === 'Red pair')?.zero).toBe('0.4');
    expect(await measured('OL')).toMatchObject({ ok: false, error: { errors: [{ path: '/zero' }] } });
    await measured(null);
    expect((await testLeadsOf(test_.db, depotId)).some((l) => l.name === 'Red pair')).toBe(false);
  });
  test('a clamp’s millivolts and its zero', async () => {
    const clamp = v7();
    const made = await addInstrument(test_.db, {
      id: clamp,
      depotId: workshopId('depot', 'Quay Yard'),
      name: 'Clamp 4',
      by: LEAD,
      calibrationDue: '2099-12-31',
      instrument: {
        kind: 'clamp',
        clamp_mVperA: 10,
        accuracy: [{ quantity: 'current', upTo: 60, percentOfReading: 2, counts: 3, resolution: 0.1 }],
      },
    });
    expect(made.ok).toBe(true);
    const entry = { test: 'glow-plug-current', scope: 'family', of: 'L5-27', source: 'sheet' } as const;
    await put({ ...entry, limits: { quantity: 'current', unit: 'A', lower: 9, upper: 20 } });
    const run = await newRun('PL-11', entry.test);
    await circumstance(run, { instrumentId: clamp, leadZero: '2 mV' });
    expect((await read(run, 3, '131 mV')).ok).toBe(true);
    expect((await view(run)).judgement.readings.find((r) => r.position === 3)).toMatchObject({
      entry: '131 mV',
      corrected: expect.closeTo(12.9, 9) as number,
      verdict: 'within',
    });
  });
});

describe('sums in the record', () => {
  test('computed here again, kept once', async () => {
    const { job } = await view(await newRun('PL-14'));
    const body = { id: v7(), by: TECHNICIAN, sum: 'plug-behind-harness', inputs: { u: '12', r: '1', rs: '5' } };
    expect(await noteCalculation(test_.db, job.id, body)).toMatchObject({ ok: true, value: { duplicate: false } });
    expect(await noteCalculation(test_.db, job.id, body)).toMatchObject({ ok: true, value: { duplicate: true } });
    expect((await notesOf(test_.db, job.id)).filter((n) => n.id === body.id)).toMatchObject([
      {
        title: 'Plug behind a harness',
        lines: [
          'Feed 12 V, Plug 1 Ω, Harness 5 Ω',
          expect.stringContaining('16.67 %') as string,
          expect.stringContaining('Ohm') as string,
        ],
      },
    ]);
  });
  test('nonsense is refused at its field', async () => {
    const { job } = await view(await newRun('PL-14'));
    expect(
      await noteCalculation(test_.db, job.id, { id: v7(), by: 'x', sum: 'leads', inputs: { r: 'x', z: '0.2' } }),
    ).toMatchObject({ ok: false, error: { errors: [{ path: '/inputs/r' }] } });
    expect(
      await noteCalculation(test_.db, v7(), { id: v7(), by: 'x', sum: 'leads', inputs: { r: '1', z: '0.2' } }),
    ).toMatchObject({ ok: false, error: { status: 404 } });
    expect(await noteCalculation(test_.db, job.id, { id: v7(), by: 'x', sum: 'florp', inputs: {} })).toMatchObject({
      ok: false,
      error: { status: 404 },
    });
  });
});

test('what is kept cannot be changed: own tests, leads, notes', async () => {
  for (const table of ['test_definition', 'lead', 'job_note'])
    await expect(test_.pool.query(`delete from ${table}`)).rejects.toThrow('append-only');
});
