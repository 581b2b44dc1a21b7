import { eq } from 'drizzle-orm';
import { v7 } from 'uuid';
import { readPeopleCsv, writePeopleCsv } from '../../formats/people-csv';
import { account } from '../db/schema';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { workshopActor, workshopId } from '../testing/workshop';
import { listPersons } from './people';
import { importPeople } from './people-list';
import { checkPin } from './pin';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase();
});
afterAll(() => test_.drop());

const LEAD = workshopActor('Odile Brandt');
const OF_QUAY = workshopActor('Runa Teller');
const HEAD = 'name,role,depot,signs_in,pin\n';
const read = (text: string) => {
  const list = readPeopleCsv(text);
  if (!list.ok) throw new Error(JSON.stringify(list.error));
  return list.value;
};
const take = (rows: string, batch: string | null = v7(), actor = LEAD) =>
  importPeople(test_.db, read(HEAD + rows), actor, batch);
const written = async () => writePeopleCsv((await listPersons(test_.db)).map((p) => ({ ...p, signsIn: !p.retired })));
const named = async (name: string) => (await listPersons(test_.db)).find((p) => p.name === name);
const paths = (done: Awaited<ReturnType<typeof take>>) =>
  done.ok ? [] : done.error.errors.map((e) => `${e.path} ${e.message}`);
const keptPin = async (id: string) =>
  (await test_.db.select().from(account).where(eq(account.userId, id)))[0]?.password ?? '';

describe('a list of people', () => {
  test('comes out without any PIN, and changes nothing when it is taken in again', async () => {
    const list = await written();
    expect(list).not.toMatch(/argon|604913/);
    expect(list).toContain('Ines Varga,technician,all depots,yes,\r\n');
    const plan = await importPeople(test_.db, read(list), LEAD, v7());
    expect(plan).toMatchObject({ ok: true, value: { stored: 0 } });
  });

  test('who is new can sign in with the PIN of the list; who is there is changed and keeps theirs', async () => {
    const jory = workshopId('person', 'Jory Thane');
    const before = await keptPin(jory);
    const rows = 'Wim Reed,Technician,quay yard,,902417\njory  thane,viewer,North Sluice,no,\n';
    expect(await take(rows, null)).toMatchObject({
      value: { rows: [{ action: 'new' }, { action: 'change', signsIn: false }], stored: 0 },
    });
    expect(await named('Wim Reed')).toBeUndefined();
    const batch = v7();
    expect(await take(rows, batch)).toMatchObject({ value: { stored: 2 } });
    const wim = await named('Wim Reed');
    expect(wim).toMatchObject({ role: 'technician', depot: 'Quay Yard', retired: false });
    expect(await checkPin(await keptPin(wim?.id ?? ''), '902417')).toBe(true);
    expect(await named('Jory Thane')).toMatchObject({ role: 'viewer', retired: true });
    expect(await keptPin(jory)).toBe(before);
    // The answer was lost and the same list comes again.
    expect(await take(rows, batch)).toMatchObject({ value: { stored: 0 } });
    expect((await listPersons(test_.db)).filter((p) => p.name === 'Wim Reed')).toHaveLength(1);
  });

  test('a PIN of somebody who is there is neither tried nor changed', async () => {
    for (const pin of ['604913', '604914'])
      expect(paths(await take(`Tobin Marsh,technician,Quay Yard,yes,${pin}\n`, null))).toEqual([
        '/line 2/pin Tobin Marsh is here already and keeps the PIN: leave it empty here, or change it by itself.',
      ]);
  });

  test('whoever cannot be added is named at the line, and nobody of the list is', async () => {
    const done = await take(
      'Good One,viewer,Quay Yard,,902417\nNo Pin,viewer,Quay Yard,,\nWeak Pin,viewer,Quay Yard,,123456\n' +
        'Short,viewer,Quay Yard,,90241\nGone,viewer,Quay Yard,no,902417\nLost,viewer,Nowhere,,902417\n' +
        'X,viewer,Quay Yard,,902417\ngood  one,viewer,Quay Yard,,902417\n',
    );
    expect(paths(done).map((p) => p.split(' ').slice(0, 2).join(' '))).toEqual([
      '/line 3/pin',
      '/line 4/pin',
      '/line 5/pin',
      '/line 6/signs_in',
      '/line 7/depot',
      '/line 8/name',
      '/line 9/name',
    ]);
    expect(await named('Good One')).toBeUndefined();
  });

  test('more than a hundred new ones are taken in parts', async () => {
    const rows = Array.from({ length: 101 }, (_, i) => `Hand ${i},viewer,Quay Yard,,902417\n`);
    expect(paths(await take(rows.join(''), null))).toEqual([
      ' 101 people are new: take the list in parts of 100 at most.',
    ]);
    expect(await take(rows.slice(1).join(''), null)).toMatchObject({ value: { stored: 0 } });
  });

  test('the last lead of all depots stays, unless the list brings another one', async () => {
    const gone = 'Odile Brandt,technician,Quay Yard,yes,\n';
    for (const batch of [null, v7()])
      expect(paths(await take(`Third One,viewer,Quay Yard,,902417\n${gone}`, batch))).toEqual([
        '/line 3/role Odile Brandt is the only lead of all depots: make another one first.',
      ]);
    expect(await named('Third One')).toBeUndefined();
    expect(await take(`${gone}New Lead,lead,All depots,,902417\n`)).toMatchObject({ value: { stored: 2 } });
    expect(await take('Odile Brandt,lead,all depots,,\n')).toMatchObject({ value: { stored: 1 } });
  });

  test('a lead of one depot neither takes people of others nor makes any for them', async () => {
    const whole = await written();
    const add = (row: string) => importPeople(test_.db, read(`${whole}${row}\r\n`), OF_QUAY, v7());
    expect(await add('Own Hand,technician,Quay Yard,yes,902417')).toMatchObject({ value: { stored: 1 } });
    for (const row of ['Other Hand,technician,North Sluice,yes,902417', 'Other Hand,lead,all depots,yes,902417'])
      expect(await add(row)).toMatchObject({ ok: false, error: { status: 403 } });
    for (const row of ['Jory Thane,lead,North Sluice,yes,', 'Ines Varga,technician,Quay Yard,yes,'])
      expect(await take(`${row}\n`, v7(), OF_QUAY)).toMatchObject({
        error: { status: 403, errors: [{ path: '/line 2/depot' }] },
      });
  });
});
