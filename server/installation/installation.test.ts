import { v7 } from 'uuid';
import { listDepots } from '../fleet/depots';
import { addPerson, listPersons } from '../people/people';
import { type Content, EMPTY, makeTestDatabase, type TestDatabase } from '../testing/database';
import { workshopId } from '../testing/workshop';
import {
  claimDatabase,
  firstSteps,
  isSetUpCode,
  newSetUpCode,
  otherKind,
  readInstallation,
  setUp,
} from './installation';
import { logoType } from './logo';

const databases: TestDatabase[] = [];
async function database(content?: Content): Promise<TestDatabase['db']> {
  const made = await makeTestDatabase(content);
  databases.push(made);
  return made.db;
}
afterAll(() => Promise.all(databases.map((d) => d.drop())));

/** As the demo's are named to it: here those of the workshop. */
const DEMO = ['North Sluice', 'Quay Yard'].map((name) => workshopId('depot', name));
const BODY = {
  code: '',
  workshop: 'Levels workshop',
  lead: { name: 'Ada Wick', password: 'heron on a post' },
  depots: [{ name: 'The yard', timeZone: 'Etc/UTC', currency: 'EUR', address: 'The old lock\n' }],
};

describe('whose a database is', () => {
  test('an empty one becomes what is asked first, and stays that', async () => {
    const db = await database(EMPTY);
    expect(await claimDatabase(db, 'own', DEMO)).toEqual({ ok: true, value: 'new' });
    expect(await claimDatabase(db, 'own', DEMO)).toEqual({ ok: true, value: 'known' });
    expect((await claimDatabase(db, 'demo', DEMO)).ok).toBe(false);
    expect(await otherKind(db, 'demo')).toContain('a workshop’s own data');
    expect(await otherKind(db, 'own')).toBeNull();
  });
  test('a demo of before is known by its depots; own data of before never become a demo', async () => {
    const demo = await database();
    expect((await claimDatabase(demo, 'own', DEMO)).ok).toBe(false);
    expect((await claimDatabase(demo, 'demo', DEMO)).ok).toBe(true);
    const own = await database(EMPTY);
    await addPerson(own, { id: v7(), name: 'Ada Wick', role: 'lead', depotId: null, pin: '902417' });
    expect((await claimDatabase(own, 'demo', DEMO)).ok).toBe(false);
    expect((await claimDatabase(own, 'own', DEMO)).ok).toBe(true);
  });
});

describe('set-up', () => {
  test('the newest code opens it, once; then nobody has a code any more', async () => {
    const db = await database(EMPTY);
    await claimDatabase(db, 'own', DEMO);
    const first = (await newSetUpCode(db)) ?? '';
    const code = (await newSetUpCode(db)) ?? '';
    expect(code).toMatch(/^[A-Z2-9]{5}-[A-Z2-9]{5}$/);
    expect(await isSetUpCode(db, first)).toBe(false);
    expect(await isSetUpCode(db, code.toLowerCase().replace('-', ' '))).toBe(true);
    expect(await firstSteps(db)).toEqual({
      families: false,
      units: false,
      instruments: false,
      limits: false,
      people: false,
    });

    expect(await setUp(db, BODY)).toEqual({ ok: true, value: { name: 'Ada Wick' } });
    expect(await readInstallation(db)).toEqual({ kind: 'own', name: 'Levels workshop', hasLogo: false, locale: null });
    expect(await listDepots(db)).toMatchObject([{ name: 'The yard', currency: 'EUR' }]);
    expect(await listPersons(db)).toMatchObject([{ name: 'Ada Wick', role: 'lead', depot: null }]);
    expect(await newSetUpCode(db)).toBeNull();
    expect(await isSetUpCode(db, code)).toBe(false);
    expect(await setUp(db, BODY)).toMatchObject({ ok: false, error: { status: 409 } });
  });
  test('what is wrong is said at its field, and nothing of it is kept', async () => {
    const db = await database(EMPTY);
    await claimDatabase(db, 'own', DEMO);
    const paths = async (more: object) => {
      const done = await setUp(db, { ...BODY, ...more });
      return done.ok ? [] : done.error.errors.map((e) => e.path);
    };
    const [yard] = BODY.depots;
    expect(
      await paths({
        depots: [
          { ...yard, timeZone: 'Nowhere/None' },
          { ...yard, name: 'THE YARD' },
        ],
      }),
    ).toEqual(['/depots/0/timeZone', '/depots/1/name']);
    expect(await paths({ lead: { name: 'Ada Wick', password: '1212121212' } })).toEqual(['/lead/password']);
    expect(await listDepots(db)).toEqual([]);
  });
});

test('a logo is a PNG or a JPEG by its bytes', () => {
  expect(logoType(Buffer.from('89504e470d0a1a0a00', 'hex'))).toBe('image/png');
  expect(logoType(Buffer.from('ffd8ffe0', 'hex'))).toBe('image/jpeg');
  for (const bytes of ['', '<svg/>', '\x89PNG']) expect(logoType(Buffer.from(bytes, 'latin1'))).toBeNull();
});
