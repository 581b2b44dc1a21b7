import sharp from 'sharp';
import { v7 } from 'uuid';
import { describeCode } from '../evidence/codes';
import { addPerson, changePerson, listPersons } from './people';
import { addPhoto, photoBytes, photosOf, plainName } from '../evidence/photos';
import { checkPin, hashPin, weakPin } from './pin';
import { workshopId } from '../testing/workshop';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { openJob, startRun } from '../jobs/open-job';
import { displayPhotosOf } from '../readings/display-photos';
import { recordReadings } from '../readings/record-reading';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase();
});
afterAll(() => test_.drop());

const QUAY = workshopId('depot', 'Quay Yard');
const NORTH = workshopId('depot', 'North Sluice');
const person = (name: string, more = {}) => ({
  id: v7(),
  name,
  role: 'technician' as const,
  depotId: QUAY,
  pin: '902417',
  ...more,
});

describe('PINs', () => {
  test('are kept as argon2id, each with a salt of its own, and found again', async () => {
    const [a, b] = await Promise.all([hashPin('902417'), hashPin('902417')]);
    expect(a).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
    expect(a).not.toBe(b);
    expect([await checkPin(a, '902417'), await checkPin(a, '902418'), await checkPin('no hash', '902417')]).toEqual([
      true,
      false,
      false,
    ]);
  });
  test.each(['111111', '123456', '987654', '456789', '000000', '121212', '123123', '474747', '117111', '12341234'])(
    '%s is too easy',
    (pin) => expect(weakPin(pin)).not.toBeNull(),
  );
  test.each(['902417', 'heron on a post', '112233'])('%s will do', (pin) => expect(weakPin(pin)).toBeNull());
});

describe('people', () => {
  test('a name once, whatever its case and blanks', async () => {
    expect(await addPerson(test_.db, person('Wim Reed'))).toMatchObject({ ok: true, value: { duplicate: false } });
    expect(await addPerson(test_.db, person('  wim   reed '))).toMatchObject({
      ok: false,
      error: { status: 409, errors: [{ path: '/name' }] },
    });
    expect(await addPerson(test_.db, person('Other', { pin: '123456' }))).toMatchObject({
      ok: false,
      error: { errors: [{ path: '/pin' }] },
    });
    expect(await addPerson(test_.db, person('Other', { depotId: v7() }))).toMatchObject({
      ok: false,
      error: { status: 404 },
    });
  });
  test('a lead of one depot changes people of that depot only', async () => {
    const own = { depotId: QUAY };
    expect(await addPerson(test_.db, person('Foreign', { depotId: NORTH }), own)).toMatchObject({
      ok: false,
      error: { status: 403 },
    });
    expect(await addPerson(test_.db, person('Everywhere', { depotId: null }), own)).toMatchObject({
      ok: false,
      error: { status: 403 },
    });
    expect(
      await changePerson(test_.db, workshopId('person', 'Odile Brandt'), { by: 'Runa Teller', pin: '902417' }, own),
    ).toMatchObject({
      ok: false,
      error: { status: 403, errors: [{ message: expect.stringContaining('Odile Brandt may') as string }] },
    });
    expect(
      await changePerson(test_.db, workshopId('person', 'Tobin Marsh'), { by: 'Runa Teller', depotId: NORTH }, own),
    ).toMatchObject({ ok: false, error: { status: 403 } });
  });
  test('the last lead of all depots stays', async () => {
    const id = workshopId('person', 'Odile Brandt');
    for (const change of [{ role: 'viewer' as const }, { retired: true }, { depotId: QUAY }]) {
      expect(await changePerson(test_.db, id, { by: 'x', ...change })).toMatchObject({
        ok: false,
        error: { status: 409 },
      });
    }
    const second = person('Hella Dunn', { role: 'lead', depotId: null });
    await addPerson(test_.db, second);
    expect(await changePerson(test_.db, id, { by: 'x', retired: true })).toMatchObject({ ok: true });
    expect((await listPersons(test_.db)).find((p) => p.id === id)?.retired).toBe(true);
    await changePerson(test_.db, id, { by: 'x', retired: false });
    await changePerson(test_.db, second.id, { by: 'x', retired: true });
  });
});

describe('photos', () => {
  const png = (width = 40, height = 30) =>
    sharp({ create: { width, height, channels: 3, background: '#0e5863' } })
      .png()
      .toBuffer();
  async function newJob(): Promise<string> {
    const id = v7();
    await openJob(test_.db, { id, unitId: workshopId('unit', 'PL-14'), complaint: 'x', by: 'Ines Varga' });
    return id;
  }
  const add = (job: string, bytes: Buffer, more = {}) =>
    addPhoto(test_.db, job, { id: v7(), name: 'plug.png', by: 'Ines Varga', bytes, ...more });

  test('are drawn anew as JPEG, small enough, without what else the file carried', async () => {
    const job = await newJob();
    const id = v7();
    const big = await sharp({ create: { width: 3000, height: 1000, channels: 3, background: '#fff' } })
      .withExif({ IFD0: { Copyright: 'secret place' } })
      .jpeg()
      .toBuffer();
    expect(big.includes('secret place')).toBe(true);
    expect(await add(job, big, { id })).toMatchObject({ ok: true, value: { duplicate: false } });
    expect(await add(job, big, { id })).toMatchObject({ ok: true, value: { duplicate: true } });
    const stored = await photoBytes(test_.db, id, false);
    expect([stored?.subarray(0, 3).toString('hex'), stored?.includes('secret place')]).toEqual(['ffd8ff', false]);
    expect(await photosOf(test_.db, job)).toMatchObject([{ width: 2000, height: 667, name: 'plug.png' }]);
    expect((await photoBytes(test_.db, id, true))?.length).toBeLessThan(20_000);
  });
  test.each<[string, () => Promise<Buffer> | Buffer]>([
    ['nothing', () => Buffer.alloc(0)],
    ['text', () => Buffer.from('<script>alert(1)</script>')],
    [
      'a drawing that can hold scripts',
      () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>'),
    ],
    ['a picture cut off', async () => (await png(400, 400)).subarray(0, 200)],
    [
      'a web page with the head of a picture',
      () => Buffer.concat([Buffer.from('ffd8ffe0', 'hex'), Buffer.from('<html>')]),
    ],
  ])('%s is no photo', async (_, bytes) =>
    expect(await add(await newJob(), await bytes())).toMatchObject({ ok: false, error: { status: 415 } }),
  );
  test('at most sixty in a job', async () => {
    const job = await newJob();
    const bytes = await png();
    for (let i = 0; i < 60; i++) expect((await add(job, bytes)).ok).toBe(true);
    expect(await add(job, bytes)).toMatchObject({
      ok: false,
      error: { errors: [{ message: expect.stringContaining('60') as string }] },
    });
  });
  test('one of a display names its reading, which must be of this job', async () => {
    const job = await newJob();
    const [run, reading] = [v7(), v7()];
    await startRun(test_.db, { id: run, jobId: job, test: 'glow-plug-resistance', by: 'Ines Varga' });
    const takenAt = new Date().toISOString();
    const read = await recordReadings(test_.db, run, [
      { id: reading, by: 'Ines Varga', position: 1, entry: '0.6', takenAt },
    ]);
    expect(read).toMatchObject({ ok: true });
    const id = v7();
    expect(await add(job, await png(), { id, reading })).toMatchObject({ ok: true, value: { duplicate: false } });
    expect(await add(job, await png(), { id, reading })).toMatchObject({ ok: true, value: { duplicate: true } });
    expect(await add(job, await png(), { id })).toMatchObject({ ok: false, error: { status: 409 } });
    expect(await displayPhotosOf(test_.db, run)).toEqual([{ id, readingId: reading, name: 'plug.png' }]);
    for (const [where, wrong] of [
      [await newJob(), reading],
      [job, v7()],
      [job, 'x'],
    ] as const)
      expect(await add(where, await png(), { reading: wrong })).toMatchObject({
        ok: false,
        error: { errors: [{ path: '/reading' }] },
      });
  });
  test('another job’s id is taken; no job, no photo', async () => {
    const id = v7();
    await add(await newJob(), await png(), { id });
    expect(await add(await newJob(), await png(), { id })).toMatchObject({ ok: false, error: { status: 409 } });
    expect(await add(v7(), await png())).toMatchObject({ ok: false, error: { status: 404 } });
    expect(await add(await newJob(), await png(), { id: 'x' })).toMatchObject({
      ok: false,
      error: { errors: [{ path: '/id' }] },
    });
  });
  test.each([
    ['../../etc/passwd', 'passwd'],
    ['C:\\yard\\plug.jpg', 'plug.jpg'],
    ['<img src=x onerror=alert(1)>.jpg', 'img src=x onerror=alert(1).jpg'],
    ['a\u202Egpj.exe', 'agpj.exe'],
    ['', 'photo'],
    ['x'.repeat(300), 'x'.repeat(100)],
  ])('a file called %j is labelled %j', (name, label) => expect(plainName(name)).toBe(label));
});

test('codes of the standards keep their meaning; makers’ codes are described per depot, and the description can go again', async () => {
  const describeIt = (code: string, text: string) => describeCode(test_.db, QUAY, { id: v7(), by: 'x', code, text });
  expect(await describeIt('P0672', 'x')).toMatchObject({
    ok: false,
    error: { errors: [{ path: '/code', message: expect.stringContaining('SAE J2012') as string }] },
  });
  expect(await describeIt('florp', 'x')).toMatchObject({ ok: false, error: { errors: [{ path: '/code' }] } });
  expect(await describeIt('p1234', 'Cover switch')).toMatchObject({ ok: true });
  expect(await describeIt('P1234', '')).toMatchObject({ ok: true });
});
