import { sql } from 'drizzle-orm';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { again } from './again';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase();
  await test_.db.execute(sql`create table pair (name text primary key, n int not null)`);
  await test_.db.execute(sql`insert into pair values ('a', 0), ('b', 0)`);
});
afterAll(() => test_.drop());

test('two transactions that wait for each other are both done, each once', async () => {
  let meet: () => void = () => undefined;
  let there = 0;
  const met = new Promise<void>((resolve) => (meet = resolve));
  const add = (first: string, second: string) =>
    test_.db.transaction(async (tx) => {
      await tx.execute(sql`update pair set n = n + 1 where name = ${first}`);
      // The first time each waits until the other one holds its row.
      if ((there += 1) === 2) meet();
      await met;
      await tx.execute(sql`update pair set n = n + 1 where name = ${second}`);
    });
  await Promise.all([add('a', 'b'), add('b', 'a')]);
  expect(there).toBe(3);
  const { rows } = await test_.db.execute(sql`select name, n from pair order by name`);
  expect(rows).toEqual([
    { name: 'a', n: 2 },
    { name: 'b', n: 2 },
  ]);
});

test('another failure is told at once, and one that comes again and again is told in the end', async () => {
  const fails = (code: string) => jest.fn(() => Promise.reject(Object.assign(new Error(code), { code })));
  const [unique, deadlock] = [fails('23505'), fails('40P01')];
  await expect(again(unique)).rejects.toThrow('23505');
  await expect(again(deadlock)).rejects.toThrow('40P01');
  expect([unique.mock.calls.length, deadlock.mock.calls.length]).toEqual([1, 3]);
});
