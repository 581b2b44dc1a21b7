import { eq, sql } from 'drizzle-orm';
import { v7 } from 'uuid';
import { workshopActor, workshopId } from '../testing/workshop';
import { readUnitsCsv, writeUnitsCsv } from '../../formats/units-csv';
import { depot as depotTable, engineFamily, fleetUnit } from '../db/schema';
import { openJob, startRun } from '../jobs/open-job';
import { recordReading } from '../readings/record-reading';
import { viewYard } from '../jobs/yard';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { addDepot, changeDepot, listDepots } from './depots';
import { addUnit, changeEngineFamily, changeUnit, numberKey } from './fleet';
import { importUnits, listFamilies, listUnits } from './fleet-list';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase();
});
afterAll(() => test_.drop());

const BY = 'Odile Brandt';
const QUAY = workshopId('depot', 'Quay Yard');
const FAMILY = workshopId('family', 'L4-20');
const unit = (fleetNumber: string, more = {}) => ({
  id: v7(),
  depotId: QUAY,
  engineFamilyId: FAMILY,
  fleetNumber,
  kind: 'Tipper',
  ...more,
});
const refusedAt = (done: Awaited<ReturnType<typeof addUnit>>) => (done.ok ? [] : done.error.errors.map((e) => e.path));

describe('units', () => {
  test.each(['PL-14', 'pl-14', 'PL-\u200b14', ' PL -14 ', 'ＰＬ-14'])('"%s" is PL-14', (typed) =>
    expect(numberKey(typed)).toBe('pl-14'),
  );
  test('two numbers that look alike are one unit', async () => {
    for (const typed of ['pl-14', 'PL-\u200b14', 'PL- 14'])
      expect(refusedAt(await addUnit(test_.db, unit(typed)))).toEqual(['/fleetNumber']);
  });
  test('a unit that is refused leaves no engine family behind', async () => {
    const engineFamilyId = v7();
    const newFamily = { code: `New ${engineFamilyId.slice(-8)}`, engine: { layout: 'inline' as const, cylinders: 3 } };
    const done = await addUnit(test_.db, unit('PL-14', { engineFamilyId, newFamily }));
    expect(refusedAt(done)).toEqual(['/fleetNumber']);
    expect(await test_.db.select().from(engineFamily).where(eq(engineFamily.id, engineFamilyId))).toEqual([]);
    expect(
      refusedAt(
        await addUnit(
          test_.db,
          unit('PL-801', { engineFamilyId, newFamily: { code: 'L4-20', engine: newFamily.engine } }),
        ),
      ),
    ).toEqual(['/newFamily/code']);
    expect((await addUnit(test_.db, unit('PL-801', { engineFamilyId, newFamily }))).ok).toBe(true);
  });
  test('one that is gone takes no new job, is out of the yard, and comes back', async () => {
    const own = unit('PL-802');
    await addUnit(test_.db, own);
    expect((await changeUnit(test_.db, own.id, { by: BY, retired: true, kind: 'Old tipper' })).ok).toBe(true);
    expect((await viewYard(test_.db, 'PL-802')).found).toBe(0);
    const job = { id: v7(), unitId: own.id, complaint: 'x', by: BY };
    expect(refusedAt(await openJob(test_.db, job))).toEqual(['/unitId']);
    await changeUnit(test_.db, own.id, { by: BY, retired: false });
    expect((await openJob(test_.db, job)).ok).toBe(true);
    expect(refusedAt(await changeUnit(test_.db, own.id, { by: BY, retired: true }))).toEqual(['/retired']);
    expect(
      refusedAt(await changeUnit(test_.db, own.id, { by: BY, engineFamilyId: workshopId('family', 'V8-61') })),
    ).toEqual(['/engineFamilyId']);
  });
  test('an engine on which something was measured keeps its layout; its code may change', async () => {
    const engine = { layout: 'inline' as const, cylinders: 5 };
    expect(refusedAt(await changeEngineFamily(test_.db, FAMILY, { by: BY, engine }))).toEqual(['/engine']);
    expect(refusedAt(await changeEngineFamily(test_.db, FAMILY, { by: BY, retired: true }))).toEqual(['/retired']);
    expect((await changeEngineFamily(test_.db, FAMILY, { by: BY, code: 'L4-20 b' })).ok).toBe(true);
    expect((await changeEngineFamily(test_.db, FAMILY, { by: BY, code: 'L4-20' })).ok).toBe(true);
  });
});

describe('depots', () => {
  test('a name that differs in capitals or blanks only is the same depot', async () => {
    const depot = (name: string) => ({ id: v7(), by: BY, name, timeZone: 'Etc/UTC' });
    for (const name of ['quay yard', ' Quay  Yard', 'QUAY YARD'])
      expect(refusedAt(await addDepot(test_.db, depot(name)))).toEqual(['/name']);
    expect(refusedAt(await changeDepot(test_.db, QUAY, { by: BY, name: 'north SLUICE' }))).toEqual(['/name']);
    // Its own name may be written anew.
    expect((await changeDepot(test_.db, QUAY, { by: BY, name: 'Quay yard' })).ok).toBe(true);
    expect((await changeDepot(test_.db, QUAY, { by: BY, name: 'Quay Yard' })).ok).toBe(true);
  });
  test('need a zone that there is, and a name of their own', async () => {
    const depot = { id: v7(), by: BY, name: 'East Basin', timeZone: 'Nowhere/None' };
    expect(refusedAt(await addDepot(test_.db, depot))).toEqual(['/timeZone']);
    expect((await addDepot(test_.db, { ...depot, timeZone: 'Etc/UTC', currency: 'EUR' })).ok).toBe(true);
    expect(refusedAt(await addDepot(test_.db, { ...depot, id: v7(), timeZone: 'Etc/UTC' }))).toEqual(['/name']);
    expect(await listDepots(test_.db)).toContainEqual(
      expect.objectContaining({ name: 'East Basin', currency: 'EUR', units: 0, retired: false }),
    );
    const quay = (await listDepots(test_.db)).find((d) => d.id === QUAY);
    expect(quay?.units).toBe((await listUnits(test_.db)).filter((u) => u.depotId === QUAY && !u.retired).length);
    expect(quay?.units).toBeGreaterThan(3);
    const own = (await listUnits(test_.db)).filter((u) => u.familyId === FAMILY && !u.retired);
    expect((await listFamilies(test_.db)).find((f) => f.id === FAMILY)?.units).toBe(own.length);
    expect(own.some((u) => u.jobs > 0)).toBe(true);
    expect((await changeDepot(test_.db, depot.id, { by: BY, retired: true })).ok).toBe(true);
    expect(refusedAt(await changeDepot(test_.db, QUAY, { by: BY, retired: true }))).toEqual(['/retired']);
    expect(refusedAt(await addUnit(test_.db, unit('PL-803', { depotId: depot.id })))).toEqual(['/depotId']);
  });
});

/** What was read on an engine binds its unit to it. */
async function measure(unit: string): Promise<void> {
  const [jobId, run] = [v7(), v7()];
  await openJob(test_.db, { id: jobId, unitId: workshopId('unit', unit), complaint: 'x', by: BY });
  await startRun(test_.db, { id: run, jobId, test: 'glow-plug-resistance', by: BY });
  const body = { id: v7(), position: 1, entry: '0.6', by: BY, takenAt: new Date().toISOString() };
  expect((await recordReading(test_.db, run, body)).ok).toBe(true);
}

describe('a list of units', () => {
  const LEAD = workshopActor(BY);
  const read = (text: string) => {
    const entries = readUnitsCsv(text);
    if (!entries.ok) throw new Error(JSON.stringify(entries.error));
    return entries.value;
  };
  test('what is in use comes out as a list that changes nothing', async () => {
    const units = (await listUnits(test_.db)).filter((u) => !u.retired);
    const plan = await importUnits(test_.db, read(writeUnitsCsv(units)), LEAD, null);
    expect(plan.ok && plan.value.rows.every((r) => r.action === 'unchanged')).toBe(true);
  });
  test('new ones are added and those that are there are changed, all or nothing', async () => {
    const list = 'fleet_number;kind;depot;family\nPL-810;Crane;quay yard;l4-20\nPL-802;Gritter;Quay Yard;L4-20\n';
    await measure('PL-14');
    const plan = await importUnits(test_.db, read(list), LEAD, null);
    expect(plan).toMatchObject({ value: { rows: [{ action: 'new' }, { action: 'change' }], stored: 0 } });
    expect(await importUnits(test_.db, read(list), LEAD, v7())).toMatchObject({ value: { stored: 2 } });
    // The measured unit of the last line keeps its engine, and nothing of the list is taken.
    const bad = 'fleet_number,kind,depot,family\nPL-811,Crane,Quay Yard,L4-20\nPL-14,Tipper,Quay Yard,V8-61\n';
    expect(await importUnits(test_.db, read(bad), LEAD, v7())).toMatchObject({
      ok: false,
      error: { errors: [{ path: '/line 3/family' }] },
    });
    expect((await listUnits(test_.db)).some((u) => u.fleetNumber === 'PL-811')).toBe(false);
  });
  test('a look says all that taking it would be refused for, and leaves nothing', async () => {
    await measure('PL-23');
    const engines = new Map((await listUnits(test_.db)).map((u) => [u.fleetNumber, u.family]));
    const other = (unit: string) => (engines.get(unit) === 'L4-20' ? 'V8-61' : 'L4-20');
    const list = `fleet_number,kind,depot,family
PL-840,Crane,Quay Yard,L4-20
PL-14,Tipper,Quay Yard,${other('PL-14')}
PL-841,Crane,Quay Yard,L4-20
PL-23,Tipper,Quay Yard,${other('PL-23')}
`;
    const before = await listUnits(test_.db);
    const look = await importUnits(test_.db, read(list), LEAD, null);
    expect(look).toMatchObject({ error: { errors: [{ path: '/line 3/family' }, { path: '/line 5/family' }] } });
    expect(await importUnits(test_.db, read(list), LEAD, v7())).toEqual(look);
    const good = list.replace(/^PL-(14|23).*\n/gm, '');
    expect(await importUnits(test_.db, read(good), LEAD, null)).toMatchObject({
      value: { rows: [{ action: 'new' }, { action: 'new' }], stored: 0 },
    });
    expect(await listUnits(test_.db)).toEqual(before);
  });
  test('what is not used any more takes no unit in, new or moved; what stays there may stay in the list', async () => {
    const [gone] = await test_.db
      .insert(depotTable)
      .values({ id: v7(), name: 'Gone Yard', timeZone: 'UTC', retiredAt: new Date() })
      .returning();
    const list = 'fleet_number,kind,depot,family\nPL-850,Crane,Gone Yard,L4-20\nPL-810,Crane,Gone Yard,L4-20\n';
    expect(await importUnits(test_.db, read(list), LEAD, null)).toMatchObject({
      error: { errors: [{ path: '/line 2/depot' }, { path: '/line 3/depot' }] },
    });
    await test_.db
      .update(fleetUnit)
      .set({ depotId: gone?.id ?? '' })
      .where(eq(fleetUnit.fleetNumber, 'PL-810'));
    const whole = writeUnitsCsv((await listUnits(test_.db)).filter((u) => !u.retired));
    expect(await importUnits(test_.db, read(whole), LEAD, v7())).toMatchObject({ value: { stored: 0 } });
  });
  test('a lead of one depot leaves units of others alone, and may take in the whole list where they stay what they are', async () => {
    const of = workshopActor('Runa Teller');
    const whole = writeUnitsCsv((await listUnits(test_.db)).filter((u) => !u.retired));
    const add = (rows: string) => importUnits(test_.db, read(`${whole}${rows}\r\n`), of, v7());
    expect(await add('PL-830,Crane,Quay Yard,L4-20')).toMatchObject({ value: { stored: 1 } });
    expect(await add('PL-831,Crane,North Sluice,L4-20')).toMatchObject({
      error: { errors: [{ message: 'Units of North Sluice are not changed by a lead of another depot.' }] },
    });
    const own = read('fleet_number,kind,depot,family\nPL-830,Crane,North Sluice,L4-20\n');
    expect(await importUnits(test_.db, own, of, null)).toMatchObject({
      error: {
        errors: [
          {
            path: '/line 2/depot',
            message: 'Units of Quay Yard and North Sluice are not changed by a lead of another depot.',
          },
        ],
      },
    });
  });
  test('what is wrong is named at its line', async () => {
    const list =
      'fleet_number,kind,depot,family\nPL-820,Crane,Nowhere,L4-20\nPL-821,Crane,Quay Yard,none\nPL-82 0,x,Quay Yard,L4-20\n';
    expect(await importUnits(test_.db, read(list), LEAD, null)).toMatchObject({
      error: { errors: [{ path: '/line 2/depot' }, { path: '/line 3/family' }, { path: '/line 4/fleet_number' }] },
    });
    expect(readUnitsCsv('fleet_number,kind,depo,family\na,b,c,d\n')).toMatchObject({ ok: false });
    expect(readUnitsCsv('fleet_number,kind,depot,family\na,,c,d\n')).toMatchObject({
      ok: false,
      error: [{ path: '/line 2/kind' }],
    });
  });
});

test('facts of a job are neither changed nor emptied, whoever asks the database', async () => {
  for (const table of ['reading', 'job_event', 'finding', 'photo_content'])
    await expect(test_.db.execute(sql.raw(`truncate ${table} cascade`))).rejects.toThrow();
  expect(await test_.db.select().from(fleetUnit).limit(1)).toHaveLength(1);
});
