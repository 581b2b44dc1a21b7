import fc from 'fast-check';
import { eq, sql } from 'drizzle-orm';
import { v7 } from 'uuid';
import type pg from 'pg';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { workshopId } from '../testing/workshop';
import { depot, fleetUnit } from './schema';
import { FrequentStatements } from './frequent';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase();
});
afterAll(() => test_.drop());

/** One connection of its own, on which what is frequent is prepared. */
async function onOneConnection<T>(work: (client: pg.PoolClient) => Promise<T>): Promise<T> {
  const client = await test_.pool.connect();
  try {
    return await work(client);
  } finally {
    client.release(true);
  }
}

const preparedOn = async (client: pg.ClientBase): Promise<readonly string[]> =>
  (await client.query<{ statement: string }>('select statement from pg_prepared_statements')).rows.map(
    (r) => r.statement,
  );

const often = async (ask: (i: number) => Promise<unknown>): Promise<void> => {
  for (let i = 0; i < 25; i++) await ask(i);
};

test('a statement that is asked often is prepared, and answers each set of values as before', async () => {
  await onOneConnection(async (client) => {
    const text = 'select $1::int * 2 as twice, $2::text as label';
    await fc.assert(
      fc.asyncProperty(fc.integer({ min: -1e6, max: 1e6 }), fc.stringMatching(/^[ -~]*$/), async (n, label) => {
        expect((await client.query({ text }, [n, label])).rows).toEqual([{ twice: n * 2, label }]);
        const { rows } = await client.query({ text, rowMode: 'array' }, [n, label]);
        expect(rows).toEqual([[n * 2, label]]);
      }),
      { numRuns: 40 },
    );
    expect(await preparedOn(client)).toEqual([text]);
  });
});

test('what is rare, has no values, steers a transaction or has a name of its own is left as it is', async () => {
  await onOneConnection(async (client) => {
    await client.query({ text: 'select $1::int as rare' }, [1]);
    await often(async () => {
      await client.query('begin');
      await client.query({ text: 'select 1' }, []);
      await client.query('commit');
      await client.query({ text: 'select $1::int as own', name: 'mine' }, [1]);
    });
    const { rows } = await client.query<{ name: string }>('select name from pg_prepared_statements');
    expect(rows).toEqual([{ name: 'mine' }]);
  });
});

test('a statement that fails fails each time, in its transaction too, and answers again when it can', async () => {
  await onOneConnection(async (client) => {
    const divide = (by: number) => client.query({ text: 'select 10 / $1::int as share' }, [by]);
    await often((i) => (i % 2 ? expect(divide(0)).rejects.toThrow('division by zero') : divide(5)));
    await client.query('begin');
    await expect(divide(0)).rejects.toThrow('division by zero');
    await expect(divide(5)).rejects.toThrow('current transaction is aborted');
    await client.query('rollback');
    expect((await divide(5)).rows).toEqual([{ share: 2 }]);
  });
});

test('a table that gains a column goes on answering', async () => {
  await onOneConnection(async (client) => {
    await client.query('create temporary table growing (n int)');
    const ask = () => client.query({ text: 'select n from growing where n > $1' }, [0]);
    await often(ask);
    await client.query('alter table growing add column label text; insert into growing values (7, $$x$$)');
    expect((await ask()).rows).toEqual([{ n: 7 }]);
  });
});

test('questions and writes of drizzle are prepared on whatever connection they come, transactions included', async () => {
  const unitId = workshopId('unit', 'PL-14');
  const ask = () => test_.db.select({ id: fleetUnit.id }).from(fleetUnit).where(eq(fleetUnit.id, unitId));
  await often(async () => {
    expect(await ask()).toEqual([{ id: unitId }]);
    await test_.db.transaction(async (tx) => {
      await tx.insert(depot).values({ id: v7(), name: `Depot ${v7()}`, timeZone: 'UTC' });
    });
  });
  const statements = await test_.db.transaction(async (tx) => {
    const { rows } = await tx.execute<{ statement: string }>(sql`select statement from pg_prepared_statements`);
    return rows.map((r) => r.statement);
  });
  expect(statements).toContainEqual(expect.stringMatching(/^select "id" from "unit"/));
  expect(statements).toContainEqual(expect.stringMatching(/^insert into "depot"/));
});

/** A connection that notes what it is asked. */
function noting(): { client: pg.ClientBase; asked: readonly { readonly text: string; readonly name?: string }[] } {
  const asked: { readonly text: string; readonly name?: string }[] = [];
  const client = { query: (config: (typeof asked)[number]) => void asked.push(config) } as unknown as pg.ClientBase;
  new FrequentStatements().preparedBy(client);
  return { client, asked };
}

test('what comes again among thousands that come once is prepared; what has not come for long is forgotten', () => {
  const { client, asked } = noting();
  const ask = (kind: string): void => void client.query({ text: `select $1::int as ${kind}` }, [1]);
  for (let i = 0; i < 19; i++) ask('forgotten');
  for (let i = 0; i < 5_000; i++) {
    ask(`once_${i}`);
    if (i % 100 === 0) ask('again');
  }
  ask('forgotten');
  expect(asked.filter((c) => c.name).every((c) => c.text.endsWith('again'))).toBe(true);
  expect(asked.filter((c) => c.name)).toHaveLength(50 - 19);
});

test('no more than a hundred are prepared: every connection keeps each of them', () => {
  const { client: bare, asked } = noting();
  for (let kind = 0; kind < 150; kind++)
    for (let i = 0; i < 25; i++) void bare.query({ text: `select $1::int + ${kind}` }, [i]);
  expect(new Set(asked.flatMap((c) => c.name ?? [])).size).toBe(100);
});
