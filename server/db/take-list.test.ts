import { sql } from 'drizzle-orm';
import { ok } from '../../core/foundation/result';
import { EMPTY, makeTestDatabase, type TestDatabase } from '../testing/database';
import { refuse } from './refusal';
import { takeList } from './take-list';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase(EMPTY);
  await test_.db.execute(sql`create table taken (n int primary key)`);
});
afterEach(() => test_.db.execute(sql`delete from taken`));
afterAll(() => test_.drop());

interface Row {
  readonly entry: { readonly line: number };
  readonly action: 'new' | 'change' | 'unchanged';
}
const row = (line: number, action: Row['action'] = 'new'): Row => ({ entry: { line }, action });
const stored = async () =>
  (await test_.db.execute<{ n: number }>(sql`select n from taken order by n`)).rows.map((r) => r.n);

/** Takes rows by writing their line; refuses those of `bad`, and writes a line of `twice` over again. */
const takeLines = (
  rows: readonly Row[],
  { bad = [], twice = [], onlyLook = false }: { bad?: number[]; twice?: number[]; onlyLook?: boolean } = {},
) =>
  takeList(test_.db, {
    rows,
    plan: rows.map((r) => ({ line: r.entry.line, action: r.action })),
    take: async (tx, { entry: { line } }) => {
      if (bad.includes(line)) return refuse('Not this one.', [{ path: '/unitId', message: `${line} is bad.` }], 409);
      await tx.execute(sql`insert into taken values (${line})`);
      if (twice.includes(line)) await tx.execute(sql`insert into taken values (${line})`);
      return ok({ id: String(line), duplicate: false });
    },
    columnOf: (path) => (path === '/unitId' ? '/unit' : path),
    onlyLook,
  });

test('what is new or changed is taken, and counted', async () => {
  const done = await takeLines([row(2), row(3, 'unchanged'), row(4, 'change')]);
  expect(done).toMatchObject({ value: { stored: 2, rows: [{ line: 2 }, { line: 3 }, { line: 4 }] } });
  expect(await stored()).toEqual([2, 4]);
});

test('a look does it and leaves nothing', async () => {
  expect(await takeLines([row(2), row(3)], { onlyLook: true })).toMatchObject({ value: { stored: 0 } });
  expect(await stored()).toEqual([]);
});

test.each([true, false])(
  'all that is refused is told by line and column, in the order of the list; look: %p',
  async (onlyLook) => {
    // Taken from the last to the first.
    expect(await takeLines([row(5), row(4), row(3), row(2)], { bad: [3, 5], onlyLook })).toMatchObject({
      ok: false,
      error: {
        status: 409,
        title: 'This list cannot be taken.',
        errors: [
          { path: '/line 3/unit', message: '3 is bad.' },
          { path: '/line 5/unit', message: '5 is bad.' },
        ],
      },
    });
    expect(await stored()).toEqual([]);
  },
);

test('a failure of the database is no refusal: it is thrown, and nothing stays', async () => {
  await expect(takeLines([row(2), row(3)], { twice: [3] })).rejects.toThrow();
  await expect(takeLines([row(2), row(3), row(4)], { bad: [2], twice: [3] })).rejects.toThrow();
  expect(await stored()).toEqual([]);
});

test('where the database ended the transaction with a refusal, what was refused by then is told', async () => {
  const done = await takeList(test_.db, {
    rows: [row(2), row(3), row(4)],
    plan: [],
    take: async (tx, { entry: { line } }) => {
      try {
        await tx.execute(sql`insert into taken values (7)`);
      } catch {
        if (line === 3) return refuse('It is there already.', [{ path: '/unitId', message: 'There is one already.' }]);
        await tx.execute(sql`select 1`);
      }
      return ok({ id: String(line), duplicate: false });
    },
    columnOf: () => '/unit',
    onlyLook: false,
  });
  expect(done).toMatchObject({ error: { errors: [{ path: '/line 3/unit' }] } });
  expect(await stored()).toEqual([]);
});
