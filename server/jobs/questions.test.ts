import { sql } from 'drizzle-orm';
import { type Db, eachOf, together, within } from '../db/connection';
import { EMPTY, makeTestDatabase, type TestDatabase } from '../testing/database';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase(EMPTY);
});
afterAll(() => test_.drop());

/** Asks for its number after a pause, the first ones longest; notes how many are on their way at once. */
function asking() {
  let [now, most] = [0, 0];
  const ask = async (db: Db, n: number): Promise<number> => {
    now += 1;
    most = Math.max(most, now);
    const { rows } = await db.execute<{ n: number }>(sql`select ${n}::int as n, pg_sleep(${0.05 / n})`);
    now -= 1;
    return rows[0]?.n ?? NaN;
  };
  return { ask, most: () => most };
}
const NUMBERS = [1, 2, 3, 4];

test('on the pool questions are asked beside each other, and answered in their order', async () => {
  const { ask, most } = asking();
  expect(await eachOf(test_.db, NUMBERS, (n) => ask(test_.db, n))).toEqual(NUMBERS);
  expect(most()).toBe(NUMBERS.length);
});

test('in a transaction one waits for the other, and they are answered in their order too', async () => {
  const { ask, most } = asking();
  await test_.db.transaction(async (tx) => {
    const db = within(tx);
    expect(await eachOf(db, NUMBERS, (n) => ask(db, n))).toEqual(NUMBERS);
    expect(
      await together(
        db,
        () => ask(db, 7),
        async () => `${await ask(db, 8)}`,
      ),
    ).toEqual([7, '8']);
  });
  expect(most()).toBe(1);
});

test('what one of them cannot answer fails all of them', async () => {
  const broken = () => test_.db.execute(sql`select 1 / 0`);
  await expect(together(test_.db, () => Promise.resolve(1), broken)).rejects.toThrow();
  await expect(
    test_.db.transaction((tx) => together(within(tx), () => within(tx).execute(sql`select 1 / 0`))),
  ).rejects.toThrow();
});
