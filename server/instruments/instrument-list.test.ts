import { v7 } from 'uuid';
import { readInstrumentsCsv, writeInstrumentsCsv } from '../../formats/instruments-csv';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { workshopActor, workshopId } from '../testing/workshop';
import { importInstruments, listInstruments } from './instrument-list';
import { addInstrument, retireInstrument, viewInstruments } from './instruments';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase();
});
afterAll(() => test_.drop());

const BY = 'Odile Brandt';
const QUAY = workshopId('depot', 'Quay Yard');
const LEAD = workshopActor(BY);
const link = { kind: 'network', host: '127.0.0.1', port: 5025 } as const;
const read = (text: string) => {
  const list = readInstrumentsCsv(text);
  if (!list.ok) throw new Error(JSON.stringify(list.error));
  return list.value;
};
const HEAD = 'depot,name,kind,quantity,up_to,percent_of_reading,counts,resolution\n';
const inUse = async (name: string) => (await listInstruments(test_.db)).find((i) => i.name === name);

describe('a list of instruments', () => {
  const id = v7();
  beforeAll(async () => {
    await addInstrument(test_.db, {
      id,
      by: BY,
      depotId: QUAY,
      name: 'List meter',
      link,
      instrument: { kind: 'multimeter', clamp_mVperA: 10 },
    });
    const retired = v7();
    await addInstrument(test_.db, {
      id: retired,
      by: BY,
      depotId: QUAY,
      name: 'Gone',
      instrument: { kind: 'multimeter' },
    });
    await retireInstrument(test_.db, retired);
  });

  test('what is in use comes out, and changes nothing when it is taken in again', async () => {
    const all = await listInstruments(test_.db);
    expect(all.map((i) => i.name)).toContain('List meter');
    expect(all.map((i) => i.name)).not.toContain('Gone');
    const plan = await importInstruments(test_.db, read(writeInstrumentsCsv(all)), LEAD, v7());
    expect(plan).toMatchObject({ ok: true, value: { stored: 0 } });
    expect(plan.ok && plan.value.rows.every((r) => r.action === 'unchanged')).toBe(true);
  });

  test('new ones are added, one that is there is changed and keeps how it is reached; a repeat does nothing', async () => {
    const list = `${HEAD}quay yard,List meter,multimeter,resistance,600,0.8,3,0.1\nQuay Yard,New meter,multimeter,,,,,\n`;
    expect(await importInstruments(test_.db, read(list), LEAD, null)).toMatchObject({
      value: { rows: [{ action: 'change' }, { action: 'new' }], stored: 0 },
    });
    expect(await inUse('New meter')).toBeUndefined();
    const batch = v7();
    expect(await importInstruments(test_.db, read(list), LEAD, batch)).toMatchObject({ value: { stored: 2 } });
    expect(await inUse('List meter')).toMatchObject({ link, clamp_mVperA: null, accuracy: [{ upTo: 600 }] });
    expect((await inUse('List meter'))?.id).not.toBe(id);
    expect(await importInstruments(test_.db, read(list), LEAD, batch)).toMatchObject({ value: { stored: 0 } });
    const shown = (await viewInstruments(test_.db)).find((d) => d.id === QUAY)?.instruments ?? [];
    expect(shown.filter((i) => i.name === 'List meter')).toHaveLength(1);
  });

  test('of several who add the same name at once one is done, the others are told', async () => {
    const add = (name: string) =>
      addInstrument(test_.db, { id: v7(), by: BY, depotId: QUAY, name, instrument: { kind: 'multimeter' } });
    // The first ones wait for their connections, and so for each other.
    for (let round = 0; round < 8; round++) {
      const done = await Promise.all(Array.from({ length: 4 }, () => add(`At once ${round}`)));
      expect(done.map((d) => (d.ok ? 0 : d.error.status)).toSorted()).toEqual([0, 409, 409, 409]);
    }
  });

  test('one wrong line and nothing of the list is taken; a lead of one depot leaves those of others alone', async () => {
    const list = `${HEAD}Quay Yard,Third meter,multimeter,,,,,\nNowhere,Fourth,multimeter,,,,,\n`;
    expect(await importInstruments(test_.db, read(list), LEAD, v7())).toMatchObject({
      ok: false,
      error: { errors: [{ path: '/line 3/depot' }] },
    });
    expect(await inUse('Third meter')).toBeUndefined();
    const elsewhere = { ...LEAD, depotId: v7() };
    expect(
      await importInstruments(test_.db, read(`${HEAD}Quay Yard,Third meter,multimeter,,,,,\n`), elsewhere, v7()),
    ).toMatchObject({ ok: false, error: { errors: [{ path: '/line 2/depot' }] } });
  });
});
