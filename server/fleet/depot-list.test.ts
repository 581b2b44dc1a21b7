import { v7 } from 'uuid';
import { readDepotsCsv, writeDepotsCsv } from '../../formats/depots-csv';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { workshopActor } from '../testing/workshop';
import { importDepots } from './depot-list';
import { listDepots } from './depots';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase();
});
afterAll(() => test_.drop());

const LEAD = workshopActor('Odile Brandt');
const OF_QUAY = workshopActor('Runa Teller');
const HEAD = 'name,time_zone,currency,in_use\n';
const read = (text: string) => {
  const list = readDepotsCsv(text);
  if (!list.ok) throw new Error(JSON.stringify(list.error));
  return list.value;
};
const written = async () => writeDepotsCsv((await listDepots(test_.db)).map((d) => ({ ...d, inUse: !d.retired })));
const named = async (name: string) => (await listDepots(test_.db)).find((d) => d.name === name);

describe('a list of depots', () => {
  test('what is there comes out, and changes nothing when it is taken in again', async () => {
    const plan = await importDepots(test_.db, read(await written()), LEAD, v7());
    expect(plan).toMatchObject({ ok: true, value: { stored: 0 } });
    expect(plan.ok && plan.value.rows.map((r) => [r.name, r.action])).toEqual([
      ['North Sluice', 'unchanged'],
      ['Quay Yard', 'unchanged'],
    ]);
  });

  test('new ones are added, one that is there is changed; a look does neither, a repeat nothing more', async () => {
    const list = `${HEAD}East Basin,Etc/UTC,usd,\nquay yard,Etc/GMT+3,,yes\n`;
    expect(await importDepots(test_.db, read(list), LEAD, null)).toMatchObject({
      value: { rows: [{ action: 'new' }, { action: 'change' }], stored: 0 },
    });
    expect(await named('East Basin')).toBeUndefined();
    const before = await named('Quay Yard');
    const batch = v7();
    expect(await importDepots(test_.db, read(list), LEAD, batch)).toMatchObject({ value: { stored: 2 } });
    expect(await named('East Basin')).toMatchObject({ timeZone: 'Etc/UTC', currency: 'USD', retired: false });
    // What the list does not say stays.
    expect(await named('Quay Yard')).toEqual({ ...before, timeZone: 'Etc/GMT+3' });
    expect(await importDepots(test_.db, read(list), LEAD, batch)).toMatchObject({ value: { stored: 0 } });
    expect(await listDepots(test_.db)).toHaveLength(3);
  });

  test('one wrong line and nothing of the list is taken; each is named', async () => {
    const list = `${HEAD}West Basin,Etc/UTC,,\nOld Basin,Etc/UTC,,no\nNew Basin,Nowhere/None,,\nwest  basin,Etc/UTC,,\n`;
    expect(await importDepots(test_.db, read(list), LEAD, v7())).toMatchObject({
      error: { errors: [{ path: '/line 3/in_use' }, { path: '/line 4/time_zone' }, { path: '/line 5/name' }] },
    });
    // Units stand there: only the database knows, and a look says so too.
    const used = `${HEAD}West Basin,Etc/UTC,,\nQuay Yard,Etc/UTC,,no\n`;
    for (const batch of [null, v7()])
      expect(await importDepots(test_.db, read(used), LEAD, batch)).toMatchObject({
        error: { status: 409, errors: [{ path: '/line 3/in_use' }] },
      });
    expect(await named('West Basin')).toBeUndefined();
  });

  test('a lead of one depot leaves the others as they are', async () => {
    const change = `${HEAD}North Sluice,Etc/UTC,GBP,\n`;
    expect(await importDepots(test_.db, read(change), OF_QUAY, v7())).toMatchObject({
      error: { errors: [{ path: '/line 2/name', message: expect.stringContaining('a lead of that depot') as string }] },
    });
    expect(await importDepots(test_.db, read(await written()), OF_QUAY, v7())).toMatchObject({ value: { stored: 0 } });
  });
});
